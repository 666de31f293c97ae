using System.Security.Cryptography;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Mixing;
using Wexel.Making.Storage;
using Wexel.Media.Mixing;
using Wexel.Media.Tools;

namespace Wexel.Making.Rendering;

/// <summary>The files of sounds: as they were given, and as they are listened to and mixed in.</summary>
/// <param name="store">Where both lie.</param>
public sealed class ShelfSounds(FileStore store)
{
    /// <summary>Takes a file in, under the hash of its bytes, and writes down beside it what it was measured to be.</summary>
    /// <param name="path">Where it lies; it is moved from there.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>What it is, or why it is not taken.</returns>
    public async Task<Result<(string Key, SoundFileFacts Facts)>> TakeAsync(string path, CancellationToken cancel)
    {
        if (!(await SoundFile.ReadAsync(path, cancel)).Is(out var facts, out var problem))
            return problem;
        string key;
        await using (var bytes = File.OpenRead(path))
            key = Convert.ToHexStringLower(await SHA256.HashDataAsync(bytes, cancel));
        var kept = store.Derived(key, MadeNames.GivenSound);
        Directory.CreateDirectory(Path.GetDirectoryName(kept)!);
        File.Move(path, kept, overwrite: true);
        await WholeFile.MakeAsync(store.Derived(key, MadeNames.GivenSoundFacts), temporary =>
            File.WriteAllTextAsync(temporary, WexelJson.Write(facts), cancel)
        );
        return (key, facts);
    }

    /// <summary>What a sound was measured to be; null where it is not here.</summary>
    /// <param name="key">What names it.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<SoundFileFacts?> FindAsync(string key, CancellationToken cancel) =>
        IsKey(key) && store.Has(key, MadeNames.GivenSoundFacts)
            ? WexelJson.Read<SoundFileFacts>(await File.ReadAllTextAsync(store.Derived(key, MadeNames.GivenSoundFacts), cancel))
            : null;

    /// <summary>Where a sound lies as it is listened to and mixed in; it is made where it does not yet.</summary>
    /// <param name="key">What names a sound that is here.</param>
    /// <param name="channels">How many channels it has.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">It cannot be read.</exception>
    public async Task<string> CopyAsync(string key, int channels, CancellationToken cancel)
    {
        var path = store.Derived(key, MadeNames.ShelfSound);
        await SoundFile.CopyAsync(store.Derived(key, MadeNames.GivenSound), channels, path, cancel);
        return path;
    }

    /// <summary>Whether a name is the hash of a file.</summary>
    public static bool IsKey(string key) => key.Length == 64 && key.All(char.IsAsciiHexDigitLower);
}
