using CsCheck;
using Wexel.Core.Cameras;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Cameras;

public class KeepClearTests
{
    private const CameraCorner Own = CameraCorner.BottomRight;

    private static TimeRange Range(double start, double end) => new(TimeSpan.FromSeconds(start), TimeSpan.FromSeconds(end));

    private static Happening At(double seconds, params CameraCorner[] corners) => new(TimeSpan.FromSeconds(seconds), corners.Sum(c => 1 << (int)c));

    [Fact]
    public void Where_nothing_happens_it_stays_in_its_own_corner() =>
        KeepClear.Choose(Range(3, 300), Own, []).ShouldHaveSingleItem().ShouldBe((Range(3, 300), Own));

    [Fact]
    public void It_is_away_before_something_happens_and_comes_back_when_it_was_looked_at()
    {
        var pieces = KeepClear.Choose(Range(0, 60), Own, [At(20, Own), At(21, Own)]);
        pieces.Count.ShouldBe(3);
        (pieces[0].Corner, pieces[2].Corner).ShouldBe((Own, Own));
        pieces[1].Corner.ShouldBe(CameraCorner.BottomLeft, "beside its own, rather than above or across");
        // What was seen at 20 happened after 19.5; what was seen at 21 is looked at until 22.5.
        pieces[1].Span.ShouldBe(Range(19.5, 22.5));
    }

    [Fact]
    public void It_does_not_go_to_and_fro()
    {
        var pieces = KeepClear.Choose(Range(0, 60), Own, [At(20, Own), At(25, Own), At(29, Own)]);
        pieces.Count.ShouldBe(3);
        pieces[1].Span.ShouldBe(Range(19.5, 30.5));
    }

    [Fact]
    public void It_is_gone_where_something_happens_in_all_corners()
    {
        var all = Enum.GetValues<CameraCorner>();
        var pieces = KeepClear.Choose(Range(0, 60), Own, [At(20, all)]);
        pieces.Select(p => p.Corner).ShouldBe([Own, null, Own]);
        pieces[1].Span.ShouldBe(Range(19.5, 21.5));
    }

    [Fact]
    public void Whatever_happens_it_covers_none_of_it_and_the_pieces_fill_the_stretch()
    {
        var happening = Gen.Select(Gen.Int[0, 240], Gen.Int[1, 15], (half, corners) => new Happening(TimeSpan.FromSeconds(half / 2.0), corners)).List[0, 60];
        Gen.Select(happening, Gen.Enum<CameraCorner>(), Gen.Int[0, 40])
            .Sample(
                (all, own, start) =>
                {
                    var span = new TimeRange(TimeSpan.FromSeconds(start / 3.0), TimeSpan.FromSeconds((start / 3.0) + 97.3));
                    var pieces = KeepClear.Choose(span, own, [.. all.OrderBy(h => h.At)]);
                    (pieces[0].Span.Start, pieces[^1].Span.End).ShouldBe((span.Start, span.End));
                    pieces.Zip(pieces.Skip(1)).ShouldAllBe(p => p.First.Span.End == p.Second.Span.Start && p.First.Corner != p.Second.Corner);
                    foreach (var (piece, corner) in pieces.Where(p => p.Corner is not null))
                    {
                        all.Where(h => (h.Corners & (1 << (int)corner!.Value)) != 0)
                            .ShouldAllBe(h => h.At - KeepClear.Sampled >= piece.End || h.At + KeepClear.LookedAt <= piece.Start);
                    }
                },
                iter: 1000
            );
    }
}
