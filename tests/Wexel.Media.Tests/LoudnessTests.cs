using Wexel.Media.Analysing;

namespace Wexel.Media.Tests;

/// <summary>
/// The meter against EBU Tech 3341, table 1: minimum requirements test signals, cases 1 to 6, each made here as the document says,
/// with its tolerance of ±0.1 LU; and what a sound without anything in it comes to.
/// </summary>
public sealed class LoudnessTests(Clips clips) : IClassFixture<Clips>
{
    /// <summary>A sine of 1000 Hz on each side in phase, whose level changes: (seconds, dBFS peak).</summary>
    private Task<string> SineAsync(string name, params (double Seconds, double Dbfs)[] parts)
    {
        var inputs = parts.SelectMany(p => new[] { "-f", "lavfi", "-i", FormattableString.Invariant($"aevalsrc=pow(10\\,{p.Dbfs}/20)*sin(2*PI*1000*t)|pow(10\\,{p.Dbfs}/20)*sin(2*PI*1000*t):s=48000:d={p.Seconds}") });
        var joined = string.Concat(parts.Select((_, i) => $"[{i}:a]"));
        return clips.MakeAsync([.. inputs, "-filter_complex", $"{joined}concat=n={parts.Length}:v=0:a=1", "-c:a", "pcm_s24le", name]);
    }

    private static readonly (double Seconds, double Dbfs)[][] Cases =
    [
        [(20, -23)],
        [(20, -33)],
        [(10, -36), (60, -23), (10, -36)],
        [(10, -72), (10, -36), (60, -23), (10, -36), (10, -72)],
        [(20, -26), (20.1, -20), (20, -26)],
    ];

    [Theory]
    [InlineData(1, -23)]
    [InlineData(2, -33)]
    [InlineData(3, -23)]
    [InlineData(4, -23)]
    [InlineData(5, -23)]
    public async Task Meets_the_minimum_requirements_on_stereo(int number, double expected)
    {
        var loudness = await LoudnessMeter.MeasureAsync(await SineAsync($"case{number}.wav", Cases[number - 1]), null, TestContext.Current.CancellationToken);
        loudness.Integrated!.Value.ShouldBe(expected, 0.1);
    }

    [Fact]
    public async Task Meets_the_minimum_requirements_on_five_channels()
    {
        // Case 6: −28 dBFS in left and right, −24 dBFS in the centre, −30 dBFS in the surrounds; the bass channel stays empty.
        static string Side(double dbfs) => FormattableString.Invariant($"pow(10\\,{dbfs}/20)*sin(2*PI*1000*t)");
        var path = await clips.MakeAsync(
            "-f", "lavfi", "-i", $"aevalsrc={Side(-28)}|{Side(-28)}|{Side(-24)}|0|{Side(-30)}|{Side(-30)}:s=48000:d=20:c=5.1", "-c:a", "pcm_s24le", "case6.wav");
        (await LoudnessMeter.MeasureAsync(path, null, TestContext.Current.CancellationToken)).Integrated!.Value.ShouldBe(-23, 0.1);
    }

    [Fact]
    public async Task One_channel_is_measured_as_heard_from_both_sides()
    {
        var mono = await clips.MakeAsync("-f", "lavfi", "-i", "aevalsrc=pow(10\\,-23/20)*sin(2*PI*1000*t):s=48000:d=20", "-c:a", "pcm_s24le", "mono.wav");
        var loudness = await LoudnessMeter.MeasureAsync(mono, null, TestContext.Current.CancellationToken);
        loudness.Integrated!.Value.ShouldBe(-23, 0.1);
        loudness.TruePeak!.Value.ShouldBe(-23, 0.3);
        loudness.Range.ShouldBe(0, 0.1);
    }

    [Fact]
    public async Task Silence_has_no_loudness()
    {
        var silence = await clips.MakeAsync("-f", "lavfi", "-i", "anullsrc=r=48000:cl=stereo:d=5", "-c:a", "pcm_s24le", "silence.wav");
        var loudness = await LoudnessMeter.MeasureAsync(silence, null, TestContext.Current.CancellationToken);
        loudness.Integrated.ShouldBeNull();
        loudness.TruePeak.ShouldBeNull();
    }
}
