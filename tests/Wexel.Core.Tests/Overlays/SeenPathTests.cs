using CsCheck;
using Wexel.Core.Overlays;
using Wexel.Core.Scoring;

namespace Wexel.Core.Tests.Overlays;

/// <summary>Where an area is seen while the picture moves: few frames, and never far from the truth.</summary>
public class SeenPathTests
{
    private static IReadOnlyList<Place> At(double x) => [new(x, 0.2), new(x + 0.1, 0.4)];

    [Fact]
    public void What_does_not_move_is_given_once() => SeenPath.Along(100, 5000, _ => At(0.3)).ShouldHaveSingleItem().Frame.ShouldBe(100);

    [Fact]
    public void What_jumps_does_so_between_two_frames() =>
        SeenPath.Along(0, 100, frame => At(frame < 40 ? 0.1 : 0.6)).Select(s => s.Frame).ShouldBe([0, 39, 40, 100]);

    [Fact]
    public void A_smooth_way_out_and_back_takes_few_frames()
    {
        double Eased(long frame)
        {
            var share = Math.Clamp(frame < 60 ? (frame - 20) / 15.0 : (95 - frame) / 15.0, 0, 1);
            return 0.1 + (0.5 * share * share * (3 - (2 * share)));
        }

        var path = SeenPath.Along(0, 120, frame => At(Eased(frame)));
        path.Count.ShouldBeInRange(6, 24);
        Worst(path, 120, frame => At(Eased(frame))).ShouldBeLessThanOrEqualTo(SeenPath.Tolerance);
    }

    [Fact]
    public void It_is_never_further_off_than_allowed() =>
        Gen.Double[-0.5, 1.5]
            .Array[1, 80]
            .Sample(xs =>
            {
                var path = SeenPath.Along(0, xs.Length - 1, frame => At(xs[frame]));
                path[0].Frame.ShouldBe(0);
                Worst(path, xs.Length - 1, frame => At(xs[frame])).ShouldBeLessThanOrEqualTo(SeenPath.Tolerance + 1e-9);
            });

    private static double Worst(IReadOnlyList<SeenAt> path, long last, Func<long, IReadOnlyList<Place>> truth)
    {
        var worst = 0.0;
        for (long frame = 0; frame <= last; frame++)
        {
            var before = path.Last(p => p.Frame <= frame);
            var after = path.FirstOrDefault(p => p.Frame > frame) ?? before;
            var share = after.Frame == before.Frame ? 0 : (double)(frame - before.Frame) / (after.Frame - before.Frame);
            worst = Math.Max(
                worst,
                before.Points.Zip(after.Points, truth(frame)).Max(p => Math.Abs(p.First.X + ((p.Second.X - p.First.X) * share) - p.Third.X))
            );
        }

        return worst;
    }
}
