using System.Globalization;
using Wexel.Media.Analysing;
using Wexel.Media.Tools;

namespace Wexel.Media.Tests;

/// <summary>What is heard of real sounds, against a reference.</summary>
public sealed class LoudnessTests(Clips clips) : IClassFixture<Clips>
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Theory]
    [InlineData("speech.wav", 1, "sine=f=180:d=20,tremolo=f=3:d=0.9,volume=-4dB,aeval='val(0)*(0.2+0.8*mod(floor(t/4),2))'")]
    [InlineData("loud.wav", 2, "anoisesrc=c=pink:r=48000:a=0.9:d=12:seed=3,aformat=channel_layouts=stereo,alimiter=limit=0.98:level=false")]
    [InlineData("sides.wav", 2, "aevalsrc=0.3*sin(2*PI*440*t)*gt(mod(t\\,5)\\,2)|0.05*sin(2*PI*3000*t):s=48000:d=25")]
    public async Task Agrees_with_a_meter_that_is_not_ours(string name, int channels, string source)
    {
        var path = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            source,
            "-ac",
            channels.ToString(CultureInfo.InvariantCulture),
            "-ar",
            "48000",
            "-c:a",
            "pcm_s24le",
            name
        );
        var reference = await ReferenceMeter.MeasureAsync(path);
        var (heard, _) = await SoundAnalyser.AnalyseAsync(MediaTool.OwnInput(path), channels, null, Cancel);
        heard.Loudness.Integrated!.Value.ShouldBe(reference.Integrated!.Value, 0.11);
        heard.Loudness.Range.ShouldBe(reference.Range, 0.3);
        heard.Loudness.TruePeak!.Value.ShouldBe(reference.TruePeak!.Value, 0.3);
    }

    [Fact]
    public async Task What_was_heard_while_a_sound_was_put_together_is_what_is_heard_of_it()
    {
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "color=c=white:s=320x180:r=10:d=11",
            "-f",
            "lavfi",
            "-i",
            "aevalsrc=0.3*sin(2*PI*440*t)*gt(mod(t\\,5)\\,2.5)|0.1*sin(2*PI*300*t)*gt(mod(t\\,5)\\,2.5):s=44100:d=11",
            "-pix_fmt",
            "yuv420p",
            "-c:a",
            "pcm_s16le",
            "heard.mkv"
        );
        var made = (await Making.MakeAsync(source, clips.Path("heard.mp4"))).From.ComposedSound!;
        var (now, _) = await SoundAnalyser.AnalyseAsync(MediaTool.OwnInput(made), 2, null, Cancel);
        var kept = await SoundHeard.OfComposedAsync(made, 2, Cancel);
        kept.Length.ShouldBe(now.Length);
        kept.Silent().ShouldBe(now.Silent());
        kept.Silent().Count.ShouldBe(2);
        kept.Loudness.Integrated!.Value.ShouldBe(now.Loudness.Integrated!.Value, 0.01);
        // A sound from before what was heard was kept is listened to.
        File.Delete(made + ".heard.json");
        (await SoundHeard.OfComposedAsync(made, 2, Cancel)).Silent().ShouldBe(now.Silent());
        File.Exists(made + ".heard.json").ShouldBeTrue();
    }
}
