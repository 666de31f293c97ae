using CsCheck;
using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Encoding;

public class SamplesTests
{
    private static readonly FrameRate Thirty = new(30, 1);

    private static TimeMap Lesson(int seconds) => TimeMap.Of(Thirty, TimeSpan.FromSeconds(seconds), []);

    private static TimeRange Stretch(double from, double to) => new(TimeSpan.FromSeconds(from), TimeSpan.FromSeconds(to));

    private static FrameTiming Timing(TimeMap map) => new(Thirty, 29, 300, [], map.Frames - 1, [], [], null);

    [Fact]
    public void A_short_lesson_is_one_sample()
    {
        Samples.Choose(Lesson(20), []).ShouldBe([new SampleWindow(0, 600, 1)]);
        Samples.Choose(Lesson(23), null).ShouldBe([new SampleWindow(0, 690, 1)]);
    }

    [Fact]
    public void Samples_are_taken_of_what_stands_still_and_more_of_what_moves()
    {
        // The picture moves from 100 s to 140 s only.
        var samples = Samples.Choose(Lesson(600), [Stretch(0, 100), Stretch(140, 600)]);
        samples.Count(s => s.Moving == 0).ShouldBe(2);
        samples.Where(s => s.Moving > 0).ShouldAllBe(s => s.First >= 3000 && s.First + s.Count <= 4200 && s.Moving == 1);
        samples.Count(s => s.Moving > 0).ShouldBe(3);
        samples.ShouldAllBe(s => s.Count == 120);
        samples.Select(s => s.First).ShouldBeInOrder();
    }

    [Fact]
    public void All_of_them_lie_in_the_lesson_whatever_stands_still() =>
        Gen.Select(Gen.Int[1, 3000], Gen.Select(Gen.Int[0, 3000], Gen.Int[1, 300]).Array[0, 20])
            .Sample(
                (seconds, still) =>
                {
                    var map = Lesson(seconds);
                    var samples = Samples.Choose(map, [.. TimeRange.Union([.. still.Select(s => Stretch(s.Item1, s.Item1 + s.Item2))])]);
                    return samples.Count is >= 1 and <= 5
                        && samples.All(s => s.First >= 0 && s.Count > 0 && s.First + s.Count <= map.Frames && s.Moving is >= 0 and <= 1)
                        && samples.Zip(samples.Skip(1)).All(p => p.First.First + p.First.Count <= p.Second.First);
                }
            );

    /// <summary>Where bytes go exactly by stillness and movement, so does the estimate.</summary>
    [Fact]
    public void What_samples_came_to_is_extended_to_the_whole()
    {
        var map = Lesson(400);
        IReadOnlyList<TimeRange> still = [Stretch(0, 200), Stretch(302, 400)];
        const long key = 20_000;
        // 2 bytes a frame that stands still; 300 a frame of what moves.
        var measured = Samples
            .Choose(map, still)
            .Select(w => new SampleMeasured(w, 1, key, (long)(w.Moving == 0 ? 2 * w.Count : 300 * w.Count * w.Moving), 10, w.Count, TimeSpan.FromSeconds(1)))
            .ToList();
        var estimate = Samples.Bytes(map, still, Timing(map), measured);
        // 40 key frames; 74 windows that stand still, 25 that move, and one of which half does.
        estimate.Value.ShouldBe((40 * key) + (2 * 74 * 120) + (300 * 120 * 25.5), 1);
        estimate.Least.ShouldBe(estimate.Value * 0.92, 1);
        estimate.Most.ShouldBe(estimate.Value * 1.08, 1);
    }

    [Fact]
    public void The_range_is_wider_where_samples_differ()
    {
        var map = Lesson(400);
        List<SampleMeasured> Measured(Func<int, long> bytes) =>
            [.. Samples.Choose(map, null).Select((w, i) => new SampleMeasured(w, 1, 10_000, bytes(i), 60, 120, TimeSpan.FromSeconds(1)))];
        Estimated Of(Func<int, long> bytes) => Samples.Bytes(map, null, Timing(map), Measured(bytes));
        var (alike, apart) = (Of(_ => 50_000), Of(i => 10_000 + (40_000 * i)));
        alike.Value.ShouldBe(apart.Value, 1);
        (apart.Most - apart.Least).ShouldBeGreaterThan(3 * (alike.Most - alike.Least));
        apart.Least.ShouldBeGreaterThan(0);
    }

    [Fact]
    public void Samples_lie_evenly_over_what_they_stand_for()
    {
        // 150 windows of four seconds, all still: the middle of each half.
        Samples.Choose(Lesson(600), [Stretch(0, 600)]).Select(s => s.First).ShouldBe([37 * 120, 112 * 120]);
        // All of it moves: the middles of thirds.
        Samples.Choose(Lesson(600), []).Select(s => s.First).ShouldBe([24 * 120, 74 * 120, 124 * 120]);
    }

    [Fact]
    public void What_samples_say_is_extended_by_length_and_by_movement()
    {
        // A third of ten minutes moves. One sample of each kind: a second of the still one 100 bytes, of the moving one 1,000.
        var (map, still) = (Lesson(600), new[] { Stretch(0, 400) });
        var timing = Timing(map);
        SampleMeasured Sample(long first, double moving, long bytes, int frames) =>
            new(new SampleWindow(first, 120, moving), 1, 5000, bytes, frames, 120, TimeSpan.FromSeconds(1));
        SampleMeasured[] samples = [Sample(1200, 0, 400, 5), Sample(13_200, 1, 4000, 81)];
        var keys = timing.KeyFrames().Count();
        Samples.Frames(map, still, timing, samples).ShouldBe(keys + (4 * 100) + (80 * 50), 1e-6);
        var expected = timing.ExpectedKeyFrames((4 * 100) + (80 * 50));
        Samples.Bytes(map, still, timing, samples).Value.ShouldBe((expected * 5000) + (400 * 100) + (4000 * 50), 1e-6);
        // Two are too few to tell how far they differ: the least range.
        var two = Samples.Bytes(map, still, timing, samples);
        (two.Least / two.Value, two.Most / two.Value).ShouldBe((0.92, 1.08));
        // Without one that stands still, what moves says most of it.
        Samples.Frames(map, still, timing, samples[1..]).ShouldBe(keys + (80 * 100) + (80 * 50), 1e-6);
    }

    [Fact]
    public void What_is_known_is_added_and_multiplied()
    {
        var estimated = new Estimated(10, 8, 14);
        estimated.Times(2).ShouldBe(new Estimated(20, 16, 28));
        estimated.Plus(2).ShouldBe(new Estimated(12, 10, 16));
        Samples.SoundBytes(TimeSpan.FromSeconds(60), [100, 100, 100]).ShouldBe(new Estimated(6000, 5520, 6480));
        // Three that differ: leaving one out gives 150, 200 and 250 of 200; 1.5 times √(5000 · 2 / 3) of it each way.
        var differing = Samples.SoundBytes(TimeSpan.FromSeconds(1), [100, 200, 300]);
        differing.Most.ShouldBe(200 + (1.5 * Math.Sqrt(5000 * 2 / 3.0)), 1e-9);
        differing.Least.ShouldBe(200 - (1.5 * Math.Sqrt(5000 * 2 / 3.0)), 1e-9);
    }

    [Fact]
    public void Samples_of_sound_stand_in_the_middle_of_equal_parts()
    {
        // Three seconds each, of ten: three, in what is left of them.
        Samples.OfSound(Lesson(10)).Select(s => (s.First, s.Count)).ShouldBe([(35, 90), (105, 90), (175, 90)]);
        Samples.OfSound(Lesson(2)).Select(s => (s.First, s.Count)).ShouldBe([(0, 60)]);
        Samples.OfSound(Lesson(3600)).Count.ShouldBe(12);
    }
}
