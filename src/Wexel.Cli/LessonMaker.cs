using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Packages;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Analysing;
using Wexel.Media.Measuring;
using Wexel.Media.Probing;
using Wexel.Media.Rendering;

namespace Wexel.Cli;

/// <summary>One lesson that is to be made: its recordings in their order with what belongs to it, as paths.</summary>
internal sealed record LessonRequest(IReadOnlyList<string> Recordings, string? Title, string? Contents, string? Captions, string? Cuts, string? MoveIns = null);

/// <summary>What was made of one.</summary>
internal sealed record MadeLesson(LessonSources Sources, IReadOnlyList<CheckedFact> Check, string Codecs, bool HasSound, DateTimeOffset RecordedAt);

/// <summary>Makes the video, the poster and the player's data of one lesson.</summary>
internal sealed class LessonMaker(Profile profile, Stopwatches times)
{
    /// <exception cref="UnusableInputException">The recording, the contents or the captions cannot be used.</exception>
    internal async Task<MadeLesson> MakeAsync(LessonRequest request, string work, CancellationToken cancel)
    {
        var name = Path.GetFileName(request.Recordings[0]);
        var recordings = new List<(RecordingFacts Facts, SoundSides? Sides)>();
        foreach (var recording in request.Recordings)
        {
            if (!File.Exists(recording))
                throw new UnusableInputException($"There is no file “{recording}”.");
            var probed = await times.TakeAsync("probe", () => Prober.ProbeAsync(recording, Path.GetFileName(recording), cancel));
            var facts = probed.Facts ?? throw new UnusableInputException(probed.Problem!.Sentence);
            recordings.Add((facts, await times.TakeAsync("listen", () => RecordingAnalyser.SidesAsync(facts, recording, cancel))));
        }

        var reel = Reel.Of(recordings);
        var title = SectionRules.OneLine(request.Title ?? TitleProposal.From(name) ?? "");
        if (title.Length == 0)
            throw new UnusableInputException($"The name “{name}” says nothing about the lesson; give it a title.");
        var sections = Contents(request.Contents, reel.Length);
        var cues = Captions(request.Captions);
        var cuts = Lines(request.Cuts, text => CutsText.Read(text, reel.Length));
        var moveIns = MoveInRules.Tidy(Lines(request.MoveIns, text => MoveInsText.Read(text, reel.Length)), reel.Length);

        Console.Error.WriteLine($"{title}: {reel.Largest}, {TimeCode.Brief(reel.Length)}");
        var map = reel.Map(cuts);
        if ((CutRules.Refusal(cuts, map) ?? MoveInRules.Refusal(moveIns)) is { } refused)
            throw new UnusableInputException(refused.Sentence);
        (sections, cues) = (WhatFollows.Sections(sections, map), WhatFollows.Cues(cues, map));
        var plan = RenderPlanner.Plan(reel, map, sections, profile, moveIns: moveIns);
        Directory.CreateDirectory(work);
        var sound = plan.Sound is null ? null : await times.TakeAsync("sound", () => LessonSound.MakeAsync(plan.Sound, reel, map, request.Recordings, Path.Combine(work, "sound.flac"), cancel));
        var encode = Path.Combine(work, "encode.mp4");
        await times.TakeAsync("encode", () => Renderer.EncodeAsync(plan, new EncodeInputs(request.Recordings, sound), encode, new PercentOnError(plan.Length), null, cancel));
        var video = Path.Combine(work, "finished.mp4");
        var poster = Path.Combine(work, "poster.jpg");
        await times.TakeAsync("finish", async () =>
        {
            await Renderer.FinishAsync(encode, video, title, Chapters.Of(sections, plan.Length), cancel);
            await Renderer.PosterAsync(video, poster, plan.Length / 10, cancel);
        });
        File.Delete(encode);
        var measured = await times.TakeAsync("check", () => RenditionMeasurer.MeasureAsync(video, cancel));
        var lesson = new PlayerLesson(
            DerivedKey.Of("web-lesson", title, measured.Bytes)[..16], title, "", "en", plan.Length, plan.Picture.Size.Width, plan.Picture.Size.Height,
            "", null, sections, cues.Count == 0 ? null : new PlayerCaptions("en", cues));
        return new MadeLesson(new LessonSources(lesson, video, poster), FileCheck.Of(measured, plan, sections.Count), measured.Codecs, plan.Sound is not null, File.GetLastWriteTimeUtc(request.Recordings[0]));
    }

    private static IReadOnlyList<Section> Contents(string? path, TimeSpan length)
    {
        if (path is null)
            return [];
        var reading = ContentsText.Read(InputFile.Read(path, File.ReadAllText));
        if (reading.Problems.Count > 0)
            throw new UnusableInputException(reading.Problems[0].Sentence);
        return SectionRules.Tidy(reading.Lines.Select((line, i) => new Section($"s{i + 1}", line.At, line.Title, line.Nested)), length);
    }

    /// <summary>What stands in a file, a line each; the first line that cannot be read refuses it.</summary>
    private static IReadOnlyList<T> Lines<T>(string? path, Func<string, (IReadOnlyList<T> Read, IReadOnlyList<Problem> Problems)> read)
    {
        if (path is null)
            return [];
        var (things, problems) = read(InputFile.Read(path, File.ReadAllText));
        return problems.Count == 0 ? things : throw new UnusableInputException(problems[0].Sentence);
    }

    private static IReadOnlyList<Cue> Captions(string? path)
    {
        if (path is null)
            return [];
        var reading = CaptionFile.Read(InputFile.Read(path, File.ReadAllBytes));
        foreach (var problem in reading.Problems)
            Console.Error.WriteLine(problem.Sentence);
        return reading.Cues.Count > 0 ? reading.Cues : throw new UnusableInputException(reading.Problems[0].Sentence);
    }
}
