using CliWrap;
using CliWrap.Buffered;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Kit;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Measuring;
using Wexel.Media.Tools;

namespace Wexel.Media.Tests;

/// <summary>A lesson's file that is right, for tests that break it.</summary>
public sealed class WholeFileFixture : IAsyncLifetime
{
    internal Clips Clips { get; } = new();

    internal Made Made { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        // It moves all the time, has detail, and a voice-like tone that comes and goes.
        var source = await Clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=640x360:r=30:d=6",
            "-f",
            "lavfi",
            "-i",
            "aevalsrc='0.2*sin(2*PI*220*t)*(0.6+0.4*sin(2*PI*3*t))|0.2*sin(2*PI*330*t)*(0.6+0.4*sin(2*PI*3*t))':s=48000:d=6",
            "-pix_fmt",
            "yuv420p",
            "-qp",
            "10",
            "moving.mp4"
        );
        Made = await Making.MakeAsync(
            source,
            Clips.Path("whole.mp4"),
            [new Section("a", TimeSpan.Zero, "A"), new Section("b", TimeSpan.FromSeconds(2.5), "B")],
            Profiles.Web with
            {
                Captions = CaptionPlace.Inside,
                Picture = Profiles.Web.Picture! with { KeyFrameSeconds = 2 },
            },
            captions:
            [
                [new Cue(new TimeRange(TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(3)), "One")],
            ],
            compared: true
        );
    }

    public ValueTask DisposeAsync()
    {
        Clips.Dispose();
        return ValueTask.CompletedTask;
    }
}

/// <summary>The check is checked: for every fact there is a file broken on purpose in that way.</summary>
public sealed class FileCheckTests(WholeFileFixture whole) : IClassFixture<WholeFileFixture>
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private Made Made => whole.Made;

    [Fact]
    public void A_file_that_is_right_is_found_right_in_every_fact()
    {
        Made.ShouldBeRight();
        Made.Check.Select(f => f.Code)
            .ShouldBe([
                "decodes",
                "length",
                "size",
                "codec",
                "colour",
                "section-key-frames",
                "key-frame-distance",
                "index",
                "sound",
                "together",
                "silence",
                "clipping",
                "loudness",
                "borders",
                "black",
                "frozen",
                "ssim",
                "sharpness",
                "chapters",
                "captions",
                "captions-end",
            ]);
    }

    private static readonly string[] Encode =
    [
        "-c:v",
        "libx264",
        "-profile:v",
        "high",
        "-level",
        "3",
        "-crf",
        "18",
        "-preset",
        "veryfast",
        "-g",
        "60",
        "-force_key_frames",
        "0,2,2.498,4",
        "-colorspace",
        "bt709",
        "-color_primaries",
        "bt709",
        "-color_trc",
        "bt709",
        "-color_range",
        "tv",
    ];

    private static string[] Seen(string filter) => ["-vf", filter, .. Encode, "-c:a", "copy", "-c:s", "copy"];

    private static string[] Heard(string filter) => ["-c", "copy", "-af", filter, "-c:a", "aac", "-b:a", "128k", "-ar", "48000"];

    public static TheoryData<string, string[]> Broken =>
        new()
        {
            { "length", ["-c", "copy", "-t", "5"] },
            { "size", Seen("scale=636:360,setsar=1") },
            { "size", Seen("setsar=4/3") },
            { "codec", [.. Seen("null"), "-profile:v", "main"] },
            { "codec", [.. Seen("null"), "-level", "4"] },
            { "codec", ["-vf", "format=yuv444p", "-c:v", "libx264", "-crf", "18", "-preset", "veryfast", "-c:a", "copy", "-c:s", "copy"] },
            {
                "colour",
                [
                    "-c",
                    "copy",
                    "-bsf:v",
                    "h264_metadata=matrix_coefficients=6:colour_primaries=6:transfer_characteristics=6",
                    "-color_trc",
                    "smpte170m",
                    "-colorspace",
                    "smpte170m",
                    "-color_primaries",
                    "smpte170m",
                ]
            },
            { "section-key-frames", [.. Seen("null"), "-force_key_frames", "0,2,4"] },
            { "key-frame-distance", [.. Seen("null"), "-g", "300", "-sc_threshold", "0", "-force_key_frames", "0,2.498"] },
            { "sound", ["-map", "0:v", "-map", "0:s", "-c", "copy"] },
            { "sound", [.. Heard("anull"), "-ac", "1"] },
            { "sound", [.. Heard("anull"), "-ar", "44100"] },
            { "together", Heard("atrim=0:5.5,asetpts=PTS-STARTPTS") },
            { "silence", Heard("volume=0:enable='between(t,1.5,4.5)'") },
            { "clipping", Heard("volume=24dB") },
            { "loudness", Heard("volume=-5dB") },
            { "borders", Seen("drawbox=x=0:y=0:w=32:h=360:c=black:t=fill") },
            { "borders", Seen("drawbox=x=0:y=324:w=640:h=36:c=black:t=fill") },
            { "black", Seen("drawbox=c=black:t=fill:enable='between(t,2,3.5)'") },
            { "frozen", [.. Seen("trim=end_frame=81,tpad=stop=99:stop_mode=clone"), "-g", "300", "-sc_threshold", "0", "-force_key_frames", "0,2,2.498"] },
            { "ssim", Seen("gblur=sigma=6") },
            { "sharpness", Seen("gblur=sigma=1") },
            { "chapters", ["-c", "copy", "-map_chapters", "-1"] },
            { "captions", ["-map", "0:v", "-map", "0:a", "-c", "copy"] },
        };

    [Theory]
    [MemberData(nameof(Broken))]
    public async Task A_file_broken_on_purpose_is_caught(string code, string[] breaking)
    {
        var broken = whole.Clips.Path($"{Guid.NewGuid():N}.mp4");
        string[] arguments = breaking[0] == "-map" ? breaking : ["-map", "0:v", "-map", "0:a", "-map", "0:s", .. breaking];
        await Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-nostdin", "-y", "-i", Made.Path, .. arguments, "-movflags", "+faststart", broken])
            .ExecuteBufferedAsync(Cancel);
        // Comparing with the source costs most, and only these go by it.
        (await CheckAsync(broken, compared: code is "ssim" or "sharpness" or "borders")).ShouldContain(code);
    }

    [Fact]
    public async Task A_file_whose_frames_stand_long_is_compared_at_moments_that_lie_close_without_a_complaint()
    {
        var source = await whole.Clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "color=white:s=640x360:r=30:d=11,drawbox=x=60:y=60:w=120:h=40:c=navy:t=fill:enable='gte(t,5.5)'",
            "-f",
            "lavfi",
            "-i",
            "sine=f=330:r=48000:d=11",
            "-pix_fmt",
            "yuv420p",
            "standing.mp4"
        );
        var made = await Making.MakeAsync(source, whole.Clips.Path("standing.webm"), profile: Profiles.Open);
        long[] close = [.. Enumerable.Range(0, 22).Select(i => i * 15L)];
        var (facts, _, _) = await RenditionMeasurer.MeasureAsync(made.Path, made.From with { Frames = close }, null, Cancel);
        facts.Errors.ShouldBeEmpty();
        // Two go back to a little behind a key frame of the source.
        var grid = made.Plan.Picture!.Timing.Grid;
        facts
            .Picture!.Moments.Select(m => grid.FrameAt(m.At))
            .ShouldBe(
                close.Select(frame =>
                    frame switch
                    {
                        15 => 6,
                        270 => 256,
                        _ => frame,
                    }
                )
            );
        facts.Picture.Moments.ShouldAllBe(m => m.Ssim > 0.98);
    }

    /// <summary>Files cut by others begin below 0, and a stream that was caught in the middle is read from any frame on.</summary>
    [Theory]
    [InlineData("below.ts", "-1.2")]
    [InlineData("below.mov", "-0.7")]
    public async Task A_recording_whose_times_begin_below_zero_is_like_what_is_made_of_it(string name, string offset)
    {
        var above = await whole.Clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=320x240:r=30:d=4",
            "-f",
            "lavfi",
            "-i",
            "sine=d=4",
            "-pix_fmt",
            "yuv420p",
            "-crf",
            "10",
            "-g",
            "30",
            "-bf",
            "0",
            "above.mkv"
        );
        var source = await whole.Clips.MakeAsync("-i", above, "-c", "copy", "-output_ts_offset", offset, "-avoid_negative_ts", "disabled", name);
        var made = await Making.MakeAsync(source, whole.Clips.Path(name + ".mp4"), compared: true);
        made.Measured.Picture!.Moments.ShouldNotBeEmpty();
        made.Measured.Picture.Moments.ShouldAllBe(m => m.Ssim > 0.92);
    }

    /// <summary>In MKV, coded sound begins a little before its picture, below 0; each moment is read from its key frame all the same, not from the
    /// start.</summary>
    [Fact]
    public async Task A_recording_whose_sound_begins_below_zero_is_read_from_its_key_frames()
    {
        var source = await whole.Clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=320x240:r=30:d=9",
            "-f",
            "lavfi",
            "-i",
            "sine=f=330:r=48000:d=9",
            "-pix_fmt",
            "yuv420p",
            "-g",
            "60",
            "-sc_threshold",
            "0",
            "-c:a",
            "aac",
            "recorder.mkv"
        );
        var made = await Making.MakeAsync(source, whole.Clips.Path("recorder.mp4"));
        var (grid, plan) = (made.Plan.Picture!.Timing.Grid, made.Plan.Picture);
        (await ReadingStart.FindAsync(MediaTool.SafeInput(source), grid, [50, 200], TimeSpan.Zero, Cancel))
            .Select(place => (place.Frame, grid.FrameAt(place.First!.Value)))
            .ShouldBe([(50, 0), (200, 180)]);
        (await SourcePicture.QuicklyReadAsync(plan, made.From.Inputs, [50, 200], Cancel)).ShouldBe([6, 186]);
        var (facts, _, _) = await RenditionMeasurer.MeasureAsync(made.Path, made.From with { Frames = [50, 200] }, null, Cancel);
        facts.Picture!.Moments.Select(m => grid.FrameAt(m.At)).ShouldBe([6, 186]);
        facts.Picture.Moments.ShouldAllBe(m => m.Ssim > 0.95);
    }

    [Theory]
    [InlineData("mp4", "libx264")]
    [InlineData("webm", "libvpx-vp9")]
    public async Task A_frame_that_stands_counts_for_as_long_as_it_stands(string container, string codec)
    {
        var standing = await whole.Clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "color=white:s=640x360:r=30:d=9,drawbox=c=black:t=fill:enable='between(t,3,5.99)',mpdecimate",
            "-f",
            "lavfi",
            "-i",
            "sine=f=330:r=48000:d=9",
            "-fps_mode",
            "vfr",
            "-c:v",
            codec,
            "-pix_fmt",
            "yuv420p",
            $"black.{container}"
        );
        var picture = (await RenditionMeasurer.MeasureAsync(standing, Made.From with { Frames = [] }, null, Cancel)).Facts.Picture!;
        picture.FrameCount.ShouldBe(3);
        picture.Black.ShouldBe([new TimeRange(TimeSpan.FromSeconds(3), TimeSpan.FromSeconds(6))]);
        picture.Still.Select(s => s.Start.TotalSeconds).ShouldBe([0, 3]);
    }

    /// <summary>Recorders leave out frames that repeat the one before: at most moments there is no frame, but one that stands.</summary>
    [Fact]
    public async Task A_source_with_frames_left_out_is_compared_by_the_one_that_stands()
    {
        var source = await whole.Clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=640x360:r=30:d=12",
            "-f",
            "lavfi",
            "-i",
            "sine=f=330:r=48000:d=14",
            "-vf",
            "select='lt(n,20)+not(mod(n,40))'",
            "-fps_mode",
            "vfr",
            "-pix_fmt",
            "yuv420p",
            "uneven.mp4"
        );
        var made = await Making.MakeAsync(source, whole.Clips.Path("uneven-made.mp4"));
        made.Source.Picture!.RateVaries.ShouldBeTrue();
        // The last of them lies behind the recording's last frame, where its sound goes on.
        long[] at = [10, 70, 119, 150, 330, 410];
        var (facts, _, _) = await RenditionMeasurer.MeasureAsync(made.Path, made.From with { Frames = at }, null, Cancel);
        facts.Picture!.Moments.Select(m => m.Ssim).ShouldAllBe(s => s > 0.97);
        (await RenditionMeasurer.MeasureAsync(made.Path, made.From with { Frames = at[..4] }, null, Cancel))
            .Facts.Picture!.Moments.Select(m => m.Ssim)
            .ShouldAllBe(s => s > 0.97);
    }

    /// <summary>Readers seek by when frames are decoded. Where frames refer to later ones, a key frame behind a gap is decoded long before it is
    /// shown.</summary>
    [Fact]
    public async Task In_a_gap_before_a_key_frame_both_sides_show_what_stands_there()
    {
        // Each three seconds another picture, whose first 24 frames are there; x264 makes a key frame where it sees that, and the section makes one besides.
        var source = await whole.Clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=640x360:r=30:d=24",
            "-vf",
            "hue=h=90*floor(n/90),select='lt(mod(n,90),24)'",
            "-fps_mode",
            "vfr",
            "-pix_fmt",
            "yuv420p",
            "-bf",
            "3",
            "-b_strategy",
            "0",
            "-force_key_frames",
            "18",
            "gaps.mp4"
        );
        var made = await Making.MakeAsync(
            source,
            whole.Clips.Path("gaps-made.mp4"),
            [new Section("a", TimeSpan.Zero, "A"), new Section("b", TimeSpan.FromSeconds(9), "B"), new Section("c", TimeSpan.FromSeconds(18), "C")]
        );
        long[] at = [225, 255, 266, 269, 270, 480, 510, 538, 539, 540];
        (await RenditionMeasurer.MeasureAsync(made.Path, made.From with { Frames = at }, null, Cancel))
            .Facts.Picture!.Moments.Select(m => m.Ssim)
            .ShouldAllBe(s => s > 0.97);
        foreach (var frame in at)
            (await SourcePicture.CompareAsync(made.Plan.Picture!, made.From.Inputs, made.Path, frame, Cancel)).Ssim.ShouldBeGreaterThan(0.97, $"frame {frame}");
    }

    [Fact]
    public async Task An_index_at_the_end_is_caught()
    {
        var broken = whole.Clips.Path("index.mp4");
        await Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-nostdin", "-y", "-i", Made.Path, "-map", "0:v", "-map", "0:a", "-map", "0:s", "-c", "copy", broken])
            .ExecuteBufferedAsync(Cancel);
        (await CheckAsync(broken)).ShouldBe(["index"]);
    }

    [Fact]
    public async Task Sound_that_starts_late_is_caught()
    {
        var broken = whole.Clips.Path("late.mp4");
        await Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-nostdin",
                "-y",
                "-i",
                Made.Path,
                "-itsoffset",
                "0.3",
                "-i",
                Made.Path,
                "-map",
                "0:v",
                "-map",
                "1:a",
                "-map",
                "0:s",
                "-c",
                "copy",
                "-movflags",
                "+faststart",
                broken,
            ])
            .ExecuteBufferedAsync(Cancel);
        (await CheckAsync(broken)).ShouldContain("together");
    }

    [Fact]
    public async Task Bytes_that_were_damaged_are_caught()
    {
        var bytes = await File.ReadAllBytesAsync(Made.Path, Cancel);
        for (var i = bytes.Length / 2; i < (bytes.Length / 2) + 3000; i++)
            bytes[i] ^= 0x5A;
        var broken = whole.Clips.Path("damaged.mp4");
        await File.WriteAllBytesAsync(broken, bytes, Cancel);
        (await CheckAsync(broken)).ShouldContain("decodes");
    }

    [Fact]
    public async Task Captions_that_go_on_behind_the_end_are_caught()
    {
        var (captions, broken) = (whole.Clips.Path("late.vtt"), whole.Clips.Path("captions.mp4"));
        await File.WriteAllTextAsync(captions, WebVttText.Write([new Cue(new TimeRange(TimeSpan.FromSeconds(5), TimeSpan.FromSeconds(9)), "Late")]), Cancel);
        await Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-nostdin",
                "-y",
                "-i",
                Made.Path,
                "-i",
                captions,
                "-map",
                "0:v",
                "-map",
                "0:a",
                "-map",
                "1:s",
                "-c",
                "copy",
                "-c:s",
                "mov_text",
                "-movflags",
                "+faststart",
                broken,
            ])
            .ExecuteBufferedAsync(Cancel);
        (await CheckAsync(broken)).ShouldContain("captions-end");
    }

    [Fact]
    public async Task A_file_that_passes_its_size_is_caught()
    {
        var plan = Made.Plan with { File = Made.Plan.File with { Bytes = Made.Measured.Bytes - 1 } };
        var (facts, expected, _) = await RenditionMeasurer.MeasureAsync(Made.Path, Made.From with { Plan = plan }, null, Cancel);
        FileCheck.Findings(facts, plan, 2, expected).Where(f => f.Verdict == Verdict.Wrong).Select(f => f.Code).ShouldBe(["file-size"]);
    }

    [Fact]
    public async Task A_picture_where_there_should_be_none_is_caught()
    {
        var plan = Made.Plan with { Pictures = [] };
        var (facts, expected, _) = await RenditionMeasurer.MeasureAsync(Made.Path, Made.From with { Plan = plan }, null, Cancel);
        FileCheck.Findings(facts, plan, 2, expected).Where(f => f.Verdict == Verdict.Wrong).Select(f => f.Code).ShouldBe(["picture"]);
    }

    [Fact]
    public async Task The_source_is_set_beside_the_file_with_cuts_a_move_in_a_mark_and_captions_as_they_were_made()
    {
        var mark = await whole.Clips.MakeAsync("-f", "lavfi", "-i", "color=c=red:s=400x200", "-frames:v", "1", "mark.png");
        var made = await Making.MakeAsync(
            Made.From.Inputs.Recordings[0],
            whole.Clips.Path("everything.mp4"),
            [],
            Profiles.Web with
            {
                Captions = CaptionPlace.BurntIn,
                Picture = Profiles.Web.Picture! with { Size = SizeSettings.AtMost(240) },
            },
            cuts: [new TimeRange(TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(2.2))],
            mark: mark,
            markOn: new MarkOnPicture("m", new PictureSize(400, 200), MarkPlacement.Usual),
            canvas: new Canvas(new PictureSize(480, 360), FitMode.Whole, PicturePart.All),
            moveIns: [new("a", new TimeRange(TimeSpan.FromSeconds(2.5), TimeSpan.FromSeconds(5)), new PicturePart(0.25, 0.25, 0.5, 0.5), MoveIn.UsualEase)],
            captions:
            [
                [new Cue(new TimeRange(TimeSpan.FromSeconds(0.5), TimeSpan.FromSeconds(4)), "A caption")],
            ],
            compared: true
        );
        made.ShouldBeRight();
        // One that was taken from another frame, part or size would not be like it.
        made.Measured.Picture!.Moments.Count.ShouldBe(ExpectedPicture.Moments);
        made.Measured.Picture.Moments.ShouldAllBe(m => m.Ssim > 0.97);
    }

    [Fact]
    public async Task A_frame_of_either_side_is_taken_as_a_picture_at_full_size()
    {
        foreach (var side in Enum.GetValues<Side>())
        {
            var png = whole.Clips.Path($"{side}.png");
            await SourcePicture.TakeAsync(Made.Plan.Picture!, Made.From.Inputs, Made.Path, 100, side, png, Cancel);
            var probed = await Cli.Wrap("ffprobe")
                .WithArguments(["-v", "error", "-show_entries", "stream=width,height,codec_name", "-of", "csv=p=0", png])
                .ExecuteBufferedAsync(Cancel);
            probed.StandardOutput.Trim().ShouldBe("png,640,360");
        }
    }

    private async Task<List<string>> CheckAsync(string path, bool compared = false)
    {
        var (facts, expected, _) = await RenditionMeasurer.MeasureAsync(path, compared ? Made.From : Made.From with { Frames = [] }, null, Cancel);
        return [.. FileCheck.Findings(facts, Made.Plan, 2, expected).Where(f => f.Verdict == Verdict.Wrong).Select(f => f.Code)];
    }

    /// <summary>What is coded says what there is to see and hear; a title says nothing of it.</summary>
    [Fact]
    public async Task What_was_seen_in_one_file_holds_for_another_that_is_put_together_from_the_same()
    {
        var from = Made.From with { Frames = [] };
        var (facts, _, seen) = await RenditionMeasurer.MeasureAsync(Made.Path, from, null, Cancel);
        var (titled, poorer) = (whole.Clips.Path("titled.mp4"), whole.Clips.Path("poorer.mp4"));
        await RunAsync("-i", Made.Path, "-map", "0:v", "-map", "0:a?", "-map_chapters", "-1", "-c", "copy", "-metadata", "title=Another", titled);
        await RunAsync("-i", Made.Path, "-map", "0:v", "-map", "0:a?", "-c:a", "copy", "-c:v", "libx264", "-crf", "45", "-preset", "ultrafast", poorer);

        var (again, _, same) = await RenditionMeasurer.MeasureAsync(titled, from, seen, Cancel);
        same.ShouldBeSameAs(seen);
        again.Picture.ShouldBeSameAs(facts.Picture);
        again.ChapterStarts.ShouldNotBe(facts.ChapterStarts, "what is not coded is looked at again");
        var (_, _, anew) = await RenditionMeasurer.MeasureAsync(poorer, from, seen, Cancel);
        anew.ShouldNotBeSameAs(seen);
        anew.Coded.ShouldNotBe(seen.Coded);

        // It is kept to the tick.
        var kept = SeenAndHeard.Read(seen.Text()).ShouldNotBeNull();
        (kept.Text(), kept.Picture!.LongestGap, kept.Sound!.Loudness).ShouldBe((seen.Text(), seen.Picture!.LongestGap, seen.Sound!.Loudness));
        SeenAndHeard.Read("{ \"Coded\": ").ShouldBeNull();

        static async Task RunAsync(params string[] arguments) =>
            await Cli.Wrap("ffmpeg").WithArguments(["-v", "error", "-y", .. arguments]).ExecuteAsync(Cancel);
    }
}
