using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Lessons;
using Wexel.Core.Packages;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Analysing;
using Wexel.Media.Measuring;
using Wexel.Media.Probing;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Cli;

/// <summary>One lesson that is to be made: its recordings in their order with what belongs to it, as paths. A title that is not given is made from the first recording's name.</summary>
internal sealed record LessonRequest(IReadOnlyList<string> Recordings, string? Title, string? Contents, string? Captions, string? Cuts, string? MoveIns = null, string? Sound = null, string Language = LanguageTag.Usual);

/// <summary>What was made of one with one profile.</summary>
internal sealed record MadeLesson(Profile Profile, LessonSources Sources, FinishInputs Tracks, IReadOnlyList<CheckedFact> Check, IReadOnlyList<string> LeftOut, bool Copied, string Codecs, bool HasSound, DateTimeOffset RecordedAt);

/// <summary>Makes the video, the poster and the player's data of one lesson, with each profile; all in one pass over the recordings.</summary>
internal sealed class LessonMaker(IReadOnlyList<Profile> profiles, string playerFolder, Stopwatches times, Surroundings where)
{
    /// <summary>How much of a lesson's picture changes where nobody has looked it through (see <see cref="RenderEstimator"/>).</summary>
    private const double UnknownChange = 0.3;

    /// <exception cref="UnusableInputException">The recording, the contents or the captions cannot be used.</exception>
    internal async Task<IReadOnlyList<MadeLesson>> MakeAsync(LessonRequest request, string work, CancellationToken cancel)
    {
        var made = await MakeAsync(request, damaged: false, work, cancel);
        if (!made.Any(m => m.Copied && m.Check.Any(f => f is { Code: "decodes", Verdict: Verdict.Wrong })))
            return made;
        // Nobody has looked it through: that it is damaged shows in the copy.
        where.Error.WriteLine("The picture is damaged in places; it is encoded anew, and what was there is guessed.");
        return await MakeAsync(request, damaged: true, work + "-again", cancel);
    }

    private async Task<IReadOnlyList<MadeLesson>> MakeAsync(LessonRequest request, bool damaged, string work, CancellationToken cancel)
    {
        var title = request.Title!;
        var recordings = new List<(RecordingFacts Facts, SoundSides? Sides)>();
        foreach (var recording in request.Recordings)
        {
            var probed = await times.TakeAsync("probe", () => Prober.ProbeAsync(recording, Path.GetFileName(recording), cancel));
            var facts = probed.Facts ?? throw new UnusableInputException(probed.Problem!.Sentence);
            var pictured = damaged ? Task.FromResult(facts with { Picture = facts.Picture! with { Damaged = true } }) : times.TakeAsync("probe", () => EvenFramesFinder.WithAsync(facts, recording, cancel));
            var heard = times.TakeAsync("listen", () => HeardAsync(facts, request.Sound, recording, cancel));
            await Task.WhenAll(pictured, heard);
            (facts, var sides) = ((await heard).Facts with { Picture = (await pictured).Picture }, (await heard).Sides);
            if (SoundTracks.InWords(facts) is { } tracks)
                where.Error.WriteLine($"{Path.GetFileName(recording)}: {tracks}");
            if (facts.Subtitles is { Count: > 0 } inside && request.Captions is null)
                where.Error.WriteLine($"{Path.GetFileName(recording)}: there are captions inside ({string.Join(", ", inside.Select(s => s.Language ?? "language not stated"))}); take them out with “ffmpeg -i RECORDING -map 0:s:{inside[0].Place} captions.vtt”, look them through, and give them with --captions.");
            recordings.Add((facts, sides));
        }

        var reel = Reel.Of(recordings);
        var given = Contents(request.Contents);
        var sections = SectionRules.Tidy(given, reel.Length);
        var cues = Captions(request.Captions);
        var cuts = Lines(request.Cuts, text => CutsText.Read(text, reel.Length));
        var moveIns = MoveInRules.Tidy(Lines(request.MoveIns, text => MoveInsText.Read(text, reel.Length)), reel.Length);

        where.Error.WriteLine($"{title}: {reel.Largest}, {TimeCode.Brief(reel.Length)}");
        var map = reel.Map(cuts);
        if ((CutRules.Refusal(cuts, map) ?? MoveInRules.Refusal(moveIns)) is { } refused)
            throw new UnusableInputException(refused.Sentence);
        var leftOut = LeftOut.Of(given, cues, reel.Length, map);
        foreach (var sentence in leftOut)
            where.Error.WriteLine(sentence);
        (sections, cues) = (WhatFollows.Sections(sections, map), WhatFollows.Cues(cues, map));
        var look = new LessonLook(sections, MoveIns: moveIns, Cues: cues);
        var wanted = new List<Wanted>();
        foreach (var profile in profiles)
        {
            if (new ProfileForLesson(reel, map, look, p => RenderEstimator.PictureBytes(p.Picture!, p.Length, reel, UnknownChange)).Of(profile).FirstOrDefault(f => f.IsFault) is { } fault)
                throw new UnusableInputException(fault.Sentence);
            var plan = RenderPlanner.Plan(reel, map, profile, look);
            wanted.Add(new Wanted(profile, plan, Tracks(plan, work, cues, request.Language)));
        }

        Directory.CreateDirectory(work);
        var sounds = Sounds(wanted, reel, map, request, work);
        var inputs = new EncodeInputs(request.Recordings, FontsFolder: Path.Combine(playerFolder, "fonts"));
        for (var rest = wanted[..]; rest.Count > 0;)
        {
            var together = rest[..Machine.Share.Together(rest.Select(w => w.Profile.MostPictures()))];
            rest = rest[together.Count..];
            var encodes = new EncodeWork(
                inputs,
                [.. together.SelectMany(w => w.Plan.Pictures.Zip(w.Tracks.Pictures, (picture, path) => new PictureOutput(picture, path, w.Plan.File.Bytes is { } bytes ? new FileLimit(bytes, w.Tracks.Sound) : null))).DistinctBy(p => p.Path).Where(p => !File.Exists(p.Path))],
                [.. together.Select(w => w.Tracks.Sound).OfType<string>().Distinct().Where(path => !File.Exists(path)).Select(path => sounds[path])]);
            await times.TakeAsync("encode", () => Encoder.EncodeAsync(encodes, new PercentOnError(wanted[0].Plan.Length, where), null, cancel));
        }

        var made = new List<MadeLesson>();
        foreach (var (profile, plan, tracks) in wanted)
        {
            var folder = Path.Combine(work, profile.Id);
            var file = Path.Combine(folder, Finishing.FileName(plan.File.Container));
            var poster = plan.Picture is null ? null : Path.Combine(folder, "poster.jpg");
            await times.TakeAsync("finish", async () =>
            {
                Directory.CreateDirectory(folder);
                await Task.WhenAll(
                    Finishing.FinishAsync(plan, tracks, file, title, Chapters.Of(sections, plan.Length), cancel),
                    poster is null ? Task.CompletedTask : Finishing.PosterAsync(tracks.Picture!, poster, plan.Length / 10, cancel));
            });
            var composed = plan.Sound is { } sound ? Composed(sound, work) : null;
            if (composed is not null)
                await times.TakeAsync("check", () => SoundComposer.ComposeAsync(plan.Sound!, reel, map, request.Recordings, composed, cancel));
            var found = await times.TakeAsync("check", () => FileChecker.CheckAsync(file, new MadeFrom(plan, inputs, composed, plan.Picture is null ? [] : ExpectedPicture.Frames([], map), null), sections.Count, cancel));
            var lesson = new PlayerLesson(
                DerivedKey.Of("web-lesson", title, found.Bytes)[..16], title, "", request.Language, plan.Length, plan.Picture?.Size.Width ?? 0, plan.Picture?.Size.Height ?? 0,
                "", null, sections, cues.Count == 0 || plan.Picture?.Captions is not null ? null : new PlayerCaptions(request.Language, cues));
            made.Add(new MadeLesson(profile, new LessonSources(lesson, file, poster, Finishing.Pieces(plan.File.Container, file)), tracks, found.Check, leftOut, plan.Picture?.Copy is not null, found.Codecs, plan.Sound is not null, File.GetLastWriteTimeUtc(request.Recordings[0])));
        }

        return made;
    }

    /// <summary>Which of a recording's sounds are taken, and which sides of them are heard.</summary>
    private static async Task<(RecordingFacts Facts, SoundSides? Sides)> HeardAsync(RecordingFacts facts, string? chosen, string recording, CancellationToken cancel)
    {
        facts = chosen is not null && facts.Sounds.Count > 0
            ? facts with { UsedSounds = SoundTracks.Read(chosen, facts.Sounds.Count) ?? throw new UnusableInputException($"“{Path.GetFileName(recording)}” has {facts.Sounds.Count} sound tracks; “{chosen}” names others. Write --sound 1, --sound 1+2 or --sound all.") }
            : await SpokenTrackFinder.WithAsync(facts, recording, cancel);
        return (facts, await RecordingAnalyser.SidesAsync(facts, recording, cancel));
    }

    private sealed record Wanted(Profile Profile, RenderPlan Plan, FinishInputs Tracks);

    /// <summary>What profiles have in common is encoded once: its path goes by what it is.</summary>
    private static FinishInputs Tracks(RenderPlan plan, string work, IReadOnlyList<Cue> cues, string language) => new(
        [.. plan.Pictures.Select(picture => Path.Combine(work, $"picture-{DerivedKey.Of("", picture, plan.File.Bytes)}.mp4"))],
        plan.Sound is null ? null : Path.Combine(work, $"{DerivedKey.Of("", plan.Sound)}-{SoundOutput.FileName(plan.Sound)}"),
        plan.File.CaptionsInside ? new CaptionsInside(WebVttText.Write(cues), language) : null);

    /// <summary>The sounds to encode or to copy by their paths; what comes together alike is put together once.</summary>
    private static Dictionary<string, SoundOutput> Sounds(IReadOnlyList<Wanted> wanted, Reel reel, TimeMap map, LessonRequest request, string work)
    {
        var sounds = new Dictionary<string, SoundOutput>();
        foreach (var (_, plan, tracks) in wanted)
        {
            if (plan.Sound is { } sound && tracks.Sound is { } path)
                sounds.TryAdd(path, new SoundOutput(sound, sound.Copy is null ? cancel => LessonSound.MakeAsync(sound, reel, map, request.Recordings, Composed(sound, work), cancel) : null, path));
        }

        return sounds;
    }

    private static string Composed(SoundPlan sound, string work) => Path.Combine(work, $"{DerivedKey.Of("", sound.Mixes, sound.Channels, sound.Tracks)}.flac");

    private static IReadOnlyList<Section> Contents(string? path)
    {
        if (path is null)
            return [];
        var reading = ContentsText.Read(InputFile.Text(path));
        if (reading.Problems.Count > 0)
            throw new UnusableInputException(reading.Problems[0].Sentence);
        return [.. reading.Lines.Select((line, i) => new Section($"s{i + 1}", line.At, line.Title, line.Nested))];
    }

    /// <summary>What stands in a file, a line each; the first line that cannot be read refuses it.</summary>
    private static IReadOnlyList<T> Lines<T>(string? path, Func<string, (IReadOnlyList<T> Read, IReadOnlyList<Problem> Problems)> read)
    {
        if (path is null)
            return [];
        var (things, problems) = read(InputFile.Text(path));
        return problems.Count == 0 ? things : throw new UnusableInputException(problems[0].Sentence);
    }

    private IReadOnlyList<Cue> Captions(string? path)
    {
        if (path is null)
            return [];
        var reading = CaptionFile.Read(InputFile.Read(path, File.ReadAllBytes));
        foreach (var problem in reading.Problems)
            where.Error.WriteLine(problem.Sentence);
        return reading.Cues.Count > 0 ? reading.Cues : throw new UnusableInputException(reading.Problems[0].Sentence);
    }
}
