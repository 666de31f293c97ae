using Wexel.Core.Cameras;
using Wexel.Core.Captions;
using Wexel.Core.Editing;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Lessons;

/// <summary>
/// A lesson whose recordings come in another order, are more, fewer, or other takes. What was placed on a recording goes where it goes,
/// as far from its start as before.
/// </summary>
/// <param name="Lesson">The lesson, in the new reel's time.</param>
/// <param name="Lost">What falls outside, in a few words each.</param>
public sealed record ReelChange(LessonWithCues Lesson, IReadOnlyList<string> Lost)
{
    /// <summary>The lesson.</summary>
    public LessonDocument Document => Lesson.Document;

    /// <summary>Carries a lesson over.</summary>
    /// <param name="lesson">The lesson, in the old reel's time.</param>
    /// <param name="hashes">The recordings in their new order.</param>
    /// <param name="places">Where each of them lies and lay.</param>
    /// <param name="replaced">For each of them the hash of the recording that it was or replaces; null for one that is new.</param>
    public static ReelChange Of(LessonWithCues lesson, IReadOnlyList<string> hashes, IReadOnlyList<ReelPlace> places, IReadOnlyList<string?> replaced)
    {
        var (document, lost, carrying) = (lesson.Document, new List<string>(), new ReelPlaces(places));
        var cuts = new List<TimeRange>();
        foreach (var cut in document.Cuts)
        {
            var moved = carrying.Moved(cut);
            cuts.AddRange(moved);
            if (moved.Count == 0)
                lost.Add($"the cut at {TimeCode.Brief(cut.Start)}");
        }

        var changed = PlacedLists.Set(
            document with
            {
                RecordingHash = hashes[0],
                Following = [.. hashes.Skip(1)],
                Frames = Frames(document, hashes, replaced),
                Cameras = Cameras(document, hashes, lost),
                Picture = Picture(document, carrying, lost),
                Cuts = TimeRange.Union(cuts),
            },
            new Carrying(document, carrying, lost)
        );
        // What stays where it is stays the same file; a track of which nothing is left is gone.
        var tracks = document
            .Captions.Select(track => (Track: track, Before: lesson.CuesOf(track)))
            .Select(t => (t.Track, t.Before, Cues: Cue.Kind.Carried(t.Before, carrying, lost)))
            .Where(t => t.Cues.Count > 0 || t.Before.Count == 0)
            .Select(t => (t.Cues.SequenceEqual(t.Before) ? t.Track : t.Track.With(t.Cues), t.Cues));
        return new ReelChange(LessonWithCues.Of(changed, tracks), lost);
    }

    private static LessonPicture? Picture(LessonDocument document, ReelPlaces places, List<string> lost)
    {
        if (document.Picture?.At is not { } at)
            return document.Picture;
        if (places.Moved(at) is { } moved)
            return new LessonPicture(moved);
        lost.Add($"the lesson’s picture at {TimeCode.Brief(at)}");
        return null;
    }

    /// <summary>A new take is brought onto the canvas as the one before it was.</summary>
    private static List<RecordingFrame> Frames(LessonDocument document, IReadOnlyList<string> hashes, IReadOnlyList<string?> replaced) =>
        [
            .. hashes
                .Zip(replaced, (hash, was) => document.Frames.FirstOrDefault(f => f.Recording == was) is { } frame ? frame with { Recording = hash } : null)
                .OfType<RecordingFrame>()
                .DistinctBy(f => f.Recording),
        ];

    /// <summary>A camera recorded the same time as what it lies over: with another take it has nothing in common.</summary>
    private static List<CameraTake> Cameras(LessonDocument document, IReadOnlyList<string> hashes, List<string> lost)
    {
        var stay = document.Cameras.Where(c => hashes.Contains(c.Over)).ToList();
        if (stay.Count < document.Cameras.Count)
            lost.Add(document.Cameras.Count - stay.Count == 1 ? "the camera that lay over it" : "the cameras that lay over them");
        return stay;
    }

    private sealed class Carrying(LessonDocument document, ReelPlaces places, List<string> lost) : IPlacedWork
    {
        public IReadOnlyList<T> Do<T>(PlacedKind<T> kind, Func<object, IReadOnlyList<T>> list)
            where T : class, IPlaced<T> => kind.Carried(list(document), places, lost);
    }
}
