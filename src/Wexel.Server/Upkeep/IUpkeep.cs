namespace Wexel.Server.Upkeep;

/// <summary>Something that is seen to again and again while a server runs. Several servers may be at it at once.</summary>
internal interface IUpkeep
{
    /// <summary>How often.</summary>
    TimeSpan Every { get; }

    /// <summary>Sees to it.</summary>
    Task DoAsync(CancellationToken cancel);
}
