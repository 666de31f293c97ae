using Wexel.Core.Recordings;
using Wexel.Media.Analysing;
using Wexel.Media.Probing;

namespace Wexel.Media.Tests;

public sealed class AnalysingTests(Clips clips) : IClassFixture<Clips>
{
    private async Task<RecordingAnalysis> AnalyseAsync(string source, string folder)
    {
        var cancel = TestContext.Current.CancellationToken;
        var facts = (await Prober.ProbeAsync(source, "a", cancel)).Value!;
        return await RecordingAnalyser.AnalyseAsync(facts, source, clips.Path(folder), null, null, cancel);
    }

    [Fact]
    public async Task Pictures_are_taken_where_the_screen_changes()
    {
        var analysis = await AnalyseAsync(await clips.QuietAsync(), "pictures");
        analysis.PictureMoments.Select(m => m.TotalSeconds).ShouldBe([0, 4]);
        Directory.EnumerateFiles(clips.Path("pictures")).Select(Path.GetFileName).Order().ShouldBe(["000000000.jpg", "000004000.jpg"]);
        analysis.ChangedShare.ShouldBe(1.0 / 15, 0.001);
        analysis.Sides.ShouldBeNull();
        analysis.Peaks.ShouldBeEmpty();
    }

    [Fact]
    public async Task Pictures_lie_many_to_a_file_each_as_it_was()
    {
        var cancel = TestContext.Current.CancellationToken;
        // A shade for every two seconds: 23 pictures, in two files.
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "color=c=black:s=320x180:r=10:d=46,geq=lum='16+9*floor(T/2)':cb=128:cr=128",
            "-c:v",
            "libx264",
            "-preset",
            "ultrafast",
            "-pix_fmt",
            "yuv420p",
            "shades.mkv"
        );
        var moments = (await AnalyseAsync(source, "shades")).PictureMoments;
        moments.Count.ShouldBe(23);
        var folder = clips.Path("it's strips");
        await PictureStrips.MakeAsync(moments, clips.Path("shades"), folder, cancel);
        Directory.EnumerateFiles(folder).Select(Path.GetFileName).Order().ShouldBe([PictureStrips.Name(0), PictureStrips.Name(1)]);
        for (var i = 0; i < moments.Count; i++)
        {
            var strip = await PlainFfmpeg.GreyAsync(Path.Combine(folder, PictureStrips.Name(i / PictureStrips.Pictures)), cancel);
            strip.Length.ShouldBe(320 * 180 * PictureStrips.Pictures);
            var alone = await PlainFfmpeg.GreyAsync(Path.Combine(clips.Path("shades"), RecordingAnalyser.PictureName(moments[i])), cancel);
            ((double)strip[(((i % PictureStrips.Pictures * 180) + 90) * 320) + 160]).ShouldBe(alone[(90 * 320) + 160], 2);
        }
    }

    [Fact]
    public async Task Peaks_follow_the_sound()
    {
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=320x240:r=30:d=2",
            "-f",
            "lavfi",
            "-i",
            "aevalsrc=if(lt(t\\,1)\\,0\\,0.5*sin(2*PI*440*t)):s=48000:d=2",
            "-pix_fmt",
            "yuv420p",
            "-c:a",
            "flac",
            "half.mkv"
        );
        var analysis = await AnalyseAsync(source, "half");
        analysis.PeaksPerSecond.ShouldBe(10);
        analysis.Peaks.Count.ShouldBe(20);
        analysis.Peaks.Take(9).ShouldAllBe(p => p == 0);
        analysis.Peaks.Skip(11).ShouldAllBe(p => p >= 48 && p <= 52);
    }

    [Fact]
    public async Task Levels_stillness_scenes_and_loudness_are_found()
    {
        // Speech-like tone from 3 s to 6 s over faint noise; the page changes at 4 s and stands still otherwise.
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "color=c=white:s=640x480:r=30:d=8,drawbox=x=0:y=0:w=640:h=240:c=navy:t=fill:enable='gte(t,4)'",
            "-f",
            "lavfi",
            "-i",
            "aevalsrc=0.0005*(random(0)-0.5)+if(between(t\\,3\\,6)\\,0.2*sin(2*PI*300*t)\\,0):s=48000:d=8",
            "-c:v",
            "libx264",
            "-preset",
            "ultrafast",
            "-qp",
            "0",
            "-pix_fmt",
            "yuv420p",
            "-c:a",
            "flac",
            "talk.mkv"
        );
        var analysis = await AnalyseAsync(source, "talk");
        var levels = analysis.Levels!;
        levels.PerSecond.ShouldBe(20);
        levels.Dbfs.Count.ShouldBe(160);
        // A sine of 0.2 has a root mean square of 0.1414: −17 dBFS.
        levels.Dbfs.Skip(62).Take(56).ShouldAllBe(l => l == -17);
        levels.Heard(levels.Threshold).ShouldBe([new(TimeSpan.FromSeconds(3), TimeSpan.FromSeconds(6))]);
        analysis.Still.ShouldBe([new(TimeSpan.Zero, TimeSpan.FromSeconds(3.5)), new(TimeSpan.FromSeconds(4), TimeSpan.FromSeconds(8))]);
        analysis.Scenes.ShouldBe([TimeSpan.FromSeconds(4)]);
        analysis.Borders.ShouldBeNull();
        analysis.LookedUntil.ShouldBeNull();
        analysis.Loudness!.Integrated!.Value.ShouldBe(-15, 1);
        analysis.Loudness.TruePeak!.Value.ShouldBe(-14, 0.2);
    }

    [Fact]
    public async Task Black_borders_are_measured_to_the_pixel()
    {
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=960x700:r=10:d=4,pad=1280:720:161:9:black",
            "-c:v",
            "libx264",
            "-pix_fmt",
            "yuv420p",
            "bars.mp4"
        );
        (await AnalyseAsync(source, "bars")).Borders.ShouldBe(new PictureBorders(160, 8, 160, 12));
    }

    [Fact]
    public async Task What_is_found_is_told_as_it_comes()
    {
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=320x240:r=30:d=30",
            "-f",
            "lavfi",
            "-i",
            "sine=f=300:d=30",
            "-c:v",
            "libx264",
            "-preset",
            "ultrafast",
            "-pix_fmt",
            "yuv420p",
            "-c:a",
            "aac",
            "long.mp4"
        );
        var cancel = TestContext.Current.CancellationToken;
        var facts = (await Prober.ProbeAsync(source, "a", cancel)).Value!;
        var told = new List<RecordingAnalysis>();
        var whole = await RecordingAnalyser.AnalyseAsync(
            facts,
            source,
            clips.Path("long"),
            soFar =>
            {
                told.Add(soFar);
                soFar.PictureMoments.ShouldAllBe(m => File.Exists(Path.Combine(clips.Path("long"), RecordingAnalyser.PictureName(m))));
                return Task.CompletedTask;
            },
            TimeSpan.Zero,
            cancel
        );
        told.ShouldNotBeEmpty();
        told.ShouldAllBe(t => t.LookedUntil != null);
        told.Count.ShouldBeGreaterThan(50);
        told.Zip(told.Skip(1)).ShouldAllBe(p => p.First.LookedUntil < p.Second.LookedUntil && p.First.PictureMoments.Count <= p.Second.PictureMoments.Count);
        told[^1].PictureMoments.ShouldBe(whole.PictureMoments.Take(told[^1].PictureMoments.Count));
        Directory.EnumerateFiles(clips.Path("long")).Select(Path.GetFileName).Order().ShouldBe(whole.PictureMoments.Select(RecordingAnalyser.PictureName));
    }
}
