namespace Wexel.Core.Encoding;

/// <summary>How a machine's processors are shared out among passes. A screen's pass keeps about four of them busy; more passes at once use the rest (common practice, no source).</summary>
/// <param name="Passes">How many passes run at once; 1 or more.</param>
/// <param name="Threads">How many threads each encoder may take; 0 for as many as it likes, where a pass has the machine to itself.</param>
public readonly record struct MachineShare(int Passes, int Threads)
{
    private const int ProcessorsAPass = 4;
    private const int MostPasses = 4;

    /// <summary>The share of a machine.</summary>
    /// <param name="processors">How many processors it has; 1 or more.</param>
    public static MachineShare Of(int processors)
    {
        var passes = Math.Clamp(processors / ProcessorsAPass, 1, MostPasses);
        return new MachineShare(passes, passes == 1 ? 0 : (processors + passes - 1) / passes);
    }
}
