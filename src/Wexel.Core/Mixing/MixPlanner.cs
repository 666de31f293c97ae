using Wexel.Core.Timing;

namespace Wexel.Core.Mixing;

/// <summary>Decides how sounds are mixed with a lesson's voice.</summary>
public static class MixPlanner
{
    /// <summary>How long two turns of a sound that is played again lie over each other, so that the joint does not click.</summary>
    public static readonly TimeSpan Joint = TimeSpan.FromMilliseconds(10);

    /// <summary>A sound does not come up in a pause in which it would hardly stay up: that long it would have to.</summary>
    private static readonly TimeSpan UpAtLeast = TimeSpan.FromSeconds(0.5);

    /// <summary>Where a fade and a turn down lie over each other the product is no straight line; it is made of short ones.</summary>
    private static readonly TimeSpan Step = TimeSpan.FromMilliseconds(20);

    /// <summary>How loud a lesson is taken to be in which nobody speaks, in LUFS.</summary>
    private const double NobodySpeaks = -16;

    /// <summary>The plan of what is laid under a lesson; null where nothing is.</summary>
    /// <param name="beds">In lesson time.</param>
    /// <param name="voice">What is known of the voice.</param>
    /// <param name="length">How long the lesson is.</param>
    public static UnderPlan? Plan(IReadOnlyList<SoundBed> beds, Voice voice, TimeSpan length)
    {
        List<(BedPlan Plan, double Peak)> plans =
        [
            .. beds.Select(b => b with { Span = new TimeRange(Whole(b.Span.Start), Whole(b.Span.End)).Within(length) })
                .Where(b => b.Ends > b.Span.Start)
                .OrderBy(b => b.Span.Start)
                .Select(b => (new BedPlan(b.Sound.Key, b.Sound.Channels, Pieces(b), Gains(b, voice)), Factor(b.Sound.TruePeak))),
        ];
        return plans.Count == 0 ? null : new UnderPlan([.. plans.Select(p => p.Plan)], Headroom(plans, voice.TruePeak is { } peak ? Factor(peak) : 0));
    }

    /// <summary>A level as a factor of amplitude.</summary>
    /// <param name="decibels">The level, in dB.</param>
    public static double Factor(double decibels) => Math.Pow(10, decibels / 20);

    /// <summary>What is played: once, or its bars again and again. The first turn begins with what stands before its first beat.</summary>
    private static List<PlayedPiece> Pieces(SoundBed bed)
    {
        var (from, turn) = bed.Sound.Loop;
        var (at, ends) = (bed.Span.Start, Whole(bed.Ends));
        if (!bed.Loops || turn <= Joint * 4)
            return [new PlayedPiece(at, TimeSpan.Zero, Earlier(ends - at, bed.Sound.Length), TimeSpan.Zero, TimeSpan.Zero)];
        var pieces = new List<PlayedPiece>();
        // A turn goes on into what follows its last bar, or the next begins with what precedes its first. Where there is neither, the sound was made to
        // be joined.
        var beyond = bed.Sound.Length - from - turn >= Joint ? Joint : TimeSpan.Zero;
        var early = beyond == TimeSpan.Zero && from >= Joint ? Joint : TimeSpan.Zero;
        var begins = TimeSpan.Zero;
        while (at < ends)
        {
            var next = Whole(bed.Span.Start + from + (turn * (pieces.Count + 1)));
            var (first, last) = (pieces.Count == 0, next >= ends);
            var lead = first ? TimeSpan.Zero : early;
            pieces.Add(
                new PlayedPiece(
                    at - lead,
                    begins - lead,
                    (last ? ends : next + beyond) - at + lead,
                    first ? TimeSpan.Zero : beyond + early,
                    last ? TimeSpan.Zero : beyond + early
                )
            );
            (at, begins) = (next, from);
        }

        return pieces;
    }

    private static List<GainPoint> Gains(SoundBed bed, Voice voice)
    {
        var (start, end) = (bed.Span.Start, Whole(bed.Ends));
        var full = Factor((voice.Lufs ?? NobodySpeaks) - bed.Apart + bed.Duck - bed.Sound.Lufs);
        var fades = Fades(bed, end - start);
        var ducks = Ducks(bed, voice.Spoken, end);
        var times = fades.Concat(ducks).Select(p => p.At).Where(at => at >= start && at <= end).Append(start).Append(end).Distinct().Order().ToList();
        var between = times.Zip(times.Skip(1)).SelectMany(t => Between(t.First, t.Second));
        return
        [
            .. times.Concat(between).Select(Whole).Distinct().Order().Select(at => new GainPoint(at, full * GainPoint.On(fades, at) * GainPoint.On(ducks, at))),
        ];

        IEnumerable<TimeSpan> Between(TimeSpan from, TimeSpan to) =>
            GainPoint.On(fades, from) == GainPoint.On(fades, to) || GainPoint.On(ducks, from) == GainPoint.On(ducks, to)
                ? []
                : Enumerable.Range(1, Math.Max(0, (int)Math.Ceiling((to - from) / Step) - 1)).Select(i => from + (Step * i));
    }

    /// <summary>Coming and going; where there is not room for both, each takes its share.</summary>
    private static List<GainPoint> Fades(SoundBed bed, TimeSpan length)
    {
        var both = bed.FadeIn + bed.FadeOut;
        var share = both > length ? length / both : 1;
        var (start, end) = (bed.Span.Start, bed.Span.Start + length);
        List<GainPoint> points = [];
        if (bed.FadeIn > TimeSpan.Zero)
            points.Add(new GainPoint(start, 0));
        points.Add(new GainPoint(start + (bed.FadeIn * share), 1));
        points.Add(new GainPoint(end - (bed.FadeOut * share), 1));
        if (bed.FadeOut > TimeSpan.Zero)
            points.Add(new GainPoint(end, 0));
        return points;
    }

    /// <summary>Down from where somebody begins to speak until they end, up where nobody does for long enough.</summary>
    private static List<GainPoint> Ducks(SoundBed bed, IReadOnlyList<TimeRange> spoken, TimeSpan end)
    {
        var down = Factor(-bed.Duck);
        var apart = bed.Attack + bed.Release + UpAtLeast;
        var points = new List<GainPoint>();
        var stretches = new List<TimeRange>();
        foreach (var said in spoken.Where(s => s.End + bed.Release > bed.Span.Start && s.Start - bed.Attack < end))
        {
            if (stretches.Count > 0 && said.Start - stretches[^1].End < apart)
                stretches[^1] = new TimeRange(stretches[^1].Start, said.End);
            else
                stretches.Add(said);
        }

        foreach (var said in stretches)
        {
            points.Add(new GainPoint(said.Start - bed.Attack, 1));
            points.Add(new GainPoint(said.Start, down));
            points.Add(new GainPoint(said.End, down));
            points.Add(new GainPoint(said.End + bed.Release, 1));
        }

        return points;
    }

    /// <summary>The greatest that all could come to together, were their peaks to fall on the same moment, is brought to full scale.</summary>
    private static double Headroom(List<(BedPlan Plan, double Peak)> beds, double voice)
    {
        var most = beds.SelectMany(b => b.Plan.Gains).Select(p => p.At).Distinct().Max(at => voice + beds.Sum(b => b.Plan.GainAt(at) * b.Peak));
        return most > Fullest ? Math.Round(Fullest / most, 4) : 1;
    }

    /// <summary>A little under full scale: peaks between samples are measured, and not known exactly.</summary>
    private const double Fullest = 0.98;

    /// <summary>Times are whole milliseconds, as they are written down, so that a plan that was read is the one that was made.</summary>
    private static TimeSpan Whole(TimeSpan time) => TimeSpan.FromMilliseconds(Math.Round(time.TotalMilliseconds));

    private static TimeSpan Earlier(TimeSpan a, TimeSpan b) => a < b ? a : b;
}
