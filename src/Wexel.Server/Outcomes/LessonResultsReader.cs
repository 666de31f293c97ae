using Microsoft.EntityFrameworkCore;
using Wexel.Core.Documents;
using Wexel.Core.Learning;
using Wexel.Core.Questions;
using Wexel.Core.Scoring;
using Wexel.Data;
using Wexel.Server.Shelves;

namespace Wexel.Server.Outcomes;

/// <summary>Reads what came of a lesson: who watched and answered, and what each question did.</summary>
internal sealed class LessonResultsReader(WexelDb db, LessonSaver lessons)
{
    /// <summary>The questions that a lesson asks now.</summary>
    internal async Task<IReadOnlyList<Question>?> QuestionsAsync(Guid lesson, CancellationToken cancel) =>
        await db.Lessons.FirstOrDefaultAsync(l => l.Id == lesson, cancel) is { } row ? (await lessons.CurrentAsync(row, cancel))?.Questions ?? [] : null;

    /// <summary>Everybody who took a lesson, whoever was there last first.</summary>
    internal async Task<List<LearnerTook>> LearnersAsync(Guid lesson, CancellationToken cancel)
    {
        var rows = await db
            .LearnerRecords.AsNoTracking()
            .Where(r => r.LessonId == lesson)
            .OrderByDescending(r => r.SeenLastAt)
            .Select(r => new
            {
                r.Name,
                r.SeenShare,
                r.CompletedAt,
                r.SeenLastAt,
                r.State,
            })
            .ToListAsync(cancel);
        return rows.ConvertAll(r =>
        {
            var state = WexelJson.Read<Answered>(r.State);
            return new LearnerTook(
                r.Name ?? "Somebody with the link",
                r.SeenShare,
                r.CompletedAt,
                r.SeenLastAt,
                state.Answers ?? [],
                state.Score ?? new LessonScore(0, 0),
                state.Passed
            );
        });
    }

    /// <summary>What is read of a learner's state here; the rest is passed over.</summary>
    private sealed record Answered(IReadOnlyList<AnswerState>? Answers, LessonScore? Score, bool? Passed);
}

/// <summary>What somebody did with a lesson.</summary>
internal sealed record LearnerTook(
    string Name,
    double SeenShare,
    DateTimeOffset? CompletedAt,
    DateTimeOffset SeenLastAt,
    IReadOnlyList<AnswerState> Answers,
    LessonScore Score,
    bool? Passed
);
