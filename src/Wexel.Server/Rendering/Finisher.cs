using Wexel.Core;
using Wexel.Core.Contents;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Data.Storage;
using Wexel.Media.Measuring;
using Wexel.Media.Rendering;

namespace Wexel.Server.Rendering;

/// <summary>A finished file with its check.</summary>
internal sealed record FinishedFile(string FileKey, long Bytes, IReadOnlyList<CheckedFact> Check, string Codecs);

/// <summary>Makes the file that learners get from an encode: title, chapters, poster, and the check. Nothing is encoded.</summary>
internal sealed class Finisher(FileStore store)
{
    internal const string VideoName = "lesson.mp4";
    internal const string PosterName = "poster.jpg";

    /// <param name="encodeKey">The encode's key.</param>
    /// <param name="plan">The plan that it was made by.</param>
    /// <param name="title">The lesson's title.</param>
    /// <param name="sections">The contents, in lesson time.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task<FinishedFile> FinishAsync(string encodeKey, RenderPlan plan, string title, IReadOnlyList<Section> sections, CancellationToken cancel)
    {
        var key = DerivedKey.Of(Renderer.FinishMaker, encodeKey, title, sections.Select(s => new { s.At, s.Title }));
        var encode = store.Derived(encodeKey, RenderJob.EncodeName);
        var video = store.Derived(key, VideoName);
        var poster = store.Derived(encodeKey, PosterName);
        var chapters = Chapters.Of(sections, plan.Length);
        if (!File.Exists(video))
            await Renderer.FinishAsync(encode, video, title, chapters, cancel);
        if (!File.Exists(poster))
            await Renderer.PosterAsync(encode, poster, plan.Length / 10, cancel);
        var measured = await RenditionMeasurer.MeasureAsync(video, cancel);
        return new FinishedFile(key, measured.Bytes, FileCheck.Of(measured, plan, chapters.Count), measured.Codecs);
    }
}
