using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Npgsql;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Questions;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Questions;

/// <summary>A question that is kept for reuse.</summary>
/// <param name="Id">What names it in the pool.</param>
/// <param name="Question">The question, at no moment of any lesson.</param>
/// <param name="KeptBy">Who kept it last.</param>
/// <param name="KeptAt">When.</param>
internal sealed record PooledView(Guid Id, Question Question, string KeptBy, DateTimeOffset KeptAt);

/// <summary>Questions that are kept for reuse, in no lesson. A lesson that takes one has a copy: what is changed of either does not change the other.</summary>
internal sealed class QuestionPool(WexelDb db, TimeProvider clock)
{
    /// <summary>The most that are kept.</summary>
    internal const int Most = 5000;

    /// <summary>The most that are kept in one step.</summary>
    internal const int MostAtOnce = 200;

    /// <summary>All of it, what was kept last first.</summary>
    internal async Task<IReadOnlyList<PooledView>> ReadAsync(CancellationToken cancel) =>
        [
            .. (await db.PooledQuestions.AsNoTracking().OrderByDescending(p => p.KeptAt).ToListAsync(cancel)).Select(p => new PooledView(
                p.Id,
                WexelJson.Read<Question>(p.Question),
                p.KeptBy,
                p.KeptAt
            )),
        ];

    /// <summary>Keeps questions; one that asks the same as one that is there takes its place.</summary>
    /// <returns>Why they are not kept; null where they are.</returns>
    internal async Task<Problem?> KeepAsync(IReadOnlyList<Question> questions, string by, CancellationToken cancel)
    {
        if (questions.Count > MostAtOnce)
            return new Problem(
                "pool-too-many",
                $"{questions.Count:N0} questions are more than the pool takes in one step. Keep {MostAtOnce} at a time.",
                "questions"
            );
        var tidy = Question.Kind.Tidy(questions.Select(q => q with { At = default, Again = null }), TimeSpan.MaxValue);
        if (tidy.FirstOrDefault(q => q.Asks.IsOnPicture) is { } onPicture)
            return new Problem(
                "pool-picture",
                $"{Shown(onPicture)} is about a picture of its lesson, which another lesson has not. It cannot be kept for reuse.",
                "questions"
            );
        if (tidy.FirstOrDefault(q => q.Faults.Count > 0) is { } faulty)
            return new Problem("pool-not-ready", $"{Shown(faulty)} cannot be asked yet: {faulty.Faults[0]}", "questions");
        // Of two that ask the same, the later one is kept.
        var asked = tidy.GroupBy(Asks).ToDictionary(same => same.Key, same => same.Last());
        try
        {
            return await KeepAsync(asked, by, cancel);
        }
        catch (DbUpdateException failed) when (failed.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            // Somebody kept one that asks the same in this moment: it is there now, and its place is taken.
            db.ChangeTracker.Clear();
            return await KeepAsync(asked, by, cancel);
        }
    }

    private async Task<Problem?> KeepAsync(Dictionary<string, Question> asked, string by, CancellationToken cancel)
    {
        var known = await db.PooledQuestions.Where(p => asked.Keys.Contains(p.Asks)).ToDictionaryAsync(p => p.Asks, cancel);
        if (await db.PooledQuestions.CountAsync(cancel) + asked.Count - known.Count > Most)
            return new Problem("pool-full", $"The pool holds at most {Most:N0} questions. Take some out first.", "questions");
        foreach (var (asks, question) in asked)
        {
            if (!known.TryGetValue(asks, out var kept))
            {
                kept = new PooledQuestion
                {
                    Question = "",
                    Asks = asks,
                    KeptBy = by,
                };
                db.PooledQuestions.Add(kept);
            }

            (kept.Question, kept.Tags, kept.KeptBy, kept.KeptAt) = (WexelJson.Write(question), [.. question.Tags], by, clock.GetUtcNow());
        }

        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>What names what is asked: a question that asks the same has the same.</summary>
    private static string Asks(Question question) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes($"{question.Asks.Kind}\n{question.Text}")));

    /// <summary>Takes one out; lessons that have it keep it.</summary>
    /// <returns>Whether it was there.</returns>
    internal async Task<bool> RemoveAsync(Guid id, CancellationToken cancel) => await db.PooledQuestions.Where(p => p.Id == id).ExecuteDeleteAsync(cancel) > 0;

    private static string Shown(Question question) => $"“{Problem.Shown(question.Text.Length > 0 ? question.Text : question.Asks.InWords)}”";
}
