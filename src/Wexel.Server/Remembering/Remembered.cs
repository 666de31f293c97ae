using System.Collections.Concurrent;

namespace Wexel.Server.Remembering;

/// <summary>Remembers for some seconds what is asked for again and again, as long as no table changes that it comes from.</summary>
/// <param name="changes">Tells of changes.</param>
/// <param name="clock">The clock.</param>
/// <param name="tables">The tables that it comes from.</param>
internal sealed class Remembered<T>(Changes changes, TimeProvider clock, params string[] tables)
    where T : class
{
    private const int Most = 10_000;

    private static readonly TimeSpan For = TimeSpan.FromSeconds(5);

    private readonly ConcurrentDictionary<string, (T? Value, long Version, long At)> _known = new();

    /// <summary>What is known under a key, or what is found now; null is known too.</summary>
    internal async Task<T?> FindAsync(string key, Func<CancellationToken, Task<T?>> find, CancellationToken cancel)
    {
        // As it was before it was looked for: what changes meanwhile is not remembered as it was.
        if (Version() is not { } version)
            return await find(cancel);
        if (_known.TryGetValue(key, out var known) && known.Version == version && clock.GetElapsedTime(known.At) < For)
            return known.Value;
        var at = clock.GetTimestamp();
        var found = await find(cancel);
        if (_known.Count >= Most)
            _known.Clear();
        _known[key] = (found, version, at);
        return found;
    }

    private long? Version()
    {
        var sum = 0L;
        foreach (var table in tables)
        {
            if (changes.Version(table) is not { } version)
                return null;
            sum += version;
        }

        return sum;
    }
}
