using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Kit;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Analysing;
using Wexel.Media.Measuring;
using Wexel.Media.Probing;
using Wexel.Media.Rendering;

namespace Wexel.Media.Tests;

/// <summary>What came of making a lesson's video from a clip.</summary>
internal sealed record Made(string Path, RecordingFacts Source, RenderPlan Plan, RenditionFacts Measured, IReadOnlyList<CheckedFact> Check);

internal static class Making
{
    /// <summary>Without levelling, so that sounds can be compared with what they were.</summary>
    internal static Profile AsLoudAsRecorded { get; } = Profiles.Web with { TargetLufs = null };

    internal static Task<Made> MakeAsync(string source, string output, IReadOnlyList<Section>? sections = null, Profile? profile = null, IReadOnlyList<TimeRange>? cuts = null, string? mark = null, MarkOnPicture? markOn = null, Canvas? canvas = null, IReadOnlyList<MoveIn>? moveIns = null) =>
        MakeAsync([source], output, sections, profile, cuts, mark, markOn, canvas, moveIns);

    /// <summary>Probe, plan, put the sound together, encode, finish, measure, check: the way every lesson goes.</summary>
    internal static async Task<Made> MakeAsync(IReadOnlyList<string> sources, string output, IReadOnlyList<Section>? sections = null, Profile? profile = null, IReadOnlyList<TimeRange>? cuts = null, string? mark = null, MarkOnPicture? markOn = null, Canvas? canvas = null, IReadOnlyList<MoveIn>? moveIns = null)
    {
        sections ??= [];
        var cancel = TestContext.Current.CancellationToken;
        var recordings = new List<(RecordingFacts Facts, SoundSides? Sides)>();
        foreach (var source in sources)
        {
            var probed = await Prober.ProbeAsync(source, Path.GetFileName(source), cancel);
            var facts = probed.Facts ?? throw new InvalidOperationException(probed.Problem!.Sentence);
            recordings.Add((facts, await RecordingAnalyser.SidesAsync(facts, source, cancel)));
        }

        var reel = Reel.Of(recordings);
        var map = reel.Map(cuts ?? []);
        sections = WhatFollows.Sections(sections, map);
        var plan = RenderPlanner.Plan(reel, map, sections, profile ?? Profiles.Web, markOn, canvas, moveIns);
        var encode = output + ".encode.mp4";
        var sound = plan.Sound is null ? null : await LessonSound.MakeAsync(plan.Sound, reel, map, sources, output + ".flac", cancel);
        await Renderer.EncodeAsync(plan, new EncodeInputs(sources, sound, mark), encode, null, null, cancel);
        await Renderer.FinishAsync(encode, output, "A title = with; # marks\\", Chapters.Of(sections, plan.Length), cancel);
        var measured = await RenditionMeasurer.MeasureAsync(output, cancel);
        return new Made(output, recordings[0].Facts, plan, measured, FileCheck.Of(measured, plan, Chapters.Of(sections, plan.Length).Count));
    }

    internal static void ShouldBeRight(this Made made) =>
        made.Check.Where(f => f.Verdict == Verdict.Wrong).Select(f => $"{f.Fact}: {f.Measured}, not {f.Expected}").ShouldBeEmpty();
}
