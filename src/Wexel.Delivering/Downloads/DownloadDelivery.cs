using Wexel.Core;

namespace Wexel.Delivering.Downloads;

/// <summary>Nothing is put anywhere: somebody downloads what was made and takes it there.</summary>
public sealed class DownloadDelivery : IDelivery
{
    /// <summary>Its code.</summary>
    public const string Download = "download";

    /// <inheritdoc/>
    public string Code => Download;

    /// <inheritdoc/>
    public string Name => "Download it, and take it there";

    /// <inheritdoc/>
    public string? AskedFor => null;

    /// <inheritdoc/>
    public Problem? Unusable(string? to) => null;

    /// <inheritdoc/>
    public Task<Result<Delivered>> DeliverAsync(Parcel parcel, string to, IProgress<DeliveryStep> done, CancellationToken cancel) =>
        Task.FromResult<Result<Delivered>>(
            new Problem("outlet-without-address", $"“{parcel.Outlet}” has no address for packages. Download the package and import it there.")
        );
}
