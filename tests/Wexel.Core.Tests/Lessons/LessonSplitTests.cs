using Wexel.Core.Editing;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Lessons;

public sealed class LessonSplitTests
{
    private static TimeRange Range(double start, double end) => new(TimeSpan.FromSeconds(start), TimeSpan.FromSeconds(end));

    private static readonly LessonDocument Lesson = new(
        "Ropes",
        "About ropes",
        "en",
        "hash",
        [Range(0, 2), Range(50, 60)],
        [new("a", Ms.Of(0), "First"), new("b", Ms.Of(15_000), "Second"), new("c", Ms.Of(18_000), "Under it", true), new("d", Ms.Of(40_000), "Third")],
        [new("t1", "cues", "en", "ropes.vtt", 9)],
        moveIns: [new("m", Range(19, 22), PicturePart.All, MoveIn.UsualEase), new("n", Range(30, 33), PicturePart.All, MoveIn.UsualEase)]
    );

    private static TimeMap Map(LessonDocument document) => TimeMap.Of(new FrameRate(30, 1), TimeSpan.FromSeconds(60), document.Cuts);

    [Fact]
    public void Each_has_cut_what_is_the_others_and_together_they_are_the_lesson()
    {
        var split = LessonSplit.At(Lesson, TimeSpan.FromSeconds(20), Map(Lesson)).Value!;
        split.First.Cuts.ShouldBe([Range(0, 2), Range(20, 60)]);
        split.Second.Cuts.ShouldBe([Range(0, 20), Range(50, 60)]);
        (Map(split.First).Length + Map(split.Second).Length).ShouldBe(Map(Lesson).Length);
        (split.First.Title, split.Second.Title, split.Second.Captions).ShouldBe(("Ropes", "Ropes, part 2", Lesson.Captions));
    }

    [Fact]
    public void What_was_placed_goes_where_it_is_seen()
    {
        var split = LessonSplit.At(Lesson, TimeSpan.FromSeconds(20), Map(Lesson)).Value!;
        split.First.Sections.Select(s => s.Id).ShouldBe(["a", "b", "c"]);
        split.Second.Sections.ShouldBe([new("c", Ms.Of(20_000), "Under it"), new("d", Ms.Of(40_000), "Third")]);
        split.First.MoveIns.Select(m => m.Id).ShouldBe(["m"]);
        split.Second.MoveIns.Select(m => m.Id).ShouldBe(["m", "n"]);
        LessonSplit.At(Lesson, TimeSpan.FromSeconds(40), Map(Lesson)).Value!.Second.Sections.Select(s => s.Id).ShouldBe(["d"]);
    }

    [Theory]
    [InlineData(0, "before 0:00")]
    [InlineData(1, "before 0:01")]
    [InlineData(55, "after 0:55")]
    [InlineData(60, "after 1:00")]
    public void A_place_with_nothing_on_one_side_is_refused(double at, string where)
    {
        var (split, problem) = LessonSplit.At(Lesson, TimeSpan.FromSeconds(at), Map(Lesson));
        split.ShouldBeNull();
        problem!.Sentence.ShouldContain(where);
    }
}
