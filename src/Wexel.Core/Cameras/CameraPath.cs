using Wexel.Core.Editing;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Cameras;

/// <summary>A camera's recording as a lesson has it.</summary>
/// <param name="Part">Over which recording of the reel it lies, from 0.</param>
/// <param name="Take">How it lies there.</param>
/// <param name="Facts">What a probe found of it; it has a picture.</param>
public sealed record LaidCamera(int Part, CameraTake Take, RecordingFacts Facts);

/// <summary>Frames of a lesson in which a camera is seen, one way.</summary>
/// <param name="Camera">Which of the cameras, from 0.</param>
/// <param name="First">The number of the lesson's first frame.</param>
/// <param name="Count">How many frames; 1 or more.</param>
/// <param name="Shown">Small or large.</param>
/// <param name="Corner">In which corner it stands small.</param>
public sealed record CameraShot(int Camera, long First, long Count, CameraShown Shown, CameraCorner Corner);

/// <summary>Where cameras are seen along a lesson, frame by frame.</summary>
/// <param name="Shots">In order and apart.</param>
/// <param name="InTheWay">Where one is left out since something happens in all four corners, in lesson time, in order.</param>
public sealed record CameraPath(IReadOnlyList<CameraShot> Shots, IReadOnlyList<TimeRange> InTheWay)
{
    /// <summary>No camera.</summary>
    public static CameraPath None { get; } = new([], []);

    /// <summary>Where cameras are seen.</summary>
    /// <param name="look">How they are shown.</param>
    /// <param name="stretches">Where they are shown otherwise, in recording time.</param>
    /// <param name="cameras">The cameras, at most one over each recording.</param>
    /// <param name="reel">The recordings of the screen.</param>
    /// <param name="map">The lesson's times.</param>
    /// <param name="screen">How the screen lies on the picture, and what changes on it; null where nobody looked, or nothing is to be kept clear.</param>
    public static CameraPath Of(
        CameraLook look,
        IReadOnlyList<CameraStretch> stretches,
        IReadOnlyList<LaidCamera> cameras,
        Reel reel,
        TimeMap map,
        ScreenOnPicture? screen
    )
    {
        look = look.Within();
        var shots = new List<CameraShot>();
        var inTheWay = new List<TimeRange>();
        var shown = ShownAlong(look.Usually, CameraStretch.Kind.Following(stretches, map), map);
        foreach (var (index, camera) in cameras.Index().OrderBy(c => c.Item.Part))
        {
            var part = reel.Parts[camera.Part];
            var there = Frames(camera, part, reel.Grid);
            foreach (var kept in map.Within(part.First + there.First, there.Count))
            {
                foreach (var (how, from, end) in shown.Select(s => (s.Shown, Math.Max(s.First, kept.At), Math.Min(s.End, kept.At + kept.Count))))
                {
                    if (end <= from || how == CameraShown.Hidden)
                        continue;
                    if (how == CameraShown.Large || !look.KeepsClear || screen is null)
                        shots.Add(new CameraShot(index, from, end - from, how, look.Corner));
                    else
                        Clear(index, camera, from, end);
                }
            }
        }

        return new CameraPath(Joined(shots), TimeRange.Union(inTheWay));

        void Clear(int index, LaidCamera camera, long from, long end)
        {
            var grid = map.Grid;
            var span = new TimeRange(grid.TimeOf(from), grid.TimeOf(end));
            foreach (var (piece, corner) in KeepClear.Choose(span, look.Corner, screen.Happening(look, camera, map)))
            {
                var (first, after) = (Math.Max(from, grid.FrameAt(piece.Start)), piece.End >= span.End ? end : Math.Min(end, grid.FrameAt(piece.End)));
                if (after <= first)
                    continue;
                if (corner is { } where)
                    shots.Add(new CameraShot(index, first, after - first, CameraShown.Small, where));
                else
                    inTheWay.Add(piece);
            }
        }
    }

    /// <summary>The frames of its recording on the screen, on the reel's grid, in which a camera has a picture.</summary>
    internal static (long First, long Count) Frames(LaidCamera camera, ReelPart part, FrameRate grid)
    {
        var clock = camera.Take.Clock.Within();
        var (start, end) = (clock.Starts, clock.ToScreen(camera.Facts.Length));
        var first = start <= TimeSpan.Zero ? 0 : (long)Math.Ceiling((start.TotalSeconds * grid.Numerator / grid.Denominator) - 0.5);
        var after = end <= TimeSpan.Zero ? 0 : TimeMap.FramesIn(end, grid);
        return (first, Math.Max(0, Math.Min(after, part.Frames) - first));
    }

    /// <summary>How a camera is shown along all of the lesson, in order and without gaps.</summary>
    private static List<(CameraShown Shown, long First, long End)> ShownAlong(CameraShown usually, IReadOnlyList<CameraStretch> stretches, TimeMap map)
    {
        long FrameOf(TimeSpan time) => time >= map.Length ? map.Frames : map.Grid.FrameAt(time);
        var along = new List<(CameraShown, long, long)>();
        long at = 0;
        foreach (var stretch in stretches)
        {
            var (first, end) = (Math.Max(at, FrameOf(stretch.Span.Start)), FrameOf(stretch.Span.End));
            if (end <= first)
                continue;
            if (first > at)
                along.Add((usually, at, first));
            along.Add((stretch.Shown, first, end));
            at = end;
        }

        if (at < map.Frames)
            along.Add((usually, at, map.Frames));
        return along;
    }

    /// <summary>What goes on the same way is one.</summary>
    private static List<CameraShot> Joined(IEnumerable<CameraShot> shots)
    {
        var joined = new List<CameraShot>();
        foreach (var shot in shots.OrderBy(s => s.First))
        {
            if (joined is [.., var before] && before.First + before.Count == shot.First && before with { First = shot.First, Count = shot.Count } == shot)
                joined[^1] = before with { Count = before.Count + shot.Count };
            else
                joined.Add(shot);
        }

        return joined;
    }
}
