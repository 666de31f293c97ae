using Wexel.Core.Timing;

namespace Wexel.Core.Recordings;

/// <summary>Finds where the screen stands still and where it changes altogether.</summary>
public static class StillStretches
{
    /// <summary>Below this mean difference (of 1) two samples are the same picture; coding noise lies under it.</summary>
    public const double Unchanged = 0.00004;

    /// <summary>From this mean difference (of 1) on the picture is another scene (common practice, no source).</summary>
    public const double OtherScene = 0.1;

    private static readonly TimeSpan Shortest = TimeSpan.FromSeconds(1);

    /// <summary>The stretches of 1 s or more in which nothing on the screen changes, in order and apart.</summary>
    /// <param name="changes">Samples in order of time, evenly spaced.</param>
    /// <param name="length">The recording's length.</param>
    public static IReadOnlyList<TimeRange> Find(IReadOnlyList<PictureChange> changes, TimeSpan length)
    {
        var still = new List<TimeRange>();
        for (var i = 0; i < changes.Count; )
        {
            var next = i + 1;
            while (next < changes.Count && changes[next].Change <= Unchanged)
                next++;
            // A change seen at a sample happened after the sample before it: until there, it is known to stand still.
            var end = next == changes.Count ? length : changes[next - 1].At;
            if (end - changes[i].At >= Shortest)
                still.Add(new TimeRange(changes[i].At, end));
            i = next;
        }

        return still;
    }

    /// <summary>The moments at which the whole picture changes at once.</summary>
    /// <param name="changes">Samples in order of time.</param>
    public static IReadOnlyList<TimeSpan> Scenes(IReadOnlyList<PictureChange> changes) =>
        [.. changes.Skip(1).Where(c => c.Change >= OtherScene).Select(c => c.At)];
}
