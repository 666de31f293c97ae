using System.Text.Json.Serialization;
using Wexel.Core.Timing;

namespace Wexel.Core.Recordings;

/// <summary>What looking through a recording found, kept by the recording's hash.</summary>
/// <param name="LookedUntil">How far the picture has been looked through; null when all of it has been.</param>
/// <param name="PictureMoments">The moments whose pictures were kept for the run sheet.</param>
/// <param name="ChangedShare">The share of samples (0 to 1) in which the picture changed; what the estimate goes by.</param>
/// <param name="Still">The stretches in which the screen stands still, in order and apart.</param>
/// <param name="Scenes">The moments at which the whole picture changes at once.</param>
/// <param name="Borders">The black borders that stand all the way through; null where there are none.</param>
/// <param name="Sides">The verdict over the first sound track; null without sound.</param>
/// <param name="PeaksPerSecond">How many peaks stand for a second.</param>
/// <param name="Peaks">The sound's peaks in order, each 0 to 100 % of full scale; empty without sound.</param>
/// <param name="Levels">How loud the sound is from moment to moment; null without sound.</param>
/// <param name="Loudness">How loud the sound is as a whole; null without sound.</param>
/// <param name="Looks">What each of those pictures looks like; null where it was looked through before anybody asked.</param>
/// <param name="Damaged">Whether something of the picture could not be decoded.</param>
/// <param name="Changed">Where on the screen something changed, and when, see <see cref="ChangedFields.Pack"/>; null where it was looked through before
/// anybody asked.</param>
public sealed record RecordingAnalysis(
    TimeSpan? LookedUntil,
    IReadOnlyList<TimeSpan> PictureMoments,
    double ChangedShare,
    IReadOnlyList<TimeRange> Still,
    IReadOnlyList<TimeSpan> Scenes,
    PictureBorders? Borders,
    SoundSides? Sides,
    int PeaksPerSecond,
    IReadOnlyList<int> Peaks,
    SoundLevels? Levels,
    Loudness? Loudness,
    IReadOnlyList<PictureLook>? Looks = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool Damaged = false,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] byte[]? Changed = null
);

/// <summary>Loudness by ITU-R BS.1770-4 and EBU R 128; a sound of one channel is measured as played from both sides.</summary>
/// <param name="Integrated">Integrated loudness in LUFS; null where nothing reaches the gate of −70 LUFS.</param>
/// <param name="Range">Loudness range in LU, EBU Tech 3342.</param>
/// <param name="TruePeak">The greatest true peak in dBTP; null in digital silence.</param>
public sealed record Loudness(double? Integrated, double Range, double? TruePeak)
{
    /// <summary>Under this integrated loudness, in LUFS, there is hardly anything but noise: it is not made louder, and is no voice (common practice, no
    /// source).</summary>
    public const double HardlyAnything = -50;
}
