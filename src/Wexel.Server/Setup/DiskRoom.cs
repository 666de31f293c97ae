using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Data.Storage;

namespace Wexel.Server.Setup;

/// <summary>Notices a full disk before work starts.</summary>
internal sealed class DiskRoom(FileStore store, IOptions<WexelOptions> options)
{
    /// <summary>The code of the problem.</summary>
    internal const string Full = "disk-full";

    /// <summary>Why there is no room for so many bytes; null when there is.</summary>
    internal Problem? Lacks(long bytes, string what)
    {
        var usable = store.FreeBytes - options.Value.KeepFree;
        return bytes <= usable ? null : new Problem(Full, $"There is no room for {what}: it needs {Megabytes(bytes)} MB and {Megabytes(Math.Max(0, usable))} MB are free. Free some room on the server's disk and try again.");
    }

    private static string Megabytes(long bytes) => (bytes / 1_000_000).ToString("N0", System.Globalization.CultureInfo.InvariantCulture);
}
