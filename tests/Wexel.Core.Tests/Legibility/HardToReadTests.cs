using Wexel.Core.Editing;
using Wexel.Core.Legibility;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Legibility;

public class HardToReadTests
{
    private static readonly PictureSize Recorded = new(1920, 1080);

    private static TextLine Line(int x, int y, double height, int width = 300) => new(new PictureRect(x, y, width, (int)Math.Ceiling(height)), height);

    private static SeenPicture Seen(long from, long to, PictureRect? changed, params TextLine[] lines) =>
        new(new TimeRange(Ms.Of(from), Ms.Of(to)), lines, changed, []);

    private static IReadOnlyList<HardStretch> In(
        IReadOnlyList<SeenPicture> pictures,
        int height = 480,
        IReadOnlyList<MoveIn>? moveIns = null,
        IReadOnlyList<TimeRange>? cuts = null,
        Canvas? canvas = null
    ) =>
        HardToRead.In(
            pictures,
            CanvasPlacement.Of(Recorded, canvas ?? Canvas.AsRecorded, height),
            TimeMap.Of(new FrameRate(30, 1), Ms.Of(60_000), cuts ?? []),
            moveIns ?? []
        );

    private static MoveIn Taken(ProposedMoveIn proposal) => new("p", proposal.Span, proposal.Part, MoveIn.UsualEase);

    [Fact]
    public void Text_is_judged_as_high_as_it_is_delivered()
    {
        // 1080 lines delivered as 480: 0.444 of the size.
        var hard = In([Seen(0, 10_000, null, Line(100, 100, 14), Line(100, 200, 24))]).Single();
        hard.Smallest.ShouldBe(6.2);
        hard.Lines.Select(l => l.Box.Y).ShouldBe([100]);
        In([Seen(0, 10_000, null, Line(100, 100, 14))], 1080).ShouldBeEmpty();
    }

    [Fact]
    public void The_smallest_text_is_told_also_where_it_is_easy_to_read()
    {
        double? Smallest(int height, IReadOnlyList<TimeRange> cuts, params SeenPicture[] pictures) =>
            HardToRead.Smallest(pictures, CanvasPlacement.Of(Recorded, Canvas.AsRecorded, height), TimeMap.Of(new FrameRate(30, 1), Ms.Of(60_000), cuts), []);
        var pictures = new[] { Seen(0, 10_000, null, Line(100, 100, 14), Line(100, 200, 24)), Seen(10_000, 20_000, null, Line(100, 100, 18)) };
        Smallest(480, [], pictures).ShouldBe(6.2);
        Smallest(1080, [], pictures).ShouldBe(14);
        Smallest(1080, [new TimeRange(Ms.Of(0), Ms.Of(10_000))], pictures).ShouldBe(18);
        Smallest(1080, [], Seen(0, 10_000, null)).ShouldBeNull();
        Smallest(1080, []).ShouldBeNull();
    }

    [Fact]
    public void The_worst_comes_first() =>
        In([
                Seen(0, 5_000, null, Line(100, 100, 14)),
                Seen(5_000, 10_000, new(1500, 800, 100, 100), Line(1500, 800, 9)),
                Seen(10_000, 15_000, null, Line(900, 100, 16)),
            ])
            .Select(h => h.Smallest)
            .ShouldBe([4, 6.2, 7.1]);

    [Fact]
    public void What_is_proposed_makes_it_readable()
    {
        var pictures = new[] { Seen(0, 10_000, null, Line(100, 100, 14), Line(150, 160, 15)) };
        var proposal = In(pictures).Single().Proposal!;
        proposal.Smallest.ShouldBeGreaterThanOrEqualTo(8.9);
        proposal.Span.ShouldBe(pictures[0].Span);
        In(pictures, moveIns: [Taken(proposal)]).ShouldBeEmpty();
    }

    [Fact]
    public void A_whole_factor_is_taken_where_it_is_near()
    {
        // 1920 delivered in 854: 2.25 times larger is pixel for pixel; 1.5 would do for 13 px.
        var proposal = In([Seen(0, 10_000, null, Line(100, 100, 13.5))]).Single().Proposal!;
        proposal.WholeFactor.ShouldBeTrue();
        proposal.Factor.ShouldBe(2.25, 0.01);
        var far = In([Seen(0, 10_000, null, Line(100, 100, 19))]).Single().Proposal!;
        far.WholeFactor.ShouldBeFalse();
        far.Factor.ShouldBe(1.07, 0.02);
    }

    [Fact]
    public void What_changes_just_then_is_what_is_shown()
    {
        var lines = new[] { Line(60, 60, 12, 400), Line(1400, 900, 12, 400) };
        var proposal = In([Seen(0, 5_000, null, lines), Seen(5_000, 10_000, new PictureRect(1392, 880, 200, 48), lines)])
            .Single(h => h.Span.Start == Ms.Of(5_000))
            .Proposal!;
        var (right, bottom) = (proposal.Part.X + proposal.Part.Width, proposal.Part.Y + proposal.Part.Height);
        proposal.Part.X.ShouldBeLessThan(1400.0 / 1920);
        right.ShouldBeGreaterThanOrEqualTo(1800.0 / 1920 - 0.001);
        bottom.ShouldBeGreaterThan(912.0 / 1080);
        proposal.Part.Y.ShouldBeGreaterThan(60.0 / 1080);
    }

    [Fact]
    public void What_is_cut_or_not_on_the_canvas_is_not_hard_to_read()
    {
        var pictures = new[] { Seen(0, 10_000, null, Line(100, 100, 10)) };
        In(pictures, cuts: [new(Ms.Of(0), Ms.Of(10_000))]).ShouldBeEmpty();
        In(pictures, canvas: new Canvas(new(960, 540), FitMode.Part, new PicturePart(0.5, 0.5, 0.5, 0.5))).ShouldBeEmpty();
    }

    [Fact]
    public void A_stretch_too_short_to_look_at_is_told_and_nothing_is_proposed() =>
        In([Seen(0, 1_500, null, Line(100, 100, 10))]).Single().Proposal.ShouldBeNull();

    [Fact]
    public void Two_that_ask_for_the_same_are_one()
    {
        var lines = new[] { Line(100, 100, 12) };
        var hard = In([Seen(0, 5_000, null, lines), Seen(5_000, 9_000, new(1700, 1000, 32, 32), lines)]).Single();
        hard.Span.ShouldBe(new TimeRange(Ms.Of(0), Ms.Of(9_000)));
        hard.Proposal!.Span.ShouldBe(hard.Span);
    }

    [Fact]
    public void Too_few_samples_are_refused()
    {
        Should.Throw<ArgumentException>(() => TextFinder.Find(new byte[10], new PictureSize(10, 10)));
        Should.Throw<ArgumentException>(() => DetailKept.Of(new byte[100], new byte[10], new PictureSize(10, 10), new PictureSize(5, 5)));
    }

    [Fact]
    public void Detail_that_is_gone_is_found_where_it_was()
    {
        // A fine pattern at the left, nothing at the right; what comes back is grey.
        var size = new PictureSize(128, 64);
        var fine = new byte[128 * 64];
        var back = new byte[128 * 64];
        for (var y = 0; y < 64; y++)
        {
            for (var x = 0; x < 128; x++)
            {
                fine[(y * 128) + x] = (byte)(x < 64 && (x / 2 + y / 2) % 2 == 0 ? 0 : 200);
                back[(y * 128) + x] = (byte)(
                    x < 32 ? fine[(y * 128) + x]
                    : x < 64 ? 100
                    : 200
                );
            }
        }

        var kept = DetailKept.Of(fine, back, size, new PictureSize(64, 32));
        kept.Across.ShouldBe(4);
        kept.PerCent[0].ShouldBeInRange((byte)95, (byte)100);
        kept.PerCent.Skip(1).Take(3).ShouldBe(new byte[] { 0, DetailKept.Nothing, DetailKept.Nothing });
        kept.Lost().ShouldBe([new PictureRect(32, 0, 32, 32), new PictureRect(32, 32, 32, 32)]);
        kept.Mean.ShouldBe(50, 2);
    }

    [Fact]
    public void What_differs_is_bounded_by_cells()
    {
        var (a, b) = (new byte[100 * 60], new byte[100 * 60]);
        ChangedPart.Between(a, b, new PictureSize(100, 60)).ShouldBeNull();
        b[(20 * 100) + 40] = 255;
        b[(21 * 100) + 41] = 255;
        b[(20 * 100) + 41] = 255;
        b[(21 * 100) + 40] = 255;
        ChangedPart.Between(a, b, new PictureSize(100, 60)).ShouldBe(new PictureRect(32, 16, 16, 16));
    }
}
