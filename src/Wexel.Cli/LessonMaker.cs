using System.Security.Cryptography;
using Wexel.Core;
using Wexel.Core.Cameras;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Keys;
using Wexel.Core.Kit;
using Wexel.Core.Lessons;
using Wexel.Core.Mixing;
using Wexel.Core.Packages;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Making;
using Wexel.Making.Lessons;
using Wexel.Making.Releasing;
using Wexel.Making.Rendering;
using Wexel.Making.Storage;
using Wexel.Media.Analysing;
using Wexel.Media.Measuring;
using Wexel.Media.Probing;

namespace Wexel.Cli;

/// <summary>A caption file, as a path, and the language that it is in; null for the lesson's own.</summary>
internal sealed record GivenCaptions(string Path, string? Language)
{
    /// <summary>Reads what was written: a path, or a language and a path as in es=captions.vtt.</summary>
    internal static GivenCaptions Read(string text) =>
        text.IndexOf('=', StringComparison.Ordinal) is > 0 and var at && LanguageTag.Parse(text[..at]) is { } language
            ? new GivenCaptions(text[(at + 1)..], language)
            : new GivenCaptions(text, null);
}

/// <summary>One lesson that is to be made: its recordings in their order with what belongs to it, as paths. A title that is not given is made from the
/// first recording's name. What a lesson file says of it stands in that.</summary>
internal sealed record LessonRequest(
    IReadOnlyList<string> Recordings,
    string? Title,
    string? Contents,
    IReadOnlyList<GivenCaptions> Captions,
    string? Cuts,
    string? MoveIns = null,
    string? Sound = null,
    string Language = LanguageTag.Usual,
    string? Canvas = null,
    string? Mark = null,
    string? Picture = null,
    LessonFile? File = null,
    DetailSet? Details = null,
    DetailSet? House = null,
    IReadOnlyList<(string Key, string Path)>? Shown = null,
    IReadOnlyList<(ShelfSound Sound, string Path)>? Sounds = null,
    IReadOnlyList<string>? Cameras = null
);

/// <summary>What was made of one with one profile.</summary>
internal sealed record MadeLesson(
    Profile Profile,
    PlannedRendition Planned,
    FinishedRendition Finished,
    IReadOnlyList<string> LeftOut,
    DateTimeOffset RecordedAt,
    LessonFile? File
)
{
    internal string Title => Planned.Lesson.Document.Title;

    /// <summary>What names it for good: the same recordings under the same title are the same lesson.</summary>
    internal string Id => File?.Id ?? MadeKey.Hash(Makers.LessonId, k => k.Add("title", Title).Each("recordings", Planned.Hashes))[..32];

    /// <summary>What it is in a package.</summary>
    internal Task<LessonSources> PackedAsync(Packer packer, CancellationToken cancel) =>
        packer.SourcesAsync(LearnerPage.Compose(Id, Planned, Planned.Lesson.Said), Planned, cancel);
}

/// <summary>Makes one lesson with each profile: reads what belongs to it, and has it made.</summary>
internal sealed class LessonMaker(
    IReadOnlyList<Profile> profiles,
    IReadOnlyDictionary<string, byte[]> marks,
    MakingFolders folders,
    Stopwatches times,
    Surroundings where
)
{
    /// <exception cref="UnusableInputException">The recording, the contents or the captions cannot be used.</exception>
    internal async Task<IReadOnlyList<MadeLesson>> MakeAsync(LessonRequest request, CancellationToken cancel)
    {
        var made = await MakeAsync(request, damaged: false, cancel);
        if (!made.Any(m => m.Planned.Plan.Picture?.Copy is not null && m.Finished.Check.Any(f => f is { Code: "decodes", Verdict: Verdict.Wrong })))
            return made;
        // Nobody has looked it through: that it is damaged shows in the copy.
        where.Error.WriteLine("The picture is damaged in places; it is encoded anew, and what was there is guessed.");
        return await MakeAsync(request, damaged: true, cancel);
    }

    private async Task<IReadOnlyList<MadeLesson>> MakeAsync(LessonRequest request, bool damaged, CancellationToken cancel)
    {
        await ShowAsync(request, cancel);
        await SoundAsync(request, cancel);
        await ProfileMarksAsync(cancel);
        var found = await FoundAsync(request, damaged, cancel);
        var (lesson, leftOut) = Read(request, found, await MarkAsync(request, cancel), await PictureAsync(request, cancel));
        var planned = new List<(Profile Profile, PlannedRendition Planned)>();
        foreach (var profile in profiles)
        {
            var (wanted, problem) = lesson.Wanted(profile);
            planned.Add((profile, wanted ?? throw new UnusableInputException(problem!.Sentence)));
        }

        var maker = new RenditionMaker(folders);
        await times.TakeAsync("encode", () =>
            maker.EncodeAsync([.. planned.Select(p => p.Planned)], new PercentOnError(planned[0].Planned.Plan.Length, where), null, cancel)
        );
        var made = new List<MadeLesson>();
        foreach (var (profile, one) in planned)
        {
            await times.TakeAsync("finish", () => maker.FinishAsync(one, cancel));
            made.Add(
                new MadeLesson(
                    profile,
                    one,
                    await times.TakeAsync("check", () => maker.CheckAsync(one, cancel)),
                    leftOut,
                    System.IO.File.GetLastWriteTimeUtc(request.Recordings[0]),
                    request.File
                )
            );
        }

        return made;
    }

    /// <summary>What is found of the recordings, as far as a render needs it.</summary>
    private async Task<LessonReel> FoundAsync(LessonRequest request, bool damaged, CancellationToken cancel)
    {
        var (hashes, recordings) = (new List<string>(), new List<(RecordingFacts Facts, SoundSides? Sides)>());
        foreach (var (index, recording) in request.Recordings.Index())
        {
            var hashed = times.TakeAsync("hash", () => HashAsync(recording, cancel));
            var probed = await times.TakeAsync("probe", () => Prober.ProbeAsync(recording, Path.GetFileName(recording), cancel));
            var facts = probed.Value ?? throw new UnusableInputException(probed.Problem!.Sentence);
            var pictured = damaged
                ? Task.FromResult(facts with { Picture = facts.Picture! with { Damaged = true } })
                : times.TakeAsync("probe", () => EvenFramesFinder.WithAsync(facts, recording, cancel));
            var heard = times.TakeAsync("listen", () => HeardAsync(facts, request.Sound, request.File?.Recordings[index].Sounds, recording, cancel));
            await Task.WhenAll(pictured, heard, hashed);
            (facts, var sides) = ((await heard).Facts with { Picture = (await pictured).Picture }, (await heard).Sides);
            if (SoundTracks.InWords(facts) is { } tracks)
                where.Error.WriteLine($"{Path.GetFileName(recording)}: {tracks}");
            if (facts.Subtitles is { Count: > 0 } inside && request.Captions.Count == 0)
                where.Error.WriteLine(
                    $"{Path.GetFileName(recording)}: there are captions inside "
                        + $"({string.Join(", ", inside.Select(s => s.Language ?? "language not stated"))}); take them out with “ffmpeg -i "
                        + $"RECORDING -map 0:s:{inside[0].Place} captions.vtt”, look them through, and give them with --captions."
                );
            if (request.File?.Recordings[index].Hash is { } said && said != await hashed)
                throw new UnusableInputException($"“{Path.GetFileName(recording)}” is not the recording that the lesson was made of: its bytes are others.");
            folders.Store.Lend(recording, await hashed);
            hashes.Add(await hashed);
            recordings.Add((facts, sides));
        }

        return new LessonReel(
            hashes,
            Reel.Of(recordings),
            [.. hashes.Select(_ => (RecordingAnalysis?)null)],
            IsReady: true,
            Listened: request.File?.Sounds.Count > 0 ? await ListenedAsync(request, recordings, cancel) : null,
            Cameras: await CamerasAsync(request, cancel),
            Changed: request.File is { Cameras.Count: > 0 } file && (file.CameraLook ?? CameraLook.Usual).KeepsClear
                ? await ChangedAsync(request, recordings, cancel)
                : null
        );
    }

    /// <summary>The cameras, by their hashes in their order.</summary>
    private async Task<IReadOnlyDictionary<string, RecordingFacts>> CamerasAsync(LessonRequest request, CancellationToken cancel)
    {
        var cameras = new OrderedDictionary<string, RecordingFacts>();
        foreach (var (path, said) in (request.Cameras ?? []).Zip(request.File?.Cameras ?? []))
        {
            var hash = await times.TakeAsync("hash", () => HashAsync(path, cancel));
            if (said.Hash is { } wanted && wanted != hash)
                throw new UnusableInputException(
                    $"“{Path.GetFileName(path)}” is not the camera’s recording that the lesson was made of: its bytes are others."
                );
            var (facts, problem) = await times.TakeAsync("probe", () => Prober.ProbeAsync(path, Path.GetFileName(path), cancel));
            folders.Store.Lend(path, hash);
            cameras[hash] = facts ?? throw new UnusableInputException(problem!.Sentence);
        }

        return cameras;
    }

    /// <summary>What changes on the screens, which cameras must not cover.</summary>
    private async Task<IReadOnlyList<byte[]?>> ChangedAsync(
        LessonRequest request,
        List<(RecordingFacts Facts, SoundSides? Sides)> recordings,
        CancellationToken cancel
    )
    {
        var changed = new List<byte[]?>();
        foreach (var (path, recording) in request.Recordings.Zip(recordings))
            changed.Add(await times.TakeAsync("look", () => RecordingAnalyser.ChangedAsync(recording.Facts, path, cancel)));
        return changed;
    }

    /// <summary>Where somebody speaks in the recordings, over whom sounds must not lie.</summary>
    private async Task<IReadOnlyList<RecordingAnalysis?>> ListenedAsync(
        LessonRequest request,
        List<(RecordingFacts Facts, SoundSides? Sides)> recordings,
        CancellationToken cancel
    )
    {
        var listened = new List<RecordingAnalysis?>();
        foreach (var (path, recording) in request.Recordings.Zip(recordings))
            listened.Add(await times.TakeAsync("listen", () => RecordingAnalyser.ListenAsync(recording.Facts, path, cancel)));
        return listened;
    }

    /// <summary>The lesson as a document, with its captions, and what of it no learner will see.</summary>
    private (LessonToMake Lesson, IReadOnlyList<string> LeftOut) Read(LessonRequest request, LessonReel found, MarkOnPicture? mark, string? picture)
    {
        var reel = found.Reel;
        var captions = request.Captions.Select(c => (c.Path, Language: c.Language ?? request.Language, Cues: Cue.Kind.WithNames(Captions(c.Path)))).ToList();
        var given = request.File?.Lesson(found.Hashes, [.. captions.Select(c => c.Cues)], picture, [.. found.Cameras?.Keys ?? []])
            ?? LessonWithCues.Of(
                new LessonDocument(
                    request.Title!,
                    request.Details?.Description ?? "",
                    request.Language,
                    found.Hashes[0],
                    Lines(request.Cuts, text => CutsText.Read(text, reel.Length)),
                    Contents(request.Contents),
                    [],
                    canvas: CanvasText.Read(request.Canvas),
                    moveIns: Lines(request.MoveIns, text => MoveInsText.Read(text, reel.Length)),
                    following: [.. found.Hashes.Skip(1)],
                    details: request.Details
                ),
                CaptionTrack
                    .WithNames([.. captions.Select(c => CaptionTrack.Of("", c.Cues, c.Language, Path.GetFileName(c.Path)))])
                    .Zip(captions, (track, c) => (track, c.Cues))
            );
        var document = LessonRules.Tidy(given.Document, reel.Length, reel.Grid);
        where.Error.WriteLine($"{document.Title}: {reel.Largest}, {TimeCode.Brief(reel.Length)}");
        var map = reel.Map(document.Cuts);
        if (LessonRules.Refusal(document, map) is { } refused)
            throw new UnusableInputException(refused.Sentence);
        if (LessonRules.Lacks(document) is [var lack, ..])
            throw new UnusableInputException(lack.Sentence);
        var leftOut = LeftOut.InWords(given, reel.Length, map);
        foreach (var sentence in leftOut)
            where.Error.WriteLine(sentence);
        var house = request.House ?? DetailSet.None;
        return (new LessonToMake(given with { Document = document }, found, document.HouseMark ? mark : null, house, request.File?.Proposed), leftOut);
    }

    /// <summary>The house's mark where one was given; it stands where it usually does, or where the lesson file says.</summary>
    private async Task<MarkOnPicture?> MarkAsync(LessonRequest request, CancellationToken cancel)
    {
        if (request.Mark is not { } path)
            return null;
        var (key, facts) = await GivenAsync(path, HouseMark.Wrong, MadeNames.Mark, cancel);
        return new MarkOnPicture(key, new PictureSize(facts.Width, facts.Height), request.File?.Mark?.Placement ?? MarkPlacement.Usual);
    }

    /// <summary>Takes in the marks that profiles bring.</summary>
    private async Task ProfileMarksAsync(CancellationToken cancel)
    {
        foreach (var (key, picture) in marks)
        {
            var path = folders.Store.Arriving();
            await System.IO.File.WriteAllBytesAsync(path, picture, cancel);
            if ((await GivenAsync(path, HouseMark.Wrong, MadeNames.Mark, cancel)).Key != key)
                throw new UnusableInputException("A profile holds another picture than the mark that it names.");
            System.IO.File.Delete(path);
        }
    }

    /// <summary>The key of the picture that was given for the lesson; null where none was.</summary>
    private async Task<string?> PictureAsync(LessonRequest request, CancellationToken cancel) =>
        request.Picture is { } path ? (await GivenAsync(path, LessonPicture.Wrong, MadeNames.GivenPicture, cancel)).Key : null;

    /// <summary>Takes in the pictures that stand with questions and notes.</summary>
    private async Task ShowAsync(LessonRequest request, CancellationToken cancel)
    {
        foreach (var (key, path) in request.Shown ?? [])
            if ((await GivenAsync(path, ShownPicture.Wrong, MadeNames.GivenPicture, cancel)).Key != key)
                throw new UnusableInputException($"“{path}” is another picture than the lesson names.");
    }

    /// <summary>Takes in the sounds that lie under the voice.</summary>
    private async Task SoundAsync(LessonRequest request, CancellationToken cancel)
    {
        var sounds = new ShelfSounds(folders.Store);
        foreach (var (sound, path) in request.Sounds ?? [])
        {
            if (!System.IO.File.Exists(path))
                throw new UnusableInputException($"“{path}” is not there: a sound that lies under the lesson’s voice.");
            var copy = folders.Store.Arriving();
            System.IO.File.Copy(path, copy, overwrite: true);
            if (!(await sounds.TakeAsync(copy, cancel)).Is(out var taken, out var problem))
                throw new UnusableInputException($"“{path}”: {problem.Sentence}");
            if (taken.Key != sound.Key)
                throw new UnusableInputException($"“{path}” is another sound than the lesson names.");
            await sounds.CopyAsync(sound.Key, sound.Channels, cancel);
        }
    }

    /// <summary>Takes a picture in that was given.</summary>
    private async Task<(string Key, ImageFacts Facts)> GivenAsync(
        string path,
        Func<ImageFacts, IReadOnlyList<Problem>> wrong,
        string name,
        CancellationToken cancel
    )
    {
        var facts = System.IO.File.Exists(path) ? await ArtworkMeasurer.MeasureAsync(path, cancel) : null;
        if (facts is null || wrong(facts) is [_, ..])
            throw new UnusableInputException(
                facts is null ? $"“{path}” is no picture that can be read." : string.Join(' ', wrong(facts).Select(w => w.Sentence))
            );
        var key = ImageFacts.Key(await HashAsync(path, cancel));
        var kept = folders.Store.Derived(key, name);
        Directory.CreateDirectory(Path.GetDirectoryName(kept)!);
        System.IO.File.Copy(path, kept, overwrite: true);
        return (key, facts);
    }

    private static async Task<string> HashAsync(string path, CancellationToken cancel)
    {
        await using var file = InputFile.Read(path, System.IO.File.OpenRead);
        return Convert.ToHexStringLower(await SHA256.HashDataAsync(file, cancel));
    }

    /// <summary>Which of a recording's sounds are taken, and which sides of them are heard.</summary>
    private static async Task<(RecordingFacts Facts, SoundSides? Sides)> HeardAsync(
        RecordingFacts facts,
        string? chosen,
        IReadOnlyList<int>? tracks,
        string recording,
        CancellationToken cancel
    )
    {
        if (tracks is not null && tracks.All(t => t >= 0 && t < facts.Sounds.Count))
            return (facts with { UsedSounds = tracks }, await RecordingAnalyser.SidesAsync(facts with { UsedSounds = tracks }, recording, cancel));
        facts =
            chosen is not null && facts.Sounds.Count > 0
                ? facts with
                {
                    UsedSounds = SoundTracks.Read(chosen, facts.Sounds.Count)
                        ?? throw new UnusableInputException(
                            $"“{Path.GetFileName(recording)}” has {facts.Sounds.Count} sound tracks; “{chosen}” names others. Write --sound 1, "
                                + $"--sound 1+2 or --sound all."
                        ),
                }
                : await SpokenTrackFinder.WithAsync(facts, recording, cancel);
        return (facts, await RecordingAnalyser.SidesAsync(facts, recording, cancel));
    }

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

    private IReadOnlyList<Cue> Captions(string path)
    {
        var reading = CaptionFile.Read(InputFile.Read(path, System.IO.File.ReadAllBytes));
        foreach (var problem in reading.Problems)
            where.Error.WriteLine(problem.Sentence);
        return reading.Cues.Count > 0 ? reading.Cues : throw new UnusableInputException(reading.Problems[0].Sentence);
    }
}
