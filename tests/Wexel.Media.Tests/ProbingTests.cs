using Wexel.Core;
using Wexel.Core.Recordings;
using Wexel.Media.Probing;

namespace Wexel.Media.Tests;

public sealed class ProbingTests(Clips clips) : IClassFixture<Clips>
{
    private static Task<Result<RecordingFacts>> ProbeAsync(string path) =>
        Prober.ProbeAsync(path, Path.GetFileName(path), TestContext.Current.CancellationToken);

    [Theory]
    [InlineData("a.mp4", "mp4")]
    [InlineData("a.m4v", "mp4")]
    [InlineData("a.mov", "mov")]
    [InlineData("a.mkv", "matroska")]
    [InlineData("a.avi", "avi")]
    [InlineData("a.ts", "mpegts")]
    [InlineData("a.webm", "webm", "-c:v", "libvpx", "-c:a", "libopus", "-deadline", "realtime", "-cpu-used", "8")]
    [InlineData("a.wmv", "asf", "-c:v", "wmv2", "-c:a", "wmav2")]
    public async Task Every_container_is_taken(string name, string container, params string[] more)
    {
        var facts = (await ProbeAsync(await clips.UsualAsync(name, more))).Value.ShouldNotBeNull();
        facts.Container.ShouldBe(container);
        facts.Picture!.ShownSize.ShouldBe(new PictureSize(320, 240));
        facts.Picture.NominalRate.PerSecond.ShouldBe(30, 0.01);
        facts.Picture.RateVaries.ShouldBeFalse();
        facts.Length.TotalSeconds.ShouldBe(3, 0.15);
        facts.Sounds.ShouldHaveSingleItem().Channels.ShouldBe(2);
    }

    [Fact]
    public async Task A_text_file_named_mp4_is_refused_in_one_sentence()
    {
        var path = clips.Path("notes.mp4");
        await File.WriteAllTextAsync(path, "0:00 Welcome\n");
        var problem = (await ProbeAsync(path)).Problem.ShouldNotBeNull();
        problem.Code.ShouldBe("recording-unreadable");
        problem.Sentence.ShouldContain("“notes.mp4” is not a video file");
    }

    [Fact]
    public async Task An_empty_file_is_refused()
    {
        var path = clips.Path("empty.mp4");
        await File.WriteAllBytesAsync(path, []);
        (await ProbeAsync(path)).Problem!.Code.ShouldBe("recording-empty");
    }

    [Fact]
    public async Task A_cut_off_MP4_is_refused_with_the_reason()
    {
        var whole = await File.ReadAllBytesAsync(await clips.UsualAsync());
        var path = clips.Path("cut.mp4");
        await File.WriteAllBytesAsync(path, whole[..(whole.Length / 2)]);
        var problem = (await ProbeAsync(path)).Problem.ShouldNotBeNull();
        problem.Code.ShouldBe("recording-cut-off");
        problem.Sentence.ShouldContain("its index is missing");
    }

    [Fact]
    public async Task Sound_alone_is_refused() =>
        (await ProbeAsync(await clips.MakeAsync("-f", "lavfi", "-i", "sine=d=1", "sound.mp4"))).Problem!.Code.ShouldBe("recording-no-picture");

    [Fact]
    public async Task A_picture_track_without_frames_is_refused() =>
        (await ProbeAsync(await clips.MakeAsync("-i", await clips.UsualAsync(), "-c", "copy", "-frames:v", "0", "none.mp4"))).Problem!.Code.ShouldBeOneOf(
            "recording-no-frames",
            "recording-no-picture"
        );

    [Fact]
    public async Task A_picture_of_one_pixel_is_refused() =>
        (
            await ProbeAsync(
                await clips.MakeAsync("-f", "lavfi", "-i", "color=s=16x16:d=1,format=rgb24,scale=1:1", "-c:v", "ffv1", "-pix_fmt", "bgr0", "one.mkv")
            )
        ).Problem!.Code.ShouldBe("recording-too-small");

    [Fact]
    public async Task A_playlist_or_a_network_address_inside_a_file_opens_nothing()
    {
        var path = clips.Path("list.mp4");
        await File.WriteAllTextAsync(path, "#EXTM3U\n#EXT-X-TARGETDURATION:3\n#EXTINF:3,\nhttp://127.0.0.1:9/a.ts\n");
        (await ProbeAsync(path)).Problem!.Code.ShouldBe("recording-unreadable");
        var concat = clips.Path("concat.mkv");
        await File.WriteAllTextAsync(concat, $"ffconcat version 1.0\nfile {await clips.UsualAsync()}\n");
        (await ProbeAsync(concat)).Problem!.Code.ShouldBe("recording-unreadable");
    }

    [Fact]
    public async Task A_variable_rate_is_seen()
    {
        var path = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=320x240:r=30:d=4",
            "-vf",
            "select='lt(mod(n,30),10)+not(mod(n,7))'",
            "-fps_mode",
            "vfr",
            "varies.mkv"
        );
        (await ProbeAsync(path)).Value!.Picture!.RateVaries.ShouldBeTrue();
    }

    [Fact]
    public async Task A_turned_picture_is_seen()
    {
        var plain = await clips.UsualAsync();
        var path = await clips.MakeAsync("-i", plain, "-c", "copy", "-metadata:s:v", "rotate=90", "turned.mp4");
        var picture = (await ProbeAsync(path)).Value!.Picture!;
        picture.RotationDegrees.ShouldBeOneOf(90, 270);
        picture.ShownSize.ShouldBe(new PictureSize(240, 320));
    }
}
