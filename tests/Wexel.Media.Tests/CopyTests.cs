using System.Globalization;
using System.Runtime.InteropServices;
using CliWrap;
using CliWrap.Buffered;
using Wexel.Core.Contents;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Measuring;
using Wexel.Media.Probing;
using Wexel.Media.Rendering;

namespace Wexel.Media.Tests;

/// <summary>Pictures that are copied and not encoded: each frame is held against a full encode of the same plan.</summary>
public sealed class CopyTests(Clips clips) : IClassFixture<Clips>
{
    // At this size the last coded picture is also the last that is shown. Where it is not, ffmpeg reads of a copy that ends in a still stretch a
    // picture too few.
    private const int Width = 1280,
        Height = 720,
        Bit = 32,
        Bars = 64;

    private static readonly Profile Encoded = Making.AsLoudAsRecorded with
    {
        Picture = Making.AsLoudAsRecorded.Picture! with { Copy = false, Timing = TimingSettings.AsRecorded },
    };

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static TimeSpan Frame(double number) => TimeSpan.FromSeconds(number / 30);

    private static TimeRange Cut(double from, double to) => new(Frame(from), Frame(to));

    private static Section At(string id, double frame) => new(id, Frame(frame), id);

    /// <summary>Frames that show their own numbers as bars, as a recorder writes them: frames that refer to later ones, a key frame every 50.</summary>
    private Task<string> NumberedAsync(string name, int frames = 300, string sound = "1000", params string[] more) =>
        clips.MakeAsync([
            "-f",
            "lavfi",
            "-i",
            $"color=black:s=384x{Bars}:r=30,{Clips.OwnNumbers(Bit, Bars)},pad={Width}:{Height},trim=end_frame={frames}",
            "-f",
            "lavfi",
            "-i",
            $"aevalsrc=0.3*sin(2*PI*440*t):s=48000:d={(int.Parse(sound, CultureInfo.InvariantCulture) / 100.0).ToString(CultureInfo.InvariantCulture)}",
            "-c:v",
            "libx264",
            "-preset",
            "veryfast",
            "-crf",
            "26",
            "-g",
            "50",
            "-sc_threshold",
            "0",
            "-bf",
            "3",
            "-pix_fmt",
            "yuv420p",
            "-colorspace",
            "bt709",
            "-color_primaries",
            "bt709",
            "-color_trc",
            "bt709",
            "-color_range",
            "tv",
            "-c:a",
            "aac",
            .. more,
            name,
        ]);

    private async Task<List<int>> NumbersAsync(string path)
    {
        var raw = clips.Path($"{Guid.NewGuid():N}.gray");
        await Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-nostdin",
                "-xerror",
                "-y",
                "-i",
                path,
                "-vf",
                $"fps=30:start_time=0,crop=384:{Bars}:0:0,format=gray",
                "-f",
                "rawvideo",
                raw,
            ])
            .ExecuteAsync();
        return
        [
            .. (await File.ReadAllBytesAsync(raw))
                .Chunk(384 * Bars)
                .Select(f => Enumerable.Range(0, 12).Sum(bit => f[(32 * 384) + (bit * Bit) + 16] > 110 ? 1 << bit : 0)),
        ];
    }

    /// <summary>Of each coded frame a sum of its bytes, as ffprobe reckons it.</summary>
    private static async Task<List<string>> SumsAsync(string path)
    {
        var printed = await Cli.Wrap("ffprobe")
            .WithArguments(["-v", "error", "-select_streams", "v:0", "-show_entries", "packet=data_hash", "-show_data_hash", "crc32", "-of", "csv=p=0", path])
            .ExecuteBufferedAsync();
        return [.. printed.StandardOutput.Split('\n', StringSplitOptions.RemoveEmptyEntries).Select(l => l.Trim(','))];
    }

    /// <summary>How like two videos are at each frame, SSIM of brightness and colours together.</summary>
    private async Task<List<double>> LikenessAsync(string a, string b)
    {
        var log = clips.Path($"{Guid.NewGuid():N}.log");
        await Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-nostdin",
                "-i",
                a,
                "-i",
                b,
                "-lavfi",
                $"[0:v]fps=30:start_time=0[a];[1:v]fps=30:start_time=0[b];[a][b]ssim=stats_file={log}",
                "-f",
                "null",
                "-",
            ])
            .ExecuteAsync();
        return [.. (await File.ReadAllLinesAsync(log)).Select(l => double.Parse(l.Split("All:")[1].Split(' ')[0], CultureInfo.InvariantCulture))];
    }

    [Fact]
    public async Task Cuts_at_both_ends_and_inside_and_sections_are_exact_to_the_frame_and_all_else_is_copied_bit_for_bit()
    {
        var source = await NumberedAsync("numbered.mp4");
        IReadOnlyList<Section> sections = [At("start", 17), At("at-a-key-frame", 50), At("between", 90), At("behind-the-cut", 240)];
        IReadOnlyList<TimeRange> cuts = [Cut(0, 17), Cut(120, 181), Cut(277, 300)];
        var made = await Making.MakeAsync(source, clips.Path("copied.mp4"), sections, Making.AsLoudAsRecorded, cuts, compared: true, copied: true);
        var encoded = await Making.MakeAsync(source, clips.Path("encoded.mp4"), sections, Encoded, cuts, compared: true);
        made.Plan.Picture!.Copy!.Runs.Select(r => (r.First, r.Count, r.At, r.Encoded, r.LeadIn))
            .ShouldBe([
                (17, 73, 0, false, 17),
                (90, 10, 73, true, 0),
                (100, 20, 83, false, 0),
                (181, 19, 103, true, 0),
                (200, 40, 122, false, 0),
                (240, 10, 162, true, 0),
                (250, 27, 172, false, 0),
            ]);
        encoded.Plan.Picture!.EncodedSince.ShouldBe("the profile says so");
        made.ShouldBeRight();
        encoded.ShouldBeRight();
        int[] expected = [.. Enumerable.Range(17, 103), .. Enumerable.Range(181, 96)];
        (await NumbersAsync(made.Path)).ShouldBe(expected);
        (await NumbersAsync(encoded.Path)).ShouldBe(expected);
        (await LikenessAsync(made.Path, encoded.Path)).ShouldAllBe(s => s > 0.985);
        made.Measured.Picture!.Start.ShouldBe(TimeSpan.Zero);

        // Coded frames of the recording stand in the file as they were: all that is copied but the few before cuts that refer to later ones.
        var (before, after) = ((await SumsAsync(source)).ToHashSet(), await SumsAsync(made.Path));
        after.Count(before.Contains).ShouldBeGreaterThan(17 + 73 + 20 + 40 + 27 - (4 * 4));
        // Parameter sets of both stand in the description, under numbers of their own.
        var bytes = await File.ReadAllBytesAsync(made.Path, Cancel);
        (bytes[bytes.AsSpan().LastIndexOf("avcC"u8) + 4 + 5] & 0x1F).ShouldBe(2, "sequence parameter sets, ISO/IEC 14496-15, section 5.3.3.1.2");
    }

    [Fact]
    public async Task A_picture_that_nothing_is_done_to_is_the_recordings_bit_for_bit()
    {
        var source = await NumberedAsync("numbered.mp4");
        var made = await Making.MakeAsync(source, clips.Path("whole.mp4"), [], Making.AsLoudAsRecorded, compared: true, copied: true);
        made.ShouldBeRight();
        (await SumsAsync(made.Path)).ShouldBe(await SumsAsync(source));
        (await NumbersAsync(made.Path)).ShouldBe(Enumerable.Range(0, 300));
        made.Check.First(f => f.Code == "ssim").Measured.ShouldStartWith("1.0000");
    }

    [Theory]
    [InlineData("mp4")]
    [InlineData("m4v")]
    [InlineData("mov")]
    public async Task The_edit_list_at_the_start_comes_through_the_containers(string container)
    {
        var profile = Making.AsLoudAsRecorded with
        {
            Container = container switch
            {
                "m4v" => Container.M4v,
                "mov" => Container.Mov,
                _ => Container.Mp4,
            },
        };
        var made = await Making.MakeAsync(
            await NumberedAsync("numbered.mp4"),
            clips.Path($"trimmed.{container}"),
            [],
            profile,
            [Cut(0, 131), Cut(222, 300)],
            compared: true,
            copied: true
        );
        made.ShouldBeRight();
        made.Plan.Picture!.Copy!.EncodedFrames.ShouldBe(0);
        (await NumbersAsync(made.Path)).ShouldBe(Enumerable.Range(131, 91));
    }

    /// <summary>Recorders leave out what repeats the frame before, and some write frames at the times at which they came.</summary>
    [Theory]
    [InlineData("left-out", "select='lt(mod(n,60),35)'")]
    [InlineData("uneven", "select='lt(mod(n,60),35)',settb=1/600,setpts='round(PTS/20)*20+if(PTS,mod(PTS*7/20,11)-5,0)'")]
    public async Task Frames_that_do_not_come_at_every_tick_are_copied_at_theirs(string name, string filters)
    {
        var source = await NumberedAsync(
            name + ".mp4",
            300,
            "1000",
            "-vf",
            filters,
            "-g",
            "15",
            "-fps_mode",
            "passthrough",
            "-enc_time_base",
            name == "uneven" ? "1/600" : "1/30",
            "-video_track_timescale",
            name == "uneven" ? "600" : "15360"
        );
        IReadOnlyList<Section> sections = [At("start", 17), At("at-none", 110)];
        IReadOnlyList<TimeRange> cuts = [Cut(0, 17), Cut(140, 161), Cut(287, 330)];
        var made = await Making.MakeAsync(source, clips.Path(name + "-copied.mp4"), sections, Making.AsLoudAsRecorded, cuts, compared: true, copied: true);
        var encoded = await Making.MakeAsync(source, clips.Path(name + "-encoded.mp4"), sections, Encoded, cuts, compared: true);
        made.Source.Picture!.Even!.Gaps.ShouldBeTrue();
        made.Plan.Picture!.EncodedSince.ShouldBeNull();
        made.Plan.Picture!.Copy!.EncodedFrames.ShouldBe(13 + 15 + 19 + 13);
        made.ShouldBeRight();
        encoded.ShouldBeRight();
        int[] recorded = [.. Enumerable.Range(0, 300).Select(n => n % 60 < 35 ? n : n - (n % 60) + 34)];
        int[] expected = [.. recorded[17..140], .. recorded[161..287]];
        (await NumbersAsync(encoded.Path)).ShouldBe(expected);
        (await NumbersAsync(made.Path)).ShouldBe(expected);
        (await LikenessAsync(made.Path, encoded.Path)).ShouldAllBe(s => s > 0.985);
        var before = (await SumsAsync(source)).ToHashSet();
        (await SumsAsync(made.Path)).Count(before.Contains).ShouldBeGreaterThan(60);
        // A profile that makes every frame cannot be served by a copy.
        var even = RenderPlanner.Plan(
            Reel.Of(made.Source),
            Reel.Of(made.Source).Map([]),
            Encoded with
            {
                Picture = Encoded.Picture! with { Copy = true },
            },
            new LessonLook()
        );
        even.Picture!.EncodedSince!.ShouldContain("makes every frame");
        // Some seconds by themselves begin with the frame that stands.
        await Trial.MakeAsync(
            made.Plan.Picture!,
            made.Source.Picture.Even,
            made.From.Inputs,
            new SampleWindow(30, 60, 1),
            clips.Path(name + "-trial.mp4"),
            Cancel
        );
        (await NumbersAsync(clips.Path(name + "-trial.mp4"))).ShouldBe(expected[30..90]);
    }

    /// <summary>In many recordings the picture begins a frame after the sound; alone, it begins with the file.</summary>
    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task Where_the_picture_begins_later_its_first_frame_stands_from_the_start(bool sounding)
    {
        string[] late = ["-vf", "setpts=PTS+1/(30*TB)", "-enc_time_base", "1/30"];
        var source = await NumberedAsync($"late-{sounding}.mp4", 100, "337", sounding ? late : [.. late, "-an"]);
        var made = await Making.MakeAsync(source, clips.Path($"late-{sounding}-copied.mp4"), [], Making.AsLoudAsRecorded, compared: true, copied: true);
        var encoded = await Making.MakeAsync(source, clips.Path($"late-{sounding}-encoded.mp4"), [], Encoded, compared: true);
        made.Source.Picture!.Even!.Gaps.ShouldBe(sounding);
        made.ShouldBeRight();
        encoded.ShouldBeRight();
        made.Plan.Picture!.Copy!.EncodedFrames.ShouldBeLessThan(4);
        var numbers = await NumbersAsync(made.Path);
        numbers.ShouldBe(await NumbersAsync(encoded.Path));
        numbers.Take(3).ShouldBe(sounding ? [0, 0, 1] : [0, 1, 2]);
    }

    [Fact]
    public async Task Where_the_picture_begins_seconds_later_it_is_encoded_and_compared_too()
    {
        var picture = await NumberedAsync("begins.mp4", 90, "330");
        var source = await clips.MakeAsync("-itsoffset", "3.379", "-i", picture, "-i", picture, "-map", "0:v", "-map", "1:a", "-c", "copy", "begins-late.mkv");
        var made = await Making.MakeAsync(source, clips.Path("begins-late.mp4"), [], Encoded, compared: true);
        // Nobody looked through the clip here, so that its check does not know that nothing moves before the picture begins.
        made.Check.Where(f => f.Verdict == Verdict.Wrong).Select(f => f.Code).ShouldBe(["frozen"]);
        // The first of them stands from the start.
        var numbers = await NumbersAsync(made.Path);
        numbers[100].ShouldBe(0);
        numbers.ShouldContain(50);
        numbers[^1].ShouldBe(89);
    }

    [Fact]
    public async Task Where_the_sound_goes_on_the_last_picture_stands()
    {
        var made = await Making.MakeAsync(
            await NumberedAsync("longer.mp4", 120, "440"),
            clips.Path("held.mp4"),
            [At("a", 0), At("b", 100)],
            Making.AsLoudAsRecorded,
            compared: true,
            copied: true
        );
        made.Plan.Picture!.Copy!.Runs.ShouldBe([new CopyRun(0, 119, 0, false, 0), new CopyRun(119, 13, 119, true, 0)]);
        made.ShouldBeRight();
        (await NumbersAsync(made.Path)).ShouldBe([.. Enumerable.Range(0, 120), .. Enumerable.Repeat(119, 12)]);
        var behind = await Making.MakeAsync(
            await NumberedAsync("longer.mp4", 120, "440"),
            clips.Path("behind.mp4"),
            [],
            Making.AsLoudAsRecorded,
            [Cut(110, 126)],
            compared: true,
            copied: true
        );
        behind.Plan.Picture!.Copy!.Runs.ShouldBe([new CopyRun(0, 110, 0, false, 0), new CopyRun(126, 6, 110, true, 0)]);
        behind.ShouldBeRight();
        (await NumbersAsync(behind.Path)).ShouldBe([.. Enumerable.Range(0, 110), .. Enumerable.Repeat(119, 6)]);
    }

    /// <summary>Pictures without colour tags, of 720 lines or more, are BT.709 (common practice, no source); the copy says so in its box.</summary>
    [Fact]
    public async Task A_recording_that_tags_no_colours_gets_them_tagged()
    {
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "color=navy:s=1280x720:r=30:d=4,drawbox=x=60:y=60:w=120:h=40:c=white:t=fill:enable='gte(t,2)'",
            "-c:v",
            "libx264",
            "-pix_fmt",
            "yuv420p",
            "-g",
            "60",
            "untagged.mp4"
        );
        var made = await Making.MakeAsync(source, clips.Path("tagged.mp4"), [], Making.AsLoudAsRecorded, compared: true, copied: true);
        made.Source.Picture!.Colour.Matrix.ShouldBeNull();
        made.Plan.Picture!.Copy.ShouldNotBeNull();
        made.ShouldBeRight();
    }

    /// <summary>The lossless sound is what is kept of the recording, decoded: a copy is the same to the sample, and an encode is not.</summary>
    [Theory]
    [InlineData("mp4", true)]
    [InlineData("mov", true)]
    [InlineData("m4a", false)]
    public async Task Sound_that_stays_as_it_was_recorded_is_copied_to_the_sample(string container, bool pictured)
    {
        var source = await NumberedAsync("numbered.mp4");
        var profile = Making.AsLoudAsRecorded with
        {
            Container = container switch
            {
                "m4a" => Container.M4a,
                "mov" => Container.Mov,
                _ => Container.Mp4,
            },
            Picture = pictured ? Making.AsLoudAsRecorded.Picture : null,
        };
        var made = await Making.MakeAsync(
            source,
            clips.Path($"sound-kept.{container}"),
            [],
            profile,
            [Cut(0, 131), Cut(277, 300)],
            compared: true,
            copied: true
        );
        made.ShouldBeRight();
        made.Plan.Sound!.Copy!.Value.Length.ShouldBe(made.Plan.Length);
        var (kept, composed) = (await SamplesAsync(made.Path), await SamplesAsync(made.From.ComposedSound!));
        // The file says how much of the last coded piece is heard, in milliseconds; this decoder hands out all of it.
        (kept.Length - composed.Length).ShouldBeInRange(0, 1024);
        var said = await Cli.Wrap("ffprobe")
            .WithArguments(["-v", "error", "-select_streams", "a", "-show_entries", "stream=duration", "-of", "csv=p=0", made.Path])
            .ExecuteBufferedAsync();
        double.Parse(said.StandardOutput.TrimEnd().TrimEnd(','), CultureInfo.InvariantCulture).ShouldBe(made.Plan.Length.TotalSeconds, 0.001);
        kept.Zip(composed).Max(s => Math.Abs(s.First - s.Second)).ShouldBeLessThan(0.0001f);
        var encoded = await Making.MakeAsync(source, clips.Path($"sound-encoded.{container}"), [], profile, [Cut(0, 131), Cut(277, 300)]);
        (await SamplesAsync(encoded.Path)).Zip(composed).Max(s => Math.Abs(s.First - s.Second)).ShouldBeGreaterThan(0.001f);
        // Its size is known before by its packets.
        var reel = Reel.Of([(made.Source, null)]);
        var rates = await SampleEncoder.MeasureSoundAsync(made.Plan.Sound, reel, reel.Map([]), [source], [new SampleWindow(150, 60, 1)], Cancel);
        rates.Single().ShouldBe(made.Source.Sounds[0].BitsPerSecond!.Value / 8.0, 0.1 * made.Source.Sounds[0].BitsPerSecond!.Value / 8);
    }

    private async Task<float[]> SamplesAsync(string path)
    {
        var raw = clips.Path($"{Guid.NewGuid():N}.f32");
        await Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-nostdin", "-xerror", "-i", path, "-map", "0:a", "-ac", "1", "-ar", "48000", "-f", "f32le", raw])
            .ExecuteAsync();
        return MemoryMarshal.Cast<byte, float>(await File.ReadAllBytesAsync(raw)).ToArray();
    }

    [Fact]
    public async Task Some_seconds_of_a_copy_are_tried_as_they_are()
    {
        var source = await NumberedAsync("numbered.mp4");
        var made = await Making.MakeAsync(source, clips.Path("to-try.mp4"), [], Making.AsLoudAsRecorded, [Cut(0, 17), Cut(120, 181)], copied: true);
        var plan = made.Plan.Picture!;
        var even = made.Source.Picture!.Even!;
        var trial = await Trial.MakeAsync(plan, even, made.From.Inputs, new SampleWindow(20, 60, 1), clips.Path("trial.mp4"), Cancel);
        (trial.MeanSsim, trial.WorstSsim).ShouldBe((1.0, 1.0));
        (await NumbersAsync(clips.Path("trial.mp4"))).ShouldBe(Enumerable.Range(37, 60));
        trial.Bytes.ShouldBeLessThan(new FileInfo(clips.Path("trial.mp4")).Length);
        // Over the cut, some frames are encoded.
        var over = await Trial.MakeAsync(plan, even, made.From.Inputs, new SampleWindow(90, 60, 1), clips.Path("over.mp4"), Cancel);
        (await NumbersAsync(clips.Path("over.mp4"))).ShouldBe([.. Enumerable.Range(107, 13), .. Enumerable.Range(181, 47)]);
        over.WorstSsim.ShouldBeGreaterThan(0.99);
    }

    [Fact]
    public async Task What_cannot_be_taken_apart_is_not()
    {
        async Task<EvenFrames?> EvenAsync(string path)
        {
            var facts = (await Prober.ProbeAsync(path, "a", Cancel)).Value!;
            return (await EvenFramesFinder.WithAsync(facts, path, Cancel)).Picture!.Even;
        }

        var even = (await EvenAsync(await NumberedAsync("numbered.mp4")))!;
        (even.Frames, even.LongestDistance, even.Profile).ShouldBe((300L, 50L, "High"));
        even.KeyFrames.ShouldBe([0, 50, 100, 150, 200, 250]);
        // Behind an open group of pictures, frames refer to what lies before it: only its first begins cleanly.
        (await EvenAsync(await NumberedAsync("open.mp4", 300, "1000", "-x264-params", "open-gop=1")))!.KeyFrames.ShouldBe([0]);
        (await EvenAsync(await NumberedAsync("matroska.mkv", 60, "200"))).ShouldBeNull();
        (
            await EvenAsync(
                await clips.MakeAsync(
                    "-f",
                    "lavfi",
                    "-i",
                    "testsrc2=s=320x240:r=120:d=2",
                    "-vf",
                    "select='lt(mod(n,40),12)'",
                    "-fps_mode",
                    "vfr",
                    "-pix_fmt",
                    "yuv420p",
                    "bursts.mp4"
                )
            )
        ).ShouldBeNull("frames of a burst come faster than the ticks");
        (
            await EvenAsync(
                await clips.MakeAsync(
                    "-f",
                    "lavfi",
                    "-i",
                    "testsrc2=s=320x240:r=30:d=2",
                    "-c:v",
                    "libx264",
                    "-preset",
                    "ultrafast",
                    "-qp",
                    "0",
                    "-pix_fmt",
                    "yuv444p",
                    "full.mp4"
                )
            )
        ).ShouldBeNull();
        // What an edit list hides must not be shown.
        var numbered = await NumberedAsync("numbered.mp4");
        (await EvenAsync(await clips.MakeAsync("-ss", "2.5", "-i", numbered, "-c", "copy", "hidden.mp4"))).ShouldBeNull();
    }
}
