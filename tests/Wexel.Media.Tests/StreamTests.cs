using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Timing;
using Wexel.Media.Measuring;
using Wexel.Media.Tools;

namespace Wexel.Media.Tests;

/// <summary>Folders of pieces (RFC 8216): made once for all tests, and broken in each way on a copy.</summary>
public sealed class StreamFolder : IAsyncLifetime
{
    private string? _folder;

    internal MadeStream Made { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        _folder = Directory.CreateTempSubdirectory("wexel-stream-test-").FullName;
        var clip = Path.Combine(_folder, "clip.mp4");
        // A picture that changes all the time, and one of another colour from 9 s on: an encoder would put a key frame there.
        await MediaTool.RunAsync(
            [
                "-f",
                "lavfi",
                "-i",
                "testsrc2=s=640x360:r=30:d=9,format=yuv420p",
                "-f",
                "lavfi",
                "-i",
                "testsrc=s=640x360:r=30:d=5,format=yuv420p",
                "-f",
                "lavfi",
                "-i",
                "sine=f=440:r=48000:d=14",
                "-filter_complex",
                "[0:v][1:v]concat=n=2",
                "-c:v",
                "libx264",
                "-preset",
                "ultrafast",
                "-c:a",
                "aac",
                clip,
            ],
            null,
            null,
            CancellationToken.None
        );
        Made = await Making.MakeStreamAsync(
            clip,
            _folder,
            Profiles.Adaptive with
            {
                Picture = Profiles.Adaptive.Picture! with { FurtherHeights = [180, 90], Effort = Effort.Fastest },
            },
            [new Section("a", TimeSpan.Zero, "One"), new Section("b", TimeSpan.FromSeconds(4), "Two")],
            [
                [new Cue(new TimeRange(TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(3)), "Good morning.")],
                [new Cue(new TimeRange(TimeSpan.FromSeconds(1), TimeSpan.FromSeconds(3)), "Buenos días.")],
            ],
            compared: true
        );
    }

    /// <summary>A copy of the folder, to be broken.</summary>
    internal string Copy()
    {
        var copy = Directory.CreateDirectory(Path.Combine(_folder!, Guid.NewGuid().ToString("N"))).FullName;
        var from = Path.GetDirectoryName(Made.Path)!;
        foreach (var file in Directory.EnumerateFiles(from, "*", SearchOption.AllDirectories))
        {
            var to = Path.Combine(copy, Path.GetRelativePath(from, file));
            Directory.CreateDirectory(Path.GetDirectoryName(to)!);
            File.Copy(file, to);
        }

        return copy;
    }

    public ValueTask DisposeAsync()
    {
        Directory.Delete(_folder!, recursive: true);
        return ValueTask.CompletedTask;
    }
}

public class StreamTests(StreamFolder folder) : IClassFixture<StreamFolder>
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private string Folder => Path.GetDirectoryName(folder.Made.Path)!;

    private static IEnumerable<string> Wrong(CheckedFile found) => found.Check.Where(f => f.Verdict == Verdict.Wrong).Select(f => f.Code);

    [Fact]
    public void All_facts_are_right()
    {
        folder.Made.Found.Check.Where(f => f.Verdict == Verdict.Wrong).Select(f => $"{f.Fact}: {f.Measured}, not {f.Expected}").ShouldBeEmpty();
        folder.Made.Found.Check.Select(f => f.Code).ShouldBeUnique();
        folder.Made.Found.Check.ShouldContain(f => f.Code == "ssim-180");
        folder.Made.Found.Codecs.ShouldBe("avc1.64001E, mp4a.40.2");
    }

    /// <summary>Key frames at 0, 4 (a section), 6 and 12 s and nowhere else, also where the picture becomes another at 9 s.</summary>
    [Fact]
    public void Pieces_begin_at_the_same_key_frames_in_every_size()
    {
        foreach (var height in new[] { "360", "180", "90" })
        {
            File.ReadAllLines(Path.Combine(Folder, height + ".m3u8"))
                .Where(l => l.StartsWith("#EXTINF", StringComparison.Ordinal))
                .ShouldBe(["#EXTINF:4.00000,", "#EXTINF:2.00000,", "#EXTINF:6.00000,", "#EXTINF:2.00000,"]);
            Directory.GetFiles(Path.Combine(Folder, height), "*.m4s").Length.ShouldBe(4);
        }
    }

    /// <summary>ffmpeg's own reader of playlists chooses among them and decodes all of it.</summary>
    [Fact]
    public async Task Another_reader_plays_it_from_its_master_playlist()
    {
        var printed = await MediaTool.ProbeAsync(
            ["-show_entries", "stream=codec_type,width,height,channels:format=duration", "-of", "csv=p=0", .. MediaTool.OwnInput(folder.Made.Path)],
            Cancel
        );
        printed.ShouldContain("video,640,360");
        printed.ShouldContain("video,320,180");
        printed.ShouldContain("video,160,90");
        printed.ShouldContain("audio,1");
        (await PlainFfmpeg.SaidAsync([.. MediaTool.OwnInput(folder.Made.Path), "-map", "0:v:0", "-map", "0:a:0", "-f", "null", "-"], Cancel)).ShouldContain(
            "time=00:00:14.0"
        );
    }

    /// <summary>The pieces hold the encode's own frames: nothing was encoded again, and none is missing.</summary>
    [Fact]
    public async Task The_pieces_are_the_encode()
    {
        static async Task<string> Frames(string path) =>
            await MediaTool.ProbeAsync(
                ["-select_streams", "v:0", "-show_entries", "packet=pts_time,size", "-of", "csv=p=0", .. MediaTool.OwnInput(path)],
                Cancel
            );
        (await Frames(Path.Combine(Folder, "180.m3u8")))
            .Split('\n')
            .Select(l => l.Split(',')[^1])
            .ShouldBe((await Frames(Path.Combine(Path.GetDirectoryName(Folder)!, "picture-1.mp4"))).Split('\n').Select(l => l.Split(',')[^1]));
    }

    /// <summary>As drawn, frames stand up to a second: were they coded out of order, a player would begin late by as much (found with hls.js).</summary>
    [Fact]
    public async Task Frames_are_coded_in_the_order_in_which_they_are_shown()
    {
        var printed = await MediaTool.ProbeAsync(
            ["-select_streams", "v:0", "-show_entries", "packet=pts_time,dts_time", "-of", "csv=p=0", .. MediaTool.OwnInput(Path.Combine(Folder, "180.m3u8"))],
            Cancel
        );
        var times = printed.Split('\n', StringSplitOptions.RemoveEmptyEntries).Select(l => l.Split(',')).ToList();
        times.ShouldAllBe(t => t[0] == t[1]);
        times[0][0].ShouldBe("0.000000");
    }

    [Theory]
    [InlineData("playlists", "sound.m3u8", "#EXT-X-ENDLIST", "")]
    [InlineData("playlists", "lesson.m3u8", "90.m3u8", "60.m3u8")]
    [InlineData("captions", "lesson.m3u8", "#EXT-X-MEDIA:TYPE=SUBTITLES", "#EXT-X-NOTHING:TYPE=NONE")]
    public async Task A_playlist_that_was_broken_is_found(string code, string name, string what, string instead)
    {
        var copy = folder.Copy();
        var path = Path.Combine(copy, name);
        File.WriteAllText(path, File.ReadAllText(path).Replace(what, instead, StringComparison.Ordinal));
        Wrong(await FileChecker.CheckAsync(Path.Combine(copy, "lesson.m3u8"), folder.Made.From with { Frames = [] }, 2, null, Cancel)).ShouldContain(code);
    }

    [Fact]
    public async Task A_piece_that_is_missing_is_found()
    {
        var copy = folder.Copy();
        File.Delete(Path.Combine(copy, "180", "0003.m4s"));
        var wrong = Wrong(await FileChecker.CheckAsync(Path.Combine(copy, "lesson.m3u8"), folder.Made.From with { Frames = [] }, 2, null, Cancel)).ToList();
        wrong.ShouldContain("playlists");
        wrong.ShouldContain("aligned");
    }

    [Fact]
    public async Task A_size_whose_key_frames_stand_elsewhere_is_found()
    {
        var plan = folder.Made.Plan;
        var apart = Path.Combine(folder.Copy(), "apart.mp4");
        await MediaTool.RunAsync(
            [
                .. MediaTool.OwnInput(Path.Combine(Path.GetDirectoryName(Folder)!, "picture-1.mp4")),
                "-c:v",
                "libx264",
                "-preset",
                "ultrafast",
                "-force_key_frames",
                "0,5,10",
                "-g",
                "1000",
                "-sc_threshold",
                "0",
                apart,
            ],
            null,
            null,
            Cancel
        );
        var copy = Path.Combine(Path.GetDirectoryName(apart)!, "made");
        var pictures = Path.GetDirectoryName(Folder)!;
        await Rendering.Muxing.FinishAsync(
            plan,
            new Rendering.MuxInputs(
                [Path.Combine(pictures, "picture-0.mp4"), apart, Path.Combine(pictures, "picture-2.mp4")],
                Path.Combine(pictures, "sound.m4a"),
                []
            ),
            Path.Combine(copy, "lesson.m3u8"),
            "Title",
            [],
            null,
            Cancel
        );
        Wrong(await FileChecker.CheckAsync(Path.Combine(copy, "lesson.m3u8"), folder.Made.From with { Frames = [] }, 2, null, Cancel)).ShouldContain("aligned");
    }
}
