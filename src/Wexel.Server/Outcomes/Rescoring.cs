using Microsoft.EntityFrameworkCore;
using Wexel.Core.Documents;
using Wexel.Core.Learning;
using Wexel.Core.Packages;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Learning;

namespace Wexel.Server.Outcomes;

/// <summary>What reckoning a question's answers again comes to.</summary>
/// <param name="Learners">How many learners have answered it.</param>
/// <param name="Changed">How many of them get other points.</param>
internal sealed record RescoreOutcome(int Learners, int Changed);

/// <summary>
/// Reckons answers again as their question is released now; nobody's points change without somebody wanting it. What was answered stays in the log as
/// it was, and what it comes to is appended.
/// </summary>
internal sealed class Rescoring(WexelDb db, LearningLog log)
{
    /// <summary>What it would come to; nothing is changed.</summary>
    internal async Task<RescoreOutcome?> LookAsync(Guid lesson, string question, CancellationToken cancel) =>
        await FindAsync(lesson, question, cancel) is { } found ? new RescoreOutcome(found.Learners, found.Changed.Count) : null;

    /// <summary>Does it.</summary>
    internal async Task<RescoreOutcome?> DoAsync(Guid lesson, string question, CancellationToken cancel)
    {
        if (await FindAsync(lesson, question, cancel) is not { } found)
            return null;
        var changed = 0;
        foreach (var (taken, learner, rescored) in found.Changed)
            changed += await log.RescoreAsync(taken, learner, rescored, cancel) ? 1 : 0;
        return new RescoreOutcome(found.Learners, changed);
    }

    private async Task<(int Learners, List<(Taken, Learner, Rescored)> Changed)?> FindAsync(Guid lesson, string question, CancellationToken cancel)
    {
        var pages = await db
            .Releases.AsNoTracking()
            .Where(r => r.LessonId == lesson && r.MadeFrom != "")
            .OrderByDescending(r => r.ReleasedAt)
            .ToListAsync(cancel);
        var asked = pages
            .Select(r => (Release: r, Question: PlayerLesson.Format.Read(r.Player).Questions.FirstOrDefault(q => q.Id == question)))
            .FirstOrDefault(r => r.Question is { Key: not null });
        if (asked.Question is not { Key: { } key })
            return null;
        var entries = await db
            .LearningLog.FromSql(
                $"""
                SELECT * FROM "LearningLog" WHERE "LessonId" = {lesson} AND "Kind" = 'answered' AND "Data" ->> 'question' = {question}
                """
            )
            .AsNoTracking()
            .OrderBy(e => e.Number)
            .ToListAsync(cancel);
        var known = (await db.LearnerRecords.AsNoTracking().Where(r => r.LessonId == lesson).ToListAsync(cancel)).ToDictionary(r => r.LearnerKey, Answers);
        var changed = new List<(Taken, Learner, Rescored)>();
        foreach (var learner in entries.GroupBy(e => e.LearnerKey))
        {
            var answers = learner.Select(e => ((Answered)LearningActs.Read(e.Kind, e.Data)).Answer).ToList();
            var rescored = Rescored.Of(question, key.Judge, key.Penalty, answers);
            if (known.GetValueOrDefault(learner.Key)?.FirstOrDefault(a => a.Question == question) is not { } before || !rescored.Differs(before))
                continue;
            var last = learner.Last();
            changed.Add(
                (
                    new Taken(lesson, last.OutletId ?? asked.Release.OutletId, last.ReleaseId ?? asked.Release.Id, asked.Release.Revision),
                    new Learner(learner.Key, last.Name, ""),
                    rescored
                )
            );
        }

        return (entries.Select(e => e.LearnerKey).Distinct().Count(), changed);
    }

    private static IReadOnlyList<AnswerState> Answers(LearnerRecord record) => WexelJson.Read<Kept>(record.State).Answers ?? [];

    private sealed record Kept(IReadOnlyList<AnswerState>? Answers);
}
