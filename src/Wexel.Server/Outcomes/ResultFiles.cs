using System.Globalization;
using CsvHelper;
using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core.Questions;
using Wexel.Core.Surveys;

namespace Wexel.Server.Outcomes;

/// <summary>What came of a lesson as tables (CSV, RFC 4180).</summary>
internal static class ResultFiles
{
    private static readonly string[] OfLearner = ["learner", "seen in per cent", "completed", "passed", "points", "of", "last there"];
    private static readonly string[] OfNamed = ["learner", "when", "where"];
    private static readonly string[] OfAnonymous = ["where"];

    /// <summary>Who took it, a learner a line.</summary>
    internal static Task<FileContentHttpResult> LearnersAsync(IReadOnlyList<Question> questions, IReadOnlyList<LearnerTook> learners) =>
        WriteAsync("results.csv", async csv =>
        {
            foreach (var title in OfLearner)
                csv.WriteField(title);
            foreach (var question in questions)
            {
                csv.WriteField(Plain(question.Text.Length > 0 ? question.Text : question.Asks.InWords));
                csv.WriteField("points");
                csv.WriteField("tries");
            }

            await csv.NextRecordAsync();
            foreach (var learner in learners)
                await WriteAsync(csv, learner, questions);
        });

    /// <summary>What was said of it, a reply a line. Of anonymous replies the order says nothing.</summary>
    /// <param name="survey">What was asked.</param>
    /// <param name="said">The replies.</param>
    /// <param name="byPlace">Whether it may be said where each was given.</param>
    internal static Task<FileContentHttpResult> SurveyAsync(Survey survey, IReadOnlyList<SaidOfLesson> said, bool byPlace) =>
        WriteAsync("survey.csv", async csv =>
        {
            var named = said.Any(s => s.Who is not null);
            foreach (var title in named ? OfNamed : OfAnonymous)
                csv.WriteField(title);
            foreach (var item in survey.Items)
                csv.WriteField(Plain(item.Text));
            await csv.NextRecordAsync();
            foreach (var one in said.OrderBy(s => s.When).ThenBy(s => string.Join('\n', s.Reply.Values.Values.SelectMany(v => v)), StringComparer.Ordinal))
            {
                if (named)
                {
                    csv.WriteField(Plain(one.Who ?? ""));
                    csv.WriteField(Written(one.When));
                }

                csv.WriteField(byPlace ? Plain(one.Reply.At) : "");
                foreach (var item in survey.Items)
                    csv.WriteField(Plain(one.Reply.Values.TryGetValue(item.Id, out var values) ? item.Said(item.Taken(values)) : ""));
                await csv.NextRecordAsync();
            }
        });

    private static async Task WriteAsync(CsvWriter csv, LearnerTook learner, IReadOnlyList<Question> questions)
    {
        csv.WriteField(Plain(learner.Name));
        csv.WriteField(Math.Floor(learner.SeenShare * 100));
        csv.WriteField(Written(learner.CompletedAt));
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
        csv.WriteField(Written(learner.SeenLastAt));
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

    private static async Task<FileContentHttpResult> WriteAsync(string name, Func<CsvWriter, Task> write)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        await using (var csv = new CsvWriter(text, CultureInfo.InvariantCulture, leaveOpen: true))
            await write(csv);
        byte[] file = [.. System.Text.Encoding.UTF8.GetPreamble(), .. System.Text.Encoding.UTF8.GetBytes(text.ToString())];
        return TypedResults.File(file, "text/csv; charset=utf-8", name);
    }

    private static string Written(DateTimeOffset? time) => time?.ToString("O", CultureInfo.InvariantCulture) ?? "";

    /// <summary>A text that no table program takes for a formula (OWASP, CSV injection): what begins like one gets an apostrophe before it.</summary>
    private static string Plain(string text) => text.Length > 0 && "=+-@\t\r".Contains(text[0], StringComparison.Ordinal) ? "'" + text : text;
}
