namespace Wexel.Core.Recordings;

/// <summary>What one pass over a recording found, kept by the recording's hash.</summary>
/// <param name="PictureMoments">The moments whose pictures were kept for the run sheet.</param>
/// <param name="ChangedShare">The share of samples (0 to 1) in which the picture changed; what the estimate goes by.</param>
/// <param name="Sides">The verdict over the first sound track; null without sound.</param>
/// <param name="PeaksPerSecond">How many peaks stand for a second.</param>
/// <param name="Peaks">The sound's peaks in order, each 0 to 100 % of full scale; empty without sound.</param>
public sealed record RecordingAnalysis(
    IReadOnlyList<TimeSpan> PictureMoments,
    double ChangedShare,
    SoundSides? Sides,
    int PeaksPerSecond,
    IReadOnlyList<int> Peaks);
