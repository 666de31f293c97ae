using CliWrap;
using Wexel.Core.Encoding;
using Wexel.Core.Kit;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Measuring;
using Wexel.Media.Probing;
using Wexel.Media.Rendering;

namespace Wexel.Media.Tests;

public sealed class MarkTests(Clips clips) : IClassFixture<Clips>
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private async Task<byte[]> FrameAsync(string path, double at, int width, int height)
    {
        var raw = clips.Path($"{Guid.NewGuid():N}.rgb");
        await Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-y",
                "-ss",
                at.ToString(System.Globalization.CultureInfo.InvariantCulture),
                "-i",
                path,
                "-frames:v",
                "1",
                "-vf",
                "scale=in_color_matrix=bt709:in_range=tv,format=rgb24",
                "-f",
                "rawvideo",
                raw,
            ])
            .ExecuteAsync();
        var frame = await File.ReadAllBytesAsync(raw);
        frame.Length.ShouldBe(width * height * 3);
        return frame;
    }

    [Fact]
    public async Task The_mark_stands_where_it_was_computed_with_its_own_colour_as_long_as_the_picture()
    {
        // A plain copper mark of 400 × 200 on a white page on which a box appears, with sound, cuts and frames left out.
        var mark = await clips.MakeAsync("-f", "lavfi", "-i", "color=c=0xA94A14:s=400x200,format=rgba", "-frames:v", "1", "mark.png");
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "color=c=white:s=640x360:r=30:d=6,drawbox=x=20:y=20:w=80:h=40:c=navy:t=fill:enable='gte(t,3)'",
            "-f",
            "lavfi",
            "-i",
            "sine=d=6",
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
            "marked.mp4"
        );
        var placement = MarkPlacement.Usual;
        var made = await Making.MakeAsync(
            source,
            clips.Path("marked.out.mp4"),
            cuts: [new TimeRange(TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(2))],
            mark: mark,
            markOn: new MarkOnPicture("k", new PictureSize(400, 200), placement)
        );
        made.ShouldBeRight();
        var box = made.Plan.Picture!.Mark!.Box;
        box.ShouldBe(new PictureRect(480, 278, 128, 64));
        // Half copper over white; the file keeps colour for pairs of pixels, and H.264 rounds.
        (int R, int G, int B) half = ((0xA9 + 255) / 2, (0x4A + 255) / 2, (0x14 + 255) / 2);
        foreach (var at in new[] { 0, 1.5, 4.9 })
        {
            var frame = await FrameAsync(made.Path, at, 640, 360);
            (int, int, int) At(int x, int y) => (frame[((y * 640) + x) * 3], frame[(((y * 640) + x) * 3) + 1], frame[(((y * 640) + x) * 3) + 2]);
            foreach (
                var (x, y) in new[]
                {
                    (box.X + 3, box.Y + 3),
                    (box.X + box.Width - 4, box.Y + 3),
                    (box.X + 3, box.Y + box.Height - 4),
                    (box.X + box.Width - 4, box.Y + box.Height - 4),
                }
            )
            {
                var (r, g, b) = At(x, y);
                (Math.Abs(r - half.R) + Math.Abs(g - half.G) + Math.Abs(b - half.B)).ShouldBeLessThan(14, $"{At(x, y)} at {x}, {y}, {at} s");
            }

            foreach (
                var (x, y) in new[]
                {
                    (box.X - 4, box.Y + 20),
                    (box.X + box.Width + 3, box.Y + 20),
                    (box.X + 20, box.Y - 4),
                    (box.X + 20, box.Y + box.Height + 3),
                }
            )
                At(x, y).Item3.ShouldBeGreaterThan(245, $"around the mark, at {at} s");
        }

        // The picture stands still most of the time; the mark does not make frames.
        made.Measured.Picture!.FrameCount.ShouldBeLessThan(20);
    }

    [Fact]
    public async Task Each_of_several_files_of_one_pass_has_its_own_mark()
    {
        var source = await clips.PictureAsync("color=white:s=640x360:r=30:d=2", "page for marks.mp4", "-pix_fmt", "yuv420p");
        var (red, blue) = (await MarkAsync("red"), await MarkAsync("blue"));
        var facts = (await Prober.ProbeAsync(source, "page.mp4", Cancel)).Value!;
        var reel = Reel.Of(facts);
        var placement = MarkPlacement.Usual with { OpacityPercent = 100 };
        PicturePlan Plan(MarkOnPicture? own) =>
            RenderPlanner
                .Plan(
                    reel,
                    reel.Map([]),
                    Profiles.Web with
                    {
                        Picture = Profiles.Web.Picture! with { OwnMark = own, Copy = false },
                    },
                    new LessonLook(Mark: new MarkOnPicture("red", new PictureSize(400, 400), placement))
                )
                .Picture!;
        var plans = new[]
        {
            Plan(null),
            Plan(new MarkOnPicture("blue", new PictureSize(400, 400), placement with { Position = MarkPosition.TopLeft })),
            Plan(new MarkOnPicture("red", new PictureSize(400, 400), placement with { Position = MarkPosition.Top })),
        };
        var paths = plans.Select((_, i) => clips.Path($"own-mark-{i}.mp4")).ToList();
        var inputs = new EncodeInputs([source], new Dictionary<string, string> { ["red"] = red, ["blue"] = blue });
        await Encoder.EncodeAsync(new EncodeWork(inputs, [.. plans.Zip(paths, (p, path) => new PictureOutput(p, path))], []), null, null, Cancel);
        foreach (var (plan, path) in plans.Zip(paths))
        {
            var (frame, box) = (await FrameAsync(path, 1, 640, 360), plan.Mark!.Box);
            var at = (((box.Y + (box.Height / 2)) * 640) + box.X + (box.Width / 2)) * 3;
            (frame[at] > 200, frame[at + 2] > 200).ShouldBe((plan.Mark.Key == "red", plan.Mark.Key == "blue"), path);
            frame[((180 * 640) + 320) * 3].ShouldBeGreaterThan((byte)240);
        }

        Task<string> MarkAsync(string colour) =>
            clips.MakeAsync("-f", "lavfi", "-i", $"color=c={colour}:s=400x400,format=rgba", "-frames:v", "1", $"{colour}.png");
    }

    [Fact]
    public async Task A_drawing_becomes_a_picture_with_transparency()
    {
        var svg = clips.Path("mark.svg");
        await File.WriteAllTextAsync(svg, "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 40 20'><circle cx='10' cy='10' r='8' fill='#a94a14'/></svg>");
        var png = clips.Path("drawn.png");
        await MarkMaker.DrawAsync(svg, png, TestContext.Current.CancellationToken);
        var facts = (await ArtworkMeasurer.MeasureAsync(png, TestContext.Current.CancellationToken))!;
        (facts.Format, facts.Width, facts.Height, facts.Transparent).ShouldBe(("png", 1600, 800, true));
    }
}
