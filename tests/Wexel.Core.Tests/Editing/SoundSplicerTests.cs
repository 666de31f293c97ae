using CsCheck;
using Wexel.Core.Editing;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Editing;

public class SoundSplicerTests
{
    private const int Rate = 48_000;

    private static float[] Splice(TimeMap map, float[] source, int channels = 1, int block = 1000)
    {
        var splicer = new SoundSplicer(channels, Rate, map);
        var made = new List<float>();
        void Keep(ReadOnlySpan<float> samples) => made.AddRange(samples);
        for (var i = 0; i < source.Length; i += block * channels)
            splicer.Take(source.AsSpan(i, Math.Min(block * channels, source.Length - i)), Keep);
        splicer.End(Keep);
        ((long)made.Count).ShouldBe(splicer.Samples * channels);
        return [.. made];
    }

    private static TimeMap Map(long length, params (long Start, long End)[] cuts) =>
        TimeMap.Of(new FrameRate(30, 1), Ms.Of(length), [.. cuts.Select(c => new TimeRange(Ms.Of(c.Start), Ms.Of(c.End)))]);

    private static float[] Tone(double hertz, int milliseconds) =>
        [.. Enumerable.Range(0, Rate / 1000 * milliseconds).Select(i => (float)(0.9 * Math.Sin(2 * Math.PI * hertz * i / Rate)))];

    [Fact]
    public void Without_a_cut_nothing_changes()
    {
        var source = Tone(440, 1000);
        Splice(Map(1000), source).ShouldBe(source);
    }

    [Fact]
    public void What_lies_more_than_5_ms_from_a_joint_is_the_source_to_the_sample()
    {
        var source = Tone(440, 3000);
        var made = Splice(Map(3000, (500, 1000), (2000, 2100)), source, block: 777);
        made.Length.ShouldBe(Rate / 1000 * 2400);
        made[..23_760].ShouldBe(source[..23_760]);
        made[24_240..71_760].ShouldBe(source[48_240..95_760]);
        made[72_240..].ShouldBe(source[101_040..]);
    }

    [Fact]
    public void A_joint_does_not_click()
    {
        // A cut from the top of the wave to its bottom: butted together, the step would be 1.8; a tone of 440 Hz steps by 0.052 at most.
        var source = Tone(440, 3000);
        var step = source.Zip(source.Skip(1)).Max(p => Math.Abs(p.Second - p.First));
        for (var start = 500; start < 540; start++)
        {
            var made = Splice(TimeMap.Of(new FrameRate(60, 1), Ms.Of(3000), [new TimeRange(Ms.Of(start), Ms.Of(start + 700))]), source);
            made.Zip(made.Skip(1)).Max(p => Math.Abs(p.Second - p.First)).ShouldBeLessThan(step + (1.8f / 480));
            made.Max(Math.Abs).ShouldBeLessThanOrEqualTo(0.9f);
        }
    }

    [Fact]
    public void Sides_stay_apart_and_what_is_missing_at_the_end_is_silence()
    {
        var source = Enumerable.Range(0, Rate).SelectMany(_ => new[] { 0.5f, -0.25f }).ToArray();
        var made = Splice(Map(2000, (200, 300)), source, channels: 2);
        made.Length.ShouldBe(Rate / 1000 * 1900 * 2);
        made.Where((_, i) => i % 2 == 0).Take(Rate / 1000 * 900).ShouldAllBe(s => Math.Abs(s - 0.5f) < 1e-6);
        made.Where((_, i) => i % 2 == 1).Take(Rate / 1000 * 900).ShouldAllBe(s => Math.Abs(s + 0.25f) < 1e-6);
        made.Skip(Rate / 1000 * 900 * 2).ShouldAllBe(s => s == 0);
    }

    [Fact]
    public void The_length_is_exact_whatever_is_cut_and_however_it_arrives() =>
        Gen.Select(
                Pick.From(new FrameRate(30, 1), new FrameRate(30000, 1001), new FrameRate(60, 1)),
                Gen.Select(Gen.Long[0, 4000], Gen.Long[0, 400]).Array[0, 30],
                Gen.Int[1, 9000]
            )
            .Sample(
                (grid, cuts, block) =>
                {
                    var map = TimeMap.Of(grid, Ms.Of(4000), [.. cuts.Select(c => new TimeRange(Ms.Of(c.Item1), Ms.Of(c.Item1 + c.Item2)))]);
                    if (map.Frames == 0)
                        return true;
                    var made = Splice(map, [.. Enumerable.Repeat(0.25f, Rate * 5)], block: block);
                    return made.All(s => Math.Abs(s - 0.25f) < 1e-6) && made.Length == (int)Math.Round(map.Length.TotalSeconds * Rate);
                },
                iter: 60
            );

    /// <summary>A sound that counts its samples shows where each came from. The fade takes its half from beyond each edge.</summary>
    [Theory]
    [InlineData(2, 100, 100, 48)]
    [InlineData(100, 100, 2, 48)]
    [InlineData(100, 2, 100, 48)]
    [InlineData(100, 100, 100, 240)]
    public void A_fade_is_as_long_as_there_is_room_for_and_weighs_both_sides(int before, int cut, int after, int half)
    {
        // A grid of a frame a millisecond: 48 samples.
        const int frame = Rate / 1000;
        var map = TimeMap.Of(new FrameRate(1000, 1), Ms.Of(before + cut + after), [new TimeRange(Ms.Of(before), Ms.Of(before + cut))]);
        var source = Enumerable.Range(0, (before + cut + after) * frame).Select(i => (float)i).ToArray();
        var (joint, gone) = (before * frame, cut * frame);
        var expected = Enumerable
            .Range(0, (before + after) * frame)
            .Select(i =>
            {
                var weight = Math.Clamp((i - (joint - half) + 0.5) / (2 * half), 0, 1);
                return i < joint - half ? i
                    : i >= joint + half ? i + gone
                    : (i * (1 - weight)) + ((i + gone) * weight);
            })
            .ToList();
        foreach (var block in new[] { 1, 37, 480, 20_000 })
        {
            var made = Splice(map, source, block: block);
            made.Length.ShouldBe(expected.Count);
            made.Zip(expected).Max(p => Math.Abs(p.First - p.Second)).ShouldBeLessThan(0.01);
        }
    }

    [Fact]
    public void Both_sides_of_a_joint_are_faded_channel_by_channel()
    {
        // Left is 0.5 before the joint and 0.1 behind it, right the other way round.
        var source = new float[2 * Rate];
        for (var i = 0; i < Rate; i++)
            (source[2 * i], source[(2 * i) + 1]) = i < Rate / 2 ? (0.5f, 0.1f) : (0.1f, 0.5f);
        var made = Splice(Map(1000, (400, 600)), source, channels: 2, block: 100);
        var (joint, half) = (Rate / 1000 * 400, Rate / 1000 * 5);
        for (var i = joint - half; i < joint + half; i++)
        {
            var share = (i - (joint - half) + 0.5f) / (2 * half);
            made[2 * i].ShouldBe(0.5f - (0.4f * share), 1e-5f);
            made[(2 * i) + 1].ShouldBe(0.1f + (0.4f * share), 1e-5f);
        }
    }

    [Fact]
    public void What_is_shorter_than_two_fades_has_shorter_ones_and_keeps_its_length()
    {
        // One frame of 1/30 s is kept; at 1000 frames a second it is 1 ms, far shorter than a fade.
        TimeRange Cut(double from, double to) => new(TimeSpan.FromMilliseconds(from), TimeSpan.FromMilliseconds(to));
        var grid = new FrameRate(1000, 1);
        var source = Enumerable.Range(0, Rate / 10).Select(i => (float)i / Rate).ToArray();
        foreach (var cuts in new[] { new[] { Cut(20, 40), Cut(42, 60) }, [Cut(20, 22), Cut(60, 62)], [Cut(1, 50), Cut(51, 99)], [Cut(0, 50), Cut(52, 60)] })
        {
            var map = TimeMap.Of(grid, Ms.Of(100), cuts);
            foreach (var block in new[] { 7, 48, 5000 })
            {
                var made = Splice(map, source, block: block);
                // A rising line stays between what it was at both sides of each joint, and outside of fades it is the source.
                made.Length.ShouldBe((int)(map.Length.TotalSeconds * Rate));
                made.ShouldAllBe(v => v >= 0 && v < 0.1f);
                for (var i = 1; i < made.Length; i++)
                    (made[i] >= made[i - 1]).ShouldBeTrue($"{i} of {block}");
            }
        }
    }
}
