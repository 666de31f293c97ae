using Wexel.Core.Learning;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Learning;

/// <summary>Where learners leave a lesson and where they watch again, counted by hand.</summary>
public class LessonPulseTests
{
    private static LessonTimes Times(double seconds, params TimeRange[] cuts)
    {
        var reel = Reel.Of([(Sample.Facts() with { Length = TimeSpan.FromSeconds(seconds) }, (SoundSides?)null)]);
        return new LessonTimes(["a"], reel, reel.Map(cuts));
    }

    private static TimeRange Range(double start, double end) => new(TimeSpan.FromSeconds(start), TimeSpan.FromSeconds(end));

    private static PulseLearner Learner(TimeRange[] watched, double position, bool done = false, params TimeRange[] again) =>
        new(
            [.. watched.Select(w => new WatchedStretch("a", 0, w))],
            [.. again.Select(w => new WatchedStretch("a", 0, w))],
            new RecordingMoment("a", 0, TimeSpan.FromSeconds(position)),
            done
        );

    [Fact]
    public void Each_second_says_how_many_saw_it_watched_it_again_and_left()
    {
        var pulse = LessonPulse.Of(
            Times(5),
            [Learner([Range(0, 5)], 5, done: true, Range(1, 3)), Learner([Range(0, 2.4)], 2.4, false, Range(1, 2)), Learner([Range(0, 2.6)], 2.6)]
        );
        (pulse.Step, pulse.Learners).ShouldBe((TimeSpan.FromSeconds(1), 3));
        // Half of a second or more is that second.
        pulse.Steps.Select(s => s.Seen).ShouldBe([3, 3, 2, 1, 1]);
        pulse.Steps.Select(s => s.Again).ShouldBe([0, 2, 1, 0, 0]);
        // Whoever has completed it did not leave it.
        pulse.Steps.Select(s => s.Left).ShouldBe([0, 0, 2, 0, 0]);
    }

    [Fact]
    public void What_is_cut_has_no_step_and_the_rest_lies_where_it_is_on_the_recording()
    {
        var pulse = LessonPulse.Of(Times(6, Range(1, 4)), [Learner([Range(0, 5)], 3)]);
        pulse.Steps.Select(s => s.At.TotalSeconds).ShouldBe([0, 4, 5]);
        pulse.Steps.Select(s => s.Seen).ShouldBe([1, 1, 0]);
        // Whoever left in what is cut now left where the lesson goes on.
        pulse.Steps.Select(s => s.Left).ShouldBe([0, 1, 0]);
    }

    [Fact]
    public void A_long_lesson_has_longer_steps()
    {
        var pulse = LessonPulse.Of(Times(3600), []);
        pulse.Step.ShouldBe(TimeSpan.FromSeconds(6));
        pulse.Steps.Count.ShouldBe(LessonPulse.MostSteps);
    }

    [Fact]
    public void What_was_watched_again_is_kept_with_what_was_known()
    {
        var lesson = new LessonTaken(Times(10), [], new());
        LearningEvent Event(params TimeRange[] again) =>
            new(Guid.NewGuid(), 1, 1, default, null, new Watched([], null, [.. again.Select(a => new WatchedStretch("a", 0, a))]));
        LearnerState
            .Of([Event(Range(1, 3)), Event(), Event(Range(2, 4), Range(7, 8))], _ => lesson)
            .Again.Select(s => s.Span)
            .ShouldBe([Range(1, 4), Range(7, 8)]);
    }
}
