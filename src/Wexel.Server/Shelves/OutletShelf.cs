using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Details;
using Wexel.Core.Encoding;
using Wexel.Core.Outlets;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Shelves;

/// <summary>An outlet with what its kind says of it.</summary>
internal sealed class KnownOutlet(Outlet row, OutletKind kind)
{
    internal Outlet Row => row;

    internal OutletKind Kind => kind;

    internal OutletTerms Terms { get; } = kind.Terms(row.Settings);

    /// <summary>What is said about everything there.</summary>
    internal DetailSet Details { get; } = DetailShelf.Read(row.Details);

    /// <summary>As far as a release goes by it.</summary>
    internal OutletAtHand AtHand => new(Terms, kind.Details, Details, row.Feed?.ArtworkKey);

    /// <summary>The most that it takes: what its kind declares, and what somebody said, whichever is less.</summary>
    internal OutletLimits Limits =>
        new(row.Name, Least(row.MostBytes, Terms.Takes.MostBytes), Least(row.MostLength, Terms.Takes.MostLength), row.MostBitsPerSecond);

    private static T? Least<T>(T? said, T? declared)
        where T : struct, IComparable<T> => said is { } one && declared is { } other ? (one.CompareTo(other) < 0 ? one : other) : said ?? declared;

    /// <summary>The profile that is taken where nobody chooses another.</summary>
    internal string UsualProfile => row.ProfileId ?? Terms.Usual.Id;

    /// <summary>Why it would refuse what a profile makes, or null.</summary>
    internal Problem? Refusal(Profile profile) => Terms.Refusal(profile);
}

/// <summary>Finds outlets.</summary>
internal sealed class OutletShelf(WexelDb db, OutletKinds kinds)
{
    /// <summary>All outlets of kinds that are known, by the place of their kind and by name.</summary>
    internal async Task<IReadOnlyList<KnownOutlet>> AllAsync(CancellationToken cancel) =>
        [
            .. (await db.Outlets.AsNoTracking().Include(o => o.Feed!.Listings).ToListAsync(cancel))
                .Where(o => kinds.Find(o.Kind) is not null)
                .Select(Known)
                .OrderBy(p => p.Kind.Rank)
                .ThenBy(p => p.Row.Name, StringComparer.CurrentCulture),
        ];

    /// <summary>An outlet, which may be changed; null where there is none.</summary>
    internal async Task<KnownOutlet?> FindAsync(Guid id, CancellationToken cancel) =>
        await db.Outlets.Include(o => o.Feed!.Listings).FirstOrDefaultAsync(o => o.Id == id, cancel) is { } row && kinds.Find(row.Kind) is not null
            ? Known(row)
            : null;

    /// <summary>An outlet that was read.</summary>
    internal KnownOutlet Known(Outlet row) => new(row, kinds[row.Kind]);
}
