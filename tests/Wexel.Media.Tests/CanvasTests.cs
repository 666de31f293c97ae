using CliWrap;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Recordings;
using Wexel.Media.Probing;

namespace Wexel.Media.Tests;

/// <summary>What is rendered on a canvas, measured in the finished file: where the recording's own marks come to stand.</summary>
public sealed class CanvasTests(Clips clips) : IClassFixture<Clips>
{
    /// <summary>White, 640 × 480, with a black square of 40 × 40 whose corner is at 160, 120.</summary>
    private Task<string> SquareAsync() =>
        clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "color=c=white:s=640x480:r=10:d=2,drawbox=x=160:y=120:w=40:h=40:c=black:t=fill",
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
            "square.mp4"
        );

    private async Task<(Made Made, Func<int, int, int> At)> MakeAsync(Canvas canvas, Profile? profile = null)
    {
        var made = await Making.MakeAsync(await SquareAsync(), clips.Path($"{Guid.NewGuid():N}.mp4"), profile: profile, canvas: canvas);
        made.ShouldBeRight();
        var size = made.Plan.Picture!.Size;
        var raw = clips.Path($"{Guid.NewGuid():N}.gray");
        await Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-y", "-ss", "1", "-i", made.Path, "-frames:v", "1", "-vf", "format=gray", "-f", "rawvideo", raw])
            .ExecuteAsync();
        var grey = await File.ReadAllBytesAsync(raw);
        grey.Length.ShouldBe(size.Width * size.Height);
        return (made, (x, y) => grey[(y * size.Width) + x]);
    }

    /// <summary>The dark square's edges, within a pixel of where the placement puts them.</summary>
    private static void ShouldStandWherePlanned(Made made, Func<int, int, int> at)
    {
        var placed = made.Plan.Picture!.Parts[0].Placement;
        double X(double x) => placed.To.X + ((x - placed.From.X) * placed.To.Width / placed.From.Width);
        double Y(double y) => placed.To.Y + ((y - placed.From.Y) * placed.To.Height / placed.From.Height);
        var (left, right, top, bottom) = (X(160), X(200), Y(120), Y(160));
        var (middleX, middleY) = ((int)((left + right) / 2), (int)((top + bottom) / 2));
        double EdgeAcross(int from, int step)
        {
            var x = from;
            while (at(x, middleY) < 128)
                x += step;
            return step > 0 ? x : x + 1;
        }

        double EdgeDown(int from, int step)
        {
            var y = from;
            while (at(middleX, y) < 128)
                y += step;
            return step > 0 ? y : y + 1;
        }

        at(middleX, middleY).ShouldBeLessThan(40);
        EdgeAcross(middleX, -1).ShouldBe(left, 1);
        EdgeAcross(middleX, 1).ShouldBe(right, 1);
        EdgeDown(middleY, -1).ShouldBe(top, 1);
        EdgeDown(middleY, 1).ShouldBe(bottom, 1);
    }

    [Fact]
    public async Task Whole_is_black_at_the_sides()
    {
        var (made, at) = await MakeAsync(new Canvas(new(1280, 720), FitMode.Whole, PicturePart.All));
        ShouldStandWherePlanned(made, at);
        at(4, 360).ShouldBeLessThan(20);
        at(155, 360).ShouldBeLessThan(40);
        at(164, 360).ShouldBeGreaterThan(220);
        at(1275, 360).ShouldBeLessThan(20);
    }

    [Fact]
    public async Task Filled_has_nothing_black()
    {
        var (made, at) = await MakeAsync(new Canvas(new(640, 360), FitMode.Fill, PicturePart.All));
        ShouldStandWherePlanned(made, at);
        made.Plan.Picture!.Parts[0].Placement.To.ShouldBe(new PictureRect(0, 0, 640, 360));
        foreach (var (x, y) in new[] { (2, 2), (637, 2), (2, 357), (637, 357) })
            at(x, y).ShouldBeGreaterThan(220);
    }

    [Fact]
    public async Task A_part_stays_the_same_part_at_every_delivered_size()
    {
        var canvas = new Canvas(new(1280, 720), FitMode.Part, new PicturePart(0.2, 0.2, 0.25, 0.2));
        foreach (var profile in new[] { Profiles.Web, Profiles.Small480 })
        {
            var (made, at) = await MakeAsync(canvas, profile);
            ShouldStandWherePlanned(made, at);
        }
    }

    [Fact]
    public async Task Other_colours_and_turned_recordings_are_placed_too()
    {
        var turned = await clips.MakeAsync("-f", "lavfi", "-i", "testsrc2=s=320x240:r=10:d=1", "-pix_fmt", "yuvj420p", "-c:v", "libx264", "upright-source.mp4");
        var rotated = await clips.MakeAsync("-i", turned, "-c", "copy", "-metadata:s:v:0", "rotate=90", "upright.mp4");
        var facts = (await Prober.ProbeAsync(rotated, "upright.mp4", TestContext.Current.CancellationToken)).Value!;
        facts.Picture!.ShownSize.ShouldBe(new PictureSize(240, 320));
        var made = await Making.MakeAsync(rotated, clips.Path("upright.out.mp4"), canvas: new Canvas(new(720, 1280), FitMode.Whole, PicturePart.All));
        made.ShouldBeRight();
        made.Measured.Picture!.Size.ShouldBe(new PictureSize(720, 1280));
    }
}
