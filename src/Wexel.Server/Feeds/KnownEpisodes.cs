using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Feeds;
using Wexel.Data;

namespace Wexel.Server.Feeds;

/// <summary>
/// Remembers episodes as they were released: apps ask for a feed again and again, and of one of a thousand episodes most of the time went into
/// reading each anew. One that is released again has another time, and is read then.
/// </summary>
internal sealed class KnownEpisodes
{
    private const int Most = 20_000;

    private readonly ConcurrentDictionary<Guid, (DateTimeOffset ReleasedAt, Episode Episode)> _known = new();

    /// <summary>Finds the episodes of releases; one that is gone meanwhile is not among them.</summary>
    /// <param name="db">Where they are kept.</param>
    /// <param name="releases">The releases, each with when it was released last.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task<IReadOnlyDictionary<Guid, Episode>> FindAsync(
        WexelDb db,
        IReadOnlyList<(Guid Id, DateTimeOffset ReleasedAt)> releases,
        CancellationToken cancel
    )
    {
        var found = new Dictionary<Guid, Episode>(releases.Count);
        var unknown = new List<Guid>();
        foreach (var (id, at) in releases)
        {
            if (_known.TryGetValue(id, out var known) && known.ReleasedAt == at)
                found[id] = known.Episode;
            else
                unknown.Add(id);
        }

        if (unknown.Count == 0)
            return found;
        // Only what stands in the feed is read: captions would be most of a lesson's data.
        var rows = await db
            .Releases.AsNoTracking()
            .Where(r => unknown.Contains(r.Id) && r.Episode != null)
            .Select(r => new
            {
                r.Id,
                r.ReleasedAt,
                r.Episode,
            })
            .ToListAsync(cancel);
        if (_known.Count + rows.Count > Most)
            _known.Clear();
        foreach (var row in rows)
        {
            var episode = Episode.Format.Read(row.Episode!);
            _known[row.Id] = (row.ReleasedAt, episode);
            found[row.Id] = episode;
        }

        return found;
    }
}
