using Wexel.Core.Recordings;

namespace Wexel.Media.Analysing;

/// <summary>The moments of a recording whose pictures are worth looking at in full size.</summary>
internal static class SeenMoments
{
    /// <summary>Whenever the picture has come to stand, and where it goes on changing, those that the run sheet shows; in order, on the samples'
    /// grid.</summary>
    /// <param name="analysis">What looking through it found.</param>
    /// <param name="perSecond">How many samples stand for a second.</param>
    internal static IReadOnlyList<TimeSpan> Find(RecordingAnalysis analysis, int perSecond) =>
        [
            .. analysis
                .PictureMoments.Concat(analysis.Still.Select(s => s.Start))
                .Select(t => (long)Math.Round(t.TotalSeconds * perSecond))
                .Distinct()
                .Order()
                .Select(n => TimeSpan.FromSeconds((double)n / perSecond)),
        ];
}
