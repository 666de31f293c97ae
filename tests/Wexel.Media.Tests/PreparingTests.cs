using System.Buffers.Binary;
using System.Globalization;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Analysing;
using Wexel.Media.Probing;
using Wexel.Media.Tools;

namespace Wexel.Media.Tests;

/// <summary>Recordings whose picture must be prepared before anything looks at it: interlaced, of high range, of wide colours.</summary>
public sealed class PreparingTests(Clips clips) : IClassFixture<Clips>
{
    /// <summary>A page with a bar that moves across, of which each second is one field's: the middle of every frame is combed.</summary>
    private const string Moving =
        "color=c=white:s=720x480:r=60000/1001:d=2,drawbox=x=0:y=0:w=720:h=60:c=navy:t=fill,format=yuv420p[p];"
        + "color=c=black:s=90x300:r=60000/1001:d=2,format=yuv420p[b];[p][b]overlay=x='mod(t*240,600)':y=120";

    private static readonly string[] Marked = ["-flags", "+ilme+ildct", "-x264opts", "tff=1"];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private Task<string> InterlacedAsync(string name, string order, params string[] coded) =>
        clips.MakeAsync(["-f", "lavfi", "-i", $"{Moving},tinterlace={order}", "-c:v", "libx264", "-qp", "10", .. coded, name]);

    private static async Task<PictureFacts> ProbedAsync(string path) => (await Prober.ProbeAsync(path, "clip", Cancel)).Value!.Picture!;

    [Fact]
    public async Task A_recording_of_fields_is_made_a_picture_of_each()
    {
        var source = await InterlacedAsync("fields.mp4", "interleave_top", Marked);
        var made = await Making.MakeAsync(source, clips.Path("whole-pictures.mp4"), compared: true, copied: true);

        made.Source.Picture!.Fields.ShouldBe(FieldOrder.TopFirst);
        made.Plan.Picture!.Timing.Grid.ShouldBe(new FrameRate(60000, 1001));
        made.Plan.Picture.EncodedSince.ShouldBe("the recording is interlaced");
        made.ShouldBeRight();
        made.Measured.Picture!.Combed!.Value.Told.ShouldBeGreaterThan(60);
        // Against what the fields were taken from, whole: BT.601's picture, at a field's moment in the middle of the movement.
        var truth = await clips.MakeAsync("-f", "lavfi", "-i", Moving, "-c:v", "libx264", "-qp", "10", "truth.mp4");
        (await PlainFfmpeg.LeastSsimAsync(truth, made.Path, "60000/1001", Cancel)).ShouldBeGreaterThan(0.97);
    }

    [Fact]
    public async Task Fields_that_the_file_does_not_tell_of_are_seen_and_their_order_too()
    {
        // AVI keeps no word of fields for this codec.
        var source = await clips.MakeAsync("-f", "lavfi", "-i", $"{Moving},tinterlace=interleave_bottom", "-c:v", "mpeg4", "-q:v", "2", "unmarked.avi");
        (await ProbedAsync(source)).Fields.ShouldBe(FieldOrder.BottomFirst);
        var whole = await clips.MakeAsync("-f", "lavfi", "-i", Moving, "-c:v", "mpeg4", "-q:v", "2", "whole.avi");
        (await ProbedAsync(whole)).Fields.ShouldBeNull();
    }

    [Fact]
    public async Task Sheet_pictures_of_fields_are_whole()
    {
        var source = await InterlacedAsync("sheet.mp4", "interleave_top", Marked);
        var facts = (await Prober.ProbeAsync(source, "clip", Cancel)).Value!;
        await FrameTaker.TakeAsync(facts, source, 1, clips.Path("bundle"), Cancel);
        Directory.GetFiles(clips.Path("bundle")).Length.ShouldBe(FrameTaker.InARow);
        // 60 pictures a second: the 31st field, half a second in, shows the bar where it was then, 120 px in, of 320 for 720.
        var grey = await PlainFfmpeg.GreyAsync(Path.Combine(clips.Path("bundle"), FrameTaker.Name(30)), Cancel);
        var row = grey.AsSpan(320 * 120, 320);
        Enumerable.Range(0, 320).First(x => grey[(320 * 120) + x] < 60).ShouldBeInRange(52, 56);
        row.ToArray().Count(v => v is > 60 and < 190).ShouldBeLessThan(6);
    }

    [Theory]
    [InlineData("smpte2084")]
    [InlineData("arib-std-b67")]
    public async Task The_white_of_pages_in_high_range_is_white_and_greys_keep_their_light(string transfer)
    {
        double[] light = [0, 10, 50, 100, 150, WideColour.White, 600, 1000];
        var source = await PatchesAsync($"high-{transfer}.mkv", transfer, [.. light.Select(l => Grey(Signal(transfer, l)))]);
        var facts = await ProbedAsync(source);
        facts.Preparation!.Colour!.IsHighRange.ShouldBeTrue();
        var made = await Making.MakeAsync(source, clips.Path($"usual-{transfer}.mp4"), compared: true);
        made.ShouldBeRight();

        var seen = await SeenAsync(made.Path, light.Length);
        for (var i = 0; i < 5; i++)
        {
            // BT.1886, with black at 0: the light that a usual screen gives for a signal, the other way round.
            var expected = 255 * Math.Pow(light[i] / WideColour.White, 1 / 2.4);
            ((double)seen[i].R).ShouldBe(expected, 4, $"{light[i]} cd/m²");
        }

        ((int)seen[5].R).ShouldBeInRange(246, 255);
        ((int)seen[6].R).ShouldBeInRange((int)seen[5].R, 255);
        ((int)seen[7].R).ShouldBeInRange(252, 255);
    }

    [Fact]
    public async Task Colours_of_BT_2020_are_the_same_in_BT_709()
    {
        // ITU-R BT.2087-0, section 2: linear BT.709 to linear BT.2020.
        (double R, double G, double B)[] colours = [(0.9, 0.05, 0.05), (0.05, 0.9, 0.05), (0.05, 0.05, 0.9), (0.5, 0.5, 0.5), (0.1, 0.4, 0.8)];
        var source = await PatchesAsync(
            "wide.mkv",
            "bt709",
            [
                .. colours.Select(c =>
                    Yuv2020(
                        Display((0.6274 * c.R) + (0.3293 * c.G) + (0.0433 * c.B)),
                        Display((0.0691 * c.R) + (0.9195 * c.G) + (0.0114 * c.B)),
                        Display((0.0164 * c.R) + (0.0880 * c.G) + (0.8956 * c.B))
                    )
                ),
            ]
        );
        (await ProbedAsync(source)).Preparation!.Colour!.Name.ShouldBe("BT.2020");
        var made = await Making.MakeAsync(source, clips.Path("narrow.mp4"), compared: true);
        made.ShouldBeRight();

        var seen = await SeenAsync(made.Path, colours.Length);
        foreach (var (colour, patch) in colours.Zip(seen))
        {
            ((double)patch.R).ShouldBe(255 * Display(colour.R), 6);
            ((double)patch.G).ShouldBe(255 * Display(colour.G), 6);
            ((double)patch.B).ShouldBe(255 * Display(colour.B), 6);
        }
    }

    [Fact]
    public async Task Which_filters_there_are_is_read_off_ffmpeg()
    {
        (await Filters.AllAsync()).ShouldContain("zscale");
        Filters
            .Read(" Filters:\n  T.. = Timeline support\n ... tonemap           V->V       Conversion.\n .SC zscale            V->V       Resize.\n")
            .ShouldBe(["tonemap", "zscale"]);
    }

    /// <summary>The light of a screen of gamma 2.4 as signal (ITU-R BT.1886).</summary>
    private static double Display(double linear) => Math.Pow(linear, 1 / 2.4);

    /// <summary>Light in cd/m² as signal: PQ and HLG of a screen of 1000 cd/m² (ITU-R BT.2100-2, Tables 4 and 5).</summary>
    private static double Signal(string transfer, double light)
    {
        if (transfer == "smpte2084")
        {
            const double m1 = 2610.0 / 16384,
                m2 = 2523.0 / 4096 * 128,
                c1 = 3424.0 / 4096,
                c2 = 2413.0 / 4096 * 32,
                c3 = 2392.0 / 4096 * 32;
            var y = Math.Pow(light / 10_000, m1);
            return Math.Pow((c1 + (c2 * y)) / (1 + (c3 * y)), m2);
        }

        // Grey: the system's gamma of 1.2 is on the light itself.
        var scene = Math.Pow(light / 1000, 1 / 1.2);
        const double a = 0.17883277,
            b = 0.28466892,
            c = 0.55991073;
        return scene <= 1.0 / 12 ? Math.Sqrt(3 * scene) : (a * Math.Log((12 * scene) - b)) + c;
    }

    private static (int Y, int U, int V) Grey(double signal) => ((int)Math.Round(64 + (876 * signal)), 512, 512);

    /// <summary>Non-linear red, green and blue in ten bits of limited range (ITU-R BT.2020-2, Tables 4 and 5).</summary>
    private static (int Y, int U, int V) Yuv2020(double r, double g, double b)
    {
        var y = (0.2627 * r) + (0.6780 * g) + (0.0593 * b);
        return ((int)Math.Round(64 + (876 * y)), (int)Math.Round(512 + (896 * (b - y) / 1.8814)), (int)Math.Round(512 + (896 * (r - y) / 1.4746)));
    }

    /// <summary>A lossless recording of ten bits in BT.2020 with patches of 64 × 64 side by side, one second.</summary>
    private async Task<string> PatchesAsync(string name, string transfer, (int Y, int U, int V)[] patches)
    {
        const int side = 64;
        var width = side * patches.Length;
        var raw = new byte[width * side * 3];
        void Fill(int at, int across, int lines, Func<(int Y, int U, int V), int> of)
        {
            for (var i = 0; i < across * lines; i++)
                BinaryPrimitives.WriteUInt16LittleEndian(raw.AsSpan((at + i) * 2), (ushort)of(patches[i % across * patches.Length / across]));
        }

        Fill(0, width, side, p => p.Y);
        Fill(width * side, width / 2, side / 2, p => p.U);
        Fill(width * side * 5 / 4, width / 2, side / 2, p => p.V);
        var file = clips.Path(name + ".raw");
        await File.WriteAllBytesAsync(file, raw, Cancel);
        return await clips.MakeAsync(
            "-stream_loop",
            "29",
            "-f",
            "rawvideo",
            "-pix_fmt",
            "yuv420p10le",
            "-s",
            string.Create(CultureInfo.InvariantCulture, $"{width}x{side}"),
            "-r",
            "30",
            "-i",
            file,
            "-c:v",
            "ffv1",
            "-color_primaries",
            "bt2020",
            "-color_trc",
            transfer,
            "-colorspace",
            "bt2020nc",
            "-color_range",
            "tv",
            name
        );
    }

    /// <summary>The colours in the middle of the patches.</summary>
    private static async Task<IReadOnlyList<(byte R, byte G, byte B)>> SeenAsync(string path, int patches)
    {
        var rgb = await PlainFfmpeg.RgbAsync(path, Cancel);
        return [.. Enumerable.Range(0, patches).Select(i => ((32 * 64 * patches) + (64 * i) + 32) * 3).Select(at => (rgb[at], rgb[at + 1], rgb[at + 2]))];
    }
}
