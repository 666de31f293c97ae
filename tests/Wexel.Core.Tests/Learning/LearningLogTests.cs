using CsCheck;
using Wexel.Core.Documents;
using Wexel.Core.Learning;
using Wexel.Core.Placing;
using Wexel.Core.Scoring;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Learning;

/// <summary>What the log comes to, and that later changes of a lesson do not make it mean something else.</summary>
public sealed class LearningLogTests
{
    private static readonly DateTimeOffset Noon = new(2026, 11, 28, 12, 0, 0, TimeSpan.Zero);

    private static TimeRange Range(double start, double end) => new(TimeSpan.FromSeconds(start), TimeSpan.FromSeconds(end));

    /// <summary>A lesson of recordings, each of so many seconds.</summary>
    private static LessonTimes Times(IReadOnlyList<(string Hash, double Seconds)> recordings, params TimeRange[] cuts)
    {
        var reel = Reel.Of([.. recordings.Select(r => (Sample.Facts() with { Length = TimeSpan.FromSeconds(r.Seconds) }, (Core.Recordings.SoundSides?)null))]);
        return new LessonTimes([.. recordings.Select(r => r.Hash)], reel, reel.Map(cuts));
    }

    private static LearningEvent Event(int minute, LearningAct act, int revision = 1) =>
        new(Guid.NewGuid(), revision, 1, Noon.AddMinutes(minute), "Ida Moor", act);

    private static Watched Seen(LessonTimes times, params TimeRange[] ranges) => new(times.ToRecordings(ranges), times.ToRecordings(ranges[^1].End));

    [Fact]
    public void What_was_watched_stays_what_it_is_when_something_before_it_is_cut()
    {
        var (before, after) = (Times([("a", 60)]), Times([("a", 60)], Range(0, 10)));
        var watched = before.ToRecordings([Range(5, 20)]);
        watched.ShouldBe([new("a", 0, Range(5, 20))]);
        after.ToLesson(watched).ShouldBe([Range(0, 10)]);
        after.ToLesson(before.ToRecordings(TimeSpan.FromSeconds(20))).ShouldBe(TimeSpan.FromSeconds(10));
    }

    [Fact]
    public void It_goes_with_its_recording_and_a_new_take_was_not_watched()
    {
        var watched = Times([("a", 20), ("b", 30)]).ToRecordings([Range(15, 30)]);
        watched.ShouldBe([new("a", 0, Range(15, 20)), new("b", 0, Range(0, 10))]);
        Times([("b", 30), ("a", 20)]).ToLesson(watched).ShouldBe([Range(0, 10), Range(45, 50)]);
        Times([("a", 20), ("take", 30)]).ToLesson(watched).ShouldBe([Range(15, 20)]);
        Times([("take", 30)]).ToLesson(new RecordingMoment("a", 0, TimeSpan.Zero)).ShouldBeNull();
    }

    [Fact]
    public void A_moment_stands_along_the_recordings_whether_it_is_kept_or_cut()
    {
        var times = Times([("a", 20), ("b", 30)], Range(18, 26));
        times.ToReel(new RecordingMoment("b", 0, TimeSpan.FromSeconds(3))).ShouldBe(TimeSpan.FromSeconds(23));
        times.ToReel(times.ToRecordings(TimeSpan.FromSeconds(20))).ShouldBe(TimeSpan.FromSeconds(28));
        times.ToReel(new RecordingMoment("b", 1, TimeSpan.Zero)).ShouldBeNull();
    }

    [Theory]
    [InlineData(0, 0, 0, null)]
    [InlineData(1000, 60_000, 19, null)]
    [InlineData(1001, 0, 0, "note-too-long")]
    [InlineData(0, -1, 0, "note-outside")]
    [InlineData(0, 60_001, 0, "note-outside")]
    [InlineData(0, 0, 20, "notes-too-many")]
    public void A_note_has_an_end_lies_in_the_lesson_and_waits_with_few_others(int length, int at, int waiting, string? code) =>
        (NoteRules.Refusal(new string('a', length), Ms.Of(at), Ms.Of(60_000), waiting)?.Code).ShouldBe(code);

    [Fact]
    public void The_same_recording_twice_is_two_places()
    {
        var twice = Times([("a", 20), ("a", 20)]);
        twice.ToLesson(twice.ToRecordings([Range(25, 30)])).ShouldBe([Range(25, 30)]);
    }

    /// <summary>There and back again, through JSON in whole milliseconds, it is what it was: whole milliseconds in, whole milliseconds out, but for
    /// one at a joint.</summary>
    [Fact]
    public void To_the_recordings_and_back_is_the_identity() =>
        Gen.Select(Gen.Int[0, 59_000].Array[0, 6], Gen.Int[0, 59_000].Array[0, 8])
            .Sample(
                (cutAt, watchedAt) =>
                {
                    var cuts = TimeRange.Union(cutAt.Order().Chunk(2).Where(c => c.Length == 2).Select(c => new TimeRange(Ms.Of(c[0]), Ms.Of(c[1])))).ToArray();
                    var times = Times([("a", 25), ("b", 35)], cuts);
                    var watched = Completion
                        .Judge(watchedAt.Order().Chunk(2).Where(c => c.Length == 2).Select(c => new TimeRange(Ms.Of(c[0]), Ms.Of(c[1]))), times.Length)
                        .Watched;
                    var kept = WexelJson.Read<IReadOnlyList<WatchedStretch>>(WexelJson.Write(times.ToRecordings(watched)));
                    var back = times.ToLesson(kept);
                    TimeSpan Apart(IEnumerable<TimeRange> one, IEnumerable<TimeRange> other) =>
                        TimeRange.Without(one, other).Aggregate(TimeSpan.Zero, (sum, r) => sum + r.Length);
                    (Apart(watched, back) + Apart(back, watched)).ShouldBeLessThan(Ms.Of(2 * (watched.Count + cuts.Length + 2)));
                    back.Count.ShouldBeLessThanOrEqualTo(watched.Count);
                }
            );

    private static LessonTaken Lesson(LessonTimes times, LessonGoal? goal = null, params QuestionTaken[] questions) =>
        new(times, questions, goal ?? new LessonGoal());

    [Fact]
    public void Answers_come_to_points_and_tries()
    {
        var lesson = Lesson(Times([("a", 60)]), new LessonGoal(GoalRule.Score, 60), new QuestionTaken("q1", 2, 2), new QuestionTaken("q2", 3, 1));
        LearningEvent[] log =
        [
            Event(1, new Answered("q1", ["a"], 0, false, 2, TimeSpan.FromSeconds(4))),
            Event(2, new Answered("q1", ["b"], 0.75, true, 2, null)),
            Event(3, new Answered("q2", ["x"], 0.5, false, 3, null)),
        ];
        var states = Enumerable.Range(1, 3).Select(n => LearnerState.Of(log.Take(n), _ => lesson)).ToList();
        states[1].Answers.ShouldHaveSingleItem().ShouldSatisfyAllConditions(a => a.Tries.ShouldBe(2), a => a.Share.ShouldBe(0.75), a => a.Right.ShouldBeTrue());
        (states[1].Score, states[1].Passed, states[1].CompletedAt).ShouldBe((new LessonScore(1.5, 5), null, null));
        // Three of five points are sixty per cent.
        (states[2].Score, states[2].Passed, states[2].CompletedAt).ShouldBe((new LessonScore(3, 5), true, Noon.AddMinutes(3)));
        foreach (var act in log.Select(e => e.Act))
            WexelJson.Write(LearningActs.Read(LearningActs.Write(act).Kind, LearningActs.Write(act).Data)).ShouldBe(WexelJson.Write(act));
    }

    [Fact]
    public void Who_has_no_try_left_has_failed_and_who_passed_once_has_passed()
    {
        var lesson = Lesson(Times([("a", 60)]), new LessonGoal(GoalRule.Score), new QuestionTaken("q1", 1, 1));
        LearnerState.Of([Event(1, new Answered("q1", ["a"], 0, false, 1, null))], _ => lesson).Passed.ShouldBe(false);
        var passed = LearnerState.Of([Event(1, new Answered("q1", ["b"], 1, true, 1, null))], _ => lesson);
        // The next revision asks more.
        var harder = lesson with { Questions = [.. lesson.Questions, new QuestionTaken("q2", 9, 1)] };
        passed.After(Event(2, new Answered("q2", ["x"], 0, false, 9, null)), harder).Passed.ShouldBe(true);
    }

    [Fact]
    public void A_log_comes_to_the_same_at_once_and_one_by_one_and_what_comes_twice_counts_once()
    {
        var times = Times([("a", 60)]);
        LearningEvent[] log = [Event(1, Seen(times, Range(0, 20))), Event(2, Seen(times, Range(20, 40))), Event(3, Seen(times, Range(40, 55)))];
        var one = log.Aggregate(LearnerState.None, (state, e) => state.After(e, Lesson(times)));
        WexelJson.Write(LearnerState.Of([.. log, log[1], log[0]], _ => Lesson(times))).ShouldBe(WexelJson.Write(one));
        one.Watched.ShouldBe([new("a", 0, Range(0, 55))]);
        (one.CompletedAt, one.SeenLastAt, one.Name, one.Position!.At).ShouldBe((Noon.AddMinutes(3), Noon.AddMinutes(3), "Ida Moor", TimeSpan.FromSeconds(55)));
        one.SeenShare.ShouldBe(55.0 / 60, 0.001);
        WexelJson.Read<LearnerState>(WexelJson.Write(one)).Watched.ShouldBe(one.Watched);
    }

    [Fact]
    public void Who_has_completed_a_lesson_has_completed_it_whatever_is_added_later()
    {
        var (first, second) = (Times([("a", 20)]), Times([("a", 20), ("b", 20)]));
        LearningEvent[] log = [Event(1, Seen(first, Range(0, 20))), Event(9, Seen(second, Range(20, 21)), revision: 2)];
        var state = LearnerState.Of(log, revision => Lesson(revision == 1 ? first : second));
        state.CompletedAt.ShouldBe(Noon.AddMinutes(1));
        state.SeenShare.ShouldBe(21.0 / 40, 0.001);
    }

    [Fact]
    public void What_was_known_before_there_was_a_log_is_known_after()
    {
        var times = Times([("a", 60)], Range(0, 10));
        var (kind, data) = LearningActs.Write(new WatchedBefore([Range(0, 5)], TimeSpan.FromSeconds(5), Noon));
        var state = LearnerState.Of([Event(0, LearningActs.Read(kind, data))], _ => Lesson(times));
        state.Watched.ShouldBe([new("a", 0, Range(10, 15))]);
        (state.Position!.At, state.CompletedAt).ShouldBe((TimeSpan.FromSeconds(15), Noon));
    }

    [Fact]
    public void An_event_of_tomorrow_is_refused_in_a_sentence() =>
        Should.Throw<System.Text.Json.JsonException>(() => LearningActs.Read("danced", "{}")).Message.ShouldContain("newer Wexel");
}
