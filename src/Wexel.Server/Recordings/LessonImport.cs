using Hangfire;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Documents;
using Wexel.Core.Kit;
using Wexel.Core.Lessons;
using Wexel.Core.Mixing;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Lessons;
using Wexel.Making.Rendering;
using Wexel.Making.Storage;
using Wexel.Media.Probing;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Recordings;

/// <summary>
/// Brings in a lesson file: a ZIP with all that it names, or the file alone where its recordings are here. It may die at any line and be run
/// again; what was unpacked lies where half-arrived files lie.
/// </summary>
internal sealed class LessonImport(
    WexelDb db,
    FileStore store,
    CaptionStore captions,
    NewLessons lessons,
    PictureTaker pictures,
    SoundShelf sounds,
    DiskRoom room,
    IBackgroundJobClient jobs,
    TimeProvider clock
)
{
    private const int LargestText = 16 * 1024 * 1024;

    /// <summary>Makes a lesson of what has come.</summary>
    /// <param name="upload">What has come.</param>
    /// <param name="path">Where it lies.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Why it cannot be used; null where it can.</returns>
    internal async Task<Problem?> TakeAsync(Upload upload, string path, CancellationToken cancel)
    {
        if (upload.ForLesson is not null)
            return new Problem(
                "lesson-file-for-lesson",
                $"“{upload.FileName}” is a lesson of its own and no recording. Bring it in from the list of lessons.",
                "file"
            );
        var folder = store.Arriving();
        try
        {
            var text = path;
            if (
                LessonFile.IsZip(upload.FileName)
                && !(await LessonArchive.UnpackAsync(path, upload.FileName, Directory.CreateDirectory(folder).FullName, room.Usable, cancel)).Is(
                    out text,
                    out var unpacked
                )
            )
                return unpacked;
            if (new FileInfo(text).Length > LargestText)
                return new Problem("lesson-file-unreadable", $"“{upload.FileName}” is no lesson file: it is too large for one.", "file");
            if (!LessonFile.Read(await File.ReadAllTextAsync(text, cancel)).Is(out var file, out var problem))
                return problem;
            return await TakeAsync(upload, file, text == path ? null : Path.GetDirectoryName(text)!, cancel);
        }
        finally
        {
            if (Directory.Exists(folder))
                Directory.Delete(folder, recursive: true);
        }
    }

    private async Task<Problem?> TakeAsync(Upload upload, LessonFile file, string? folder, CancellationToken cancel)
    {
        var (recordings, cues) = (new List<(string Hash, RecordingFacts Facts)>(), new List<IReadOnlyList<Cue>>());
        if (file.Recordings.Count > LessonReels.Most)
            return new Problem("reel-count", $"A lesson has 1 to {LessonReels.Most} recordings.", "recordings");
        // One that stands there several times is the same file.
        var known = new Dictionary<string, (string, RecordingFacts)>();
        foreach (var recording in file.Recordings)
        {
            if (!known.TryGetValue(recording.File, out var found))
            {
                if (!(await RecordingAsync(recording, folder, cancel)).Is(out found, out var problem))
                    return problem;
                known[recording.File] = found;
            }

            recordings.Add(found);
        }

        var cameras = new List<string>();
        foreach (var camera in file.Cameras ?? [])
        {
            if (!(await RecordingAsync(new LessonFile.Recording(camera.File, camera.Hash), folder, cancel)).Is(out var found, out var problem))
                return problem;
            cameras.Add(found.Hash);
        }

        foreach (var track in file.Captions ?? [])
        {
            if (!(await CuesAsync(track, folder, cancel)).Is(out var read, out var problem))
                return problem;
            cues.Add(read);
        }

        string? picture = null;
        if (file.Picture is { File: not null } given && !(await PictureAsync(given, folder, cancel)).Is(out picture, out var unusable))
            return unusable;
        var reel = Reel.Of([.. recordings.Select(r => (r.Facts, (SoundSides?)null))]);
        var lesson = file.Lesson([.. recordings.Select(r => r.Hash)], cues, picture, cameras);
        foreach (var key in lesson.Document.ShownPictures)
            if (await ShownAsync(key, folder, cancel) is { } lacking)
                return lacking;
        foreach (var sound in lesson.Document.ShelfSounds)
            if (await SoundAsync(sound, folder, cancel) is { } lacking)
                return lacking;
        var map = reel.Map(lesson.Document.Cuts);
        if (LanguageTag.Parse(lesson.Document.Language) is not { } language)
            return new Problem("lesson-no-language", $"“{Problem.Shown(lesson.Document.Language)}” is no language; write it such as en-GB.", "language");
        if (LessonRules.Refusal(lesson.Document, map) is { } refused)
            return refused;
        var document = LessonRules.Tidy(lesson.Document with { Language = language }, reel.Length, reel.Grid);
        await captions.KeepAsync(lesson, cancel);
        await lessons.AddAsync(
            upload,
            file.Id is { } id ? Guid.ParseExact(id, "N") : null,
            map.Length,
            title => title is null ? document : document with { Title = title },
            $"brought in from “{upload.FileName}”",
            cancel
        );
        foreach (var hash in document.AllRecordings)
            jobs.Enqueue<AnalysisJob>(job => job.RunAsync(hash, CancellationToken.None));
        return null;
    }

    /// <summary>Finds a recording among those that are here, or takes it from beside the file.</summary>
    private async Task<Result<(string Hash, RecordingFacts Facts)>> RecordingAsync(LessonFile.Recording recording, string? folder, CancellationToken cancel)
    {
        var path = Beside(folder, recording.File);
        var hash = path is null ? recording.Hash : await BringIn.HashAsync(path, cancel);
        if (recording.Hash is { } said && said != hash)
            return new Problem(
                "lesson-file-another",
                $"“{Problem.Shown(recording.File)}” is not the recording that the lesson was made of: its bytes are others.",
                "file"
            );
        if (hash is not null && await db.Recordings.FindAsync([hash], cancel) is { } known)
        {
            if (path is not null)
                store.Keep(path, hash);
            return (hash, WexelJson.Read<RecordingFacts>(known.Facts));
        }

        if (path is null)
            return new Problem(
                "lesson-file-lacks",
                $"The recording “{Problem.Shown(recording.File)}” is not here. Bring it in first, or bring in the ZIP, which holds it.",
                "file"
            );
        await using var one = await WorkHold.WaitAsync(db, $"bringing in {hash}", cancel);
        var name = Path.GetFileName(recording.File);
        if (!(await Prober.ProbeAsync(path, name, cancel)).Is(out var facts, out var problem))
            return problem;
        if (recording.Sounds is { Count: > 0 } sounds && sounds.All(s => s >= 0 && s < facts.Sounds.Count))
            facts = facts with { UsedSounds = [.. sounds.Distinct().Order()] };
        store.Keep(path, hash!);
        db.Recordings.Add(
            new Recording
            {
                Hash = hash!,
                FileName = name,
                Facts = WexelJson.Write(facts),
                BroughtInAt = clock.GetUtcNow(),
            }
        );
        await db.SaveChangesAsync(cancel);
        return (hash!, facts);
    }

    /// <summary>What captions say, from beside the file, or as they are kept here already.</summary>
    private async Task<Result<IReadOnlyList<Cue>>> CuesAsync(LessonFile.CaptionFile track, string? folder, CancellationToken cancel)
    {
        if (Beside(folder, track.File) is not { } path)
            return track.Hash is { } hash && await captions.ReadAsync(hash, cancel) is { } kept
                ? new Result<IReadOnlyList<Cue>>(kept)
                : new Problem("lesson-file-lacks", $"The captions “{Problem.Shown(track.File)}” are not here. Bring in the ZIP, which holds them.", "file");
        if (new FileInfo(path).Length > CaptionFile.LargestBytes)
            return new Problem("captions-too-large", $"“{Problem.Shown(track.File)}” is larger than 8 MB, so it is no caption file.", "file");
        var reading = CaptionFile.Read(await File.ReadAllBytesAsync(path, cancel));
        return reading.Problems.Count > 0 ? reading.Problems[0] with { Field = "file" } : new Result<IReadOnlyList<Cue>>(reading.Cues);
    }

    /// <summary>The key of the picture that somebody gave, from beside the file, or as it is kept here already.</summary>
    private async Task<Result<string>> PictureAsync(LessonFile.PictureFile picture, string? folder, CancellationToken cancel)
    {
        if (Beside(folder, picture.File!) is { } path)
        {
            await using var given = File.OpenRead(path);
            return (await pictures.TakeGivenAsync(given, cancel)).Is(out var taken, out var problem) ? taken.Key : problem with { Field = "file" };
        }

        return picture.Hash is { } key && store.Has(key, MadeNames.GivenPicture)
            ? key
            : new Problem("lesson-file-lacks", $"The picture “{Problem.Shown(picture.File!)}” is not here. Bring in the ZIP, which holds it.", "file");
    }

    /// <summary>Takes a picture of a question or a note from beside the file, or finds it here already; what keeps it from being taken, or null.</summary>
    private async Task<Problem?> ShownAsync(string key, string? folder, CancellationToken cancel)
    {
        if (ImageFacts.IsKey(key) && store.Has(key, MadeNames.GivenPicture))
            return null;
        if (!ImageFacts.IsKey(key) || Beside(folder, LessonFile.ShownPicture(key)) is not { } path)
            return new Problem("lesson-file-lacks", "A picture of a question or a note is not here. Bring in the ZIP, which holds it.", "file");
        await using var given = File.OpenRead(path);
        if (!(await pictures.TakeShownAsync(given, cancel)).Is(out var taken, out var problem))
            return problem with { Field = "file" };
        return taken.Key == key ? null : new Problem("lesson-file-another", "A picture of a question or a note is another than the lesson names.", "file");
    }

    /// <summary>Takes a sound from beside the file, or finds it here already; what keeps it from being taken, or null.</summary>
    private async Task<Problem?> SoundAsync(ShelfSound sound, string? folder, CancellationToken cancel)
    {
        if (await sounds.CopyAsync(sound.Key, cancel) is not null)
            return null;
        if (!ShelfSounds.IsKey(sound.Key) || Beside(folder, LessonFile.ShelfSound(sound.Key)) is not { } path)
            return new Problem("lesson-file-lacks", $"The sound “{Problem.Shown(sound.Title)}” is not here. Bring in the ZIP, which holds it.", "file");
        var arriving = store.Arriving();
        try
        {
            File.Copy(path, arriving, overwrite: true);
            if (!(await sounds.TakeAsync(arriving, cancel)).Is(out var taken, out var problem))
                return problem with { Field = "file" };
            return taken.Key == sound.Key
                ? null
                : new Problem("lesson-file-another", $"The sound “{Problem.Shown(sound.Title)}” is another than the lesson names.", "file");
        }
        finally
        {
            File.Delete(arriving);
        }
    }

    /// <summary>Where a file lies that was named; null where it is not there, or not in the folder.</summary>
    private static string? Beside(string? folder, string name) =>
        folder is not null
        && Path.GetFullPath(name, folder) is var path
        && path.StartsWith(folder + Path.DirectorySeparatorChar, StringComparison.Ordinal)
        && File.Exists(path)
            ? path
            : null;
}
