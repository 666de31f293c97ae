using CsCheck;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Placing;

public class TimeMapTests
{
    private static readonly FrameRate Thirty = new(30, 1);

    private static readonly Gen<TimeMap> AnyMap = Gen.Select(
        Pick.From(Thirty, new FrameRate(30000, 1001), new FrameRate(25, 1), new FrameRate(60, 1)),
        Gen.Long[1, 90_000],
        Gen.Select(Gen.Long[-500, 90_500], Gen.Long[-500, 20_000]).Array[0, 40],
        (grid, length, cuts) => TimeMap.Of(grid, Ms.Of(length), [.. cuts.Select(c => new TimeRange(Ms.Of(c.Item1), Ms.Of(c.Item1 + c.Item2)))])
    );

    private static TimeMap Map(params (long Start, long End)[] cuts) =>
        TimeMap.Of(Thirty, Ms.Of(60_000), [.. cuts.Select(c => new TimeRange(Ms.Of(c.Start), Ms.Of(c.End)))]);

    [Fact]
    public void Frames_map_one_to_one_on_what_is_kept_and_in_order() =>
        AnyMap.Sample(map =>
        {
            var all = TimeMap.FramesIn(map.RecordingLength, map.Grid);
            long expected = 0;
            for (long frame = 0; frame < all; frame++)
            {
                if (map.ToLesson(frame) is not { } lesson)
                    continue;
                if (lesson != expected++ || map.ToRecording(lesson) != frame)
                    return false;
            }

            return expected == map.Frames;
        });

    [Fact]
    public void The_kept_lengths_sum_up_to_the_lessons() =>
        AnyMap.Sample(map =>
            map.Kept.Sum(k => k.Count) == map.Frames
            && (map.Length - map.Grid.TimeOf(map.Frames)).Duration() < map.Grid.TimeOf(1)
            && map.Kept.Zip(map.Kept.Skip(1)).All(pair => pair.First.End < pair.Second.First && pair.First.At + pair.First.Count == pair.Second.At)
        );

    [Fact]
    public void Times_never_run_backward_and_a_kept_one_comes_back() =>
        Gen.Select(AnyMap, Gen.Long[0, 90_000].Array[2, 60])
            .Sample(
                (map, times) =>
                {
                    var ordered = times.Order().Select(Ms.Of).ToList();
                    var moved = ordered.Select(map.ToLesson).ToList();
                    return moved.Zip(moved.Skip(1)).All(p => p.First <= p.Second)
                        && moved.All(m => m >= TimeSpan.Zero && m <= map.Length)
                        // The way back may be a tick of 100 ns off, since a frame's time is rounded to ticks.
                        && ordered
                            .Where(map.Keeps)
                            .All(t =>
                                (map.ToRecording(map.ToLesson(t)) - t).Duration() <= TimeSpan.FromTicks(2)
                                || map.Grid.FrameAt(map.ToRecording(map.ToLesson(t))) == map.Grid.FrameAt(t)
                            );
                }
            );

    [Theory]
    [InlineData(25, 32_199)]
    [InlineData(50, 32_199)]
    [InlineData(30, 32_199)]
    public void A_whole_millisecond_before_a_cut_is_still_the_frame_before_it(int rate, long moment)
    {
        var map = TimeMap.Of(new FrameRate(rate, 1), Ms.Of(60_000), [new TimeRange(Ms.Of(20_560), Ms.Of(27_880)), new TimeRange(Ms.Of(32_200), Ms.Of(51_920))]);
        map.Keeps(Ms.Of(moment)).ShouldBeTrue();
        (map.ToRecording(map.ToLesson(Ms.Of(moment))) - Ms.Of(moment)).Duration().ShouldBeLessThanOrEqualTo(TimeSpan.FromTicks(2));
    }

    [Fact]
    public void Without_a_cut_a_lesson_is_its_recording()
    {
        var map = TimeMap.Of(Thirty, Ms.Of(10_010), []);
        map.Length.ShouldBe(Ms.Of(10_010));
        map.ToLesson(Ms.Of(1234)).ShouldBe(Ms.Of(1234));
    }

    [Fact]
    public void A_moment_just_before_what_is_kept_does_not_fall_behind_the_cut_before_it()
    {
        var map = TimeMap.Of(new FrameRate(25, 1), Ms.Of(60_000), [new TimeRange(Ms.Of(10_000), Ms.Of(20_000))]);
        map.ToLesson(Ms.Of(15_000)).ShouldBe(Ms.Of(10_000));
        map.ToLesson(Ms.Of(19_999)).ShouldBe(Ms.Of(10_000));
        map.ToLesson(Ms.Of(20_000)).ShouldBe(Ms.Of(10_000));
    }

    [Fact]
    public void What_follows_a_cut_closes_up()
    {
        var map = Map((0, 3_000), (10_000, 12_000));
        map.Length.ShouldBe(Ms.Of(55_000));
        map.ToLesson(Ms.Of(3_000)).ShouldBe(Ms.Of(0));
        map.ToLesson(Ms.Of(1_000)).ShouldBe(Ms.Of(0));
        map.ToLesson(Ms.Of(11_000)).ShouldBe(Ms.Of(7_000));
        map.ToLesson(Ms.Of(12_500)).ShouldBe(Ms.Of(7_500));
        map.ToRecording(Ms.Of(7_500)).ShouldBe(Ms.Of(12_500));
        map.Keeps(Ms.Of(11_990)).ShouldBeFalse();
    }

    [Fact]
    public void Overlapping_touching_and_tiny_cuts_are_as_good_as_one()
    {
        Map((1_000, 2_000), (1_500, 3_000), (3_000, 4_000), (9_000, 9_010)).Kept.ShouldBe(Map((1_000, 4_000)).Kept);
    }

    [Fact]
    public void A_cut_of_everything_is_refused_with_the_reason()
    {
        TimeRange[] all = [new(Ms.Of(0), Ms.Of(60_000))];
        CutRules
            .Refusal(all, TimeMap.Of(Thirty, Ms.Of(60_000), all))!
            .Sentence.ShouldBe("That would cut the whole lesson. Keep at least one moment of it, or delete the lesson.");
        CutRules.Refusal([], Map()).ShouldBeNull();
        var many = Enumerable.Range(0, 2001).Select(i => new TimeRange(Ms.Of(i * 20), Ms.Of((i * 20) + 1))).ToList();
        CutRules.Refusal(many, Map())!.Code.ShouldBe("cuts-too-many");
    }

    [Fact]
    public void A_section_whose_start_is_cut_moves_and_one_that_is_cut_whole_is_gone()
    {
        Section[] sections =
        [
            new("a", Ms.Of(0), "A"),
            new("b", Ms.Of(10_000), "B"),
            new("b1", Ms.Of(12_000), "B1", true),
            new("b2", Ms.Of(15_000), "B2", true),
            new("c", Ms.Of(20_000), "C"),
        ];
        // B's own words are cut, and B1 whole; B2 is left, so B is too.
        var map = Map((0, 2_000), (9_000, 15_500));
        Section.Kind.Following(sections, map).Select(s => (s.Id, s.At.TotalMilliseconds)).ShouldBe([("a", 0), ("b", 7_000), ("b2", 7_000), ("c", 11_500)]);
        Section.Kind.Gone(sections, map).Select(s => s.Id).ShouldBe(["b1"]);
        // Nothing of the first section is left: a nested one is never the first.
        Section
            .Kind.Following([new("a", Ms.Of(0), "A"), new("b", Ms.Of(5_000), "B", true)], Map((0, 5_000)))
            .Select(s => (s.Id, s.Nested))
            .ShouldBe([("a", false), ("b", true)]);
    }

    [Fact]
    public void A_caption_that_is_cut_in_part_keeps_its_part()
    {
        Cue[] cues =
        [
            new(new TimeRange(Ms.Of(1_000), Ms.Of(3_000)), "in part"),
            new(new TimeRange(Ms.Of(4_000), Ms.Of(5_000)), "whole"),
            new(new TimeRange(Ms.Of(5_000), Ms.Of(9_000)), "around"),
        ];
        var map = Map((2_000, 2_500), (3_900, 5_100), (6_000, 7_000));
        Cue.Kind.Following(cues, map)
            .Select(c => (c.Text, c.Span.Start.TotalMilliseconds, c.Span.End.TotalMilliseconds))
            .ShouldBe([("in part", 1_000, 2_500), ("around", 3_400, 6_300)]);
        Cue.Kind.Gone(Cue.Kind.WithNames(cues), map).ShouldHaveSingleItem().Text.ShouldBe("whole");
    }

    [Theory]
    [InlineData("0:00 - 0:03.2\n\n  1:05–end ", "0-3200 65000-90000")]
    [InlineData("0:01 --> 0:02\n0:03 to 0:04\n0:05 0:06", "1000-2000 3000-4000 5000-6000")]
    public void Reads_cuts_as_people_write_them(string text, string expected)
    {
        var (cuts, problems) = CutsText.Read(text, Ms.Of(90_000));
        problems.ShouldBeEmpty();
        string.Join(' ', cuts.Select(c => $"{c.Start.TotalMilliseconds}-{c.End.TotalMilliseconds}")).ShouldBe(expected);
    }

    [Theory]
    [InlineData("nothing", "Line 1 is not two times: “nothing”. Write it as 1:05 - 1:12.5.")]
    [InlineData("0:05 - 0:04", "Line 1 ends before it starts: “0:05 - 0:04”.")]
    [InlineData("0:01 - 0:02\n2:00 - 3:00", "Line 2 starts after the recording’s end at 1:30: “2:00 - 3:00”.")]
    public void Says_what_it_cannot_read(string text, string sentence) =>
        CutsText.Read(text, Ms.Of(90_000)).Problems.ShouldHaveSingleItem().Sentence.ShouldBe(sentence);

    [Fact]
    public void What_ends_where_a_lesson_is_split_is_the_firsts()
    {
        MoveIn In(double from, double to) =>
            new($"{from}", new TimeRange(TimeSpan.FromSeconds(from), TimeSpan.FromSeconds(to)), PicturePart.All, MoveIn.UsualEase);
        IReadOnlyList<MoveIn> all = [In(1, 5), In(3, 7), In(5, 8)];
        MoveIn.Kind.From(all, TimeSpan.FromSeconds(5)).ShouldBe([all[1], all[2]]);
        MoveIn.Kind.Before(all, TimeSpan.FromSeconds(5)).ShouldBe([all[0], all[1]]);
    }
}
