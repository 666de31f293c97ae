using Wexel.Core.Captions;
using Wexel.Core.Details;
using Wexel.Core.Placing;
using Wexel.Core.Timing;
using Wexel.Core.Translating;

namespace Wexel.Core.Lessons;

/// <summary>What two people made of one revision, brought together.</summary>
/// <param name="Lesson">Theirs, with mine put on top.</param>
/// <param name="Clashes">What both changed, in a few words each; there mine stands.</param>
public sealed record LessonMerge(LessonWithCues Lesson, IReadOnlyList<string> Clashes)
{
    /// <summary>The lesson that came of it.</summary>
    public LessonDocument Document => Lesson.Document;

    /// <summary>Puts what I changed on top of what somebody else saved meanwhile. What only one of us changed is kept as that one has it.</summary>
    /// <param name="before">The revision that both began with.</param>
    /// <param name="theirs">What was saved meanwhile.</param>
    /// <param name="mine">What I have.</param>
    public static LessonMerge Of(LessonWithCues before, LessonWithCues theirs, LessonWithCues mine)
    {
        var clashes = new List<string>();
        var three = new ThreeWay(clashes);
        var files = before.Files.Concat(theirs.Files).Concat(mine.Files).DistinctBy(f => f.Key).ToDictionary();
        var (was, there, here) = (before.Document, theirs.Document, mine.Document);
        if (!there.Recordings.SequenceEqual(here.Recordings))
        {
            // What is placed counts along the recordings: it cannot be brought together where those differ, and goes with them.
            var changedHere = !here.Recordings.SequenceEqual(was.Recordings);
            clashes.Add(changedHere ? "the recordings, and what is placed on them" : "what is placed on the recordings, which are others now");
            var placed = changedHere ? here : there;
            (was, there, here) = (Placed(was, placed), Placed(there, placed), Placed(here, placed));
        }

        var document = there with
        {
            Title = three.Value(was.Title, there.Title, here.Title, "the title"),
            Description = three.Value(was.Description, there.Description, here.Description, "the description"),
            Language = three.Value(was.Language, there.Language, here.Language, "the language"),
            Details = DetailFields.Merged(three, was.Details, there.Details, here.Details),
            Captions = three.Names(was.Captions, there.Captions, here.Captions, t => t.Id, t => $"the captions in {t.Language}", MergedTracks),
            Translations = three.Names(
                was.Translations,
                there.Translations,
                here.Translations,
                t => t.Language,
                t => $"the texts in {t.Language}",
                (old, other, own) => LessonTranslation.Merged(three, old, other, own)
            ),
            Picture = three.Value(was.Picture, there.Picture, here.Picture, "the lesson’s picture"),
            Canvas = three.Value(was.Canvas, there.Canvas, here.Canvas, "the canvas"),
            Goal = three.Value(was.Goal, there.Goal, here.Goal, "what it takes to be done"),
            Draws = three.Names(was.Draws, there.Draws, here.Draws, d => d.Tag, d => $"how many questions of “{d.Tag}” are drawn", (_, _, own) => own),
            Survey = three.Value(was.Survey, there.Survey, here.Survey, "the survey"),
            HouseMark = three.Value(was.HouseMark, there.HouseMark, here.HouseMark, "the house mark"),
            Frames = three.List(was.Frames, there.Frames, here.Frames, f => f.Recording, _ => "how a recording lies on the canvas", (_, _, own) => own),
            Cameras = three.List(was.Cameras, there.Cameras, here.Cameras, c => c.Over, _ => "a camera", (_, _, own) => own),
            CameraLook = three.Value(was.CameraLook, there.CameraLook, here.CameraLook, "how the camera is shown"),
            // What I cut is cut, and what I restored is restored.
            Cuts = TimeRange.Without(TimeRange.Union(there.Cuts.Concat(TimeRange.Without(here.Cuts, was.Cuts))), TimeRange.Without(was.Cuts, here.Cuts)),
        };
        return new LessonMerge(new LessonWithCues(PlacedLists.Set(document, new Merging(three, was, there, here)), files), clashes);

        CaptionTrack MergedTracks(CaptionTrack old, CaptionTrack other, CaptionTrack own)
        {
            var track = own with
            {
                Language = three.Value(old.Language, other.Language, own.Language, "the language of captions"),
                FileName = own.FileName != old.FileName ? own.FileName : other.FileName,
                Kind = three.Value(old.Kind, other.Kind, own.Kind, "what captions are"),
                State = three.Value(old.State, other.State, own.State, "how far captions are"),
            };
            if (own.Hash == old.Hash || own.Hash == other.Hash)
                return track with { Hash = other.Hash, CueCount = other.CueCount };
            if (other.Hash == old.Hash)
                return track;
            var cues = three.List(Cue.Kind, before.CuesOf(old), theirs.CuesOf(other), mine.CuesOf(own));
            track = track.With(cues);
            files[track.Hash] = cues;
            return track;
        }
    }

    private static LessonDocument Placed(LessonDocument document, LessonDocument placed) =>
        PlacedLists.Set(
            document with
            {
                RecordingHash = placed.RecordingHash,
                Following = placed.Following,
                Cuts = placed.Cuts,
                Captions = placed.Captions,
                Frames = placed.Frames,
                Cameras = placed.Cameras,
                Picture = document.Picture?.At is null ? document.Picture : placed.Picture,
            },
            new Taking(placed)
        );

    private sealed class Merging(ThreeWay three, LessonDocument before, LessonDocument theirs, LessonDocument mine) : IPlacedWork
    {
        public IReadOnlyList<T> Do<T>(PlacedKind<T> kind, Func<object, IReadOnlyList<T>> list)
            where T : class, IPlaced<T> => three.List(kind, list(before), list(theirs), list(mine));
    }

    private sealed class Taking(LessonDocument from) : IPlacedWork
    {
        public IReadOnlyList<T> Do<T>(PlacedKind<T> kind, Func<object, IReadOnlyList<T>> list)
            where T : class, IPlaced<T> => list(from);
    }
}
