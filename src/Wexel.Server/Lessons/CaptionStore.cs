using System.Security.Cryptography;
using System.Text;
using Wexel.Core.Captions;
using Wexel.Core.Lessons;
using Wexel.Making.Storage;
using Wexel.Media.Tools;

namespace Wexel.Server.Lessons;

/// <summary>Keeps caption files by their hash.</summary>
internal static class CaptionStore
{
    private const string Name = "captions.vtt";

    internal static async Task<CaptionTrack> KeepAsync(FileStore store, string webVtt, string language, string fileName, CancellationToken cancel)
    {
        var hash = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(webVtt)));
        if (!store.Has(hash, Name))
            await WholeFile.MakeAsync(store.Derived(hash, Name), temporary => File.WriteAllTextAsync(temporary, webVtt, cancel));
        return new CaptionTrack(hash, language, fileName, WebVttText.Read(webVtt).Cues.Count);
    }

    /// <summary>The cues of a kept file; null where there is none of that hash.</summary>
    internal static async Task<IReadOnlyList<Cue>?> ReadAsync(FileStore store, string hash, CancellationToken cancel) =>
        hash.Length == 64 && hash.All(c => char.IsAsciiHexDigitLower(c)) && store.Has(hash, Name)
            ? WebVttText.Read(await File.ReadAllTextAsync(store.Derived(hash, Name), cancel)).Cues
            : null;
}
