using Wexel.Core.Captions;
using Wexel.Core.Editing;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Lessons;

public sealed class ReelChangeTests
{
    private static TimeRange Range(double start, double end) => new(TimeSpan.FromSeconds(start), TimeSpan.FromSeconds(end));

    /// <summary>Three recordings: to 10 s, to 30 s, to 60 s.</summary>
    private static readonly LessonDocument Lesson = new(
        "Ropes",
        "",
        "en",
        "a",
        [Range(0, 1), Range(8, 12), Range(50, 60)],
        [new("s1", Ms.Of(0), "First"), new("s2", Ms.Of(12_000), "Second"), new("s3", Ms.Of(30_000), "Third"), new("s4", Ms.Of(55_000), "Late")],
        [],
        moveIns: [new("m", Range(15, 18), PicturePart.All, MoveIn.UsualEase)],
        following: ["b", "c"]
    );

    private static readonly IReadOnlyList<Cue> Cues =
    [
        new(Range(2, 4), "In a", Id: "c1"),
        new(Range(20, 22), "In b", Id: "c2"),
        new(Range(56, 58), "Late in c", Id: "c3"),
    ];

    private static readonly LessonWithCues Whole = LessonWithCues.Of(Lesson, [(CaptionTrack.Of("t1", Cues, "en", "ropes.vtt"), Cues)]);

    private static ReelChange Change(IReadOnlyList<string> hashes, IReadOnlyList<ReelPlace> places, IReadOnlyList<string?>? replaced = null) =>
        ReelChange.Of(Whole, hashes, places, replaced ?? [.. hashes]);

    private static IReadOnlyList<Cue> Said(ReelChange change) => change.Lesson.CuesOf(change.Document.Captions[0]);

    private static readonly (TimeRange A, TimeRange B, TimeRange C) Old = (Range(0, 10), Range(10, 30), Range(30, 60));

    [Fact]
    public void What_was_placed_goes_with_its_recording()
    {
        var change = Change(["b", "a", "c"], [new(Old.B, Range(0, 20)), new(Old.A, Range(20, 30)), new(Old.C, Range(30, 60))]);
        change.Lost.ShouldBeEmpty();
        change.Document.Recordings.ShouldBe(["b", "a", "c"]);
        change.Document.Sections.Select(s => (s.Id, s.At.TotalSeconds)).ShouldBe([("s2", 2), ("s1", 20), ("s3", 30), ("s4", 55)]);
        change.Document.MoveIns.Single().Span.ShouldBe(Range(5, 8));
        // A cut over the joint goes with both.
        change.Document.Cuts.ShouldBe([Range(0, 2), Range(20, 21), Range(28, 30), Range(50, 60)]);
        Said(change).Select(c => (c.Text, c.Span.Start.TotalSeconds)).ShouldBe([("In b", 10), ("In a", 22), ("Late in c", 56)]);
    }

    [Fact]
    public void There_and_back_again_nothing_has_changed()
    {
        var there = Change(["c", "a", "b"], [new(Old.C, Range(0, 30)), new(Old.A, Range(30, 40)), new(Old.B, Range(40, 60))]);
        var back = ReelChange.Of(
            there.Lesson,
            ["a", "b", "c"],
            [new(Range(30, 40), Old.A), new(Range(40, 60), Old.B), new(Range(0, 30), Old.C)],
            ["a", "b", "c"]
        );
        back.Document.Sections.ShouldBe(Lesson.Sections);
        back.Document.Cuts.ShouldBe(Lesson.Cuts);
        back.Document.MoveIns.ShouldBe(Lesson.MoveIns);
        Said(back).ShouldBe(Cues);
        // The same words at the same times are the same file.
        back.Document.Captions.ShouldBe(Whole.Document.Captions);
    }

    [Fact]
    public void A_shorter_take_keeps_what_lies_in_it_and_lists_what_does_not()
    {
        var change = Change(["a", "b", "take"], [new(Old.A, Old.A), new(Old.B, Old.B), new(Old.C, Range(30, 52))]);
        change.Lost.ShouldBe(["the section “Late” at 0:55", "1 caption"]);
        change.Document.Sections.Select(s => s.Id).ShouldBe(["s1", "s2", "s3"]);
        change.Document.Cuts.ShouldBe([Range(0, 1), Range(8, 12), Range(50, 52)]);
    }

    [Fact]
    public void A_longer_take_moves_what_follows()
    {
        var change = Change(["a", "take", "c"], [new(Old.A, Old.A), new(Old.B, Range(10, 40)), new(Old.C, Range(40, 70))]);
        change.Lost.ShouldBeEmpty();
        change.Document.Sections.Select(s => s.At.TotalSeconds).ShouldBe([0, 12, 40, 65]);
    }

    [Fact]
    public void One_that_is_taken_away_takes_what_is_on_it()
    {
        var change = Change(["a", "c"], [new(Old.A, Old.A), new(Old.C, Range(10, 40))]);
        change.Lost.ShouldBe(["the move-in at 0:15", "the section “Second” at 0:12", "1 caption"]);
        change.Document.Cuts.ShouldBe([Range(0, 1), Range(8, 10), Range(30, 40)]);
        LessonRules.Describe(Lesson, change.Document).ShouldStartWith("1 recording removed");
    }

    [Fact]
    public void One_that_is_added_brings_nothing_and_moves_nothing()
    {
        var change = Change(["a", "b", "c", "d"], [new(Old.A, Old.A), new(Old.B, Old.B), new(Old.C, Old.C), new(null, Range(60, 65))]);
        change.Lost.ShouldBeEmpty();
        change.Document.Sections.ShouldBe(Lesson.Sections);
        LessonRules.Describe(Whole.Document, change.Document).ShouldBe("1 recording added");
        LessonRules.Describe(Lesson, Lesson with { RecordingHash = "b", Following = ["a", "c"] }).ShouldBe("recordings in another order");
        LessonRules.Describe(Lesson, Lesson with { Following = ["b", "take"] }).ShouldBe("1 recording replaced");
    }

    [Fact]
    public void Where_two_change_the_recordings_and_what_is_on_them_one_stands_and_it_is_said()
    {
        var theirs = Lesson with { Following = ["c", "b"], Title = "Knots" };
        var mine = Lesson with { Cuts = [], Description = "About ropes" };
        var merge = LessonMerge.Of(LessonWithCues.Without(Lesson), LessonWithCues.Without(theirs), LessonWithCues.Without(mine));
        merge.Document.Following.ShouldBe(["c", "b"]);
        merge.Document.Cuts.ShouldBe(Lesson.Cuts);
        (merge.Document.Title, merge.Document.Description).ShouldBe(("Knots", "About ropes"));
        merge.Clashes.ShouldBe(["what is placed on the recordings, which are others now"]);
        LessonMerge.Of(LessonWithCues.Without(Lesson), LessonWithCues.Without(mine), LessonWithCues.Without(theirs)).Document.Following.ShouldBe(["c", "b"]);
    }

    [Fact]
    public void A_new_take_is_brought_onto_the_canvas_as_the_one_before_it()
    {
        var part = new PicturePart(0.1, 0.1, 0.5, 0.5);
        var framed = Lesson with { Frames = [new("b", FitMode.Part, part), new("c", FitMode.Fill, PicturePart.All)] };
        var change = ReelChange.Of(LessonWithCues.Without(framed), ["a", "take"], [new(Old.A, Old.A), new(Old.B, Range(10, 30))], ["a", "b"]);
        change.Document.Frames.ShouldBe([new("take", FitMode.Part, part)]);
        LessonRules.Describe(Lesson, framed).ShouldBe("part of a recording's picture");
        LessonRules.Tidy(framed with { Following = [] }, TimeSpan.FromSeconds(60), new FrameRate(30, 1)).Frames.ShouldBeEmpty();
    }

    [Fact]
    public void A_track_whose_captions_all_go_goes_and_one_that_was_empty_stays()
    {
        IReadOnlyList<Cue> inA = [Cues[0]];
        var lesson = LessonWithCues.Of(
            Lesson,
            [
                (CaptionTrack.Of("t1", inA, "en", "a.vtt"), inA),
                (CaptionTrack.Of("t2", [], "de", "empty.vtt"), []),
                (CaptionTrack.Of("t3", Cues, "fr", "all.vtt"), Cues),
            ]
        );
        var change = ReelChange.Of(lesson, ["b", "c"], [new(Old.B, Range(0, 20)), new(Old.C, Range(20, 50))], ["b", "c"]);
        change.Document.Captions.Select(t => t.Id).ShouldBe(["t2", "t3"]);
    }
}
