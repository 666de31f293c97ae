using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Recordings;

/// <summary>
/// The meter against the test signals of EBU Tech 3341 (table 1: cases 1 to 5 for loudness within 0.1 LU, cases 15 to 19 for true peaks
/// within +0.2 and −0.4 dB) and of EBU Tech 3342 (cases 1 to 4 for the range, within 1 LU), each made here as the documents say; the
/// cases are from memory.
/// </summary>
public sealed class LoudnessMeterTests
{
    private const int Rate = LoudnessMeter.Rate;

    private static Loudness Measure(int channels, IEnumerable<float> samples, int blockOf = 10_000)
    {
        var meter = new LoudnessMeter(channels);
        foreach (var block in samples.Chunk(blockOf * channels))
            meter.Take(block);
        return meter.Heard();
    }

    /// <summary>A sine of 1000 Hz on each side in phase, whose level changes: (seconds, dBFS peak).</summary>
    private static IEnumerable<float> Sine(int channels, params (double Seconds, double Dbfs)[] parts)
    {
        long at = 0;
        foreach (var (seconds, dbfs) in parts)
        {
            var peak = Math.Pow(10, dbfs / 20);
            for (var i = 0L; i < (long)(seconds * Rate); i++, at++)
            {
                var sample = (float)(peak * Math.Sin(2 * Math.PI * 1000 * at / Rate));
                for (var channel = 0; channel < channels; channel++)
                    yield return sample;
            }
        }
    }

    public static TheoryData<int, double, double[]> Loudnesses =>
        new()
        {
            { 1, -23, [20, -23] },
            { 2, -33, [20, -33] },
            { 3, -23, [10, -36, 60, -23, 10, -36] },
            { 4, -23, [10, -72, 10, -36, 60, -23, 10, -36, 10, -72] },
            { 5, -23, [20, -26, 20.1, -20, 20, -26] },
        };

    [Theory]
    [MemberData(nameof(Loudnesses))]
    public void Loudness_meets_the_minimum_requirements(int number, double expected, double[] parts) =>
        Measure(2, Sine(2, Pairs(parts))).Integrated!.Value.ShouldBe(expected, 0.1, $"case {number}");

    public static TheoryData<int, double, double[]> Ranges =>
        new()
        {
            { 1, 10, [20, -20, 20, -30] },
            { 2, 5, [20, -20, 20, -15] },
            { 3, 20, [20, -40, 20, -20] },
            { 4, 15, [20, -50, 20, -35, 20, -20, 20, -35, 20, -50] },
        };

    [Theory]
    [MemberData(nameof(Ranges))]
    public void Range_meets_the_minimum_requirements(int number, double expected, double[] parts) =>
        Measure(2, Sine(2, Pairs(parts))).Range.ShouldBe(expected, 1, $"case {number}");

    [Theory]
    [InlineData(15, 4, 0.50, 0, -6.0)]
    [InlineData(16, 4, 0.50, 45, -6.0)]
    [InlineData(17, 6, 0.50, 60, -6.0)]
    [InlineData(18, 8, 0.50, 67.5, -6.0)]
    [InlineData(19, 4, 1.41, 45, 3.0)]
    public void Peaks_between_samples_are_seen(int number, int samplesPerTurn, double amplitude, double degrees, double expected)
    {
        // Eased in and out, as the document's signals are: a tone that begins at once has peaks of its own.
        var samples = Enumerable
            .Range(0, Rate)
            .Select(i =>
                (float)(Math.Min(1, Math.Min(i, Rate - 1 - i) / 480.0) * amplitude * Math.Sin((2 * Math.PI * i / samplesPerTurn) + (degrees * Math.PI / 180)))
            );
        var peak = Measure(2, samples.SelectMany(s => new[] { s, s })).TruePeak!.Value;
        peak.ShouldBeInRange(expected - 0.4, expected + 0.2, $"case {number}");
    }

    [Fact]
    public void One_channel_is_measured_as_heard_from_both_sides()
    {
        var heard = Measure(1, Sine(1, (20, -23)));
        heard.Integrated!.Value.ShouldBe(-23, 0.1);
        heard.TruePeak!.Value.ShouldBe(-23, 0.3);
        heard.Range.ShouldBe(0, 0.1);
    }

    [Fact]
    public void One_side_alone_is_three_decibels_softer_than_both()
    {
        var left = Sine(1, (20, -23)).SelectMany(s => new[] { s, 0f });
        Measure(2, left).Integrated!.Value.ShouldBe(-26, 0.1);
    }

    [Fact]
    public void Silence_has_no_loudness_and_no_peak()
    {
        var heard = Measure(2, Enumerable.Repeat(0f, 10 * Rate));
        heard.ShouldBe(new Loudness(null, 0, null));
        new LoudnessMeter(1).Heard().ShouldBe(new Loudness(null, 0, null));
    }

    [Fact]
    public void Samples_that_are_no_numbers_are_not_heard_and_what_comes_after_is()
    {
        var damaged = new[] { float.NaN, float.PositiveInfinity }.Concat(Sine(1, (20, -23)));
        Measure(1, damaged).Integrated!.Value.ShouldBe(-23, 0.1);
        Should.Throw<ArgumentException>(() => new LoudnessMeter(2).Take([0f, 0f, 0f]));
    }

    [Fact]
    public void It_is_the_same_however_the_sound_comes_in()
    {
        var random = new Random(7);
        var samples = Enumerable.Range(0, 8 * Rate).Select(i => (float)((random.NextDouble() - 0.5) * Math.Sin(i / 9000.0))).ToArray();
        var whole = Measure(2, samples, samples.Length);
        foreach (var blocks in new[] { 1, 4801 })
        {
            var heard = Measure(2, samples, blocks);
            heard.Integrated!.Value.ShouldBe(whole.Integrated!.Value, 1e-9);
            heard.Range.ShouldBe(whole.Range, 1e-9);
            heard.TruePeak!.Value.ShouldBe(whole.TruePeak!.Value, 1e-9);
        }
    }

    /// <summary>A peak at the very end, between the last sample and nothing, and one behind a much greater one: neither is passed over, and neither
    /// counts too much.</summary>
    [Fact]
    public void The_greatest_peak_counts_wherever_it_is()
    {
        var samples = new float[Rate];
        samples[^1] = samples[^2] = 0.5f;
        var atTheEnd = Measure(1, samples).TruePeak!.Value;
        atTheEnd.ShouldBeGreaterThan(20 * Math.Log10(0.5) + 1);
        samples[100] = 0.9f;
        Measure(1, samples).TruePeak!.Value.ShouldBe(20 * Math.Log10(0.9), 0.01);
    }

    private static (double Seconds, double Dbfs)[] Pairs(double[] parts) => [.. parts.Chunk(2).Select(p => (p[0], p[1]))];

    [Fact]
    public void The_true_peak_is_that_of_the_louder_side()
    {
        foreach (var (left, right) in new[] { (0.5f, 0.1f), (0.1f, 0.5f) })
        {
            var meter = new LoudnessMeter(2);
            var samples = new float[2 * 48_000];
            for (var i = 0; i < 48_000; i++)
                (samples[2 * i], samples[(2 * i) + 1]) = (left, right);
            meter.Take(samples);
            meter.Heard().TruePeak!.Value.ShouldBe(20 * Math.Log10(0.5), 1.5);
        }
    }
}
