using CsCheck;
using Wexel.Core.Editing;
using Wexel.Core.Lessons;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Lessons;

public sealed class LessonMergeTests
{
    private static TimeRange Range(double start, double end) => new(TimeSpan.FromSeconds(start), TimeSpan.FromSeconds(end));

    private static readonly LessonDocument Before = new(
        "Ropes",
        "",
        "en",
        "hash",
        [Range(0, 2), Range(10, 12)],
        [new("a", Ms.Of(0), "First"), new("b", Ms.Of(5000), "Second"), new("c", Ms.Of(9000), "Third")],
        []
    );

    private static LessonMerge Merge(LessonDocument before, LessonDocument theirs, LessonDocument mine) =>
        LessonMerge.Of(LessonWithCues.Without(before), LessonWithCues.Without(theirs), LessonWithCues.Without(mine));

    [Fact]
    public void What_only_one_changed_is_kept()
    {
        var theirs = Before with
        {
            Title = "Ropes and knots",
            Sections = [.. Before.Sections.Skip(1), new("d", Ms.Of(2000), "New")],
            Cuts = [Range(0, 2), Range(10, 12), Range(20, 22)],
        };
        var mine = Before with
        {
            Description = "How to tie",
            Cuts = [Range(0, 1), Range(10, 12), Range(14, 15)],
            Sections = [Before.Sections[0], Before.Sections[1] with { Title = "Knots" }, Before.Sections[2]],
        };
        var merge = Merge(Before, theirs, mine);
        merge.Clashes.ShouldBeEmpty();
        var both = merge.Document;
        (both.Title, both.Description).ShouldBe(("Ropes and knots", "How to tie"));
        both.Cuts.ShouldBe([Range(0, 1), Range(10, 12), Range(14, 15), Range(20, 22)]);
        both.Sections.Select(s => (s.Id, s.Title)).ShouldBe([("d", "New"), ("b", "Knots"), ("c", "Third")]);
    }

    [Fact]
    public void Move_ins_are_brought_together_one_by_one()
    {
        MoveIn In(string id, double start, double end, double x = 0) => new(id, Range(start, end), new PicturePart(x, 0, 0.5, 0.5), MoveIn.UsualEase);
        var before = Before with { MoveIns = [In("a", 1, 3), In("b", 5, 8)] };
        var merge = Merge(before, before with { MoveIns = [In("a", 1, 4), In("b", 5, 8)] }, before with { MoveIns = [In("a", 1, 3, 0.5), In("c", 12, 14)] });
        merge.Document.MoveIns.ShouldBe([In("a", 1, 4, 0.5), In("c", 12, 14)]);
        merge.Clashes.ShouldBe(["the move-in at 0:01"]);
    }

    [Fact]
    public void How_recordings_lie_on_the_canvas_is_brought_together_one_by_one()
    {
        RecordingFrame On(string recording, FitMode fit) => new(recording, fit, new PicturePart(0, 0, 1, 1));
        var before = Before with { Frames = [On("a", FitMode.Whole)] };
        var merge = Merge(
            before,
            before with
            {
                Frames = [On("a", FitMode.Fill), On("b", FitMode.Fill)],
            },
            before with
            {
                Frames = [On("a", FitMode.Part), On("c", FitMode.Whole)],
            }
        );
        merge.Document.Frames.OrderBy(f => f.Recording).ShouldBe([On("a", FitMode.Part), On("b", FitMode.Fill), On("c", FitMode.Whole)]);
        merge.Clashes.ShouldBe(["how a recording lies on the canvas"]);
    }

    [Fact]
    public void What_both_changed_is_said_and_nothing_is_lost()
    {
        var theirs = Before with { Title = "Theirs", Sections = [Before.Sections[0], Before.Sections[1] with { Title = "Theirs" }] };
        var mine = Before with
        {
            Title = "Mine",
            Sections = [Before.Sections[0], Before.Sections[1] with { Title = "Mine", At = Ms.Of(6000) }, Before.Sections[2] with { Title = "Renamed" }],
        };
        var merge = Merge(Before, theirs, mine);
        merge.Clashes.ShouldBe(["the title", "the section “Mine”", "the section “Renamed”"]);
        merge.Document.Title.ShouldBe("Mine");
        merge.Document.Sections.Select(s => s.Title).ShouldBe(["First", "Mine", "Renamed"]);
        // I deleted what they went on with: it stays.
        Merge(Before, theirs, Before with { Sections = [] }).Document.Sections.Select(s => s.Title).ShouldBe(["Theirs"]);
    }

    [Fact]
    public void With_one_side_unchanged_the_other_stands()
    {
        var cuts = Gen.Double[0, 60]
            .Array[0, 8]
            .Select(e => TimeRange.Union(e.Order().Chunk(2).Where(c => c.Length == 2).Select(c => Range(Math.Round(c[0]), Math.Round(c[1])))));
        Gen.Select(cuts, cuts)
            .Sample(
                (was, now) =>
                {
                    var (before, changed) = (Before with { Cuts = was }, Before with { Cuts = now, Title = "Changed", Sections = [] });
                    foreach (var merge in new[] { Merge(before, changed, before), Merge(before, before, changed) })
                    {
                        merge.Clashes.ShouldBeEmpty();
                        merge.Document.Cuts.ShouldBe(changed.Cuts);
                        merge.Document.Title.ShouldBe("Changed");
                        merge.Document.Sections.ShouldBeEmpty();
                    }
                }
            );
    }

    [Fact]
    public void Ranges_without_others_cover_exactly_the_rest()
    {
        var ranges = Gen.Int[0, 40].Array[0, 8].Select(e => e.Order().Chunk(2).Where(c => c.Length == 2).Select(c => Range(c[0], c[1])).ToList());
        Gen.Select(ranges, ranges)
            .Sample(
                (all, taken) =>
                {
                    var left = TimeRange.Without(all, taken);
                    for (var s = 0.5; s < 40; s++)
                    {
                        bool In(IEnumerable<TimeRange> list) => list.Any(r => r.Start.TotalSeconds < s && s < r.End.TotalSeconds);
                        In(left).ShouldBe(In(all) && !In(taken));
                    }
                }
            );
    }
}
