using System.Text.Json;
using CsCheck;
using Wexel.Core.Editing;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Editing;

public class MoveInTests
{
    public sealed record Vector(string Name, PictureSize Page, ViewMove[] Moves, long[][] Seen)
    {
        public override string ToString() => Name;
    }

    /// <summary>The same file is read by the desk's tests: what is drawn before rendering is what is rendered.</summary>
    public static IEnumerable<TheoryDataRow<Vector>> Vectors() =>
        JsonSerializer
            .Deserialize<Vector[]>(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "vectors", "moves.json")), JsonSerializerOptions.Web)!
            .Select(v => new TheoryDataRow<Vector>(v));

    [Theory]
    [MemberData(nameof(Vectors))]
    public void What_is_seen_goes_smoothly_from_part_to_part(Vector vector)
    {
        var path = new ViewPath(vector.Page, vector.Moves);
        foreach (var seen in vector.Seen)
            path.At(seen[0]).ShouldBe(new PictureRect((int)seen[1], (int)seen[2], (int)seen[3], (int)seen[4]), $"frame {seen[0]}");
    }

    private static readonly FrameRate Rate = new(30, 1);

    private static MoveIn In(long from, long to, PicturePart? part = null, long ease = 500, string? id = null) =>
        new(id ?? $"{from}", new TimeRange(Ms.Of(from), Ms.Of(to)), part ?? new PicturePart(0.25, 0.25, 0.5, 0.5), Ms.Of(ease));

    private static ViewPath PathOf(IReadOnlyList<MoveIn> moveIns, IReadOnlyList<TimeRange>? cuts = null, CanvasPlacement? placement = null) =>
        ViewPath.Of(moveIns, TimeMap.Of(Rate, TimeSpan.FromSeconds(60), cuts ?? []), placement ?? CanvasPlacement.Of(new(1280, 720), Canvas.AsRecorded, null));

    private static readonly PictureRect Half = new(320, 180, 640, 360);

    [Fact]
    public void Moving_in_begins_at_the_start_and_moving_out_ends_at_the_end()
    {
        var path = PathOf([In(2000, 6000)]);
        path.At(60).ShouldBe(path.Whole);
        path.At(61).ShouldNotBe(path.Whole);
        path.At(74).ShouldNotBe(Half);
        path.At(75).ShouldBe(Half);
        path.At(165).ShouldBe(Half);
        path.At(166).ShouldNotBe(Half);
        path.At(180).ShouldBe(path.Whole);
    }

    [Fact]
    public void Where_the_next_is_near_it_is_gone_to_at_once()
    {
        var (near, far) = (PathOf([In(2000, 6000), In(7000, 9000, new(0, 0, 0.5, 0.5))]), PathOf([In(2000, 6000), In(8000, 9000, new(0, 0, 0.5, 0.5))]));
        Enumerable.Range(75, 150).ShouldAllBe(frame => near.At(frame).Width == 640);
        far.At(200).ShouldBe(far.Whole);
        near.At(225).ShouldBe(new PictureRect(0, 0, 640, 360));
    }

    [Fact]
    public void At_the_lessons_own_ends_nothing_is_gone_by()
    {
        var path = PathOf([In(0, 60_000)]);
        path.At(0).ShouldBe(Half);
        path.At(1799).ShouldBe(Half);
        path.Moves.Count.ShouldBe(1);
    }

    [Fact]
    public void Without_ease_it_jumps() => PathOf([In(2000, 3000, ease: 0)]).Moves.Select(m => (m.First, m.Frames)).ShouldBe([(59, 1), (89, 1)]);

    [Fact]
    public void One_that_is_cut_in_part_keeps_its_part_and_one_that_is_cut_is_gone()
    {
        var path = PathOf([In(2000, 6000), In(20_000, 22_000)], [new(Ms.Of(0), Ms.Of(4000)), new(Ms.Of(19_000), Ms.Of(23_000))]);
        path.At(0).ShouldBe(Half);
        path.At(60).ShouldBe(path.Whole);
        path.Moves.Count.ShouldBe(2);
    }

    [Fact]
    public void A_short_one_takes_half_its_time_for_each_way()
    {
        var path = PathOf([In(2000, 2600)]);
        path.Moves.Select(m => (m.First, m.Frames)).ShouldBe([(60, 9), (69, 9)]);
    }

    [Fact]
    public void One_that_lies_over_another_ends_the_earlier_one()
    {
        var tidy = MoveIn.Kind.Tidy([In(5000, 9000), In(2000, 6000), In(-500, 100), In(59_950, 70_000)], TimeSpan.FromSeconds(60));
        tidy.Select(m => (m.Span.Start.TotalMilliseconds, m.Span.End.TotalMilliseconds)).ShouldBe([(2000, 5000), (5000, 9000)]);
    }

    [Fact]
    public void One_outside_the_picture_is_brought_onto_it()
    {
        var tidy = MoveIn.Kind.Tidy([In(1000, 2000, new PicturePart(1.5, -3, 0.2, 9))], TimeSpan.FromSeconds(60));
        tidy.Single().Part.ShouldBe(new PicturePart(0.8, 0, 0.2, 1));
        MoveIn.Kind.Refusal([In(1, 2), In(1, 2)])!.Code.ShouldBe("move-ins-same-twice");
        MoveIn.Kind.Refusal([.. Enumerable.Range(0, 201).Select(i => In(i * 100, i * 100 + 100))])!.Sentence.ShouldContain("200");
    }

    [Fact]
    public void Move_ins_are_read_from_a_text()
    {
        var (moveIns, problems) = MoveInsText.Read(
            "0:05 - 0:12.5 at 20,30 50x40\n\n0:20 - end at 0,0 25 × 25\nsoon\n0:30 - 0:29 at 1,1 9x9",
            TimeSpan.FromSeconds(60)
        );
        moveIns
            .Select(m => (m.Span.Start.TotalSeconds, m.Span.End.TotalSeconds, m.Part))
            .ShouldBe([(5, 12.5, new(0.2, 0.3, 0.5, 0.4)), (20, 60, new(0, 0, 0.25, 0.25))]);
        problems.Select(p => (p.Code, p.Field)).ShouldBe([("move-ins-line", "line 4"), ("cuts-backward", "line 5")]);
        problems[1].Sentence.ShouldStartWith("Line 5");
    }

    private static readonly Gen<Canvas> Canvases =
        from size in Pick.From<PictureSize?>(null, new(1280, 720), new(854, 480), new(640, 480), new(720, 1280), new(666, 444))
        from fit in Pick.From(FitMode.Whole, FitMode.Fill, FitMode.Part)
        from part in Parts
        select new Canvas(size, fit, part);

    private static Gen<PicturePart> Parts =>
        from x in Gen.Double[0, 1]
        from y in Gen.Double[0, 1]
        from width in Gen.Double[0.05, 1]
        from height in Gen.Double[0.05, 1]
        select new PicturePart(x, y, width, height).Within();

    private static readonly Gen<PictureSize> Sizes = Pick.From(new PictureSize(1920, 1080), new(1280, 720), new(1366, 768), new(1023, 767), new(640, 480));

    [Fact]
    public void What_is_seen_never_leaves_the_page_and_changes_by_no_jump() =>
        Gen.Select(Sizes, Canvases, Gen.Select(Gen.Long[0, 60_000], Gen.Long[200, 9_000], Parts, Gen.Long[100, 2_000]).Array[0, 8])
            .Sample(
                (recorded, canvas, wanted) =>
                {
                    var placement = CanvasPlacement.Of(recorded, canvas, null);
                    var moveIns = MoveIn.Kind.Tidy(wanted.Select((w, i) => In(w.Item1, w.Item1 + w.Item2, w.Item3, w.Item4, $"{i}")), TimeSpan.FromSeconds(60));
                    var path = PathOf(moveIns, null, placement);
                    var all = Enumerable.Range(0, 1800).Select(f => path.At(f)).ToList();
                    var inside = all.All(r =>
                        r.X >= 0 && r.Y >= 0 && r.Width > 0 && r.Height > 0 && r.X + r.Width <= path.Page.Width + 1 && r.Y + r.Height <= path.Page.Height + 1
                    );
                    var inOrder = path.Moves.Zip(path.Moves.Skip(1), (a, b) => a.Last <= b.First && a.To == b.From).All(x => x);
                    return inside && inOrder;
                }
            );

    [Fact]
    public void The_part_that_was_chosen_is_seen_on_every_canvas_that_shows_it() =>
        Gen.Select(Sizes, Canvases, Parts)
            .Sample(
                (recorded, canvas, part) =>
                {
                    var placement = CanvasPlacement.Of(recorded, canvas, null);
                    var (page, seen, shown) = (placement.Page, placement.SeenOnPage, placement.OnPage(part));
                    var (left, top) = (seen.X + (part.X * recorded.Width) - placement.From.X, seen.Y + (part.Y * recorded.Height) - placement.From.Y);
                    bool Covers(double from, double length, int at, int taken, int all) =>
                        Math.Max(from, 0) >= at - 2.01 && Math.Min(from + length, all) <= at + taken + 2.01;
                    return Covers(left, part.Width * recorded.Width, shown.X, shown.Width, page.Width)
                        && Covers(top, part.Height * recorded.Height, shown.Y, shown.Height, page.Height)
                        && shown.X % 2 == 0
                        && shown.Y % 2 == 0
                        && shown.Width % 2 == 0
                        && shown.Height % 2 == 0
                        && seen.X >= 0
                        && seen.Y >= 0
                        && seen.X + seen.Width <= page.Width
                        && seen.Y + seen.Height <= page.Height;
                }
            );

    [Fact]
    public void What_two_people_changed_of_one_move_in_is_all_kept()
    {
        var before = In(2000, 6000);
        MoveIn[] changes =
        [
            before with
            {
                Span = new TimeRange(Ms.Of(2500), Ms.Of(6000)),
            },
            before with
            {
                Part = PicturePart.All,
            },
            before with
            {
                Ease = Ms.Of(900),
            },
        ];
        foreach (var theirs in changes)
        {
            MoveIn.Kind.Merged(before, theirs, before).ShouldBe(theirs);
            MoveIn.Kind.Merged(before, before, theirs).ShouldBe(theirs);
            foreach (var mine in changes.Where(c => c != theirs))
            {
                var both = MoveIn.Kind.Merged(before, theirs, mine);
                changes
                    .Count(c =>
                        c.Span == both.Span && c.Span != before.Span
                        || c.Part == both.Part && c.Part != before.Part
                        || c.Ease == both.Ease && c.Ease != before.Ease
                    )
                    .ShouldBe(2);
            }
        }

        MoveIn.Kind.Merged(before, before with { Ease = Ms.Of(100) }, before with { Ease = Ms.Of(200) }).Ease.ShouldBe(Ms.Of(200));
    }

    [Fact]
    public void One_that_the_next_leaves_the_shortest_of_stays()
    {
        var shortest = (long)MoveIn.Kind.Shortest.TotalMilliseconds;
        MoveIn.Kind.Tidy([In(1000, 9000, id: "a"), In(1000 + shortest, 12_000, id: "b")], TimeSpan.FromMinutes(1)).Select(m => m.Id).ShouldBe(["a", "b"]);
        MoveIn.Kind.Tidy([In(1000, 9000, id: "a"), In(999 + shortest, 12_000, id: "b")], TimeSpan.FromMinutes(1)).Select(m => m.Id).ShouldBe(["b"]);
    }

    [Theory]
    [InlineData("60,0 50x40", "move-ins-beyond")]
    [InlineData("0,70 50x40", "move-ins-beyond")]
    [InlineData("60,70 50x40", "move-ins-beyond")]
    [InlineData("50,60 50x40", null)]
    public void A_part_lies_within_the_picture_both_ways(string part, string? code) =>
        (MoveInsText.Read($"0:01 - 0:05 at {part}", TimeSpan.FromMinutes(1)).Problems is [var problem] ? problem.Code : null).ShouldBe(code);
}
