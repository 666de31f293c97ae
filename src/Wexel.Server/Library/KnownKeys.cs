using System.Collections.Concurrent;

namespace Wexel.Server.Library;

/// <summary>What a revision of a lesson comes to with a profile, by name.</summary>
/// <param name="File">The key of the finished file.</param>
/// <param name="Tracks">The keys of what that is put together from.</param>
internal sealed record PlannedKeys(string File, IReadOnlyList<string> Tracks);

/// <summary>A lesson as it was saved once.</summary>
internal readonly record struct SavedLesson(Guid Lesson, int Revision);

/// <summary>The keys that were reckoned, for as long as what they follow from is the same. They are kept nowhere else: they can be reckoned again.</summary>
internal sealed class KnownKeys
{
    private readonly ConcurrentDictionary<SavedLesson, Reckoned> _all = new();

    /// <summary>What was reckoned of a saved lesson; null where nothing was, or where it does not hold any more.</summary>
    /// <param name="saved">The lesson as it was saved.</param>
    /// <param name="stamp">The stamp of its recordings and of the house's mark as they are now.</param>
    internal IReadOnlyDictionary<string, PlannedKeys?>? Find(SavedLesson saved, Func<IReadOnlyList<string>, string> stamp) =>
        _all.TryGetValue(saved, out var reckoned) && reckoned.Stamp == stamp(reckoned.Recordings) ? reckoned.Keys : null;

    /// <summary>Keeps what was reckoned.</summary>
    /// <param name="saved">The lesson as it was saved.</param>
    /// <param name="recordings">The hashes of its recordings.</param>
    /// <param name="stamp">The stamp of what it was reckoned from.</param>
    /// <param name="keys">By the profile's key; null where nothing can be planned yet.</param>
    internal void Keep(SavedLesson saved, IReadOnlyList<string> recordings, string stamp, IReadOnlyDictionary<string, PlannedKeys?> keys) =>
        _all[saved] = new Reckoned(recordings, stamp, keys);

    /// <summary>Forgets all but some.</summary>
    internal void KeepOnly(Func<SavedLesson, bool> those)
    {
        foreach (var saved in _all.Keys.Where(k => !those(k)))
            _all.TryRemove(saved, out _);
    }

    private sealed record Reckoned(IReadOnlyList<string> Recordings, string Stamp, IReadOnlyDictionary<string, PlannedKeys?> Keys);
}
