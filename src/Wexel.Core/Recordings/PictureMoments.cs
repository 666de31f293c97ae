namespace Wexel.Core.Recordings;

/// <summary>How much the picture differs from the sample before it.</summary>
/// <param name="At">The sample's time in the recording.</param>
/// <param name="Change">Mean absolute difference of brightness, 0 (the same) to 1 (black to white everywhere).</param>
public readonly record struct PictureChange(TimeSpan At, double Change);

/// <summary>
/// Chooses the moments whose pictures stand in the run sheet: one at the start, then one where the picture has changed since the last
/// chosen one, at least 2 s apart, and one every 10 s where it stands still.
/// </summary>
public sealed class PictureMoments
{
    /// <summary>The change from which a sample counts as a new picture (common practice, no source): about a hundredth of the screen repainted.</summary>
    public const double NewPicture = 0.004;

    private static readonly TimeSpan Closest = TimeSpan.FromSeconds(2);
    private static readonly TimeSpan Farthest = TimeSpan.FromSeconds(10);

    private TimeSpan? _last;
    private double _changed;

    /// <summary>Whether the sample that comes next is one of them.</summary>
    /// <param name="sample">Samples come in order of time, evenly spaced.</param>
    public bool Take(PictureChange sample)
    {
        _changed += sample.Change;
        var since = sample.At - _last;
        if (since < Closest || (_changed < NewPicture && since < Farthest))
            return false;
        (_last, _changed) = (sample.At, 0);
        return true;
    }
}
