namespace Wexel.Server.Shelves;

/// <summary>What waits for renditions.</summary>
internal interface IRenderCare
{
    /// <summary>Renditions of some lessons came to an end: they are done, failed, or were stopped.</summary>
    Task EndedAsync(IReadOnlyCollection<Guid> lessons, CancellationToken cancel);
}
