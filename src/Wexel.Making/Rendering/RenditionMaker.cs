using Wexel.Core.Documents;
using Wexel.Core.Inspection;
using Wexel.Making.Lessons;
using Wexel.Making.Storage;
using Wexel.Media.Measuring;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Making.Rendering;

/// <summary>A finished file with its check.</summary>
/// <param name="FileKey">The key under which it lies.</param>
/// <param name="Bytes">Its size, in bytes; of a folder of pieces, that of all of them.</param>
/// <param name="Check">What it was found to be.</param>
/// <param name="Codecs">What it is coded in, as RFC 6381 writes it.</param>
public sealed record FinishedRendition(string FileKey, long Bytes, IReadOnlyList<CheckedFact> Check, string Codecs);

/// <summary>Makes renditions of one lesson: what is not encoded yet in as few passes as the machine carries, then each finished and checked.</summary>
/// <param name="folders">Where.</param>
public sealed class RenditionMaker(MakingFolders folders)
{
    /// <summary>Encodes what is not encoded yet.</summary>
    /// <param name="planned">Renditions of the same lesson.</param>
    /// <param name="progress">Told the time in the lesson that was reached.</param>
    /// <param name="started">Told the number of each encoder's process, so that it can be found if its parent dies.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The encoder ended with an error.</exception>
    public async Task EncodeAsync(IReadOnlyList<PlannedRendition> planned, IProgress<TimeSpan>? progress, Action<int>? started, CancellationToken cancel)
    {
        for (var rest = planned.ToList(); rest.Count > 0; )
        {
            var together = rest[..Machine.Share.Together(rest.Select(p => p.Plan.Pictures.Count))];
            rest = rest[together.Count..];
            await PassAsync(together, progress, started, cancel);
        }
    }

    private async Task PassAsync(List<PlannedRendition> planned, IProgress<TimeSpan>? progress, Action<int>? started, CancellationToken cancel)
    {
        var store = folders.Store;
        var (pictures, sounds) = (new Dictionary<string, PictureOutput>(), new Dictionary<string, SoundOutput>());
        foreach (var one in planned)
        {
            if (one.Plan.Sound is { } plan && one.Sound(store) is { } path && !Wholeness.IsWhole(path))
                sounds.TryAdd(
                    path,
                    new SoundOutput(
                        plan,
                        plan.Copy is null ? stop => LessonSound.MakeAsync(plan, one.Reel, one.Map, one.Inputs(folders), one.Composed(store), stop) : null,
                        path
                    )
                );
            foreach (var (index, picture) in one.Plan.Pictures.Index())
            {
                if (one.Picture(store, index) is var to && !Wholeness.IsWhole(to))
                    pictures.TryAdd(to, new PictureOutput(picture, to, one.Plan.File.Bytes is { } most ? new FileLimit(most, one.Sound(store)) : null));
            }
        }

        if (pictures.Count == 0 && sounds.Count == 0)
            return;
        // All are of one lesson; they differ in their marks alone.
        var marks = planned.SelectMany(p => PlannedRendition.Marks(p.Plan, folders)).DistinctBy(mark => mark.Key).ToDictionary();
        var inputs = planned[0].Inputs(folders) with { Marks = marks };
        await Encoder.EncodeAsync(new EncodeWork(inputs, [.. pictures.Values], [.. sounds.Values], Machine.Share.Threads), progress, started, cancel);
    }

    /// <summary>Makes the file that learners get from what was encoded: title, chapters, captions. What is there is not made again. Nothing is
    /// encoded.</summary>
    /// <param name="planned">What is finished; everything of it is encoded.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The muxer ended with an error.</exception>
    public async Task FinishAsync(PlannedRendition planned, CancellationToken cancel)
    {
        var file = planned.File(folders.Store);
        if (!Wholeness.IsWhole(file))
        {
            if (File.Exists(CheckPath(planned.FileKey)))
                File.Delete(CheckPath(planned.FileKey));
            await Muxing.FinishAsync(
                planned.Plan,
                planned.MuxInputs(folders.Store),
                file,
                planned.Lesson.Document.Title,
                planned.Chapters,
                planned.Tags,
                cancel
            );
        }
    }

    /// <summary>Checks a finished file; what one is found to be does not change, and is kept beside it.</summary>
    /// <param name="planned">What was finished.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The file cannot be read at all.</exception>
    public async Task<FinishedRendition> CheckAsync(PlannedRendition planned, CancellationToken cancel)
    {
        var check = CheckPath(planned.FileKey);
        if (!File.Exists(check))
        {
            var (plan, map, store, inputs) = (planned.Plan, planned.Map, folders.Store, planned.Inputs(folders));
            var kept = store.Derived(planned.Keys.Pictures is [var first, ..] ? first : planned.Keys.Sound!, MadeNames.Seen(planned.Keys.Encodes));
            var before = File.Exists(kept) ? SeenAndHeard.Read(await File.ReadAllTextAsync(kept, cancel)) : null;
            if (plan.Sound is { } sound)
                await SoundComposer.ComposeAsync(sound, planned.Reel, map, inputs, planned.Composed(store), cancel);
            var moments = plan.Picture is null ? [] : ExpectedPicture.Frames(planned.Lesson.Found.Analysis?.PictureMoments ?? [], map);
            var from = new MadeFrom(plan, inputs, plan.Sound is null ? null : planned.Composed(store), moments, planned.Still);
            var found = await FileChecker.CheckAsync(planned.File(store), from, planned.Chapters.Count, before, cancel);
            if (found.Seen is { } seen && seen != before)
                await WholeFile.MakeAsync(kept, temporary => File.WriteAllTextAsync(temporary, seen.Text(), cancel));
            await WholeFile.MakeAsync(check, temporary =>
                File.WriteAllTextAsync(temporary, WexelJson.Write(new FinishedRendition(planned.FileKey, found.Bytes, found.Check, found.Codecs)), cancel)
            );
        }

        return WexelJson.Read<FinishedRendition>(await File.ReadAllTextAsync(check, cancel));
    }

    /// <summary>Whether a finished file was checked.</summary>
    /// <param name="fileKey">The key under which it lies.</param>
    public bool IsChecked(string fileKey) => File.Exists(CheckPath(fileKey));

    private string CheckPath(string fileKey) => folders.Store.Derived(fileKey, FileChecker.Checker.Replace('/', '-') + ".json");
}
