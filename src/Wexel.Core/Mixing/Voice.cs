using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Mixing;

/// <summary>What is known of a lesson's voice, over which sounds must not lie.</summary>
/// <param name="Spoken">Where somebody speaks, in lesson time, in order and apart.</param>
/// <param name="Lufs">How loud, by ITU-R BS.1770-4, in LUFS; null where nobody does.</param>
/// <param name="TruePeak">Its greatest true peak, in dBTP; null where there is none.</param>
public sealed record Voice(IReadOnlyList<TimeRange> Spoken, double? Lufs, double? TruePeak)
{
    /// <summary>What the look-through found of it.</summary>
    /// <param name="reel">The recordings.</param>
    /// <param name="analyses">What was found of each; null where nobody looked.</param>
    /// <param name="map">The lesson's times.</param>
    /// <remarks>Of several recordings the softest voice counts: a sound that lies far enough under it lies far enough under the others.</remarks>
    public static Voice Of(Reel reel, IReadOnlyList<RecordingAnalysis?> analyses, TimeMap map)
    {
        var spoken = new List<TimeRange>();
        var heard = new List<Loudness>();
        for (var i = 0; i < reel.Parts.Count; i++)
        {
            if (analyses[i] is not { Levels: { CarriesSound: true } levels, Loudness: { Integrated: > Loudness.HardlyAnything } loudness })
                continue;
            var from = reel.SpanOf(i).Start;
            var here = levels.Heard(levels.Threshold).Select(h => map.ToLesson(new TimeRange(from + h.Start, from + h.End))).OfType<TimeRange>().ToList();
            if (here.Count == 0)
                continue;
            spoken.AddRange(here);
            heard.Add(loudness);
        }

        return new Voice(TimeRange.Union(spoken), heard.Min(l => l.Integrated), heard.Max(l => l.TruePeak));
    }
}
