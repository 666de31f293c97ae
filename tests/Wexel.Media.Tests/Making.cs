using Wexel.Core.Cameras;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Kit;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Analysing;
using Wexel.Media.Measuring;
using Wexel.Media.Probing;
using Wexel.Media.Rendering;

namespace Wexel.Media.Tests;

/// <summary>What came of making a lesson's video from a clip.</summary>
/// <param name="From">What it was made from, and is held against.</param>
internal sealed record Made(string Path, RecordingFacts Source, RenderPlan Plan, RenditionFacts Measured, IReadOnlyList<CheckedFact> Check, MadeFrom From);

/// <summary>A camera over a clip.</summary>
internal sealed record Filmed(string Path, CameraClock Clock, CameraLook Look, params IReadOnlyList<CameraStretch> Stretches)
{
    internal async Task<CamerasOnPicture> OverAsync(
        string screen,
        Reel reel,
        TimeMap map,
        Canvas? canvas,
        IReadOnlyList<MoveIn> moveIns,
        CancellationToken cancel
    )
    {
        var probed = await Prober.ProbeAsync(Path, System.IO.Path.GetFileName(Path), cancel);
        var laid = new LaidCamera(0, new CameraTake("screen", "camera", Clock), probed.Value ?? throw new InvalidOperationException(probed.Problem!.Sentence));
        var facts = reel.Parts[0].Facts;
        var placement = CanvasPlacement.Of(facts.Picture!.ShownSize, Canvas.Under(reel, canvas, null), null);
        var on = Look.KeepsClear
            ? new ScreenOnPicture(reel, [ChangedFields.Unpack(await RecordingAnalyser.ChangedAsync(facts, screen, cancel))], [placement], moveIns)
            : null;
        return new CamerasOnPicture(Look, [laid], CameraPath.Of(Look, Stretches, [laid], reel, map, on));
    }
}

/// <summary>What came of making a folder of pieces from a clip.</summary>
internal sealed record MadeStream(string Path, RenderPlan Plan, CheckedFile Found, MadeFrom From);

internal static class Making
{
    /// <summary>The typeface of captions that are part of the picture.</summary>
    internal static string Fonts { get; } = Path.Combine(AppContext.BaseDirectory, "../../../../../artifacts/player/fonts");

    /// <summary>In which a first and a second track of captions are.</summary>
    private static readonly string[] Languages = ["en-GB", "es-ES"];

    /// <summary>Without levelling, so that sounds can be compared with what they were.</summary>
    internal static Profile AsLoudAsRecorded { get; } = Profiles.Web with { Sound = Profiles.Web.Sound! with { TargetLufs = null } };

    internal static Task<Made> MakeAsync(
        string source,
        string output,
        IReadOnlyList<Section>? sections = null,
        Profile? profile = null,
        IReadOnlyList<TimeRange>? cuts = null,
        string? mark = null,
        MarkOnPicture? markOn = null,
        Canvas? canvas = null,
        IReadOnlyList<MoveIn>? moveIns = null,
        IReadOnlyList<IReadOnlyList<Cue>>? captions = null,
        bool compared = false,
        bool copied = false,
        Filmed? camera = null
    ) => MakeAsync([source], output, sections, profile, cuts, mark, markOn, canvas, moveIns, captions, compared, copied, camera);

    /// <summary>Probe, plan, put the sound together, encode, finish, measure, check: the way every lesson goes.</summary>
    internal static async Task<Made> MakeAsync(
        IReadOnlyList<string> sources,
        string output,
        IReadOnlyList<Section>? sections = null,
        Profile? profile = null,
        IReadOnlyList<TimeRange>? cuts = null,
        string? mark = null,
        MarkOnPicture? markOn = null,
        Canvas? canvas = null,
        IReadOnlyList<MoveIn>? moveIns = null,
        IReadOnlyList<IReadOnlyList<Cue>>? captions = null,
        bool compared = false,
        bool copied = false,
        Filmed? camera = null
    )
    {
        var (source, from, chapters) = await FinishedAsync(
            sources,
            output,
            sections ?? [],
            profile ?? Profiles.Web,
            cuts,
            mark,
            markOn,
            canvas,
            moveIns,
            captions,
            compared,
            copied,
            camera
        );
        var (measured, expected, _) = await RenditionMeasurer.MeasureAsync(output, from, null, TestContext.Current.CancellationToken);
        return new Made(output, source, from.Plan, measured, FileCheck.Findings(measured, from.Plan, chapters, expected), from);
    }

    /// <summary>What tests hold files against does not hang on how long the encoder looks for a smaller one; whoever asks for more gets it.</summary>
    private static Profile Quick(Profile profile) =>
        profile.Picture is { Effort: Effort.Faster } picture ? profile with { Picture = picture with { Effort = Effort.Fastest } } : profile;

    /// <summary>The same with a profile that makes a folder of pieces.</summary>
    internal static async Task<MadeStream> MakeStreamAsync(
        string source,
        string folder,
        Profile profile,
        IReadOnlyList<Section>? sections = null,
        IReadOnlyList<IReadOnlyList<Cue>>? captions = null,
        bool compared = false
    )
    {
        var path = Path.Combine(folder, Muxing.FileName(profile.Container));
        var (_, from, chapters) = await FinishedAsync([source], path, sections ?? [], profile, null, null, null, null, null, captions, compared);
        return new MadeStream(path, from.Plan, await FileChecker.CheckAsync(path, from, chapters, null, TestContext.Current.CancellationToken), from);
    }

    /// <summary>The same facts, but so that nothing is copied.</summary>
    internal static RecordingFacts Encoded(RecordingFacts facts) => facts with { Sounds = [.. facts.Sounds.Select(s => s with { Start = null })] };

    private static async Task<(RecordingFacts Source, MadeFrom From, int Chapters)> FinishedAsync(
        IReadOnlyList<string> sources,
        string output,
        IReadOnlyList<Section> sections,
        Profile profile,
        IReadOnlyList<TimeRange>? cuts,
        string? mark,
        MarkOnPicture? markOn,
        Canvas? canvas,
        IReadOnlyList<MoveIn>? moveIns,
        IReadOnlyList<IReadOnlyList<Cue>>? captions,
        bool compared,
        bool copied = false,
        Filmed? camera = null
    )
    {
        var cancel = TestContext.Current.CancellationToken;
        var recordings = new List<(RecordingFacts Facts, SoundSides? Sides)>();
        foreach (var source in sources)
        {
            var probed = await Prober.ProbeAsync(source, Path.GetFileName(source), cancel);
            var facts = probed.Value ?? throw new InvalidOperationException(probed.Problem!.Sentence);
            // Most tests are about encoding; whoever wants to copy says so.
            facts = copied ? await EvenFramesFinder.WithAsync(facts, source, cancel) : Encoded(facts);
            facts = await SpokenTrackFinder.WithAsync(facts, source, cancel);
            recordings.Add((facts, await RecordingAnalyser.SidesAsync(facts, source, cancel)));
        }

        profile = Quick(profile);
        var reel = Reel.Of(recordings);
        var map = reel.Map(cuts ?? []);
        sections = Section.Kind.Following(sections, map);
        var over = camera is null ? null : await camera.OverAsync(sources[0], reel, map, canvas, moveIns ?? [], cancel);
        var plan = RenderPlanner.Plan(reel, map, profile, new LessonLook(sections, markOn, canvas, moveIns, Captions: captions, Camera: over));
        var inputs = new EncodeInputs(
            sources,
            markOn is null ? null : new Dictionary<string, string> { [markOn.Key] = mark! },
            Fonts,
            Cameras: camera is null ? null : new Dictionary<string, string> { ["camera"] = camera.Path }
        );
        var work = plan.File.Container == Container.Hls ? Path.GetDirectoryName(Path.GetDirectoryName(output))! + "/" : output + ".";
        var tracks = new MuxInputs(
            [.. plan.Pictures.Select((_, i) => $"{work}picture-{i}.mp4")],
            plan.Sound is null ? null : work + SoundOutput.FileName(plan.Sound),
            [
                .. (captions ?? [])
                    .Take(plan.File.CaptionTracks)
                    .Zip(Languages, (cues, language) => new CaptionsInside(language, WebVttText.Write(cues), language)),
            ]
        );
        var sound = plan.Sound is null ? null : await LessonSound.MakeAsync(plan.Sound, reel, map, new EncodeInputs(sources), work + "flac", cancel);
        await Encoder.EncodeAsync(
            new EncodeWork(
                inputs,
                [
                    .. plan.Pictures.Zip(tracks.Pictures, (picture, path) =>
                        new PictureOutput(picture, path, plan.File.Bytes is { } bytes ? new FileLimit(bytes, tracks.Sound) : null)
                    ),
                ],
                sound is null ? [] : [new SoundOutput(plan.Sound!, plan.Sound!.Copy is null ? _ => Task.FromResult(sound) : null, tracks.Sound!)]
            ),
            null,
            null,
            cancel
        );
        await Muxing.FinishAsync(plan, tracks, output, "A title = with; # marks\\", Chapters.FromSections(sections, plan.Length), null, cancel);
        // It is compared with its source only where that is what a test is about.
        var from = new MadeFrom(plan, inputs, sound?.Path, compared && plan.Picture is not null ? ExpectedPicture.Frames([], map) : [], compared ? [] : null);
        return (recordings[0].Facts, from, Chapters.FromSections(sections, plan.Length).Count);
    }

    internal static void ShouldBeRight(this Made made) =>
        made.Check.Where(f => f.Verdict == Verdict.Wrong).Select(f => $"{f.Fact}: {f.Measured}, not {f.Expected}").ShouldBeEmpty();
}
