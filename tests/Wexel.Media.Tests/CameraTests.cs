using System.Globalization;
using CliWrap;
using Wexel.Core.Cameras;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Timing;

namespace Wexel.Media.Tests;

/// <summary>
/// A camera over a screen, rendered: each of its frames says its own number, as bars from black to white, so that it can be read off the finished
/// file which of them stands over which frame of the screen.
/// </summary>
public sealed class CameraTests(Clips clips) : IClassFixture<Clips>
{
    private const int Bit = 32;

    /// <summary>Square, at the bottom right, half as wide as the picture, always.</summary>
    private static readonly CameraLook Plain = CameraLook.Usual with { WidthPercent = 50, DistancePercent = 0, RoundedPercent = 0, KeepsClear = false };

    /// <summary>A page that stands still, but for a square that jumps from place to place, at 30 a second.</summary>
    private Task<string> ScreenAsync(double seconds = 8) =>
        clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            string.Create(CultureInfo.InvariantCulture, $"color=0x808080:s=640x360:r=30:d={seconds},drawbox=x=20:y=20:w=80:h=40:c=white:t=fill"),
            "-f",
            "lavfi",
            "-i",
            string.Create(CultureInfo.InvariantCulture, $"sine=f=440:r=48000:d={seconds}"),
            "-c:v",
            "libx264",
            "-qp",
            "10",
            "-pix_fmt",
            "yuv420p",
            string.Create(CultureInfo.InvariantCulture, $"page-{seconds}.mp4")
        );

    private Task<string> CameraAsync(string name, string rate = "30", double seconds = 20, params string[] more) =>
        clips.MakeAsync([
            "-f",
            "lavfi",
            "-i",
            string.Create(CultureInfo.InvariantCulture, $"color=black:s=384x216:r={rate}:d={seconds},{Clips.OwnNumbers(Bit, 216)}"),
            "-c:v",
            "libx264",
            "-qp",
            "6",
            "-pix_fmt",
            "yuv420p",
            .. more,
            name,
        ]);

    private static CameraClock Clock(double starts, double drift = 0) => new(TimeSpan.FromSeconds(starts), drift);

    private static CameraStretch In(double start, double end, CameraShown shown) =>
        new($"c{start}", new TimeRange(TimeSpan.FromSeconds(start), TimeSpan.FromSeconds(end)), shown);

    [Theory]
    [InlineData("30", 0, 0)]
    [InlineData("30", -3.5, 0)]
    [InlineData("30", 1.25, 0)]
    [InlineData("24000/1001", -2.345, 0)]
    [InlineData("24000/1001", -4.0, 1000)]
    [InlineData("25", 2.1, -1000)]
    [InlineData("60", -11.9, 250)]
    public async Task Each_frame_is_the_one_of_its_moment(string rate, double starts, double drift)
    {
        var camera = await CameraAsync($"filmed-{rate.Replace('/', '_')}.mp4", rate);
        var clock = Clock(starts, drift);
        var made = await Making.MakeAsync(await ScreenAsync(), clips.Path($"{Guid.NewGuid():N}.mp4"), camera: new Filmed(camera, clock, Plain));
        made.ShouldBeRight();
        var perSecond = rate.Contains('/') ? 24_000 / 1001.0 : double.Parse(rate, CultureInfo.InvariantCulture);
        var seen = await NumbersAsync(made.Path, "320:180:320:180");
        seen.Count.ShouldBe(240);
        for (var frame = 0; frame < 240; frame++)
        {
            var meant = clock.ToCamera(TimeSpan.FromSeconds(frame / 30.0)).TotalSeconds;
            if (meant < -0.017)
                seen[frame].ShouldBeNull($"frame {frame}: the camera does not run yet");
            else if (meant > 0.017)
                Math.Abs(seen[frame]!.Value - (meant * perSecond)).ShouldBeLessThanOrEqualTo(0.5 + (perSecond / 60) + 0.02, $"frame {frame}");
        }
    }

    [Fact]
    public async Task It_is_large_small_or_not_there_as_was_said_and_cuts_act_on_both()
    {
        var camera = await CameraAsync("shown.mp4");
        TimeRange[] cuts = [new(TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(2)), new(TimeSpan.FromSeconds(5), TimeSpan.FromSeconds(5.5))];
        var made = await Making.MakeAsync(
            await ScreenAsync(),
            clips.Path("shown-made.mp4"),
            cuts: cuts,
            camera: new Filmed(camera, Clock(-1), Plain, In(3, 4, CameraShown.Large), In(6, 7, CameraShown.Hidden))
        );
        made.ShouldBeRight();
        var (small, large) = (await NumbersAsync(made.Path, "320:180:320:180"), await NumbersAsync(made.Path, "640:360:0:0"));
        small.Count.ShouldBe(195, "6.5 s are kept");
        for (var frame = 0; frame < small.Count; frame++)
        {
            var recorded =
                frame < 30 ? frame
                : frame < 120 ? frame + 30
                : frame + 45;
            if (recorded is >= 90 and < 120)
                large[frame].ShouldBe(recorded + 30, $"frame {frame} is large");
            else if (recorded is >= 180 and < 210)
                small[frame].ShouldBeNull($"frame {frame} has none");
            else
                small[frame].ShouldBe(recorded + 30, $"frame {frame} is small");
        }
    }

    [Fact]
    public async Task Frames_are_made_only_where_it_is_seen()
    {
        var screen = await ScreenAsync();
        var camera = await CameraAsync("shown.mp4");
        var without = await Making.MakeAsync(screen, clips.Path("without.mp4"));
        var made = await Making.MakeAsync(
            screen,
            clips.Path("seen-made.mp4"),
            camera: new Filmed(camera, Clock(0), Plain with { Usually = CameraShown.Hidden }, In(2, 3, CameraShown.Small))
        );
        made.ShouldBeRight();
        var (few, more) = (await TimesAsync(without.Path), await TimesAsync(made.Path));
        few.Count.ShouldBeLessThan(20);
        more.Count(t => t is >= 1.99 and < 2.99).ShouldBe(30);
        more.Count(t => t is < 1.99 or > 3.05).ShouldBeLessThan(20);
    }

    [Theory]
    [InlineData("15", 45)]
    [InlineData("25", 75)]
    [InlineData("60", 90)]
    public async Task Of_a_camera_that_has_fewer_frames_than_the_screen_those_alone_are_made(string rate, int most)
    {
        var camera = await CameraAsync($"slow-{rate}.mp4", rate);
        foreach (var (name, look, stretches) in Looks())
        {
            var made = await Making.MakeAsync(
                await ScreenAsync(),
                clips.Path($"slow-{rate}-{name}.mp4"),
                camera: new Filmed(camera, Clock(0), look, stretches)
            );
            made.ShouldBeRight();
            // Key frames and one frame a second come of themselves.
            (await TimesAsync(made.Path)).Count(t => t is >= 1.99 and < 4.99).ShouldBeInRange(most, most + 3, name);
        }

        static IEnumerable<(string, CameraLook, CameraStretch[])> Looks() =>
            [("always", Plain, []), ("awhile", Plain with { Usually = CameraShown.Hidden }, [In(1, 6, CameraShown.Small)])];
    }

    [Fact]
    public async Task Nothing_is_made_of_somebody_who_sits_still()
    {
        var still = await clips.MakeAsync("-f", "lavfi", "-i", "color=0xC08060:s=384x216:r=30:d=12", "-pix_fmt", "yuv420p", "still.mp4");
        var made = await Making.MakeAsync(await ScreenAsync(), clips.Path("still-made.mp4"), camera: new Filmed(still, Clock(0), Plain));
        made.ShouldBeRight();
        (await TimesAsync(made.Path)).Count.ShouldBeLessThan(20);
    }

    [Fact]
    public async Task One_that_ends_before_the_screen_does_is_gone_then()
    {
        var camera = await CameraAsync("short.mp4", "30", 3);
        var made = await Making.MakeAsync(await ScreenAsync(), clips.Path("short-made.mp4"), camera: new Filmed(camera, Clock(1), Plain));
        made.ShouldBeRight();
        var seen = await NumbersAsync(made.Path, "320:180:320:180");
        seen.Take(30).ShouldAllBe(n => n == null);
        seen.Skip(30).Take(90).ShouldBe(Enumerable.Range(0, 90).Select(n => (int?)n));
        seen.Skip(120).ShouldAllBe(n => n == null);
    }

    [Fact]
    public async Task One_that_was_held_upright_stands_upright_and_nothing_is_black()
    {
        // A white picture, 216 wide and 384 high as it is shown.
        var camera = await clips.MakeAsync("-f", "lavfi", "-i", "color=white:s=384x216:r=30:d=9", "-c:v", "libx264", "-pix_fmt", "yuv420p", "lying.mp4");
        var turned = await clips.MakeAsync("-i", camera, "-c", "copy", "-metadata:s:v", "rotate=90", "turned.mp4");
        var made = await Making.MakeAsync(
            await ScreenAsync(),
            clips.Path("turned-made.mp4"),
            camera: new Filmed(turned, Clock(0), Plain with { WidthPercent = 20 }, In(4, 8, CameraShown.Large))
        );
        var view = made.Plan.Picture!.Cameras!.ShouldHaveSingleItem().Views.Single(v => v.Size.Width < 640);
        view.Size.Height.ShouldBeInRange(view.Size.Width * 16 / 9 - 4, view.Size.Width * 16 / 9 + 4);
        var small = await GreyAsync(made.Path, 1, $"crop={view.Size.Width}:{view.Size.Height}:{view.Places[0].X}:{view.Places[0].Y}");
        small.ShouldAllBe(v => v > 225);
        (await GreyAsync(made.Path, 5, "null")).ShouldAllBe(v => v > 225);
    }

    [Fact]
    public async Task Round_corners_let_the_screen_through_and_the_rest_does_not()
    {
        var camera = await clips.MakeAsync("-f", "lavfi", "-i", "color=white:s=384x216:r=30:d=9", "-c:v", "libx264", "-pix_fmt", "yuv420p", "white.mp4");
        var made = await Making.MakeAsync(
            await ScreenAsync(),
            clips.Path("round-made.mp4"),
            camera: new Filmed(camera, Clock(0), Plain with { RoundedPercent = 100 })
        );
        made.ShouldBeRight();
        var box = await GreyAsync(made.Path, 1, "crop=320:180:320:180");
        // Half circles of 90 pixels at both sides: what lies outside is the grey page (128 in sRGB).
        for (var y = 0; y < 180; y += 3)
        {
            for (var x = 0; x < 320; x += 3)
            {
                var (across, down) = (Math.Max(0, Math.Max(90 - x - 0.5, x + 0.5 - 230)), Math.Abs(y + 0.5 - 90));
                var from = Math.Sqrt((across * across) + (down * down));
                if (from < 86)
                    box[(y * 320) + x].ShouldBeGreaterThan((byte)225, $"{x} {y}");
                else if (from > 94 && across > 0)
                    box[(y * 320) + x].ShouldBeInRange((byte)110, (byte)145, $"{x} {y}");
            }
        }
    }

    [Fact]
    public async Task It_goes_out_of_the_way_of_what_happens_on_the_screen()
    {
        // A pointer of a few pixels moves in the corner at the bottom right between 3 and 4 s.
        var screen = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "color=0x808080:s=640x360:r=30:d=14,drawbox=x='560+20*sin(t*6)':y=300:w=8:h=12:c=white:t=fill:enable='between(t,6,7)'",
            "-f",
            "lavfi",
            "-i",
            "sine=f=440:r=48000:d=14",
            "-c:v",
            "libx264",
            "-qp",
            "10",
            "-pix_fmt",
            "yuv420p",
            "pointer.mp4"
        );
        var camera = await CameraAsync("shown.mp4");
        var look = Plain with { WidthPercent = 30, DistancePercent = 2, KeepsClear = true };
        var made = await Making.MakeAsync(screen, clips.Path("clear-made.mp4"), camera: new Filmed(camera, Clock(0), look));
        made.ShouldBeRight();
        var places = made.Plan.Picture!.Cameras![0].Views.ShouldHaveSingleItem().Places;
        places.Where(p => p.Run.Holds(200) || p.Run.Holds(180) || p.Run.Holds(240)).ShouldAllBe(p => p.X < 320 || p.Y < 180);
        places.Single(p => p.Run.Holds(0)).ShouldBe(places[0]);
        (places[0].X > 320 && places[0].Y > 180).ShouldBeTrue("before, it stands in its own corner");
        // The pointer is seen in the file.
        (await GreyAsync(made.Path, 6.5, "crop=100:60:520:290")).Max().ShouldBeGreaterThan((byte)200);
    }

    [Fact]
    public async Task The_check_holds_the_file_against_both()
    {
        var camera = await CameraAsync("shown.mp4");
        var made = await Making.MakeAsync(
            await ScreenAsync(),
            clips.Path("compared-made.mp4"),
            compared: true,
            camera: new Filmed(camera, Clock(-2.5), Plain, In(3, 5, CameraShown.Large))
        );
        made.ShouldBeRight();
        made.Measured.Picture!.Moments.Count.ShouldBeGreaterThanOrEqualTo(3);
        made.Measured.Picture!.Moments.ShouldAllBe(m => m.Ssim > 0.95);
    }

    [Fact]
    public async Task At_a_smaller_size_it_stands_in_the_same_place()
    {
        var camera = await CameraAsync("shown.mp4");
        var made = await Making.MakeAsync(
            await ScreenAsync(),
            clips.Path("small-made.mp4"),
            profile: Profiles.Web with
            {
                Picture = Profiles.Web.Picture! with { Size = SizeSettings.AtMost(180) },
            },
            camera: new Filmed(camera, Clock(0), Plain)
        );
        made.ShouldBeRight();
        (await NumbersAsync(made.Path, "160:90:160:90"))[100].ShouldBe(100);
    }

    /// <summary>The number that each frame of the file, at 30 a second, says in a part of it; null where it says none.</summary>
    private static async Task<List<int?>> NumbersAsync(string path, string part)
    {
        var sides = part.Split(':').Select(int.Parse).ToArray();
        var grey = await RawAsync(["-i", path, "-vf", $"fps=30:start_time=0,crop={part},format=gray"]);
        var numbers = new List<int?>();
        for (var at = 0; at + (sides[0] * sides[1]) <= grey.Length; at += sides[0] * sides[1])
        {
            var bits = Enumerable.Range(0, 12).Select(bit => (int)grey[at + (sides[1] / 2 * sides[0]) + (int)((bit + 0.5) * sides[0] / 12)]).ToList();
            // The page is grey, neither black nor white.
            numbers.Add(bits.Exists(v => v is > 90 and < 160) ? null : bits.Select((v, bit) => v > 128 ? 1 << bit : 0).Sum());
        }

        return numbers;
    }

    private static Task<byte[]> GreyAsync(string path, double at, string filters) =>
        RawAsync(["-ss", at.ToString(CultureInfo.InvariantCulture), "-i", path, "-frames:v", "1", "-vf", $"{filters},format=gray"]);

    private static async Task<byte[]> RawAsync(IEnumerable<string> arguments)
    {
        var raw = new MemoryStream();
        await Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-nostdin", .. arguments, "-f", "rawvideo", "-"])
            .WithStandardOutputPipe(PipeTarget.ToStream(raw))
            .ExecuteAsync(TestContext.Current.CancellationToken);
        return raw.ToArray();
    }

    private static async Task<List<double>> TimesAsync(string path)
    {
        var printed = new MemoryStream();
        await Cli.Wrap("ffprobe")
            .WithArguments(["-v", "error", "-select_streams", "v:0", "-show_entries", "packet=pts_time", "-of", "csv=p=0", path])
            .WithStandardOutputPipe(PipeTarget.ToStream(printed))
            .ExecuteAsync(TestContext.Current.CancellationToken);
        return
        [
            .. System
                .Text.Encoding.UTF8.GetString(printed.ToArray())
                .Split('\n', StringSplitOptions.RemoveEmptyEntries)
                .Select(t => double.Parse(t.TrimEnd(','), CultureInfo.InvariantCulture)),
        ];
    }
}
