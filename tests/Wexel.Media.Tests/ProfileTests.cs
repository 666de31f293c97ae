using System.Globalization;
using System.Text.Json;
using CliWrap;
using CliWrap.Buffered;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Encoding;
using Wexel.Core.Kit;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Probing;
using Wexel.Media.Rendering;

namespace Wexel.Media.Tests;

public sealed class ProfileTests(Clips clips) : IClassFixture<Clips>
{
    private static readonly IReadOnlyList<Section> Sections = [new("a", TimeSpan.Zero, "One <b>"), new("b", TimeSpan.FromMilliseconds(1700), "Two = 2; #")];
    private static readonly IReadOnlyList<Cue> Cues = [new(new TimeRange(TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(2)), "A caption & more")];

    private static readonly IReadOnlyList<Cue> Spanish = [new(new TimeRange(TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(2)), "Un subtítulo")];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private Task<Made> MakeAsync(string source, Profile profile, params IReadOnlyList<IReadOnlyList<Cue>> captions) =>
        Making.MakeAsync(source, clips.Path($"{Guid.NewGuid():N}{ContainerFacts.Of(profile.Container).Ending}"), Sections, profile, captions: captions);

    private static Profile With(Func<PictureSettings, PictureSettings> change) => Profiles.Web with { Picture = change(Profiles.Web.Picture!) };

    public static TheoryData<Profile> Kinds =>
        [
            // Folders of pieces have tests of their own (StreamTests).
            .. Profiles.All.Where(p => !ContainerFacts.Of(p.Container).IsFolder),
            Profiles.Open with
            {
                Picture = Profiles.Open.Picture! with { Codec = PictureCodec.Vp9 },
            },
            Profiles.Web with
            {
                Picture = Profiles.Web.Picture! with { Codec = PictureCodec.Av1, Rate = RateSettings.Of(32) },
                Sound = new SoundSettings(SoundCodec.Opus),
            },
            Profiles.Web with
            {
                Picture = Profiles.Web.Picture! with { Codec = PictureCodec.Vp9, Rate = RateSettings.Of(32), Timing = TimingSettings.AsRecorded },
            },
            Profiles.Web with
            {
                Picture = Profiles.Web.Picture! with { H264Profile = H264Profile.ConstrainedBaseline },
            },
            Profiles.Web with
            {
                Picture = Profiles.Web.Picture! with { H264Profile = H264Profile.Main, KeyFrameSeconds = 0.5, Effort = Effort.Smaller },
            },
            Profiles.Web with
            {
                Picture = Profiles.Web.Picture! with { Timing = new TimingSettings(TimingRule.Constant, 12) },
                IndexAtFront = false,
            },
            Profiles.Web with
            {
                Picture = Profiles.Web.Picture! with { Size = new SizeSettings(SizeRule.Exact, 200, 200) },
                Sound = Profiles.Web.Sound! with { SampleRate = 44_100, Channels = SoundChannels.Mono },
                Chapters = false,
            },
            Profiles.Web with
            {
                Sound = null,
            },
            new Profile("mp3", "MP3", "", Container.Mp3, null, new SoundSettings(SoundCodec.Mp3), CaptionPlace.None),
            new Profile("opus", "Opus", "", Container.Opus, null, new SoundSettings(SoundCodec.Opus), CaptionPlace.None),
        ];

    [Theory]
    [MemberData(nameof(Kinds))]
    public async Task Every_kind_of_file_comes_out_as_planned_and_decodes_to_its_end(Profile profile)
    {
        ProfileRules.Findings(profile).Where(f => f.IsFault).ShouldBeEmpty();
        var made = await MakeAsync(await clips.UsualAsync(), profile);
        made.ShouldBeRight();
        var chapters = await ChaptersAsync(made.Path);
        chapters.ShouldBe(profile.Chapters ? ["One <b>", "Two = 2; #"] : []);
        // Plain ffmpeg reads it to the end without a word, and finds as much as there should be.
        var decoded = await Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "warning", "-nostdin", "-i", made.Path, "-map", "0", "-dn", "-f", "null", "-"])
            .ExecuteBufferedAsync(Cancel);
        decoded.StandardError.ShouldBe("");
    }

    [Theory]
    [InlineData(Container.M4a, SoundCodec.Aac)]
    [InlineData(Container.Mp3, SoundCodec.Mp3)]
    [InlineData(Container.Opus, SoundCodec.Opus)]
    public async Task Sound_alone_starts_and_ends_where_the_lesson_does(Container container, SoundCodec codec)
    {
        // A click at 1 s and one at 2 s: players that know the file's delay hear them there.
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=320x240:r=30:d=3",
            "-f",
            "lavfi",
            "-i",
            "aevalsrc=0.5*between(mod(t\\,1)\\,0\\,0.002)*gt(t\\,0.5):s=48000:d=3",
            "-c:a",
            "pcm_s16le",
            "-pix_fmt",
            "yuv420p",
            "clicks.mov"
        );
        var made = await MakeAsync(source, new Profile("p", "P", "", container, null, new SoundSettings(codec, TargetLufs: null), CaptionPlace.None));
        var raw = clips.Path($"clicks{container}.f32");
        await Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-nostdin", "-y", "-i", made.Path, "-ac", "1", "-ar", "48000", "-f", "f32le", raw])
            .ExecuteAsync(Cancel);
        var samples = System.Runtime.InteropServices.MemoryMarshal.Cast<byte, float>(await File.ReadAllBytesAsync(raw, Cancel)).ToArray();
        (samples.Length / 48000.0).ShouldBe(3, 0.03);
        foreach (var second in new[] { 1, 2 })
        {
            var from = (second * 48000) - 12_000;
            var loudest = Enumerable.Range(from, 24_000).MaxBy(i => Math.Abs(samples[i]));
            (loudest / 48000.0).ShouldBe(second, 0.004);
        }
    }

    [Fact]
    public async Task Captions_inside_are_tracks_of_which_each_can_be_switched_on()
    {
        foreach (var (profile, codec) in new[] { (Profiles.Web, "mov_text"), (Profiles.Open, "webvtt") })
        {
            var made = await MakeAsync(await clips.UsualAsync(), profile with { Captions = CaptionPlace.Inside }, Cues, Spanish);
            made.ShouldBeRight();
            made.Check.Single(f => f.Code == "captions").Measured.ShouldBe("2");
            var tracks = (await ProbeAsync(made.Path))
                .GetProperty("streams")
                .EnumerateArray()
                .Where(s => s.GetProperty("codec_type").GetString() == "subtitle")
                .ToList();
            tracks.Select(t => t.GetProperty("codec_name").GetString()).ShouldBe([codec, codec]);
            tracks.Select(t => t.GetProperty("tags").GetProperty("language").GetString()).ShouldBe(["eng", "spa"]);
            (
                await Cli.Wrap("ffmpeg")
                    .WithArguments(["-v", "error", "-nostdin", "-i", made.Path, "-map", "0:s:1", "-f", "webvtt", "-"])
                    .ExecuteBufferedAsync(Cancel)
            ).StandardOutput.ShouldContain("Un subtítulo");
            var read = await Cli.Wrap("ffmpeg")
                .WithArguments(["-v", "error", "-nostdin", "-i", made.Path, "-map", "0:s:0", "-f", "webvtt", "-"])
                .ExecuteBufferedAsync(Cancel);
            var cue = WebVttText.Read(read.StandardOutput).Cues.Single();
            cue.Text.ShouldBe("A caption & more");
            // WebM counts milliseconds, and the delay of Opus, 7 of them, shifts what stands beside the sound.
            cue.Span.Start.TotalMilliseconds.ShouldBe(1000, 15);
        }
    }

    [Fact]
    public async Task Captions_burnt_in_stand_on_the_picture_while_they_last_and_nowhere_else()
    {
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "color=c=white:s=640x360:r=30:d=4",
            "-c:v",
            "libx264",
            "-preset",
            "ultrafast",
            "-qp",
            "0",
            "-pix_fmt",
            "yuv420p",
            "blank.mkv"
        );
        var made = await MakeAsync(source, Profiles.Web with { Captions = CaptionPlace.BurntIn }, Cues);
        made.ShouldBeRight();
        // As drawn: frames stand exactly where the caption comes and goes.
        async Task<double> DarkAsync(double at) => await BrightnessAsync(made.Path, at, "crop=400:100:120:250");
        (await DarkAsync(0.5)).ShouldBeGreaterThan(230);
        (await DarkAsync(0.97)).ShouldBeGreaterThan(230);
        (await DarkAsync(1.02)).ShouldBeLessThan(225);
        (await DarkAsync(1.95)).ShouldBeLessThan(225);
        (await DarkAsync(2.02)).ShouldBeGreaterThan(230);
    }

    [Fact]
    public async Task Captions_burnt_in_leave_the_house_mark_free()
    {
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "color=c=white:s=640x360:r=30:d=3",
            "-c:v",
            "libx264",
            "-preset",
            "ultrafast",
            "-qp",
            "0",
            "-pix_fmt",
            "yuv420p",
            "page.mkv"
        );
        var mark = await clips.MakeAsync("-f", "lavfi", "-i", "color=c=white:s=400x200", "-frames:v", "1", "mark.png");
        var at = new MarkOnPicture("m", new PictureSize(400, 200), MarkPlacement.Usual with { OpacityPercent = 100 });
        var made = await Making.MakeAsync(
            source,
            clips.Path("marked.mp4"),
            [],
            Profiles.Web with
            {
                Captions = CaptionPlace.BurntIn,
            },
            mark: mark,
            markOn: at,
            captions:
            [
                [new(new TimeRange(TimeSpan.Zero, TimeSpan.FromSeconds(3)), string.Join(' ', Enumerable.Repeat("A caption that goes on for long", 4)))],
            ]
        );
        var box = made.Plan.Picture!.Mark!.Box;
        (await BrightnessAsync(made.Path, 1, $"crop={box.Width}:{box.Height}:{box.X}:{box.Y}")).ShouldBeGreaterThan(234);
    }

    // A busy picture, so that every rate can be spent; under a minute, for which 5 % is asked, and more than a minute, 2 %.
    [Theory]
    [InlineData(PictureCodec.Vp9, 12, 5)]
    [InlineData(PictureCodec.Av1, 12, 5)]
    [InlineData(PictureCodec.H264, 65, 2)]
    public async Task A_size_to_meet_is_met_and_never_passed(PictureCodec codec, int seconds, double percent)
    {
        var source = await BusyAsync(seconds);
        var bytes = seconds * 25_000L;
        var rate = new RateSettings(RateRule.FileSize, Bytes: bytes);
        var made = await MakeAsync(source, With(p => p with { Codec = codec, Rate = rate, Effort = Effort.Fastest }));
        made.ShouldBeRight();
        made.Measured.Bytes.ShouldBeLessThanOrEqualTo(bytes);
        ((double)made.Measured.Bytes).ShouldBeGreaterThan(bytes * (1 - (percent / 100)));
    }

    [Theory]
    [InlineData(RateRule.Average, PictureCodec.H264, 65, 2)]
    [InlineData(RateRule.Average, PictureCodec.Vp9, 12, 5)]
    [InlineData(RateRule.Constant, PictureCodec.H264, 65, 2)]
    public async Task A_rate_is_met(RateRule rule, PictureCodec codec, int seconds, double percent)
    {
        const long Rate = 100_000;
        var made = await MakeAsync(
            await BusyAsync(seconds),
            With(p =>
                p with
                {
                    Codec = codec,
                    Rate = new RateSettings(rule, BitsPerSecond: Rate),
                    Timing = rule == RateRule.Constant ? TimingSettings.AsRecorded : TimingSettings.AsDrawn,
                    Effort = Effort.Fastest,
                }
            )
        );
        made.ShouldBeRight();
        var printed = await Cli.Wrap("ffprobe")
            .WithArguments(["-v", "error", "-select_streams", "v", "-show_entries", "packet=size", "-of", "csv=p=0", made.Path])
            .ExecuteBufferedAsync(Cancel);
        var bits =
            printed.StandardOutput.Split('\n', StringSplitOptions.RemoveEmptyEntries).Sum(line => long.Parse(line.TrimEnd(','), CultureInfo.InvariantCulture))
            * 8.0
            / seconds;
        bits.ShouldBe(Rate, Rate * percent / 100);
    }

    [Fact]
    public async Task A_quiet_picture_falls_short_of_a_size_that_it_cannot_fill()
    {
        var made = await MakeAsync(await clips.QuietAsync(), With(p => p with { Rate = new RateSettings(RateRule.FileSize, Bytes: 20_000_000) }));
        made.ShouldBeRight();
        made.Measured.Bytes.ShouldBeLessThan(2_000_000);
    }

    [Fact]
    public async Task Several_in_one_pass_are_what_each_is_by_itself()
    {
        var source = await clips.UsualAsync();
        Profile[] profiles =
        [
            Profiles.Web,
            With(p => p with { Size = SizeSettings.AtMost(120) }),
            With(p => p with { Timing = TimingSettings.AsRecorded }),
            With(p => p with { Rate = new RateSettings(RateRule.Average, BitsPerSecond: 200_000) }),
        ];
        var facts = (await Prober.ProbeAsync(source, "usual.mp4", Cancel)).Value!;
        var reel = Reel.Of(facts);
        var plans = profiles.Select(p => RenderPlanner.Plan(reel, reel.Map([]), p, new LessonLook(Sections))).ToList();
        var sound = await LessonSound.MakeAsync(plans[0].Sound!, reel, reel.Map([]), new EncodeInputs([source]), clips.Path("together.flac"), Cancel);
        var together = plans.Select((_, i) => clips.Path($"together{i}.mp4")).ToList();
        var reached = new List<TimeSpan>();
        await Encoder.EncodeAsync(
            new EncodeWork(
                new EncodeInputs([source]),
                [.. plans.Select((p, i) => new PictureOutput(p.Picture!, together[i]))],
                [new SoundOutput(plans[0].Sound!, _ => Task.FromResult(sound), clips.Path("together.m4a"))]
            ),
            new Steps(reached),
            null,
            Cancel
        );
        foreach (var (plan, i) in plans.Select((p, i) => (p, i)))
        {
            var alone = clips.Path($"alone{i}.mp4");
            await Encoder.EncodeAsync(new EncodeWork(new EncodeInputs([source]), [new PictureOutput(plan.Picture!, alone)], []), null, null, Cancel);
            var (made, expected) = (await FramesAsync(together[i]), await FramesAsync(alone));
            // Two passes under a ceiling do not come out the same to the bit, even by themselves: their frames' times do.
            static IEnumerable<string> Times(string frames) =>
                frames.Split('\n').Where(l => !l.StartsWith('#')).Select(l => string.Join(',', l.Split(',').Take(4)));
            if (plan.Picture!.Rate.Passes == 2)
                Times(made).ShouldBe(Times(expected));
            else
                made.ShouldBe(expected, $"{i}");
        }

        (await ProbeAsync(clips.Path("together.m4a"))).GetProperty("streams")[0].GetProperty("codec_name").GetString().ShouldBe("aac");
        // Two passes: the first half of the way is the first one's.
        reached.ShouldBeInOrder();
        reached[^1].ShouldBeLessThanOrEqualTo(TimeSpan.FromSeconds(3.1));
    }

    private sealed class Steps(List<TimeSpan> reached) : IProgress<TimeSpan>
    {
        public void Report(TimeSpan value) => reached.Add(value);
    }

    /// <summary>The hash of every decoded frame with its time.</summary>
    private static async Task<string> FramesAsync(string path) =>
        (
            await Cli.Wrap("ffmpeg")
                .WithArguments(["-v", "error", "-nostdin", "-i", path, "-an", "-fps_mode", "passthrough", "-f", "framemd5", "-"])
                .ExecuteBufferedAsync(Cancel)
        ).StandardOutput;

    private Task<string> BusyAsync(int seconds) =>
        clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            $"testsrc2=s=160x120:r=10:d={seconds},noise=alls=12:allf=t",
            "-f",
            "lavfi",
            "-i",
            $"sine=f=440:r=48000:d={seconds}",
            "-c:v",
            "libx264",
            "-preset",
            "ultrafast",
            "-pix_fmt",
            "yuv420p",
            $"busy{seconds}.mp4"
        );

    private static async Task<double> BrightnessAsync(string path, double at, string crop)
    {
        var printed = await Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-nostdin",
                "-i",
                path,
                "-vf",
                $"fps=60,trim=start={at.ToString(CultureInfo.InvariantCulture)},{crop},signalstats,metadata=print:key=lavfi.signalstats.YAVG:file=-",
                "-frames:v",
                "1",
                "-f",
                "null",
                "-",
            ])
            .ExecuteBufferedAsync(Cancel);
        return double.Parse(printed.StandardOutput.Split('\n')[1].Split('=')[1], CultureInfo.InvariantCulture);
    }

    private static async Task<List<string?>> ChaptersAsync(string path) =>
        [.. (await ProbeAsync(path)).GetProperty("chapters").EnumerateArray().Select(c => c.GetProperty("tags").GetProperty("title").GetString())];

    private static async Task<JsonElement> ProbeAsync(string path) =>
        JsonDocument
            .Parse(
                (
                    await Cli.Wrap("ffprobe")
                        .WithArguments(["-v", "error", "-show_format", "-show_streams", "-show_chapters", "-of", "json", path])
                        .ExecuteBufferedAsync(Cancel)
                ).StandardOutput
            )
            .RootElement.Clone();
}
