using System.Globalization;
using CliWrap;
using CliWrap.Buffered;
using Wexel.Core.Contents;
using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Media.Tests;

public sealed class RenderingTests(Clips clips) : IClassFixture<Clips>
{
    private static readonly IReadOnlyList<Section> Sections =
    [
        new("a", TimeSpan.Zero, "Start"),
        new("b", TimeSpan.FromMilliseconds(1700), "In a still stretch <b>"),
        new("c", TimeSpan.FromMilliseconds(4000), "Where it changes"),
    ];

    private Task<Made> MakeAsync(string source, IReadOnlyList<Section>? sections = null, Profile? profile = null) =>
        Making.MakeAsync(source, clips.Path($"{Guid.NewGuid():N}.mp4"), sections, profile);

    [Fact]
    public async Task A_usual_recording_comes_out_as_planned()
    {
        var made = await MakeAsync(await clips.UsualAsync(), [new("a", TimeSpan.Zero, "A"), new("b", TimeSpan.FromSeconds(1.5), "B")]);
        made.ShouldBeRight();
        made.Measured.Codecs.ShouldBe("avc1.64000D, mp4a.40.2");
        made.Measured.Sound!.SampleRate.ShouldBe(48000);
    }

    [Fact]
    public async Task A_repeated_frame_is_not_made_again_but_key_frames_and_one_a_second_are()
    {
        var made = await MakeAsync(await clips.QuietAsync(), Sections);
        made.ShouldBeRight();
        made.Measured.Picture!.FrameCount.ShouldBeLessThan(20);
        made.Measured.Picture!.LongestGap.ShouldBeLessThanOrEqualTo(TimeSpan.FromMilliseconds(1001));
        made.Measured.Picture!.KeyFrames.ShouldContain(k => (k - TimeSpan.FromMilliseconds(1700)).Duration() < TimeSpan.FromMilliseconds(17));
    }

    /// <summary>Nothing asks for a key frame here: where much happens there are 165 frames from one to the next, where nothing does a minute.</summary>
    [Theory]
    [InlineData("web")]
    [InlineData("open-formats")]
    public async Task Key_frames_come_by_what_happens(string profile)
    {
        // It moves for 22 s, 660 frames, then stands for 100 s.
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=160x120:r=30:d=22,tpad=stop_mode=clone:stop_duration=100",
            "-c:v",
            "libx264",
            "-preset",
            "ultrafast",
            "-qp",
            "0",
            "-pix_fmt",
            "yuv420p",
            "moves-then-stands.mkv"
        );
        var found = (
            await Making.MakeAsync(
                source,
                clips.Path($"{Guid.NewGuid():N}{Muxing.FileName(Profiles.Find(profile)!.Container)}"),
                [new("a", TimeSpan.Zero, "A"), new("b", TimeSpan.FromSeconds(5), "B")],
                Profiles.Find(profile)
            )
        )
            .Measured
            .Picture!;
        found.MostBetweenKeyFrames.ShouldBe(165);
        var keys = found.KeyFrames.Select(k => k.TotalSeconds).ToList();
        keys.Count.ShouldBe(6);
        keys.Take(5).Zip([0.0, 5, 10.5, 16, 21.5]).ShouldAllBe(pair => Math.Abs(pair.First - pair.Second) < 0.02);
        keys[5].ShouldBeInRange(64, 65);
    }

    [Fact]
    public async Task As_drawn_shows_what_the_source_shows_at_every_moment()
    {
        // SSIM of both brought to 30 frames a second; a marked frame that was not restored would show as a negative picture.
        var source = await clips.QuietAsync();
        var made = await MakeAsync(source, Sections);
        var compared = await Cli.Wrap("ffmpeg")
            .WithArguments(["-hide_banner", "-i", source, "-i", made.Path, "-lavfi", "[0]fps=30[a];[1]fps=30[b];[a][b]ssim=stats_file=-", "-f", "null", "-"])
            .ExecuteBufferedAsync();
        var scores = compared
            .StandardOutput.Split('\n', StringSplitOptions.RemoveEmptyEntries)
            .Select(line => double.Parse(line.Split("All:")[1].Split(' ')[0], CultureInfo.InvariantCulture))
            .ToList();
        scores.Count.ShouldBe(240);
        scores.Min().ShouldBeGreaterThan(0.995);
    }

    // ITU-R BT.709-6, item 3: 75 % colour bars in 8-bit limited range, Y'CbCr computed from the matrix of that document.
    [Theory]
    [InlineData("gbrp", "pc", "ffv1", "bars-rgb.mkv")]
    [InlineData("yuv444p", "tv", "ffv1", "bars-444.mkv")]
    [InlineData("yuv420p", "pc", "ffv1", "bars-full.mkv")]
    [InlineData("yuv420p", "tv", "ffv1", "bars-601.mkv")]
    public async Task Colours_come_out_within_two_code_values(string format, string range, string codec, string name)
    {
        (byte R, byte G, byte B)[] bars = [(191, 191, 191), (191, 191, 0), (0, 191, 191), (0, 191, 0), (191, 0, 191), (191, 0, 0), (0, 0, 191), (0, 0, 0)];
        var raw = clips.Path("bars.rgb");
        await File.WriteAllBytesAsync(
            raw,
            [
                .. Enumerable
                    .Repeat(
                        Enumerable
                            .Range(0, 720)
                            .SelectMany(_ => Enumerable.Range(0, 1280).SelectMany(x => new[] { bars[x / 160].R, bars[x / 160].G, bars[x / 160].B })),
                        2
                    )
                    .SelectMany(f => f),
            ]
        );
        var matrix = name == "bars-601.mkv" ? "smpte170m" : "bt709";
        var convert =
            format == "gbrp"
                ? "format=gbrp"
                : $"scale=out_color_matrix={(matrix == "bt709" ? "bt709" : "bt601")}:out_range={range}:flags=accurate_rnd+full_chroma_int,format={format}";
        string[] tags = format == "gbrp" ? [] : ["-colorspace", matrix, "-color_range", range, "-color_primaries", "bt709", "-color_trc", "bt709"];
        var source = await clips.MakeAsync([
            "-f",
            "rawvideo",
            "-pix_fmt",
            "rgb24",
            "-s",
            "1280x720",
            "-r",
            "2",
            "-i",
            raw,
            "-vf",
            convert,
            "-c:v",
            codec,
            .. tags,
            name,
        ]);
        var made = await MakeAsync(source);
        made.ShouldBeRight();

        var pixels = clips.Path(name + ".yuv");
        await Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-y", "-i", made.Path, "-frames:v", "1", "-f", "rawvideo", "-pix_fmt", "yuv420p", pixels])
            .ExecuteAsync();
        var yuv = await File.ReadAllBytesAsync(pixels);
        for (var bar = 0; bar < bars.Length; bar++)
        {
            var (y, cb, cr) = Bt709(bars[bar]);
            var x = (bar * 160) + 80;
            ((double)yuv[(360 * 1280) + x]).ShouldBe(y, 2, $"Y of bar {bar}");
            ((double)yuv[(1280 * 720) + (180 * 640) + (x / 2)]).ShouldBe(cb, 2, $"Cb of bar {bar}");
            ((double)yuv[(1280 * 720 * 5 / 4) + (180 * 640) + (x / 2)]).ShouldBe(cr, 2, $"Cr of bar {bar}");
        }
    }

    private static (double Y, double Cb, double Cr) Bt709((byte R, byte G, byte B) colour)
    {
        var (r, g, b) = (colour.R / 255.0, colour.G / 255.0, colour.B / 255.0);
        var y = (0.2126 * r) + (0.7152 * g) + (0.0722 * b);
        return (16 + (219 * y), 128 + (224 * (b - y) / 1.8556), 128 + (224 * (r - y) / 1.5748));
    }

    [Fact]
    public async Task Awkward_pictures_come_out_right()
    {
        var sources = new Dictionary<string, (string Source, PictureSize Size)>
        {
            ["odd"] = (await clips.PictureAsync("testsrc2=s=321x241:r=30:d=1", "odd.mkv", "-c:v", "ffv1"), new(320, 240)),
            ["444"] = (await clips.PictureAsync("testsrc2=s=320x240:r=30:d=1,format=yuv444p", "444.mp4"), new(320, 240)),
            ["wide"] = (await clips.PictureAsync("testsrc2=s=8192x512:r=5:d=1", "wide.mkv", "-c:v", "mjpeg", "-pix_fmt", "yuvj420p"), new(3840, 240)),
            ["varies"] = (
                await clips.PictureAsync("testsrc2=s=320x240:r=30:d=4,select='lt(mod(n,30),10)+not(mod(n,7))'", "vary.mkv", "-fps_mode", "vfr"),
                new(320, 240)
            ),
            ["turned"] = (await clips.MakeAsync("-i", await clips.UsualAsync(), "-c", "copy", "-metadata:s:v", "rotate=90", "turned.mp4"), new(240, 320)),
            ["long pixels"] = (await clips.PictureAsync("testsrc2=s=720x576:r=25:d=1,setsar=64/45", "dv.mkv"), new(1024, 576)),
        };
        foreach (var (name, (source, size)) in sources)
        {
            var made = await MakeAsync(source);
            made.ShouldBeRight();
            made.Measured.Picture!.Size.ShouldBe(size, name);
        }
    }

    [Fact]
    public async Task Sound_that_starts_later_or_ends_sooner_stays_in_step_and_fills_the_length()
    {
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=320x240:r=30:d=4",
            "-itsoffset",
            "1",
            "-f",
            "lavfi",
            "-i",
            "sine=f=440:r=48000:d=1",
            "-pix_fmt",
            "yuv420p",
            "late.mkv"
        );
        var made = await MakeAsync(source);
        made.ShouldBeRight();
        var heard = await Cli.Wrap("ffmpeg")
            .WithArguments(["-hide_banner", "-i", made.Path, "-af", "silencedetect=n=-50dB:d=0.2", "-f", "null", "-"])
            .ExecuteBufferedAsync();
        heard.StandardError.ShouldContain("silence_end: 1.0");
        heard.StandardError.ShouldContain("silence_start: 2.0");
    }

    [Theory]
    [InlineData("0.3*sin(2*PI*440*t)|0.3*sin(2*PI*440*t)", SoundMix.MonoFromBoth, 1)]
    [InlineData("0.3*sin(2*PI*440*t)|0", SoundMix.MonoFromLeft, 1)]
    [InlineData("0|0.3*sin(2*PI*440*t)", SoundMix.MonoFromRight, 1)]
    [InlineData("0.3*sin(2*PI*440*t)|0.3*sin(2*PI*660*t)", SoundMix.Stereo, 2)]
    [InlineData("0.3*sin(2*PI*440*t)", SoundMix.Mono, 1)]
    public async Task Sound_gets_the_channels_it_has_and_keeps_its_level(string expression, SoundMix mix, int channels)
    {
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=320x240:r=30:d=2",
            "-f",
            "lavfi",
            "-i",
            $"aevalsrc={expression}:s=48000:d=2",
            "-pix_fmt",
            "yuv420p",
            "-c:a",
            "flac",
            $"sound-{mix}.mkv"
        );
        var made = await MakeAsync(source, null, Making.AsLoudAsRecorded);
        made.ShouldBeRight();
        made.Plan.Sound!.Mixes.ShouldBe([mix]);
        made.Measured.Sound!.Channels.ShouldBe(channels);
        (await LoudnessAsync(made.Path)).ShouldBe(20 * Math.Log10(0.3 / Math.Sqrt(2)), 0.5);
    }

    private static async Task<double> LoudnessAsync(string path, string channel = "")
    {
        var heard = await Cli.Wrap("ffmpeg")
            .WithArguments(["-hide_banner", "-i", path, "-af", channel + "volumedetect", "-f", "null", "-"])
            .ExecuteBufferedAsync();
        return double.Parse(heard.StandardError.Split("mean_volume: ")[1].Split(' ')[0], CultureInfo.InvariantCulture);
    }

    // ITU-R BS.775-3, Annex 4, Table 2: centre and surround enter at 0.7071 of the front channels.
    [Fact]
    public async Task Six_channels_are_mixed_down_by_the_standards_coefficients()
    {
        async Task<double> Level(string name, string channels)
        {
            var source = await clips.MakeAsync(
                "-f",
                "lavfi",
                "-i",
                "testsrc2=s=320x240:r=30:d=1",
                "-f",
                "lavfi",
                "-i",
                $"aevalsrc={channels}:s=48000:d=1:c=5.1",
                "-pix_fmt",
                "yuv420p",
                "-c:a",
                "flac",
                name
            );
            var made = await MakeAsync(source, null, Making.AsLoudAsRecorded);
            made.Measured.Sound!.Channels.ShouldBe(2);
            return await LoudnessAsync(made.Path, "pan=mono|c0=c0,");
        }

        const string On = "0.5*sin(2*PI*440*t)";
        var front = await Level("front.mkv", $"{On}|0|0|0|0|0");
        (await Level("centre.mkv", $"0|0|{On}|0|0|0") - front).ShouldBe(-3.01, 0.3);
        (await Level("back.mkv", $"0|0|0|0|{On}|0") - front).ShouldBe(-3.01, 0.3);
        (await Level("all.mkv", $"{On}|0|{On}|0|{On}|0")).ShouldBeLessThan(-8.5);
    }

    [Fact]
    public async Task Three_sound_tracks_give_the_first()
    {
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=320x240:r=30:d=1",
            "-f",
            "lavfi",
            "-i",
            "aevalsrc=0.3*sin(2*PI*440*t):s=48000:d=1",
            "-f",
            "lavfi",
            "-i",
            "anullsrc=d=1",
            "-f",
            "lavfi",
            "-i",
            "anullsrc=d=1",
            "-map",
            "0",
            "-map",
            "1",
            "-map",
            "2",
            "-map",
            "3",
            "-t",
            "1",
            "-pix_fmt",
            "yuv420p",
            "three.mkv"
        );
        var made = await MakeAsync(source, null, Making.AsLoudAsRecorded);
        made.ShouldBeRight();
        (await LoudnessAsync(made.Path)).ShouldBeGreaterThan(-15);
    }

    /// <summary>Microphone and the machine's own sound apart, the latter first and silent, as recorders write them.</summary>
    [Fact]
    public async Task The_sound_track_in_which_somebody_speaks_is_used_and_others_where_they_are_asked_for()
    {
        const string Spoken = "aevalsrc=0.3*sin(2*PI*220*t)*gt(mod(t\\,0.7)\\,0.3):s=48000:d=6";
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=320x240:r=30:d=6",
            "-f",
            "lavfi",
            "-i",
            "anullsrc=cl=stereo:d=6",
            "-f",
            "lavfi",
            "-i",
            Spoken,
            "-map",
            "0",
            "-map",
            "1",
            "-map",
            "2",
            "-t",
            "6",
            "-pix_fmt",
            "yuv420p",
            "-c:a",
            "flac",
            "apart.mkv"
        );
        var made = await MakeAsync(source, null, Making.AsLoudAsRecorded);
        made.ShouldBeRight();
        made.Source.UsedSounds.ShouldBe([1]);
        made.Plan.Sound!.Mixes.ShouldBe([SoundMix.Mono]);
        var spoken = await LoudnessAsync(made.Path);
        spoken.ShouldBeGreaterThan(-20);

        // Both together are as loud, since the other says nothing.
        var facts = made.Source with { UsedSounds = [0, 1] };
        var reel = Reel.Of(facts, SoundSides.Stereo);
        var plan = RenderPlanner.Plan(reel, reel.Map([]), Making.AsLoudAsRecorded, new LessonLook());
        plan.Sound!.Tracks.ShouldBe([
            [0, 1],
        ]);
        var together = clips.Path("together.flac");
        await SoundComposer.ComposeAsync(plan.Sound, reel, reel.Map([]), new EncodeInputs([source]), together, TestContext.Current.CancellationToken);
        (await LoudnessAsync(together)).ShouldBe(spoken, 3.5);
    }

    [Theory]
    [InlineData("web-720p", 1280, 720)]
    [InlineData("small-480p", 854, 480)]
    public async Task Profiles_scale_down_and_never_up(string profile, int width, int height)
    {
        var large = await clips.PictureAsync("testsrc2=s=1920x1080:r=10:d=1", "large.mkv", "-c:v", "mjpeg", "-pix_fmt", "yuvj420p");
        (await MakeAsync(large, profile: Profiles.Find(profile))).Measured.Picture!.Size.ShouldBe(new PictureSize(width, height));
        (await MakeAsync(await clips.UsualAsync(), profile: Profiles.Find(profile))).Measured.Picture!.Size.ShouldBe(new PictureSize(320, 240));
    }

    [Fact]
    public async Task A_quiet_lesson_at_640x480_stays_under_a_megabyte_a_minute()
    {
        // Common practice, no source: about 1 MB a minute, as an upper bound, with speech.
        var source = await clips.MakeAsync("-i", await clips.QuietAsync(), "-f", "lavfi", "-i", "sine=f=300:d=8", "-c:v", "copy", "-shortest", "spoken.mkv");
        var made = await MakeAsync(source);
        (made.Measured.Bytes / made.Measured.Length.TotalMinutes).ShouldBeLessThan(1_000_000);
    }

    [Fact]
    public async Task Chapters_are_inside_with_their_titles()
    {
        var made = await MakeAsync(await clips.QuietAsync(), Sections);
        made.Measured.ChapterStarts.Select(s => s.TotalMilliseconds).ShouldBe([0, 1700, 4000]);
        var printed = (
            await Cli.Wrap("ffprobe").WithArguments(["-v", "error", "-show_chapters", "-show_format", "-of", "json", made.Path]).ExecuteBufferedAsync()
        ).StandardOutput;
        printed.ShouldContain("In a still stretch <b>");
        printed.ShouldContain("A title = with; # marks\\\\");
    }

    /// <summary>A clip whose every frame says its own number, as twelve black or white stripes.</summary>
    private Task<string> NumberedAsync() =>
        clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            $"color=black:s=384x64:r=30:d=10,{Clips.OwnNumbers(32, 64)}",
            "-f",
            "lavfi",
            "-i",
            "sine=f=440:r=48000:d=10",
            "-c:v",
            "libx264",
            "-preset",
            "ultrafast",
            "-qp",
            "0",
            "-g",
            "50",
            "-pix_fmt",
            "yuv420p",
            "numbered.mkv"
        );

    /// <summary>The numbers that the frames of a file say, in order.</summary>
    private async Task<List<int>> NumbersAsync(string path)
    {
        var raw = clips.Path($"{Guid.NewGuid():N}.gray");
        await Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-y", "-i", path, "-fps_mode", "passthrough", "-f", "rawvideo", "-pix_fmt", "gray", raw])
            .ExecuteAsync();
        var bytes = await File.ReadAllBytesAsync(raw);
        return
        [
            .. Enumerable
                .Range(0, bytes.Length / (384 * 64))
                .Select(f => Enumerable.Range(0, 12).Sum(bit => bytes[(f * 384 * 64) + (32 * 384) + (bit * 32) + 16] > 127 ? 1 << bit : 0)),
        ];
    }

    [Fact]
    public async Task Cuts_are_exact_to_the_frame_and_everything_follows()
    {
        TimeRange[] cuts =
        [
            new(TimeSpan.Zero, TimeSpan.FromMilliseconds(1100)),
            new(TimeSpan.FromMilliseconds(3000), TimeSpan.FromMilliseconds(3033)),
            new(TimeSpan.FromMilliseconds(5000), TimeSpan.FromMilliseconds(7500)),
            new(TimeSpan.FromMilliseconds(9500), TimeSpan.FromSeconds(20)),
        ];
        var made = await Making.MakeAsync(
            await NumberedAsync(),
            clips.Path($"{Guid.NewGuid():N}.mp4"),
            [new("a", TimeSpan.FromMilliseconds(500), "A"), new("b", TimeSpan.FromMilliseconds(6000), "B"), new("c", TimeSpan.FromMilliseconds(8000), "C")],
            null,
            cuts
        );
        made.ShouldBeRight();
        int[] expected = [.. Enumerable.Range(33, 57), .. Enumerable.Range(91, 59), .. Enumerable.Range(225, 60)];
        (await NumbersAsync(made.Path)).ShouldBe(expected);
        made.Plan.Length.ShouldBe(TimeSpan.FromSeconds(expected.Length / 30.0), TimeSpan.FromTicks(1));
        made.Measured.ChapterStarts.Select(c => Math.Round(c.TotalMilliseconds)).ShouldBe([0, 3867, 4367]);
    }

    [Fact]
    public async Task Many_cuts_are_made_as_planned()
    {
        var cuts = Enumerable.Range(0, 140).Select(i => new TimeRange(TimeSpan.FromSeconds(i * 2 / 30.0), TimeSpan.FromSeconds(((i * 2) + 1) / 30.0))).ToList();
        var made = await Making.MakeAsync(await NumberedAsync(), clips.Path($"{Guid.NewGuid():N}.mp4"), null, null, cuts);
        made.ShouldBeRight();
        // The sound of the clip is a little longer than its picture, whose last frame then stands on.
        var standing = Enumerable.Repeat(299, (int)made.Plan.Picture!.Parts[0].Kept[^1].End - 300);
        (await NumbersAsync(made.Path)).ShouldBe([.. Enumerable.Range(0, 140).Select(i => (i * 2) + 1), .. Enumerable.Range(280, 20), .. standing]);
    }

    [Fact]
    public async Task Three_hundred_sections_have_a_key_frame_each()
    {
        var sections = Enumerable.Range(0, 300).Select(i => new Section($"s{i}", TimeSpan.FromSeconds(i / 30.0), $"Section {i}")).ToList();
        var made = await MakeAsync(await NumberedAsync(), sections);
        made.ShouldBeRight();
        made.Plan.Picture!.Timing.KeyFrames().Count().ShouldBe(300);
        made.Measured.Picture!.KeyFrames.Count.ShouldBe(300);
    }

    [Fact]
    public async Task Five_hundred_cuts_are_made()
    {
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=320x180:r=30:d=50",
            "-f",
            "lavfi",
            "-i",
            "sine=d=50",
            "-pix_fmt",
            "yuv420p",
            "-preset",
            "ultrafast",
            "many.mp4"
        );
        var cuts = Enumerable.Range(0, 500).Select(i => new TimeRange(TimeSpan.FromSeconds(i / 10.0), TimeSpan.FromSeconds((i / 10.0) + (1 / 30.0)))).ToList();
        var made = await Making.MakeAsync(source, clips.Path($"{Guid.NewGuid():N}.mp4"), cuts: cuts);
        made.ShouldBeRight();
        made.Plan.Length.TotalSeconds.ShouldBe(100 / 3.0, 0.001);
        made.Measured.Picture!.FrameCount.ShouldBe(1000);
    }

    [Fact]
    public async Task A_cut_in_a_quiet_lesson_keeps_frames_as_drawn()
    {
        // What changes at 4 s comes at 3 s when one second before it is cut; and key frames stand where they must.
        var made = await Making.MakeAsync(
            await clips.QuietAsync(),
            clips.Path($"{Guid.NewGuid():N}.mp4"),
            Sections,
            null,
            [new(TimeSpan.FromSeconds(2), TimeSpan.FromSeconds(3))]
        );
        made.ShouldBeRight();
        made.Measured.Picture!.FrameCount.ShouldBeLessThan(20);
        made.Measured.Picture!.KeyFrames.ShouldContain(k => (k - TimeSpan.FromSeconds(3)).Duration() < TimeSpan.FromMilliseconds(17));
    }

    [Fact]
    public async Task Sound_across_a_cut_does_not_click()
    {
        // Read back from the file that learners get. A tone of 440 Hz at this loudness steps by at most 0.0072 from sample to sample.
        var made = await Making.MakeAsync(
            await NumberedAsync(),
            clips.Path($"{Guid.NewGuid():N}.mp4"),
            null,
            Making.AsLoudAsRecorded,
            [.. Enumerable.Range(1, 8).Select(i => new TimeRange(TimeSpan.FromSeconds(i), TimeSpan.FromSeconds(i + 0.5 + (i / 30.0))))]
        );
        var raw = clips.Path("joints.f32");
        await Cli.Wrap("ffmpeg").WithArguments(["-v", "error", "-y", "-i", made.Path, "-vn", "-f", "f32le", raw]).ExecuteAsync();
        var samples = System.Runtime.InteropServices.MemoryMarshal.Cast<byte, float>(await File.ReadAllBytesAsync(raw)).ToArray();
        (samples.Length / 48_000.0).ShouldBe(made.Plan.Length.TotalSeconds, 0.03);
        samples.Skip(4800).SkipLast(4800).Zip(samples.Skip(4801)).Max(p => Math.Abs(p.Second - p.First)).ShouldBeLessThan(0.012f);
    }

    [Fact]
    public async Task Stopping_leaves_nothing_half_made()
    {
        var source = await clips.PictureAsync("testsrc2=s=1280x720:r=30:d=30", "long.mkv", "-c:v", "mjpeg", "-pix_fmt", "yuvj420p");
        var folder = Directory.CreateDirectory(clips.Path("stopped")).FullName;
        var facts = (await Probing.Prober.ProbeAsync(source, "long.mkv", TestContext.Current.CancellationToken)).Value!;
        var plan = RenderPlanner.Plan(Reel.Of(facts), Reel.Of(facts).Map([]), Profiles.Web, new LessonLook());
        using var stop = new CancellationTokenSource();
        var progress = new Progress<TimeSpan>(_ => stop.Cancel());
        await Should.ThrowAsync<OperationCanceledException>(() =>
            Encoder.EncodeAsync(
                new EncodeWork(new EncodeInputs([source]), [new PictureOutput(plan.Picture!, Path.Combine(folder, "a.mp4"))], []),
                progress,
                null,
                stop.Token
            )
        );
        Directory.EnumerateFiles(folder).ShouldBeEmpty();
    }

    /// <summary>Picture and sound are encoded at the same time; neither goes on for a file that will not be.</summary>
    [Fact]
    public async Task Sound_that_fails_ends_the_picture_and_says_why()
    {
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=640x360:r=30:d=30",
            "-f",
            "lavfi",
            "-i",
            "sine=d=30",
            "-c:v",
            "mjpeg",
            "-pix_fmt",
            "yuvj420p",
            "both.mkv"
        );
        var folder = Directory.CreateDirectory(clips.Path("failed")).FullName;
        var facts = Making.Encoded((await Probing.Prober.ProbeAsync(source, "both.mkv", TestContext.Current.CancellationToken)).Value!);
        var plan = RenderPlanner.Plan(Reel.Of(facts), Reel.Of(facts).Map([]), Profiles.Web, new LessonLook());
        var encoders = new System.Collections.Concurrent.ConcurrentBag<int>();
        var work = new EncodeWork(
            new EncodeInputs([source]),
            [new PictureOutput(plan.Picture!, Path.Combine(folder, "a.mp4"))],
            [new SoundOutput(plan.Sound!, _ => Task.FromResult(new LessonSound(clips.Path("gone.flac"), null)), Path.Combine(folder, "a.m4a"))]
        );
        var failed = await Should.ThrowAsync<ToolFailedException>(() => Encoder.EncodeAsync(work, null, encoders.Add, TestContext.Current.CancellationToken));
        failed.Said.ShouldContain("gone.flac");
        encoders.Count.ShouldBe(2);
        encoders.ShouldAllBe(id => !Directory.Exists($"/proc/{id}"));
        Directory.EnumerateFiles(folder).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_failure_says_what_the_encoder_said_and_what_to_try()
    {
        var facts = (await Probing.Prober.ProbeAsync(await clips.UsualAsync(), "usual.mp4", TestContext.Current.CancellationToken)).Value!;
        var plan = RenderPlanner.Plan(Reel.Of(facts), Reel.Of(facts).Map([]), Profiles.Web, new LessonLook());
        var failed = await Should.ThrowAsync<ToolFailedException>(() =>
            Encoder.EncodeAsync(
                new EncodeWork(new EncodeInputs([clips.Path("gone.mp4")]), [new PictureOutput(plan.Picture!, clips.Path("never.mp4"))], []),
                null,
                null,
                TestContext.Current.CancellationToken
            )
        );
        failed.Said.ShouldContain("No such file");
        failed.Advice.ShouldContain("Bring it in again");
        File.Exists(clips.Path("never.mp4")).ShouldBeFalse();
    }

    [Fact]
    public async Task A_viewing_copy_is_something_that_browsers_play()
    {
        var source = await clips.UsualAsync("view.avi");
        var copy = clips.Path("view.mp4");
        var facts = (await Probing.Prober.ProbeAsync(source, "view.avi", TestContext.Current.CancellationToken)).Value!;
        BrowserPlayback.CanPlay(facts).ShouldBeFalse();
        await ViewingCopy.MakeAsync(facts, source, copy, null, null, TestContext.Current.CancellationToken);
        BrowserPlayback.CanPlay((await Probing.Prober.ProbeAsync(copy, "view.mp4", TestContext.Current.CancellationToken)).Value!).ShouldBeTrue();
    }
}
