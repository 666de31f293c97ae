using Wexel.Core.Documents;
using Wexel.Core.Mixing;

namespace Wexel.Server.Shelves;

/// <summary>The sounds that come with Wexel, and where their files lie.</summary>
internal sealed class ShippedSounds
{
    /// <summary>The file that says what they are.</summary>
    internal const string List = "sounds.json";

    private readonly Lazy<Dictionary<string, (ShelvedSound Sound, string Path)>> _all = new(Read);

    /// <summary>All of them.</summary>
    internal IEnumerable<ShelvedSound> All => _all.Value.Values.Select(s => s.Sound);

    /// <summary>Where the file of one lies; null for another sound.</summary>
    internal string? Path(string key) => _all.Value.TryGetValue(key, out var known) ? known.Path : null;

    private static Dictionary<string, (ShelvedSound Sound, string Path)> Read()
    {
        var folder = System.IO.Path.Combine(AppContext.BaseDirectory, "sounds");
        return WexelJson
            .Read<IReadOnlyList<Shipped>>(File.ReadAllText(System.IO.Path.Combine(folder, List)))
            .ToDictionary(s => s.Shelved.Sound.Key, s => (s.Shelved, System.IO.Path.Combine(folder, s.File)));
    }

    /// <param name="File">Its file, beside the list.</param>
    /// <param name="Shelved">What it is.</param>
    private sealed record Shipped(string File, ShelvedSound Shelved);
}
