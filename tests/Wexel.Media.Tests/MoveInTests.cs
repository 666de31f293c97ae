using CliWrap;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Media.Tests;

/// <summary>What is rendered while moving in: each frame against the geometry that the desk draws by.</summary>
public sealed class MoveInTests(Clips clips) : IClassFixture<Clips>
{
    private static readonly PictureRect Square = new(560, 300, 120, 90);

    /// <summary>White, 1280 × 720, with one black square, standing still; 8 s.</summary>
    private Task<string> PageAsync() =>
        clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            $"color=c=white:s=1280x720:r=30:d=8,drawbox=x={Square.X}:y={Square.Y}:w={Square.Width}:h={Square.Height}:c=black:t=fill",
            "-vf",
            "scale=out_color_matrix=bt709:out_range=tv,format=yuv420p",
            "-c:v",
            "libx264",
            "-preset",
            "ultrafast",
            "-qp",
            "0",
            "-colorspace",
            "bt709",
            "-color_primaries",
            "bt709",
            "-color_trc",
            "bt709",
            "-color_range",
            "tv",
            "page.mp4"
        );

    private static readonly IReadOnlyList<MoveIn> Twice =
    [
        new("a", new TimeRange(TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(3.5)), new PicturePart(0.4, 0.35, 0.3, 0.3), MoveIn.UsualEase),
        new("b", new TimeRange(TimeSpan.FromSeconds(4), TimeSpan.FromSeconds(6)), new PicturePart(0.3, 0.3, 0.5, 0.5), TimeSpan.FromSeconds(0.8)),
    ];

    private async Task<byte[][]> FramesAsync(Made made)
    {
        var size = made.Plan.Picture!.Size;
        var raw = clips.Path($"{Guid.NewGuid():N}.gray");
        await Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-y",
                "-i",
                made.Path,
                "-vf",
                $"fps={made.Plan.Picture!.Timing.Grid}:start_time=0,format=gray",
                "-f",
                "rawvideo",
                raw,
            ])
            .ExecuteAsync();
        var grey = await File.ReadAllBytesAsync(raw);
        return [.. grey.Chunk(size.Width * size.Height)];
    }

    /// <summary>Where brightness passes the middle along a line of samples, between samples; the first place in the direction.</summary>
    private static double Edge(Func<int, int> sample, int from, int until)
    {
        var step = until > from ? 1 : -1;
        for (var at = from; at != until; at += step)
        {
            var (here, next) = (sample(at), sample(at + step));
            if (here < 128 && next >= 128)
                return at + 0.5 + (step * (128.0 - here) / (next - here));
        }

        return until;
    }

    [Theory]
    [InlineData("web", null)]
    [InlineData("small-480p", null)]
    [InlineData("web", 640)]
    public async Task Every_frame_shows_what_the_path_says_within_a_pixel(string profile, int? upright)
    {
        var canvas = upright is null ? null : new Canvas(new(640, 640), FitMode.Whole, PicturePart.All);
        var made = await Making.MakeAsync(
            await PageAsync(),
            clips.Path($"{Guid.NewGuid():N}.mp4"),
            profile: Profiles.Find(profile),
            canvas: canvas,
            moveIns: Twice
        );
        made.ShouldBeRight();
        var placement = made.Plan.Picture!.Parts[0].Placement;
        var size = placement.Canvas;
        var path = new ViewPath(placement.Page, made.Plan.Picture!.Parts[0].Moves);
        var frames = await FramesAsync(made);
        frames.Length.ShouldBe(240);
        for (var n = 0; n < frames.Length; n++)
        {
            var (frame, seen) = (frames[n], path.At(n));
            double X(double x) => (x + placement.SeenOnPage.X - placement.From.X - seen.X) * size.Width / seen.Width;
            double Y(double y) => (y + placement.SeenOnPage.Y - placement.From.Y - seen.Y) * size.Height / seen.Height;
            var (left, right, top, bottom) = (X(Square.X), X(Square.X + Square.Width), Y(Square.Y), Y(Square.Y + Square.Height));
            var (x, y) = ((int)((left + right) / 2), (int)((top + bottom) / 2));
            Edge(at => frame[(y * size.Width) + at], x, 0).ShouldBe(left, 1, $"left, frame {n}");
            Edge(at => frame[(y * size.Width) + at], x, size.Width - 1).ShouldBe(right, 1, $"right, frame {n}");
            Edge(at => frame[(at * size.Width) + x], y, 0).ShouldBe(top, 1, $"top, frame {n}");
            Edge(at => frame[(at * size.Width) + x], y, size.Height - 1).ShouldBe(bottom, 1, $"bottom, frame {n}");
        }
    }

    [Fact]
    public async Task Frames_are_made_while_it_moves_and_not_while_it_stays()
    {
        var (still, moved) = (
            await Making.MakeAsync(await PageAsync(), clips.Path("still.mp4")),
            await Making.MakeAsync(await PageAsync(), clips.Path("moved.mp4"), moveIns: Twice)
        );
        // In, over to the second, and out: 15 and 24 and 24 frames.
        (moved.Measured.Picture!.FrameCount - still.Measured.Picture!.FrameCount).ShouldBeInRange(60, 66);
        moved.Plan.Picture!.Timing.Moving.Sum(m => m.Count).ShouldBe(63);
    }

    [Fact]
    public async Task Cuts_key_frames_and_a_constant_rate_go_together_with_moving()
    {
        IReadOnlyList<TimeRange> cuts = [new(TimeSpan.Zero, TimeSpan.FromSeconds(0.5)), new(TimeSpan.FromSeconds(2), TimeSpan.FromSeconds(2.4))];
        var sections = new Wexel.Core.Contents.Section[] { new("a", TimeSpan.Zero, "A"), new("b", TimeSpan.FromSeconds(1.2), "While it moves") };
        foreach (var profile in new[] { Profiles.Web, Profiles.Podcast720 })
        {
            var made = await Making.MakeAsync(await PageAsync(), clips.Path($"{Guid.NewGuid():N}.mp4"), sections, profile, cuts, moveIns: Twice);
            made.ShouldBeRight();
            made.Measured.Picture!.KeyFrames.ShouldContain(k => (k - TimeSpan.FromSeconds(0.7)).Duration() < TimeSpan.FromMilliseconds(17));
        }
    }

    [Fact]
    public async Task Enlarged_by_a_whole_factor_it_is_the_recordings_own_pixels()
    {
        // Delivered at half its size, moved in by two: one pixel of the recording is one pixel of the rendition.
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=1280x960:r=10:d=1,trim=end_frame=1,loop=30:1",
            "-vf",
            "scale=out_color_matrix=bt709:out_range=tv,format=yuv420p",
            "-c:v",
            "libx264",
            "-preset",
            "ultrafast",
            "-qp",
            "0",
            "-colorspace",
            "bt709",
            "-color_primaries",
            "bt709",
            "-color_trc",
            "bt709",
            "-color_range",
            "tv",
            "-t",
            "3",
            "fine.mp4"
        );
        var made = await Making.MakeAsync(
            source,
            clips.Path("fine.out.mp4"),
            profile: Profiles.Small480 with
            {
                Picture = Profiles.Small480.Picture! with { Rate = RateSettings.Of(1) },
            },
            moveIns: [new("a", new TimeRange(TimeSpan.Zero, TimeSpan.FromSeconds(3)), new PicturePart(0.25, 0.25, 0.5, 0.5), MoveIn.UsualEase)]
        );
        var seen = made.Plan.Picture!.Parts[0].Moves.Single().To;
        (seen.Width, seen.Height).ShouldBe((640, 480));
        var raw = clips.Path("fine.gray");
        await Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-y", "-i", source, "-frames:v", "1", "-vf", $"crop=640:480:{seen.X}:{seen.Y},format=gray", "-f", "rawvideo", raw])
            .ExecuteAsync();
        var (wanted, got) = (await File.ReadAllBytesAsync(raw), (await FramesAsync(made))[15]);
        wanted.Zip(got, (a, b) => Math.Abs(a - b)).Average().ShouldBeLessThan(1.0);
    }
}
