using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Timing;

namespace Wexel.Core.Lessons;

/// <summary>What two people made of one revision, brought together.</summary>
/// <param name="Document">Theirs, with mine put on top.</param>
/// <param name="Clashes">What both changed, in a few words each; there mine stands.</param>
public sealed record LessonMerge(LessonDocument Document, IReadOnlyList<string> Clashes)
{
    /// <summary>Puts what I changed on top of what somebody else saved meanwhile. What only one of us changed is kept as that one has it.</summary>
    /// <param name="before">The revision that both began with.</param>
    /// <param name="theirs">What was saved meanwhile.</param>
    /// <param name="mine">What I have.</param>
    public static LessonMerge Of(LessonDocument before, LessonDocument theirs, LessonDocument mine)
    {
        var clashes = new List<string>();
        T Pick<T>(T was, T there, T here, string name)
        {
            var (changedHere, changedThere) = (!Equals(was, here), !Equals(was, there));
            if (changedHere && changedThere && !Equals(here, there))
                clashes.Add(name);
            return changedHere ? here : there;
        }

        if (!theirs.Recordings.SequenceEqual(mine.Recordings))
        {
            // What is placed counts along the recordings: it cannot be brought together where those differ, and goes with them.
            var changedHere = !mine.Recordings.SequenceEqual(before.Recordings);
            clashes.Add(changedHere ? "the recordings, and what is placed on them" : "what is placed on the recordings, which are others now");
            var placed = changedHere ? mine : theirs;
            (before, theirs, mine) = (Placed(before, placed), Placed(theirs, placed), Placed(mine, placed));
        }

        var document = theirs with
        {
            Title = Pick(before.Title, theirs.Title, mine.Title, "the title"),
            Description = Pick(before.Description, theirs.Description, mine.Description, "the description"),
            Language = Pick(before.Language, theirs.Language, mine.Language, "the language"),
            Captions = Pick(before.Captions, theirs.Captions, mine.Captions, "the captions"),
            Canvas = Pick(before.Canvas, theirs.Canvas, mine.Canvas, "the canvas"),
            HouseMark = Pick(before.HouseMark, theirs.HouseMark, mine.HouseMark, "the house mark"),
            Frames = Things(before.Frames, theirs.Frames, mine.Frames, f => f.Recording, _ => "how a recording lies on the canvas", (_, _, own) => own, clashes),
            // What I cut is cut, and what I restored is restored.
            Cuts = TimeRange.Without(TimeRange.Union(theirs.Cuts.Concat(TimeRange.Without(mine.Cuts, before.Cuts))), TimeRange.Without(before.Cuts, mine.Cuts)),
            Sections = [.. Things(before.Sections, theirs.Sections, mine.Sections, s => s.Id, s => $"the section “{s.Title}”", Both, clashes).OrderBy(s => s.At)],
            MoveIns = [.. Things(before.MoveIns, theirs.MoveIns, mine.MoveIns, m => m.Id, m => $"the move-in at {TimeCode.Brief(m.Span.Start)}", Both, clashes).OrderBy(m => m.Span.Start)],
        };
        return new LessonMerge(document, clashes);
    }

    private static LessonDocument Placed(LessonDocument document, LessonDocument placed) => document with
    {
        RecordingHash = placed.RecordingHash,
        Following = placed.Following,
        Cuts = placed.Cuts,
        Sections = placed.Sections,
        Captions = placed.Captions,
        MoveIns = placed.MoveIns,
        Frames = placed.Frames,
    };

    /// <summary>Things of a kind, by their name inside the lesson: what one of us changed is as that one has it.</summary>
    private static List<T> Things<T>(IReadOnlyList<T> before, IReadOnlyList<T> theirs, IReadOnlyList<T> mine, Func<T, string> id, Func<T, string> named, Func<T, T, T, T> both, List<string> clashes)
        where T : class
    {
        var (was, there, here) = (before.ToDictionary(id), theirs.ToDictionary(id), mine.ToDictionary(id));
        var merged = new List<T>();
        foreach (var key in theirs.Concat(mine).Select(id).Distinct())
        {
            var (old, other, own) = (was.GetValueOrDefault(key), there.GetValueOrDefault(key), here.GetValueOrDefault(key));
            if (Equals(own, old))
            {
                if (other is not null)
                    merged.Add(other);
                continue;
            }

            var bothChanged = !Equals(other, old) && !Equals(other, own);
            if (bothChanged)
                clashes.Add(named((own ?? other ?? old)!));
            // One of us took it away, the other went on with it: it stays, so that nothing is lost.
            if (own is null && bothChanged)
                merged.Add(other!);
            else if (own is not null)
                merged.Add(other is not null && old is not null ? both(old, other, own) : own);
        }

        return merged;
    }

    private static Section Both(Section old, Section other, Section own) =>
        new(own.Id, own.At != old.At ? own.At : other.At, own.Title != old.Title ? own.Title : other.Title, own.Nested != old.Nested ? own.Nested : other.Nested);

    private static MoveIn Both(MoveIn old, MoveIn other, MoveIn own) =>
        new(own.Id, own.Span != old.Span ? own.Span : other.Span, own.Part != old.Part ? own.Part : other.Part, own.Ease != old.Ease ? own.Ease : other.Ease);
}
