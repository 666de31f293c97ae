using System.Runtime.InteropServices;
using CliWrap;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Kit;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Media.Tests;

/// <summary>Several recordings that make one lesson: rates, sizes, colours and sounds that differ, and what happens at the joints.</summary>
public sealed class ReelTests(Clips clips) : IClassFixture<Clips>
{
    private const int Width = 384,
        Height = 64,
        Bit = 32;

    /// <summary>Frames that show their own numbers as bars, from a first one on, and a tone.</summary>
    private Task<string> NumberedAsync(string name, int rate, int frames, int first, int tone) =>
        clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            $"color=black:s={Width}x{Height}:r={rate},{Clips.OwnNumbers(Bit, Height, first)},trim=end_frame={frames}",
            "-f",
            "lavfi",
            "-i",
            $"aevalsrc=0.3*sin(2*PI*{tone}*t):s=48000:d={(frames / (double)rate).ToString("0.####", System.Globalization.CultureInfo.InvariantCulture)}",
            "-c:v",
            "libx264",
            "-preset",
            "ultrafast",
            "-qp",
            "0",
            "-c:a",
            "pcm_s16le",
            "-pix_fmt",
            "yuv420p",
            name
        );

    private async Task<List<int>> NumbersAsync(Made made)
    {
        var raw = clips.Path($"{Guid.NewGuid():N}.gray");
        await Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-nostdin",
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
        return
        [
            .. (await File.ReadAllBytesAsync(raw))
                .Chunk(Width * Height)
                .Select(f => Enumerable.Range(0, 12).Sum(bit => f[(32 * Width) + (bit * Bit) + 16] > 127 ? 1 << bit : 0)),
        ];
    }

    private async Task<float[]> SamplesAsync(string path, int channels = 1)
    {
        var raw = clips.Path($"{Guid.NewGuid():N}.f32");
        await Cli.Wrap("ffmpeg").WithArguments(["-v", "error", "-nostdin", "-y", "-i", path, "-vn", "-ac", $"{channels}", "-f", "f32le", raw]).ExecuteAsync();
        return MemoryMarshal.Cast<byte, float>(await File.ReadAllBytesAsync(raw)).ToArray();
    }

    /// <summary>How often a second a tone swings, from its passes through nothing.</summary>
    private static double Tone(float[] samples, double from, double to)
    {
        var part = samples[(int)(from * 48_000)..(int)(to * 48_000)];
        return part.Zip(part.Skip(1)).Count(p => p.First < 0 && p.Second >= 0) / (to - from);
    }

    [Fact]
    public async Task Frames_follow_each_other_over_the_joints_to_the_frame()
    {
        var sources = new[]
        {
            await NumberedAsync("a.mkv", 30, 90, 0, 440),
            await NumberedAsync("b.mkv", 25, 50, 1000, 660),
            await NumberedAsync("c.mkv", 30, 60, 2000, 880),
        };
        var made = await Making.MakeAsync(
            sources,
            clips.Path("joined.mp4"),
            [new("a", TimeSpan.Zero, "A"), new("b", TimeSpan.FromSeconds(3), "B"), new("c", TimeSpan.FromSeconds(5), "C")]
        );
        made.ShouldBeRight();
        var numbers = await NumbersAsync(made);
        numbers.Count.ShouldBe(210);
        numbers.Take(90).ShouldBe(Enumerable.Range(0, 90));
        for (var n = 90; n < 150; n++)
            ((double)numbers[n]).ShouldBe(1000 + ((n - 90) * 25 / 30.0), 1, $"frame {n}");
        numbers.Skip(150).ShouldBe(Enumerable.Range(2000, 60));
        made.Measured.Picture!.KeyFrames.ShouldContain(TimeSpan.FromSeconds(3));

        var samples = await SamplesAsync(made.Path);
        Tone(samples, 0.5, 2.5).ShouldBe(440, 2);
        Tone(samples, 3.2, 4.8).ShouldBe(660, 2);
        Tone(samples, 5.2, 6.8).ShouldBe(880, 2);
    }

    [Fact]
    public async Task Cuts_over_a_joint_and_over_a_whole_recording_close_up()
    {
        var sources = new[]
        {
            await NumberedAsync("a.mkv", 30, 90, 0, 440),
            await NumberedAsync("b30.mkv", 30, 60, 1000, 660),
            await NumberedAsync("c.mkv", 30, 60, 2000, 880),
        };
        var over = await Making.MakeAsync(
            sources,
            clips.Path("over.mp4"),
            cuts: [new(TimeSpan.FromSeconds(2), TimeSpan.FromSeconds(4)), new(TimeSpan.FromSeconds(6), TimeSpan.FromSeconds(6.5))]
        );
        over.ShouldBeRight();
        (await NumbersAsync(over)).ShouldBe([
            .. Enumerable.Range(0, 60),
            .. Enumerable.Range(1030, 30),
            .. Enumerable.Range(2000, 30),
            .. Enumerable.Range(2045, 15),
        ]);
        var away = await Making.MakeAsync(sources, clips.Path("away.mp4"), cuts: [new(TimeSpan.FromSeconds(3), TimeSpan.FromSeconds(5))]);
        away.ShouldBeRight();
        (await NumbersAsync(away)).ShouldBe([.. Enumerable.Range(0, 90), .. Enumerable.Range(2000, 60)]);
    }

    [Fact]
    public async Task Sound_does_not_click_at_a_joint()
    {
        // Tones that break off in the middle of their swing.
        var sources = new[] { await NumberedAsync("break.mkv", 30, 50, 0, 443), await NumberedAsync("break2.mkv", 30, 50, 0, 447) };
        var made = await Making.MakeAsync(sources, clips.Path("quiet-joint.mp4"), profile: Making.AsLoudAsRecorded);
        made.ShouldBeRight();
        var samples = await SamplesAsync(made.Path + ".flac");
        samples.Length.ShouldBe(160_000);
        // A tone of 0.3 at 447 Hz moves by 0.0176 from sample to sample at most.
        samples.Zip(samples.Skip(1), (a, b) => Math.Abs(a - b)).Max().ShouldBeLessThan(0.02f);
    }

    [Fact]
    public async Task Size_rate_colour_and_sound_may_all_differ()
    {
        string[] tags = ["-colorspace", "bt709", "-color_primaries", "bt709", "-color_trc", "bt709", "-color_range", "tv"];
        var sources = new[]
        {
            await clips.MakeAsync([
                "-f",
                "lavfi",
                "-i",
                "color=c=0x0B6570:s=1280x720:r=25:d=2",
                "-f",
                "lavfi",
                "-i",
                "sine=f=440:d=2:r=44100",
                "-vf",
                "scale=out_color_matrix=bt709:out_range=tv,format=yuv420p",
                "-ac",
                "1",
                .. tags,
                "teal.mp4",
            ]),
            await clips.MakeAsync(
                "-f",
                "lavfi",
                "-i",
                "color=c=0x0B6570:s=640x480:r=30:d=2",
                "-f",
                "lavfi",
                "-i",
                "sine=f=660:d=2:r=48000",
                "-vf",
                "scale=out_color_matrix=bt601:out_range=pc,format=yuvj420p",
                "-af",
                "pan=5.1|FC=c0",
                "-colorspace",
                "smpte170m",
                "-color_range",
                "pc",
                "teal-601.mp4"
            ),
            await clips.MakeAsync("-f", "lavfi", "-i", "color=c=0x0B6570:s=1280x720:r=15:d=2,format=gbrp", "-c:v", "ffv1", "teal-rgb.mkv"),
        };
        var made = await Making.MakeAsync(sources, clips.Path("teal.out.mp4"));
        made.ShouldBeRight();
        made.Measured.Picture!.Size.ShouldBe(new PictureSize(1280, 720));
        made.Plan.Length.ShouldBe(TimeSpan.FromSeconds(6), TimeSpan.FromSeconds(0.1));
        made.Plan.Sound!.Mixes.ShouldBe([SoundMix.Mono, SoundMix.StereoFromSurround, null]);
        foreach (var at in new[] { 1.0, 3.0, 5.0 })
        {
            var raw = clips.Path($"{Guid.NewGuid():N}.rgb");
            await Cli.Wrap("ffmpeg")
                .WithArguments([
                    "-v",
                    "error",
                    "-nostdin",
                    "-y",
                    "-ss",
                    $"{at:0.0}",
                    "-i",
                    made.Path,
                    "-frames:v",
                    "1",
                    "-vf",
                    "scale=in_color_matrix=bt709:in_range=tv,format=rgb24",
                    "-f",
                    "rawvideo",
                    raw,
                ])
                .ExecuteAsync();
            var rgb = await File.ReadAllBytesAsync(raw);
            var middle = ((360 * 1280) + 640) * 3;
            // One colour, stored in three ways, is one colour.
            (Math.Abs(rgb[middle] - 0x0B) + Math.Abs(rgb[middle + 1] - 0x65) + Math.Abs(rgb[middle + 2] - 0x70)).ShouldBeLessThan(
                12,
                $"at {at} s: {rgb[middle]}, {rgb[middle + 1]}, {rgb[middle + 2]}"
            );
        }

        var samples = await SamplesAsync(made.Path);
        Tone(samples, 0.3, 1.7).ShouldBe(440, 2);
        Tone(samples, 2.3, 3.7).ShouldBe(660, 2);
        samples.Skip((int)(4.3 * 48_000)).Max().ShouldBeLessThan(0.001f);
    }

    [Fact]
    public async Task A_move_in_and_the_mark_go_on_over_a_joint()
    {
        var mark = await clips.MakeAsync("-f", "lavfi", "-i", "color=c=0xA94A14:s=400x200,format=rgba", "-frames:v", "1", "reel-mark.png");
        var sources = new[] { await clips.UsualAsync("one.mp4"), await clips.PictureAsync("testsrc=s=640x360:r=25:d=3", "two.mp4", "-pix_fmt", "yuv420p") };
        var made = await Making.MakeAsync(
            sources,
            clips.Path("over-joint.mp4"),
            mark: mark,
            markOn: new MarkOnPicture("k", new PictureSize(400, 200), MarkPlacement.Usual),
            moveIns: [new("a", new TimeRange(TimeSpan.FromSeconds(2), TimeSpan.FromSeconds(4.5)), new PicturePart(0.25, 0.25, 0.5, 0.5), MoveIn.UsualEase)]
        );
        made.ShouldBeRight();
        made.Plan.Picture!.Parts.Select(p => p.Moves.Count).ShouldBe([1, 2]);
    }
}
