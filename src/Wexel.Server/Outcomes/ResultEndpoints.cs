using System.Globalization;
using CsvHelper;
using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core.Learning;
using Wexel.Core.Questions;
using Wexel.Core.Scoring;
using Wexel.Server.Setup;

namespace Wexel.Server.Outcomes;

/// <summary>What came of a lesson.</summary>
/// <param name="Learners">Who took it, whoever was there last first; at most <see cref="ResultEndpoints.MostLearners"/>.</param>
/// <param name="All">How many took it.</param>
/// <param name="Completed">How many have completed it.</param>
/// <param name="Questions">What each question did; none of a lesson that asks nothing.</param>
/// <param name="Whole">How many answered all of them.</param>
/// <param name="Alpha">How reliable they are as a whole (Cronbach's alpha); null where that cannot be said.</param>
internal sealed record LessonResultsView(
    IReadOnlyList<LearnerResult> Learners,
    int All,
    int Completed,
    IReadOnlyList<QuestionResultView> Questions,
    int Whole,
    double? Alpha
);

/// <summary>What somebody did with a lesson.</summary>
internal sealed record LearnerResult(
    string Name,
    double SeenShare,
    DateTimeOffset? CompletedAt,
    DateTimeOffset SeenLastAt,
    int Answered,
    LessonScore Score,
    bool? Passed
);

/// <summary>What a question did among learners.</summary>
/// <param name="Id">Its name inside the lesson.</param>
/// <param name="At">Where it stands, in recording time.</param>
/// <param name="Text">What is asked.</param>
/// <param name="Kind">Its kind, in words.</param>
/// <param name="Statistics">Difficulty and discrimination.</param>
/// <param name="Answers">How often each answer was taken, the most frequent first.</param>
/// <param name="Others">How many took an answer that is not listed.</param>
/// <param name="MissedByMost">Whether most of those who answered missed it.</param>
internal sealed record QuestionResultView(
    string Id,
    TimeSpan At,
    string Text,
    string Kind,
    ItemStatistics Statistics,
    IReadOnlyList<AnswerCount> Answers,
    int Others,
    bool MissedByMost
);

/// <summary>What came of lessons.</summary>
internal static class ResultEndpoints
{
    /// <summary>The most learners that a page lists; the file has all.</summary>
    internal const int MostLearners = 200;

    internal static void MapResults(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/lessons/{id:guid}/results", ReadAsync).WithName("Results");
        routes.MapGet("/api/lessons/{id:guid}/results.csv", FileAsync).ExcludeFromDescription();
    }

    private static async Task<Results<Ok<LessonResultsView>, ProblemHttpResult>> ReadAsync(Guid id, LessonResultsReader reader, CancellationToken cancel)
    {
        if (await reader.QuestionsAsync(id, cancel) is not { } questions)
            return Problems.NotThere("lesson");
        var learners = await reader.LearnersAsync(id, cancel);
        var found = LessonResults.Of(questions, learners.ConvertAll(l => l.Answers));
        return TypedResults.Ok(
            new LessonResultsView(
                [
                    .. learners
                        .Take(MostLearners)
                        .Select(l => new LearnerResult(l.Name, l.SeenShare, l.CompletedAt, l.SeenLastAt, l.Answers.Count, l.Score, l.Passed)),
                ],
                learners.Count,
                learners.Count(l => l.CompletedAt is not null),
                [
                    .. questions.Zip(found.Questions, (q, r) =>
                        new QuestionResultView(q.Id, q.At, q.Text, q.Asks.InWords, r.Statistics, r.Answers, r.Others, r.IsMissedByMost)
                    ),
                ],
                found.Whole,
                found.Alpha
            )
        );
    }

    /// <summary>All of it as a table, a learner a line.</summary>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> FileAsync(Guid id, LessonResultsReader reader, CancellationToken cancel)
    {
        if (await reader.QuestionsAsync(id, cancel) is not { } questions)
            return Problems.NotThere("lesson");
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        await using (var csv = new CsvWriter(text, CultureInfo.InvariantCulture, leaveOpen: true))
        {
            foreach (var title in new[] { "learner", "seen in per cent", "completed", "passed", "points", "of", "last there" })
                csv.WriteField(title);
            foreach (var question in questions)
            {
                csv.WriteField(Plain(question.Text.Length > 0 ? question.Text : question.Asks.InWords));
                csv.WriteField("points");
                csv.WriteField("tries");
            }

            await csv.NextRecordAsync();
            foreach (var learner in await reader.LearnersAsync(id, cancel))
                await WriteAsync(csv, learner, questions);
        }

        return TypedResults.File(
            System.Text.Encoding.UTF8.GetPreamble().Concat(System.Text.Encoding.UTF8.GetBytes(text.ToString())).ToArray(),
            "text/csv; charset=utf-8",
            "results.csv"
        );
    }

    private static async Task WriteAsync(CsvWriter csv, LearnerTook learner, IReadOnlyList<Question> questions)
    {
        csv.WriteField(Plain(learner.Name));
        csv.WriteField(Math.Floor(learner.SeenShare * 100));
        csv.WriteField(learner.CompletedAt?.ToString("O", CultureInfo.InvariantCulture) ?? "");
        csv.WriteField(
            learner.Passed switch
            {
                true => "yes",
                false => "no",
                _ => "",
            }
        );
        csv.WriteField(learner.Score.Raw);
        csv.WriteField(learner.Score.Max);
        csv.WriteField(learner.SeenLastAt.ToString("O", CultureInfo.InvariantCulture));
        var known = learner.Answers.ToDictionary(a => a.Question);
        foreach (var question in questions)
        {
            var answer = known.GetValueOrDefault(question.Id);
            csv.WriteField(answer is null ? "" : Plain(question.Asks.Said(answer.Answer)));
            csv.WriteField(answer is null ? "" : (answer.Share * question.Points).ToString("0.##", CultureInfo.InvariantCulture));
            csv.WriteField(answer?.Tries.ToString(CultureInfo.InvariantCulture) ?? "");
        }

        await csv.NextRecordAsync();
    }

    /// <summary>A text that no table program takes for a formula (OWASP, CSV injection): what begins like one gets an apostrophe before it.</summary>
    private static string Plain(string text) => text.Length > 0 && "=+-@\t\r".Contains(text[0], StringComparison.Ordinal) ? "'" + text : text;
}
