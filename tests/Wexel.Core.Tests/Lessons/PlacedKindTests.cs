using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Documents;
using Wexel.Core.Keys;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Lessons;

/// <summary>
/// A kind of placed things of which only this file knows: bookmarks that lie over a stretch. Its one registration is the list of them in a
/// lesson; it is kept, tidied, refused, described, merged, split, carried to other takes, cut away, listed as left out and part of the key.
/// </summary>
public sealed class PlacedKindTests
{
    private sealed record Bookmark(string Id, TimeRange Span, string Text) : IPlaced<Bookmark>
    {
        public static PlacedKind<Bookmark> Kind { get; } = new BookmarkKind();
    }

    private sealed class BookmarkKind : PlacedKind<Bookmark>
    {
        public override string Name => "bookmark";

        public override int Most => 3;

        public override string Named(Bookmark thing) => $"the bookmark “{thing.Text}”";

        public override Bookmark At(Bookmark thing, TimeRange span) => thing with { Span = span };

        public override Bookmark Called(Bookmark thing, string id) => thing with { Id = id };

        public override Bookmark Merged(Bookmark before, Bookmark theirs, Bookmark mine) =>
            new(mine.Id, mine.Span != before.Span ? mine.Span : theirs.Span, mine.Text != before.Text ? mine.Text : theirs.Text);

        public override void Declare(KeyFields key, Bookmark thing) => key.Add("id", thing.Id).Add("span", thing.Span).Add("text", thing.Text);

        public override IReadOnlyList<Bookmark> Tidy(IEnumerable<Bookmark> things, TimeSpan length) =>
            [.. things.Where(n => n.Text.Length > 0).OrderBy(n => n.Span.Start)];
    }

    /// <summary>The lesson document as it would be with bookmarks in it.</summary>
    private sealed record MarkedLesson : LessonDocument
    {
        public MarkedLesson(
            string title,
            string description,
            string language,
            string recordingHash,
            IReadOnlyList<TimeRange> cuts,
            IReadOnlyList<Section> sections,
            IReadOnlyList<CaptionTrack> captions
        )
            : base(title, description, language, recordingHash, cuts, sections, captions) { }

        public IReadOnlyList<Bookmark> Bookmarks { get; init; } = [];
    }

    private static readonly TimeSpan Length = TimeSpan.FromSeconds(60);

    private static readonly MarkedLesson Lesson = new("Ropes", "", "en", "a", [], [new("s1", Ms.Of(0), "Start")], [])
    {
        Bookmarks = [In("n1", 5, 8, "Hands"), In("n2", 30, 40, "Knots")],
    };

    private static TimeRange Range(double start, double end) => new(TimeSpan.FromSeconds(start), TimeSpan.FromSeconds(end));

    private static Bookmark In(string id, double start, double end, string text) => new(id, Range(start, end), text);

    private static TimeMap Map(params TimeRange[] cuts) => TimeMap.Of(new FrameRate(30, 1), Length, cuts);

    private static IReadOnlyList<Bookmark> BookmarksOf(LessonDocument lesson) => ((MarkedLesson)lesson).Bookmarks;

    private static LessonWithCues With(LessonDocument lesson) => LessonWithCues.Without(lesson);

    [Fact]
    public void It_is_kept_tidied_and_refused()
    {
        var format = new DocumentFormat<MarkedLesson>("lesson", _ => { });
        format.Read(format.Write(Lesson)).Bookmarks.ShouldBe(Lesson.Bookmarks);
        BookmarksOf(LessonRules.Tidy(Lesson with { Bookmarks = [Lesson.Bookmarks[1], In("n3", 1, 2, ""), Lesson.Bookmarks[0]] }, Length, new FrameRate(30, 1)))
            .ShouldBe(Lesson.Bookmarks);
        LessonRules.Refusal(Lesson, Map()).ShouldBeNull();
        LessonRules
            .Refusal(Lesson with { Bookmarks = [.. Lesson.Bookmarks, .. Lesson.Bookmarks] }, Map())!
            .ShouldBe(new Problem("bookmarks-too-many", "There are 4 bookmarks; 3 is the most that one lesson may have.", "bookmarks"));
        LessonRules.Refusal(Lesson with { Bookmarks = [Lesson.Bookmarks[0], Lesson.Bookmarks[0]] }, Map())!.Code.ShouldBe("bookmarks-same-twice");
        LessonRules.Refusal(Lesson with { Bookmarks = [In("", 1, 2, "x")] }, Map())!.Code.ShouldBe("bookmarks-without-name");
    }

    [Fact]
    public void It_is_described_and_part_of_the_key()
    {
        var changed = Lesson with { Bookmarks = [Lesson.Bookmarks[0] with { Text = "Both hands" }, In("n3", 1, 2, "New")] };
        LessonRules.Describe(Lesson, changed).ShouldBe("1 bookmark added, 1 bookmark removed, 1 bookmark changed");
        LessonKeys.DocumentKey(changed).ShouldNotBe(LessonKeys.DocumentKey(Lesson));
        LessonKeys.DocumentKey(Lesson with { Bookmarks = [.. Lesson.Bookmarks] }).ShouldBe(LessonKeys.DocumentKey(Lesson));
    }

    [Fact]
    public void Two_who_change_different_ones_both_keep_their_work()
    {
        var theirs = Lesson with { Bookmarks = [Lesson.Bookmarks[0] with { Text = "Both hands" }, Lesson.Bookmarks[1]] };
        var mine = Lesson with { Bookmarks = [Lesson.Bookmarks[0], Lesson.Bookmarks[1] with { Span = Range(31, 41) }, In("n3", 50, 51, "End")] };
        var merge = LessonMerge.Of(With(Lesson), With(theirs), With(mine));
        merge.Clashes.ShouldBeEmpty();
        BookmarksOf(merge.Document).ShouldBe([In("n1", 5, 8, "Both hands"), In("n2", 31, 41, "Knots"), In("n3", 50, 51, "End")]);
    }

    [Fact]
    public void It_goes_where_a_lesson_is_split_and_where_recordings_go()
    {
        var split = LessonSplit.At(Lesson, TimeSpan.FromSeconds(35), Map()).Value!;
        BookmarksOf(split.First).Select(n => n.Id).ShouldBe(["n1", "n2"]);
        BookmarksOf(split.Second).Select(n => n.Id).ShouldBe(["n2"]);
        var change = ReelChange.Of(With(Lesson), ["b", "a"], [new(null, Range(0, 10)), new(Range(0, 60), Range(10, 45))], [null, "a"]);
        BookmarksOf(change.Document).ShouldBe([In("n1", 15, 18, "Hands"), In("n2", 40, 45, "Knots")]);
        ReelChange.Of(With(Lesson), ["a"], [new(Range(0, 60), Range(0, 20))], ["a"]).Lost.ShouldBe(["the bookmark “Knots” at 0:30"]);
    }

    [Fact]
    public void It_follows_cuts_and_what_goes_with_them_is_said()
    {
        Bookmark.Kind.Following(Lesson.Bookmarks, Map(Range(0, 6), Range(30, 40))).ShouldBe([In("n1", 0, 2, "Hands")]);
        GoneWithCuts.InWords(With(Lesson), Map(Range(5, 8)), Map(Range(5, 8), Range(30, 40))).ShouldBe(["the bookmark “Knots”"]);
        LeftOut
            .InWords(With(Lesson with { Bookmarks = [.. Lesson.Bookmarks, In("n3", 60, 61, "Late")] }), Length, Map(Range(5, 8)))
            .ShouldBe([
                "The bookmark “Late” starts at 1:00, past the end at 1:00; it was left out.",
                "The bookmark “Hands” at 0:05 lies wholly inside a cut; it was left out.",
            ]);
    }

    [Fact]
    public void The_kinds_that_ship_are_found_by_their_lists()
    {
        var names = new Names();
        PlacedLists.Read(Lesson, names);
        names.All.ShouldBe(["area", "bookmark", "camera stretch", "move-in", "note", "question", "section", "sound"]);
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
