using Wexel.Core.Encoding;

namespace Wexel.Media.Tools;

/// <summary>The machine that this runs on.</summary>
public static class Machine
{
    /// <summary>How it is shared out among passes.</summary>
    public static MachineShare Share { get; } = MachineShare.Of(Environment.ProcessorCount, GC.GetGCMemoryInfo().TotalAvailableMemoryBytes);
}
