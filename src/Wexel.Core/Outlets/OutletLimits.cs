using System.Globalization;
using Wexel.Core.Inspection;
using Wexel.Core.Timing;

namespace Wexel.Core.Outlets;

/// <summary>How much of a limit something takes.</summary>
/// <param name="Code">Which limit: <c>size</c>, <c>length</c> or <c>rate</c>.</param>
/// <param name="Sentence">The limit and how much of it is taken, for people.</param>
/// <param name="Share">How much, 1 for all of it.</param>
public sealed record LimitShare(string Code, string Sentence, double Share);

/// <summary>The most that an outlet takes; null where nobody said.</summary>
/// <param name="Outlet">The outlet's name.</param>
/// <param name="MostBytes">The largest file, in bytes.</param>
/// <param name="MostLength">The longest lesson.</param>
/// <param name="MostBitsPerSecond">The highest rate on average, in bits a second.</param>
public sealed record OutletLimits(string Outlet, long? MostBytes, TimeSpan? MostLength, long? MostBitsPerSecond)
{
    /// <summary>What somebody typed that cannot be a limit, or null.</summary>
    public Problem? Unusable() =>
        this switch
        {
            { MostBytes: <= 0 } => new Problem("limit-not-positive", "A limit of size must be over 0 MB; leave it empty for none.", "mostBytes"),
            { MostLength: { } length } when length <= TimeSpan.Zero => new Problem(
                "limit-not-positive",
                "A limit of length must be over 0 minutes; leave it empty for none.",
                "mostLength"
            ),
            { MostBitsPerSecond: <= 0 } => new Problem(
                "limit-not-positive",
                "A limit of the rate must be over 0 kbit/s; leave it empty for none.",
                "mostBitsPerSecond"
            ),
            _ => null,
        };

    /// <summary>How much of each limit a file takes.</summary>
    /// <param name="bytes">Its size, in bytes.</param>
    /// <param name="length">How long it is.</param>
    public IReadOnlyList<LimitShare> Shares(double bytes, TimeSpan length) =>
        [.. All(bytes, length).Select(l => new LimitShare(l.Code, $"{Percent(l.Share)} of the {l.Most} that {Outlet} takes", l.Share))];

    /// <summary>Facts for the check of a file that is to go there.</summary>
    /// <inheritdoc cref="Shares"/>
    public IReadOnlyList<CheckedFact> Check(long bytes, TimeSpan length) =>
        [
            .. All(bytes, length)
                .Select(l => new CheckedFact(
                    $"limit-{l.Code}-{Outlet}",
                    $"{l.Name} for {Outlet}",
                    l.Measured,
                    "at most " + l.Most,
                    l.Share <= 1 ? Verdict.Right : Verdict.Wrong
                )),
        ];

    private IEnumerable<(string Code, string Name, string Measured, string Most, double Share)> All(double bytes, TimeSpan length)
    {
        var rate = bytes * 8 / length.TotalSeconds;
        if (MostBytes is { } size)
            yield return ("size", "Size", Megabytes(bytes), Megabytes(size), bytes / size);
        if (MostLength is { } longest)
            yield return ("length", "Length", TimeCode.Brief(length), TimeCode.Brief(longest), length / longest);
        if (MostBitsPerSecond is { } highest)
            yield return ("rate", "Bit rate", Kilobits(rate), Kilobits(highest), rate / highest);
    }

    private static string Percent(double share) => share is > 0 and < 0.01 ? "under 1 %" : string.Create(CultureInfo.InvariantCulture, $"{share * 100:0} %");

    private static string Megabytes(double bytes) => string.Create(CultureInfo.InvariantCulture, $"{bytes / 1e6:0.##} MB");

    private static string Kilobits(double rate) => string.Create(CultureInfo.InvariantCulture, $"{rate / 1e3:#,0} kbit/s");
}
