using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Documents;
using Wexel.Core.Keys;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Lessons;

/// <summary>
/// A kind of placed things of which only this file knows: notes that lie over a stretch. Its one registration is the list of them in a
/// lesson; it is kept, tidied, refused, described, merged, split, carried to other takes, cut away, listed as left out and part of the key.
/// </summary>
public sealed class PlacedKindTests
{
    private sealed record Note(string Id, TimeRange Span, string Text) : IPlaced<Note>
    {
        public static PlacedKind<Note> Kind { get; } = new NoteKind();
    }

    private sealed class NoteKind : PlacedKind<Note>
    {
        public override string Name => "note";

        public override int Most => 3;

        public override string Named(Note thing) => $"the note “{thing.Text}”";

        public override Note At(Note thing, TimeRange span) => thing with { Span = span };

        public override Note Called(Note thing, string id) => thing with { Id = id };

        public override Note Merged(Note before, Note theirs, Note mine) =>
            new(mine.Id, mine.Span != before.Span ? mine.Span : theirs.Span, mine.Text != before.Text ? mine.Text : theirs.Text);

        public override void Declare(KeyFields key, Note thing) => key.Add("id", thing.Id).Add("span", thing.Span).Add("text", thing.Text);

        public override IReadOnlyList<Note> Tidy(IEnumerable<Note> things, TimeSpan length) =>
            [.. things.Where(n => n.Text.Length > 0).OrderBy(n => n.Span.Start)];
    }

    /// <summary>The lesson document as it would be with notes in it.</summary>
    private sealed record NotedLesson : LessonDocument
    {
        public NotedLesson(
            string title,
            string description,
            string language,
            string recordingHash,
            IReadOnlyList<TimeRange> cuts,
            IReadOnlyList<Section> sections,
            IReadOnlyList<CaptionTrack> captions
        )
            : base(title, description, language, recordingHash, cuts, sections, captions) { }

        public IReadOnlyList<Note> Notes { get; init; } = [];
    }

    private static readonly TimeSpan Length = TimeSpan.FromSeconds(60);

    private static readonly NotedLesson Lesson = new("Ropes", "", "en", "a", [], [new("s1", Ms.Of(0), "Start")], [])
    {
        Notes = [In("n1", 5, 8, "Hands"), In("n2", 30, 40, "Knots")],
    };

    private static TimeRange Range(double start, double end) => new(TimeSpan.FromSeconds(start), TimeSpan.FromSeconds(end));

    private static Note In(string id, double start, double end, string text) => new(id, Range(start, end), text);

    private static TimeMap Map(params TimeRange[] cuts) => TimeMap.Of(new FrameRate(30, 1), Length, cuts);

    private static IReadOnlyList<Note> NotesOf(LessonDocument lesson) => ((NotedLesson)lesson).Notes;

    private static LessonWithCues With(LessonDocument lesson) => LessonWithCues.Without(lesson);

    [Fact]
    public void It_is_kept_tidied_and_refused()
    {
        var format = new DocumentFormat<NotedLesson>("lesson", _ => { });
        format.Read(format.Write(Lesson)).Notes.ShouldBe(Lesson.Notes);
        NotesOf(LessonRules.Tidy(Lesson with { Notes = [Lesson.Notes[1], In("n3", 1, 2, ""), Lesson.Notes[0]] }, Length, new FrameRate(30, 1)))
            .ShouldBe(Lesson.Notes);
        LessonRules.Refusal(Lesson, Map()).ShouldBeNull();
        LessonRules
            .Refusal(Lesson with { Notes = [.. Lesson.Notes, .. Lesson.Notes] }, Map())!
            .ShouldBe(new Problem("notes-too-many", "There are 4 notes; 3 is the most that one lesson may have.", "notes"));
        LessonRules.Refusal(Lesson with { Notes = [Lesson.Notes[0], Lesson.Notes[0]] }, Map())!.Code.ShouldBe("notes-same-twice");
        LessonRules.Refusal(Lesson with { Notes = [In("", 1, 2, "x")] }, Map())!.Code.ShouldBe("notes-without-name");
    }

    [Fact]
    public void It_is_described_and_part_of_the_key()
    {
        var changed = Lesson with { Notes = [Lesson.Notes[0] with { Text = "Both hands" }, In("n3", 1, 2, "New")] };
        LessonRules.Describe(Lesson, changed).ShouldBe("1 note added, 1 note removed, 1 note changed");
        LessonKeys.DocumentKey(changed).ShouldNotBe(LessonKeys.DocumentKey(Lesson));
        LessonKeys.DocumentKey(Lesson with { Notes = [.. Lesson.Notes] }).ShouldBe(LessonKeys.DocumentKey(Lesson));
    }

    [Fact]
    public void Two_who_change_different_ones_both_keep_their_work()
    {
        var theirs = Lesson with { Notes = [Lesson.Notes[0] with { Text = "Both hands" }, Lesson.Notes[1]] };
        var mine = Lesson with { Notes = [Lesson.Notes[0], Lesson.Notes[1] with { Span = Range(31, 41) }, In("n3", 50, 51, "End")] };
        var merge = LessonMerge.Of(With(Lesson), With(theirs), With(mine));
        merge.Clashes.ShouldBeEmpty();
        NotesOf(merge.Document).ShouldBe([In("n1", 5, 8, "Both hands"), In("n2", 31, 41, "Knots"), In("n3", 50, 51, "End")]);
    }

    [Fact]
    public void It_goes_where_a_lesson_is_split_and_where_recordings_go()
    {
        var split = LessonSplit.At(Lesson, TimeSpan.FromSeconds(35), Map()).Value!;
        NotesOf(split.First).Select(n => n.Id).ShouldBe(["n1", "n2"]);
        NotesOf(split.Second).Select(n => n.Id).ShouldBe(["n2"]);
        var change = ReelChange.Of(With(Lesson), ["b", "a"], [new(null, Range(0, 10)), new(Range(0, 60), Range(10, 45))], [null, "a"]);
        NotesOf(change.Document).ShouldBe([In("n1", 15, 18, "Hands"), In("n2", 40, 45, "Knots")]);
        ReelChange.Of(With(Lesson), ["a"], [new(Range(0, 60), Range(0, 20))], ["a"]).Lost.ShouldBe(["the note “Knots” at 0:30"]);
    }

    [Fact]
    public void It_follows_cuts_and_what_goes_with_them_is_said()
    {
        Note.Kind.Following(Lesson.Notes, Map(Range(0, 6), Range(30, 40))).ShouldBe([In("n1", 0, 2, "Hands")]);
        GoneWithCuts.InWords(With(Lesson), Map(Range(5, 8)), Map(Range(5, 8), Range(30, 40))).ShouldBe(["the note “Knots”"]);
        LeftOut
            .InWords(With(Lesson with { Notes = [.. Lesson.Notes, In("n3", 60, 61, "Late")] }), Length, Map(Range(5, 8)))
            .ShouldBe([
                "The note “Late” starts at 1:00, past the end at 1:00; it was left out.",
                "The note “Hands” at 0:05 lies wholly inside a cut; it was left out.",
            ]);
    }

    [Fact]
    public void The_kinds_that_ship_are_found_by_their_lists()
    {
        var names = new Names();
        PlacedLists.Read(Lesson, names);
        names.All.ShouldBe(["move-in", "note", "question", "section"]);
    }

    private sealed class Names : IPlacedWork
    {
        internal List<string> All { get; } = [];

        public IReadOnlyList<T> Do<T>(PlacedKind<T> kind, Func<object, IReadOnlyList<T>> list)
            where T : class, IPlaced<T>
        {
            All.Add(kind.Name);
            return [];
        }
    }
}
