using System.Globalization;

namespace Wexel.Media.Tools;

/// <summary>What a process that reads somebody's file may use: one made to use up a machine is ended before it does.</summary>
/// <param name="MemoryBytes">Memory that it may write to, in bytes.</param>
/// <param name="Processor">Processor time, over all its threads.</param>
/// <param name="Elapsed">Time on the clock, for what may wait for ever; null for any.</param>
public sealed record ChildLimits(long MemoryBytes, TimeSpan Processor, TimeSpan? Elapsed = null)
{
    /// <summary>How long a tool that was told that its time is over has to end by itself.</summary>
    private static readonly TimeSpan ToEnd = TimeSpan.FromSeconds(5);

    private const long Gigabyte = 1024L * 1024 * 1024;

    /// <summary>What every child may use at most: three quarters of the machine's memory, at least 2 GB, and two days of one processor.</summary>
    public static ChildLimits Usual { get; set; } = new(Math.Max(2 * Gigabyte, GC.GetGCMemoryInfo().TotalAvailableMemoryBytes / 4 * 3), TimeSpan.FromDays(2));

    /// <summary>What may be used on a single picture: 1 GB, and twenty seconds, in a minute.</summary>
    public static ChildLimits Picture => new(Math.Min(Gigabyte, Usual.MemoryBytes), TimeSpan.FromSeconds(20), TimeSpan.FromMinutes(1));

    /// <summary>The command that runs another in these limits, by prlimit(1) and timeout(1); it leaves no image of its memory behind.</summary>
    internal IReadOnlyList<string> Command =>
        [
            .. Elapsed is { } elapsed ? ["timeout", "--preserve-status", "--signal=KILL", Text(Seconds(elapsed))] : Array.Empty<string>(),
            "prlimit",
            $"--data={Text(MemoryBytes)}",
            $"--cpu={Text(Seconds(Processor))}:{Text(Seconds(Processor + ToEnd))}",
            "--core=0",
        ];

    /// <summary>
    /// Whether a process was ended for its time: by a signal, which ffmpeg may have taken for the wish that it ends in order (255), and after it can
    /// have used that much.
    /// </summary>
    /// <param name="exitCode">What it ended with.</param>
    /// <param name="took">How long it ran.</param>
    internal bool WereReached(int exitCode, TimeSpan took) => exitCode is > 128 && (took * Environment.ProcessorCount >= Processor || took >= Elapsed);

    private static long Seconds(TimeSpan time) => (long)Math.Ceiling(time.TotalSeconds);

    private static string Text(long number) => number.ToString(CultureInfo.InvariantCulture);
}
