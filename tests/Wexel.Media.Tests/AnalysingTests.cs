using Wexel.Core.Recordings;
using Wexel.Media.Analysing;
using Wexel.Media.Probing;

namespace Wexel.Media.Tests;

public sealed class AnalysingTests(Clips clips) : IClassFixture<Clips>
{
    private async Task<RecordingAnalysis> AnalyseAsync(string source, string folder)
    {
        var cancel = TestContext.Current.CancellationToken;
        var facts = (await Prober.ProbeAsync(source, "a", cancel)).Facts!;
        return await RecordingAnalyser.AnalyseAsync(facts, source, clips.Path(folder), cancel);
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
    public async Task Peaks_follow_the_sound()
    {
        var source = await clips.MakeAsync("-f", "lavfi", "-i", "testsrc2=s=320x240:r=30:d=2", "-f", "lavfi", "-i", "aevalsrc=if(lt(t\\,1)\\,0\\,0.5*sin(2*PI*440*t)):s=48000:d=2", "-pix_fmt", "yuv420p", "-c:a", "flac", "half.mkv");
        var analysis = await AnalyseAsync(source, "half");
        analysis.PeaksPerSecond.ShouldBe(10);
        analysis.Peaks.Count.ShouldBe(20);
        analysis.Peaks.Take(9).ShouldAllBe(p => p == 0);
        analysis.Peaks.Skip(11).ShouldAllBe(p => p >= 48 && p <= 52);
    }
}
