using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Lessons;
using Wexel.Making.Storage;
using Wexel.Media.Tools;

namespace Wexel.Server.Shelves;

/// <summary>Keeps what caption tracks say, each version of one in a file named by its hash.</summary>
/// <param name="store">Where.</param>
internal sealed class CaptionStore(FileStore store)
{
    /// <summary>Keeps a new track.</summary>
    /// <param name="cues">Its captions, as they were read.</param>
    /// <param name="language">As a BCP 47 tag.</param>
    /// <param name="fileName">Where they came from.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task<CaptionTrack> AddAsync(IReadOnlyList<Cue> cues, string language, string fileName, CancellationToken cancel)
    {
        var named = Cue.Kind.WithNames(cues);
        await KeepAsync(named, cancel);
        return CaptionTrack.Of(Guid.NewGuid().ToString("N")[..12], named, language, fileName);
    }

    /// <summary>Keeps what the tracks of a lesson say.</summary>
    internal async Task KeepAsync(LessonWithCues lesson, CancellationToken cancel)
    {
        foreach (var track in lesson.Document.Captions.Where(t => !Has(t.Hash)))
            await KeepAsync(lesson.CuesOf(track), cancel);
    }

    /// <summary>A lesson with what its tracks say.</summary>
    internal async Task<LessonWithCues> ReadAsync(LessonDocument document, CancellationToken cancel)
    {
        var files = new Dictionary<string, IReadOnlyList<Cue>>();
        foreach (var hash in document.Captions.Select(t => t.Hash).Distinct())
            files[hash] = await ReadAsync(hash, cancel) ?? [];
        return new LessonWithCues(document, files);
    }

    /// <summary>The cues of a kept file; null where there is none of that hash.</summary>
    internal async Task<IReadOnlyList<Cue>?> ReadAsync(string hash, CancellationToken cancel) =>
        Has(hash) ? WebVttText.Read(await File.ReadAllTextAsync(store.Captions(hash), cancel)).Cues : null;

    /// <summary>Why tracks cannot be taken, where what one says is not here; null where all is.</summary>
    internal Problem? Missing(IEnumerable<CaptionTrack> tracks) =>
        tracks.All(t => Has(t.Hash))
            ? null
            : new Problem("lesson-no-captions", "The lesson names captions that are not here. Add the caption file again.", "captions");

    /// <summary>Whether there is a file of that hash.</summary>
    internal bool Has(string hash) => hash.Length == 64 && hash.All(char.IsAsciiHexDigitLower) && File.Exists(store.Captions(hash));

    /// <summary>Keeps what a track says.</summary>
    /// <returns>The hash that names it.</returns>
    internal async Task<string> KeepAsync(IReadOnlyList<Cue> cues, CancellationToken cancel)
    {
        var hash = CaptionTrack.HashOf(cues);
        var path = store.Captions(hash);
        if (!File.Exists(path))
            await WholeFile.MakeAsync(path, temporary => File.WriteAllTextAsync(temporary, WebVttText.WriteKept(cues), cancel));
        return hash;
    }
}
