namespace Wexel.Core.Recordings;

/// <summary>How much the picture differs from the sample before it.</summary>
/// <param name="At">The sample's time in the recording.</param>
/// <param name="Change">Mean absolute difference of brightness, 0 (the same) to 1 (black to white everywhere).</param>
public readonly record struct PictureChange(TimeSpan At, double Change);

/// <summary>Chooses the moments whose pictures stand in the run sheet.</summary>
public static class PictureMoments
{
    /// <summary>The change from which a sample counts as a new picture (common practice, no source): about a hundredth of the screen repainted.</summary>
    public const double NewPicture = 0.004;

    private static readonly TimeSpan Closest = TimeSpan.FromSeconds(2);
    private static readonly TimeSpan Farthest = TimeSpan.FromSeconds(10);

    /// <summary>
    /// One moment at the start, then one where the picture has changed since the last chosen one, at least 2 s apart,
    /// and one every 10 s where it stands still. Times are in the recording, in order.
    /// </summary>
    /// <param name="changes">Samples in order of time, evenly spaced.</param>
    public static IReadOnlyList<TimeSpan> Choose(IReadOnlyList<PictureChange> changes)
    {
        var chosen = new List<TimeSpan>();
        var changed = 0.0;
        foreach (var sample in changes)
        {
            changed += sample.Change;
            var since = chosen.Count == 0 ? TimeSpan.MaxValue : sample.At - chosen[^1];
            if (chosen.Count > 0 && (since < Closest || (changed < NewPicture && since < Farthest)))
                continue;
            chosen.Add(sample.At);
            changed = 0;
        }

        return chosen;
    }
}
