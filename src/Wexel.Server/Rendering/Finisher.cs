using Microsoft.Extensions.Options;
using Wexel.Core.Contents;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Data.Storage;
using Wexel.Media.Measuring;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;
using Wexel.Server.Setup;

namespace Wexel.Server.Rendering;

/// <summary>A finished file with its check.</summary>
internal sealed record FinishedFile(string FileKey, long Bytes, IReadOnlyList<CheckedFact> Check, string Codecs);

/// <summary>Makes the file that learners get from what was encoded: title, chapters, captions, poster, and the check. Nothing is encoded.</summary>
internal sealed class Finisher(FileStore store, IOptions<WexelOptions> options)
{
    /// <param name="planned">The plan; everything is encoded.</param>
    /// <param name="title">The lesson's title.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task<FinishedFile> FinishAsync(PlannedRender planned, string title, CancellationToken cancel)
    {
        var (plan, sections) = (planned.Plan, planned.Sections);
        var key = planned.FileKey(title);
        var file = store.Derived(key, Finishing.FileName(plan.File.Container));
        var chapters = Chapters.Of(sections, plan.Length);
        // What a file is found to be does not change.
        var check = store.Derived(key, FileChecker.Checker.Replace('/', '-') + ".json");
        if (!Wholeness.Of(file))
        {
            if (File.Exists(check))
                File.Delete(check);
            await Finishing.FinishAsync(plan, planned.Tracks(store), file, title, chapters, cancel);
        }

        if (planned.PosterKey is { } posterKey && store.Derived(posterKey, PlannedRender.PosterName) is var poster && !Wholeness.Of(poster))
            await Finishing.PosterAsync(planned.Picture(store, 0), poster, plan.Length / 10, cancel);
        if (!File.Exists(check))
        {
            var found = await CheckAsync(planned, file, chapters.Count, cancel);
            await WholeFile.MakeAsync(check, temporary => File.WriteAllTextAsync(temporary, Json.Write(found with { FileKey = key }), cancel));
        }

        return Json.Read<FinishedFile>(await File.ReadAllTextAsync(check, cancel));
    }

    private async Task<FinishedFile> CheckAsync(PlannedRender planned, string file, int chapters, CancellationToken cancel)
    {
        var (plan, map, analysis) = (planned.Plan, planned.Map, planned.Analysis);
        var inputs = planned.Inputs(store, options.Value.PlayerFolder);
        if (plan.Sound is { } sound)
            await SoundComposer.ComposeAsync(sound, planned.Reel, map, inputs.Recordings, planned.Composed(store), cancel);
        var from = new MadeFrom(plan, inputs, plan.Sound is null ? null : planned.Composed(store), plan.Picture is null ? [] : ExpectedPicture.Frames(analysis.PictureMoments, map), ExpectedPicture.Still(analysis.Still, map));
        var found = await FileChecker.CheckAsync(file, from, chapters, cancel);
        return new FinishedFile("", found.Bytes, found.Check, found.Codecs);
    }
}
