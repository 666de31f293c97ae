using CliWrap;
using Wexel.Core.Editing;
using Wexel.Core.Legibility;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Media.Analysing;
using Wexel.Media.Probing;

namespace Wexel.Media.Tests;

/// <summary>Text of known sizes, drawn by ffmpeg: what is measured against the height of a single x.</summary>
public sealed class TextSizeTests(Clips clips) : IClassFixture<Clips>
{
    private const string Fonts = "/usr/share/fonts/truetype/dejavu/";
    private const string Words = "The evening ferry leaves from the inner quay at a quarter past seven.";

    private async Task<IReadOnlyList<TextLine>> FindAsync(string draw, string ground = "white", string scale = "", int width = 1280)
    {
        var raw = clips.Path($"{Guid.NewGuid():N}.gray");
        var filters = draw + (scale.Length > 0 ? "," + scale : "") + ",format=gray";
        await Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-nostdin",
                "-y",
                "-f",
                "lavfi",
                "-i",
                $"color=c={ground}:s=1280x720:d=0.04",
                "-vf",
                filters,
                "-frames:v",
                "1",
                "-f",
                "rawvideo",
                raw,
            ])
            .ExecuteAsync();
        var grey = await File.ReadAllBytesAsync(raw);
        return TextFinder.Find(grey, new PictureSize(width, grey.Length / width));
    }

    private static string Draw(string font, int size, string text, int x, int y, string colour = "black") =>
        $"drawtext=fontfile={Fonts}{font}:fontsize={size}:text='{text}':x={x}:y={y}:fontcolor={colour}";

    /// <summary>The height of an x alone, as it is drawn at a size: its rows counted.</summary>
    private async Task<double> XHeightAsync(string font, int size)
    {
        var raw = clips.Path($"{font}.{size}.gray");
        await Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-nostdin",
                "-y",
                "-f",
                "lavfi",
                "-i",
                "color=c=white:s=100x100:d=0.04",
                "-vf",
                Draw(font, size, "x", 20, 20) + ",format=gray",
                "-frames:v",
                "1",
                "-f",
                "rawvideo",
                raw,
            ])
            .ExecuteAsync();
        var darkest = (await File.ReadAllBytesAsync(raw)).Chunk(100).Select(row => 255 - row.Min()).ToList();
        return darkest.Count(d => d >= 0.35 * darkest.Max());
    }

    [Theory]
    [InlineData("DejaVuSans.ttf", "black", "white")]
    [InlineData("DejaVuSans.ttf", "white", "0x1D2129")]
    [InlineData("DejaVuSans.ttf", "0x5A6070", "0xFBFAF6")]
    [InlineData("DejaVuSans-Bold.ttf", "black", "white")]
    [InlineData("DejaVuSansMono.ttf", "black", "0xD0D8E0")]
    public async Task Text_of_known_size_is_measured(string font, string colour, string ground)
    {
        foreach (var size in new[] { 9, 10, 11, 12, 13, 14, 16, 18, 20, 24, 28, 32 })
        {
            var lines = await FindAsync(Draw(font, size, size > 24 ? Words[..40] : Words, 40, 100, colour), ground);
            lines.Count.ShouldBeInRange(1, 6, $"{font} {size}: {string.Join(", ", lines)}");
            var height = await XHeightAsync(font, size);
            foreach (var line in lines)
                line.XHeight.ShouldBe(height, 0.6, $"{font} {size}: {line}");
        }
    }

    [Fact]
    public async Task A_page_that_was_recorded_smaller_has_letters_that_much_smaller()
    {
        // Common practice, no source: a screen of twice the density, recorded in half its size.
        var lines = await FindAsync(
            $"{Draw("DejaVuSans.ttf", 32, Words[..40], 60, 100)},{Draw("DejaVuSans.ttf", 20, Words, 60, 300)}",
            scale: "scale=640:360:flags=lanczos",
            width: 640
        );
        lines.Count.ShouldBeGreaterThanOrEqualTo(2);
        foreach (var line in lines)
            line.XHeight.ShouldBe(await XHeightAsync("DejaVuSans.ttf", line.Box.Y < 100 ? 32 : 20) / 2, 0.6, line.ToString());
    }

    [Fact]
    public async Task Large_letters_are_not_taken_for_small_ones()
    {
        foreach (var size in new[] { 36, 44, 52, 60, 72, 96 })
        {
            foreach (var font in new[] { "DejaVuSans.ttf", "DejaVuSans-Bold.ttf" })
                (await FindAsync(Draw(font, size, "Fares and seasons", 80, 60))).Where(l => l.XHeight < 0.4 * size).ShouldBeEmpty($"{font} {size}");
        }
    }

    [Fact]
    public async Task Frames_rules_and_smooth_pictures_are_not_text()
    {
        (
            await FindAsync("drawgrid=w=80:h=24:t=1:c=gray,drawbox=x=100:y=100:w=300:h=200:c=navy:t=2,drawbox=x=500:y=100:w=40:h=40:c=black:t=fill")
        ).ShouldBeEmpty();
        (await FindAsync("geq=lum='128+100*sin(X/60)*cos(Y/45)':cb=128:cr=128")).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_page_of_several_sizes_is_told_apart_line_by_line()
    {
        var sizes = new[] { 10, 13, 16, 22 };
        var lines = await FindAsync(
            string.Join(',', sizes.Select((size, i) => Draw("DejaVuSans.ttf", size, Words, 60, 60 + (i * 60)))) + ",drawbox=x=50:y=50:w=900:h=250:c=gray:t=1"
        );
        foreach (var (size, i) in sizes.Select((s, i) => (s, i)))
        {
            var found = lines.Where(l => l.Box.Y >= 60 + (i * 60) && l.Box.Y < 110 + (i * 60)).ToList();
            found.ShouldNotBeEmpty();
            foreach (var line in found)
                line.XHeight.ShouldBe(await XHeightAsync("DejaVuSans.ttf", size), 0.6, $"{size}: {line}");
        }
    }

    [Fact]
    public async Task A_recording_is_looked_at_picture_by_picture_for_each_size()
    {
        var small = Draw("DejaVuSans.ttf", 14, Words, 60, 100) + ":enable='gte(t,4)'";
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "color=c=white:s=1280x720:r=30:d=12",
            "-vf",
            $"{Draw("DejaVuSans-Bold.ttf", 28, "Evening sailings", 60, 30)},{small}",
            "-c:v",
            "libx264",
            "-preset",
            "ultrafast",
            "-qp",
            "0",
            "-pix_fmt",
            "yuv420p",
            "reading.mp4"
        );
        var cancel = TestContext.Current.CancellationToken;
        var facts = (await Prober.ProbeAsync(source, "reading.mp4", cancel)).Value!;
        var delivered = new PictureSize(854, 480);
        var analysis = await RecordingAnalyser.AnalyseAsync(facts, source, clips.Path("reading-pictures"), null, null, cancel);
        var seen = await DetailFinder.FindAsync(facts, source, analysis, [delivered, new PictureSize(427, 240)], cancel);

        // The small print is too little for a picture of its own on the sheet, yet it is looked at when it comes.
        seen.Select(s => (s.Span.Start.TotalSeconds, s.Span.End.TotalSeconds)).ShouldBe([(0, 4), (4, 12)]);
        seen[0].Lines.ShouldAllBe(l => l.XHeight > 14);
        seen[1].Changed!.Value.Y.ShouldBeInRange(80, 112);
        var kept = seen[1].Kept;
        kept.Select(k => k.Delivered.Height).ShouldBe([480, 240]);
        kept[0].Mean.ShouldBeGreaterThan(kept[1].Mean);
        kept[1].Mean.ShouldBeLessThan(40);
        kept[1].Lost().ShouldContain(r => r.Y == 96);

        var placement = CanvasPlacement.Of(facts.Picture!.ShownSize, Canvas.AsRecorded, 480);
        var hard = HardToRead.In(seen, placement, Reel.Of(facts).Map([]), []).Single();
        hard.Span.Start.ShouldBe(TimeSpan.FromSeconds(4));
        hard.Smallest.ShouldBe(8 * 480.0 / 720, 0.4);
        hard.Proposal!.Smallest.ShouldBeGreaterThanOrEqualTo(8.7);
    }
}
