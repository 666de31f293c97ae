using Microsoft.EntityFrameworkCore;
using Wexel.Core.Documents;
using Wexel.Core.Learning;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.Packages;
using Wexel.Core.Scoring;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Learning;

/// <summary>A learner, as a report or a question names them.</summary>
/// <param name="Key">By which their record is found.</param>
/// <param name="Name">Their name; null where they came by a link.</param>
/// <param name="Address">Where they ask from.</param>
internal sealed record Learner(string Key, string? Name, string Address);

/// <summary>What is taken, and where.</summary>
internal sealed record Taken(Guid LessonId, Guid OutletId, Guid ReleaseId, int Revision);

/// <summary>What a player says.</summary>
/// <param name="EventId">What names the report; null where it has no name.</param>
/// <param name="Watched">All that was watched, in lesson time.</param>
/// <param name="Position">Where the learner is, in lesson time.</param>
/// <param name="Opened">When the page was opened, as the server said it.</param>
/// <param name="Again">What was watched once more on the page, in lesson time.</param>
internal sealed record WatchedReport(Guid? EventId, IReadOnlyList<TimeRange> Watched, TimeSpan Position, string? Opened, IReadOnlyList<TimeRange> Again);

/// <summary>An answer to a question.</summary>
/// <param name="EventId">What names it; sent again, it counts once.</param>
/// <param name="Question">What was asked.</param>
/// <param name="Values">The answer.</param>
/// <param name="Took">How long it took, as the player says; null where it does not say.</param>
internal sealed record AnswerGiven(Guid EventId, PlayerQuestion Question, IReadOnlyList<string> Values, TimeSpan? Took);

/// <summary>What is known of a learner, in the time of the revision that they take now.</summary>
internal sealed record LearnerNow(
    IReadOnlyList<TimeRange> Watched,
    TimeSpan Position,
    double SeenShare,
    bool Complete,
    IReadOnlyList<AnswerState> Answers,
    LessonScore Score,
    bool? Passed
)
{
    /// <summary>The questions that they are not asked, where the lesson draws among them.</summary>
    public IReadOnlyList<string> NotAsked { get; init; } = [];
}

/// <summary>
/// Appends what learners did, as far as it can have been: nothing in the log is ever changed. What it comes to is kept beside it, and can
/// be reckoned again at any time (<see cref="Projections"/>).
/// </summary>
internal sealed class LearningLog(WexelDb db, LogReader reader, TakenRevisions revisions, NewLearners newcomers, OpenedPages opened, TimeProvider clock)
{
    /// <summary>Attempts are counted from 1; a channel knows one.</summary>
    private const int OnlyAttempt = 1;

    private static readonly TimeSpan LongestTook = TimeSpan.FromDays(1);

    /// <summary>Appends a report.</summary>
    /// <param name="taken">What is watched.</param>
    /// <param name="learner">Who reports.</param>
    /// <param name="report">What the player says.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>What is known now; null where too many that nobody knows have reported from one address.</returns>
    internal async Task<LearnerNow?> AddAsync(Taken taken, Learner learner, WatchedReport report, CancellationToken cancel) =>
        (await AppendAsync(taken, learner, report.EventId, (state, lesson, now) => New(report, state, lesson.Times, now), cancel))?.Now;

    /// <summary>Appends an answer, judged as the question was released; not where it was right before, or no try is left.</summary>
    /// <param name="taken">What is taken.</param>
    /// <param name="learner">Who answers.</param>
    /// <param name="given">The answer.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>What is known now, and whether the answer counted; null where too many that nobody knows have reported from one address.</returns>
    internal Task<(LearnerNow Now, bool Counted)?> AnswerAsync(Taken taken, Learner learner, AnswerGiven given, CancellationToken cancel) =>
        AppendAsync(
            taken,
            learner,
            given.EventId,
            (state, lesson, _) =>
            {
                var (question, key) = (given.Question, given.Question.Key!);
                if (lesson.Questions.All(q => q.Id != question.Id))
                    return null;
                var before = state.Answers.FirstOrDefault(a => a.Question == question.Id);
                if (before?.IsDone(question.Tries) == true)
                    return null;
                var grade = key.Judge.Judge(given.Values);
                var took = given.Took is { } time && time >= TimeSpan.Zero && time <= LongestTook ? time : (TimeSpan?)null;
                return new Answered(
                    question.Id,
                    given.Values,
                    Penalty.Taken(grade.Share, key.Penalty, (before?.Tries ?? 0) + 1),
                    grade.Right,
                    question.Points,
                    took
                );
            },
            cancel
        );

    /// <summary>Appends what somebody's answers come to now, where that is something else than is known.</summary>
    /// <returns>Whether it was.</returns>
    internal async Task<bool> RescoreAsync(Taken taken, Learner learner, Rescored rescored, CancellationToken cancel) =>
        await AppendAsync(
            taken,
            learner,
            null,
            (state, _, _) => state.Answers.FirstOrDefault(a => a.Question == rescored.Question) is { } known && rescored.Differs(known) ? rescored : null,
            cancel
        )
            is { Counted: true };

    private Watched? New(WatchedReport report, LearnerState state, LessonTimes times, DateTimeOffset now)
    {
        var since = Latest(opened.Read(report.Opened) ?? now, state.SeenLastAt);
        var before = times.ToLesson(state.Watched);
        var after = Completion.Judge(WatchPace.After(before, report.Watched, now > since ? now - since : TimeSpan.Zero), times.Length).Watched;
        // Only what was watched can have been watched again.
        var again = TimeRange.Without(TimeRange.Without(report.Again, TimeRange.Without(report.Again, after)), times.ToLesson(state.Again));
        var act = new Watched(
            times.ToRecordings(TimeRange.Without(after, before)),
            times.ToRecordings(Within(report.Position, times.Length)),
            times.ToRecordings(again)
        );
        // A page that only stands there says the same again and again.
        return act.Stretches.Count + act.Again.Count == 0 && state.SeenLastAt is not null && act.Position == state.Position ? null : act;
    }

    private async Task<(LearnerNow Now, bool Counted)?> AppendAsync(
        Taken taken,
        Learner learner,
        Guid? eventId,
        Func<LearnerState, LessonTaken, DateTimeOffset, LearningAct?> what,
        CancellationToken cancel
    )
    {
        var now = clock.GetUtcNow();
        var lesson = (await revisions.ReadAsync(taken.LessonId, taken.Revision, cancel)).For(learner.Key);
        // One learner may have two windows open: each adds to what the other sent.
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await db.Database.ExecuteSqlAsync($"SELECT pg_advisory_xact_lock(hashtextextended({taken.LessonId + learner.Key}, 0))", cancel);
        var record = await db.LearnerRecords.FirstOrDefaultAsync(r => r.LessonId == taken.LessonId && r.LearnerKey == learner.Key, cancel);
        var state = await StateAsync(record, taken.LessonId, learner.Key, cancel);
        if (state.SeenLastAt is null && !newcomers.MayCome(taken.LessonId, learner))
            return null;
        if (eventId is { } id && await db.LearningLog.AnyAsync(e => e.EventId == id, cancel))
            return (Now(state, lesson), true);
        if (what(state, lesson, now) is not { } act)
            return (Now(state, lesson), false);
        var happened = new LearningEvent(eventId ?? Guid.CreateVersion7(), taken.Revision, OnlyAttempt, now, learner.Name, act);
        Append(db, taken, learner.Key, happened);
        state = state.After(happened, lesson);
        if (record is null)
            db.LearnerRecords.Add(
                record = new LearnerRecord
                {
                    LessonId = taken.LessonId,
                    LearnerKey = learner.Key,
                    State = "",
                }
            );
        Projections.Set(record, state, taken.OutletId);
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return (Now(state, lesson), true);
    }

    /// <summary>What is known of a learner; nothing of somebody who has not begun.</summary>
    internal async Task<LearnerNow> LearnerAsync(Taken taken, string learnerKey, CancellationToken cancel)
    {
        var record = await db.LearnerRecords.AsNoTracking().FirstOrDefaultAsync(r => r.LessonId == taken.LessonId && r.LearnerKey == learnerKey, cancel);
        var lesson = await revisions.ReadAsync(taken.LessonId, taken.Revision, cancel);
        var now = Now(await StateAsync(record, taken.LessonId, learnerKey, cancel), lesson.For(learnerKey));
        return now with { NotAsked = [.. lesson.NotAsked(learnerKey)] };
    }

    /// <summary>How far a learner is in lessons, by the lesson; nothing of those that they have not begun.</summary>
    internal async Task<IReadOnlyDictionary<Guid, LessonSeen>> OfLearnerAsync(string learnerKey, IReadOnlyList<Taken> taken, CancellationToken cancel)
    {
        var wanted = taken.ToDictionary(t => t.LessonId);
        var records = await db.LearnerRecords.AsNoTracking().Where(r => r.LearnerKey == learnerKey).ToListAsync(cancel);
        var seen = new Dictionary<Guid, LessonSeen>();
        foreach (var record in records)
        {
            if (!wanted.TryGetValue(record.LessonId, out var one))
                continue;
            var state = await StateAsync(record, one.LessonId, learnerKey, cancel);
            var now = Now(state, (await revisions.ReadAsync(one.LessonId, one.Revision, cancel)).For(learnerKey));
            seen[one.LessonId] = new LessonSeen(now.Position, now.SeenShare, now.Complete, record.SeenLastAt);
        }

        return seen;
    }

    /// <summary>What is known: as it was written down, or where that is not there, by the log.</summary>
    private async Task<LearnerState> StateAsync(LearnerRecord? record, Guid lesson, string learnerKey, CancellationToken cancel) =>
        record?.Version == LearnerState.Version ? WexelJson.Read<LearnerState>(record.State) : await reader.ReadAsync(lesson, learnerKey, cancel);

    private static LearnerNow Now(LearnerState state, LessonTaken lesson)
    {
        var times = lesson.Times;
        var attendance = Completion.Judge(times.ToLesson(state.Watched), times.Length);
        return new LearnerNow(
            attendance.Watched,
            (state.Position is { } at ? times.ToLesson(at) : null) ?? TimeSpan.Zero,
            attendance.SeenShare,
            state.CompletedAt is not null,
            [.. state.Answers.Where(a => lesson.Questions.Any(q => q.Id == a.Question))],
            lesson.Score(state.Answers),
            state.Passed
        );
    }

    private static void Append(WexelDb db, Taken taken, string learnerKey, LearningEvent happened)
    {
        var (kind, data) = LearningActs.Write(happened.Act);
        db.LearningLog.Add(
            new LearningEntry
            {
                EventId = happened.Id,
                LearnerKey = learnerKey,
                Name = happened.Name,
                LessonId = taken.LessonId,
                OutletId = taken.OutletId,
                ReleaseId = taken.ReleaseId,
                Revision = happened.Revision,
                Attempt = happened.Attempt,
                Kind = kind,
                Data = data,
                At = happened.At,
            }
        );
    }

    private static DateTimeOffset Latest(DateTimeOffset a, DateTimeOffset? b) => b > a ? b.Value : a;

    private static TimeSpan Within(TimeSpan time, TimeSpan most) =>
        time < TimeSpan.Zero ? TimeSpan.Zero
        : time < most ? time
        : most;
}
