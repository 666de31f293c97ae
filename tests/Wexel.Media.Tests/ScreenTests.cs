using SkiaSharp;
using Wexel.Core.Recordings;
using Wexel.Core.Screens;
using Wexel.Media.Analysing;
using Wexel.Media.Probing;
using Wexel.Media.Screens;
using Wexel.Media.Tools;

namespace Wexel.Media.Tests;

/// <summary>What stands on the screen is read, by readers that are processes of their own and may die.</summary>
public sealed class ScreenTests(Clips clips) : IClassFixture<Clips>
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static readonly ChildLimits Limits = new(1L << 30, TimeSpan.FromSeconds(2), TimeSpan.FromSeconds(8));

    /// <summary>Two pages, drawn with known words at known places in known heights, each seen for four seconds.</summary>
    [Fact]
    public async Task Pages_are_read_where_they_change_with_each_lines_place_and_height()
    {
        Draw("page-0.png", ("Timetable of today", 200, 90, 36), ("Departs", 200, 200, 18), ("Skerry Head", 420, 200, 18));
        Draw("page-1.png", ("Selling a ticket", 200, 90, 36), ("Registration", 200, 300, 18));
        var clip = await clips.MakeAsync(
            "-loop",
            "1",
            "-framerate",
            "10",
            "-t",
            "4",
            "-i",
            clips.Path("page-0.png"),
            "-loop",
            "1",
            "-framerate",
            "10",
            "-t",
            "4",
            "-i",
            clips.Path("page-1.png"),
            "-filter_complex",
            "[0][1]concat=n=2,format=yuv420p",
            "-crf",
            "12",
            "pages.mp4"
        );
        (await Prober.ProbeAsync(clip, "pages.mp4", Cancel)).Is(out var facts, out _).ShouldBeTrue();
        var analysis = await RecordingAnalyser.AnalyseAsync(facts!, clip, clips.Path("pages"), null, null, Cancel);
        var shares = new List<double>();
        var read = await ScreenLooker.LookAsync(new Tesseract(), facts!, clip, analysis, "en-GB", new Told(shares.Add), Cancel);
        read.Pictures.Count.ShouldBe(2);
        read.Pictures[0].Lines.Select(l => l.Text).ShouldBe(["Timetable of today", "Departs", "Skerry Head"], ignoreOrder: true);
        read.Pictures[1].Lines.Select(l => l.Text).ShouldBe(["Selling a ticket", "Registration"]);
        read.Pictures[1].Span.Start.ShouldBe(TimeSpan.FromSeconds(4));
        var heading = read.Pictures[1].Lines[0];
        heading.Box.X.ShouldBeInRange(198, 204);
        // A capital is 0.73 of the size of DejaVu Sans high (its OS/2 table, sCapHeight 1493 of 2048).
        ((double)heading.Height).ShouldBeInRange(36 * 0.66, 36 * 0.8);
        read.Changes.ShouldHaveSingleItem().At.ShouldBe(TimeSpan.FromSeconds(4));
        shares[^1].ShouldBeGreaterThan(0.9);
    }

    [Theory]
    [InlineData("exit 3", "ended with code 3")]
    [InlineData("kill -9 $$", "ended with code 137")]
    [InlineData("echo 'no table'", "printed no table")]
    [InlineData("printf 'level\\tpage\\n5\\t1\\tx\\n'", "no word with its place")]
    [InlineData("head -c 9000000 /dev/zero | tr '\\0' 'a'", "rubbish")]
    [InlineData("exec sleep 60", "all the time that it may")]
    public async Task A_reader_that_dies_hangs_or_prints_rubbish_is_ended_with_a_sentence(string script, string said)
    {
        var path = clips.Path($"reader-{Guid.NewGuid():N}");
        await File.WriteAllTextAsync(path, $"#!/bin/bash\n{script}\n", Cancel);
        File.SetUnixFileMode(path, UnixFileMode.UserRead | UnixFileMode.UserExecute | UnixFileMode.UserWrite);
        (await Should.ThrowAsync<ToolFailedException>(new Tesseract(path).ReadAsync("x.pgm", 1, "en", Limits, Cancel))).Said.ShouldContain(said);
    }

    [Fact]
    public void What_is_missing_is_said()
    {
        new Tesseract().Missing("en-GB").ShouldBeNull();
        new Tesseract().Missing("de-AT")!.Sentence.ShouldContain("tesseract-ocr-deu");
        new Tesseract("no-such-tool").Missing("en")!.Sentence.ShouldContain("installs tesseract-ocr");
    }

    /// <summary>A heading with small print beside it on one line is two texts (rows as tesseract 5.3 prints them).</summary>
    [Fact]
    public void Small_print_beside_a_heading_is_a_text_of_its_own()
    {
        string Row(int word, int left, int width, int height, string text) => $"5\t1\t1\t1\t1\t{word}\t{left}\t10\t{width}\t{height}\t95.5\t{text}\n";
        var lines = TesseractTable.Read(
            "t",
            "level\tpage_num\tblock_num\tpar_num\tline_num\tword_num\tleft\ttop\twidth\theight\tconf\ttext\n"
                + Row(1, 100, 60, 20, "Start")
                + Row(2, 168, 20, 20, "of")
                + Row(3, 196, 70, 14, "Tuesday")
                + "5\t1\t1\t1\t1\t4\t300\t10\t40\t20\t12.0\tnoise\n",
            2
        );
        lines.ShouldBe([
            new ScreenLine(new PictureRect(50, 5, 44, 10), "Start of", 10, 0.96),
            new ScreenLine(new PictureRect(98, 5, 35, 7), "Tuesday", 5, 0.96),
        ]);
    }

    [Fact]
    public async Task Chapters_inside_a_recording_are_found()
    {
        await File.WriteAllTextAsync(
            clips.Path("chapters.txt"),
            ";FFMETADATA1\n[CHAPTER]\nTIMEBASE=1/1000\nSTART=0\nEND=1200\ntitle=The float\n[CHAPTER]\nTIMEBASE=1/1000\nSTART=1200\nEND=2000\ntitle=Closing\n",
            Cancel
        );
        foreach (var name in new[] { "chapters.mp4", "chapters.mkv" })
        {
            var clip = await clips.MakeAsync("-f", "lavfi", "-i", "testsrc2=s=320x240:r=10:d=2", "-i", clips.Path("chapters.txt"), "-map_metadata", "1", name);
            (await Prober.ProbeAsync(clip, name, Cancel)).Is(out var facts, out _).ShouldBeTrue();
            facts!.Chapters.ShouldBe([new ChapterFacts(TimeSpan.Zero, "The float"), new ChapterFacts(TimeSpan.FromSeconds(1.2), "Closing")]);
        }
    }

    private void Draw(string name, params (string Text, int X, int Y, int Size)[] lines)
    {
        using var picture = new SKBitmap(1280, 720);
        using var canvas = new SKCanvas(picture);
        using var ink = new SKPaint { Color = SKColors.Black, IsAntialias = true };
        canvas.Clear(SKColors.White);
        foreach (var (text, x, y, size) in lines)
        {
            using var font = new SKFont(SKTypeface.FromFamilyName("DejaVu Sans"), size);
            canvas.DrawText(text, x, y, font, ink);
        }

        using var file = File.Create(clips.Path(name));
        picture.Encode(file, SKEncodedImageFormat.Png, 90);
    }

    private sealed class Told(Action<double> tell) : IProgress<double>
    {
        public void Report(double value) => tell(value);
    }
}
