namespace Wexel.Core.Encoding;

/// <summary>How a machine is shared out among passes. A screen's pass keeps about four processors busy; more passes at once use the rest (common
/// practice, no source).</summary>
/// <param name="Passes">How many passes run at once; 1 or more.</param>
/// <param name="Threads">How many threads each encoder may take; 0 for as many as it likes, where a pass has the machine to itself.</param>
/// <param name="Pictures">How many pictures one pass encodes at the same time; 1 or more. What one rendition needs is never parted, even if it is more.</param>
public sealed record MachineShare(int Passes, int Threads, int Pictures)
{
    private const int ProcessorsAPass = 4;
    private const int MostPasses = 4;

    /// <summary>More pictures than this save little decoding, and all of them come late.</summary>
    private const int PicturesAProcessor = 2;

    /// <summary>What an encoder of full HD holds in memory, rounded up: 0.5 GB were seen with H.264 and the effort "smaller", less with the others.</summary>
    private const long BytesAPicture = 600_000_000;

    /// <summary>Half of the memory is left to decoders, the database and everything else.</summary>
    private const double ShareOfMemory = 0.5;

    /// <summary>The share of a machine.</summary>
    /// <param name="processors">How many processors it has; 1 or more.</param>
    /// <param name="memory">How much memory it has, in bytes.</param>
    public static MachineShare Of(int processors, long memory)
    {
        var passes = Math.Clamp(processors / ProcessorsAPass, 1, MostPasses);
        var pictures = Math.Min(processors * PicturesAProcessor, (long)(memory * ShareOfMemory / BytesAPicture)) / passes;
        return new MachineShare(passes, passes == 1 ? 0 : (processors + passes - 1) / passes, (int)Math.Max(1, pictures));
    }

    /// <summary>How many of the things that wait go into one pass: the first, and as many behind it as there is room for.</summary>
    /// <param name="pictures">How many pictures each needs, in their order.</param>
    public int Together(IEnumerable<int> pictures)
    {
        var (taken, sum, room) = (0, 0, Pictures);
        foreach (var needed in pictures.TakeWhile(needed => taken == 0 || sum + needed <= room))
            (taken, sum) = (taken + 1, sum + needed);
        return taken;
    }
}
