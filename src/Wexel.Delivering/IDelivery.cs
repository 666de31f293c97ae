using Wexel.Core;
using Wexel.Core.Outlets;

namespace Wexel.Delivering;

/// <summary>A way to put what was made where an outlet is: it puts what changed, removes what is gone, and says how far it is.</summary>
public interface IDelivery
{
    /// <summary>A name for programs; it never changes.</summary>
    string Code { get; }

    /// <summary>What it does, for whoever chooses it.</summary>
    string Name { get; }

    /// <summary>What is asked for where it puts things; null where it puts nothing anywhere.</summary>
    string? AskedFor { get; }

    /// <summary>What helps to say where; null for nothing.</summary>
    string? Hint => null;

    /// <summary>Why a place cannot be used, or null.</summary>
    /// <param name="to">Where things are to be put, as it was entered; null for nothing.</param>
    Problem? Unusable(string? to);

    /// <summary>The names that are taken at a place, as far as they can be seen from here.</summary>
    /// <param name="to">Where; <see cref="Unusable"/> has nothing against it.</param>
    IReadOnlyList<string> Names(string to) => [];

    /// <summary>Puts files and removes files. What could be done is told file by file, also where the rest fails.</summary>
    /// <param name="parcel">What is to be done.</param>
    /// <param name="to">Where; <see cref="Unusable"/> has nothing against it.</param>
    /// <param name="done">Told of each file that was put or removed.</param>
    /// <param name="cancel">Stops it between two files, or within one.</param>
    /// <returns>The page that the place named, where it named one; or what stood in the way.</returns>
    Task<Result<Delivered>> DeliverAsync(Parcel parcel, string to, IProgress<DeliveryStep> done, CancellationToken cancel);
}

/// <summary>What is to be put and removed.</summary>
/// <param name="Outlet">The outlet's name, for sentences.</param>
/// <param name="Put">The files; their paths are relative to the place.</param>
/// <param name="Remove">The paths of files that are to go.</param>
/// <param name="Processing">Told that the place has all of it and makes it ready; null where nobody asks.</param>
public sealed record Parcel(string Outlet, IReadOnlyList<ParcelFile> Put, IReadOnlyList<string> Remove, Func<CancellationToken, Task>? Processing = null);

/// <summary>A file that is to be put.</summary>
/// <param name="File">Its path at the place, and the key of what is in it.</param>
/// <param name="Open">Opens what is in it; it is read as it goes, since a file of a gigabyte is never in memory.</param>
/// <param name="MediaType">What it is; null for what its name says.</param>
public sealed record ParcelFile(DeliveredFile File, Func<Stream> Open, string? MediaType = null);

/// <summary>A file that was put or removed.</summary>
/// <param name="Path">Its path at the place.</param>
/// <param name="Key">The key of what is in it; null where it was removed.</param>
public sealed record DeliveryStep(string Path, string? Key);

/// <summary>What came of a delivery.</summary>
/// <param name="Page">The page that the place named; null where it named none.</param>
public sealed record Delivered(string? Page);

/// <summary>All deliveries that there are.</summary>
public sealed class Deliveries(IEnumerable<IDelivery> all)
{
    private readonly Dictionary<string, IDelivery> _all = all.ToDictionary(d => d.Code);

    /// <summary>A delivery by its code; null where there is none.</summary>
    public IDelivery? Find(string code) => _all.GetValueOrDefault(code);

    /// <summary>Those that have some codes, in their order.</summary>
    public IReadOnlyList<IDelivery> FindAll(IEnumerable<string> codes) => [.. codes.Select(Find).OfType<IDelivery>()];
}
