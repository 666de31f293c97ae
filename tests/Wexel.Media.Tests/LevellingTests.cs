using Wexel.Core.Encoding;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Media.Tests;

/// <summary>What learners get is measured on the finished file, after AAC, by a meter that is not Wexel's.</summary>
public sealed class LevellingTests(Clips clips) : IClassFixture<Clips>
{
    private async Task<Loudness> MadeAsync(string name, string sound, Profile? profile = null, params TimeRange[] cuts)
    {
        var source = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "color=c=white:s=320x180:r=10:d=12",
            "-f",
            "lavfi",
            "-i",
            sound,
            "-pix_fmt",
            "yuv420p",
            "-c:a",
            "flac",
            "-t",
            "12",
            name + ".mkv"
        );
        var made = await Making.MakeAsync(source, clips.Path(name + ".out.mp4"), profile: profile, cuts: cuts);
        made.ShouldBeRight();
        return await ReferenceMeter.MeasureAsync(made.Path);
    }

    [Theory]
    [InlineData("soft", "aevalsrc=0.02*sin(2*PI*500*t):s=48000:d=12")]
    [InlineData("loud", "aevalsrc=0.9*sin(2*PI*500*t)|0.9*sin(2*PI*500*t):s=48000:d=12")]
    [InlineData("sides", "aevalsrc=0.1*sin(2*PI*500*t)|0.1*sin(2*PI*700*t):s=44100:d=12")]
    public async Task One_gain_brings_a_sound_to_its_loudness(string name, string sound)
    {
        var loudness = await MadeAsync(name, sound);
        loudness.Integrated!.Value.ShouldBe(Levelling.UsualTarget, 0.3);
        loudness.TruePeak!.Value.ShouldBeLessThanOrEqualTo(Levelling.Ceiling);
    }

    [Fact]
    public async Task Peaks_are_held_where_the_gain_would_take_them_too_far()
    {
        // Soft speech-like noise with a knock every second that is 26 dB louder.
        var loudness = await MadeAsync("knocks", "aevalsrc=0.03*(random(0)*2-1)+0.9*sin(2*PI*900*t)*lt(mod(t\\,1)\\,0.004):s=48000:d=12");
        loudness.Integrated!.Value.ShouldBe(Levelling.UsualTarget, 1);
        loudness.TruePeak!.Value.ShouldBeLessThanOrEqualTo(Levelling.Ceiling);
    }

    /// <summary>The fewer bits, the more an encoder adds to the sharpest peaks: it is encoded again with more room.</summary>
    [Theory]
    [InlineData(24_000)]
    [InlineData(48_000)]
    public async Task Peaks_hold_at_a_low_rate_too(int rate)
    {
        var profile = Profiles.Web with { Sound = Profiles.Web.Sound! with { BitsPerSecond = rate } };
        var loudness = await MadeAsync(
            $"sharp-{rate}",
            "aevalsrc=0.05*(random(0)*2-1)+0.9*(random(1)*2-1)*lt(mod(t\\,0.5)\\,0.003)+0.5*sin(2*PI*110*t)*lt(mod(t+0.2\\,1)\\,0.1):s=48000:d=12",
            profile
        );
        loudness.TruePeak!.Value.ShouldBeLessThanOrEqualTo(Levelling.Ceiling);
    }

    [Fact]
    public async Task Where_peaks_are_held_the_sound_stays_where_it_was()
    {
        await MadeAsync("knocks", "aevalsrc=0.03*(random(0)*2-1)+0.9*sin(2*PI*900*t)*lt(mod(t\\,1)\\,0.004):s=48000:d=12");
        var raw = clips.Path("knocks.f32");
        await PlainFfmpeg.SaidAsync(
            ["-i", clips.Path("knocks.out.mp4"), "-ac", "1", "-ar", "48000", "-f", "f32le", raw],
            TestContext.Current.CancellationToken
        );
        var samples = System
            .Runtime.InteropServices.MemoryMarshal.Cast<byte, float>(await File.ReadAllBytesAsync(raw, TestContext.Current.CancellationToken))
            .ToArray();
        foreach (var second in new[] { 3, 7 })
        {
            var from = (second * 48_000) - 4800;
            var loudest = samples.AsSpan(from, 9600).ToArray().Max(Math.Abs);
            var begins = Enumerable.Range(from, 9600).First(i => Math.Abs(samples[i]) > loudest * 0.4);
            (begins / 48_000.0).ShouldBe(second, 0.002);
        }
    }

    [Fact]
    public async Task Noise_is_not_made_louder_and_what_is_not_wanted_is_not_done()
    {
        (await MadeAsync("noise", "aevalsrc=0.0008*(random(0)*2-1):s=48000:d=12")).Integrated!.Value.ShouldBeLessThan(-60);
        (await MadeAsync("kept", "aevalsrc=0.02*sin(2*PI*500*t):s=48000:d=12", Making.AsLoudAsRecorded)).Integrated!.Value.ShouldBe(-34.4, 0.6);
    }

    [Fact]
    public async Task What_is_cut_does_not_count()
    {
        var loudness = await MadeAsync(
            "cutloud",
            "aevalsrc=if(lt(t\\,6)\\,0.8\\,0.05)*sin(2*PI*500*t):s=48000:d=12",
            null,
            new TimeRange(TimeSpan.Zero, TimeSpan.FromSeconds(6))
        );
        loudness.Integrated!.Value.ShouldBe(Levelling.UsualTarget, 0.3);
    }
}
