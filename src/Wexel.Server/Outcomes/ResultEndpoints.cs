using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core.Learning;
using Wexel.Core.Scoring;
using Wexel.Core.Surveys;
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
    int Tries,
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

/// <summary>What was said of a lesson.</summary>
/// <param name="Title">What the survey is called; may be empty.</param>
/// <param name="Named">Whether all who replied were told that they are named.</param>
/// <param name="Results">What they said.</param>
internal sealed record SurveyView(string Title, bool Named, SurveyResults Results);

/// <summary>What came of lessons.</summary>
internal static class ResultEndpoints
{
    /// <summary>The most learners that a page lists; the file has all.</summary>
    internal const int MostLearners = 200;

    internal static void MapResults(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/results", (ResultsOverview overview, CancellationToken cancel) => overview.ReadAsync(cancel)).WithName("ResultsOverview");
        var group = routes.MapGroup("/api/lessons/{id:guid}/results");
        group.MapGet("", ReadAsync).WithName("Results");
        group.MapGet("/among", (Guid id, LessonResultsReader reader, CancellationToken cancel) => reader.ChoicesAsync(id, cancel)).WithName("ResultsAmong");
        group.MapGet("/pulse", PulseAsync).WithName("Pulse");
        group.MapGet("/survey", SurveyAsync).WithName("SurveyResults");
        group
            .MapGet("/questions/{question}/rescore", (Guid id, string question, Rescoring rescoring, CancellationToken cancel) =>
                AnswerAsync(rescoring.LookAsync(id, question, cancel))
            )
            .WithName("LookAtRescore");
        group
            .MapPost("/questions/{question}/rescore", (Guid id, string question, Rescoring rescoring, CancellationToken cancel) =>
                AnswerAsync(rescoring.DoAsync(id, question, cancel))
            )
            .WithName("Rescore");
        routes.MapGet("/api/lessons/{id:guid}/results.csv", FileAsync).ExcludeFromDescription();
        routes.MapGet("/api/lessons/{id:guid}/survey.csv", SurveyFileAsync).ExcludeFromDescription();
    }

    private static async Task<Results<Ok<LessonResultsView>, ProblemHttpResult>> ReadAsync(
        Guid id,
        Guid? outlet,
        Guid? group,
        LessonResultsReader reader,
        CancellationToken cancel
    )
    {
        if (await reader.LessonAsync(id, cancel) is not { Questions: var questions })
            return Problems.NotThere("lesson");
        var learners = await reader.LearnersAsync(id, new Among(outlet, group), cancel);
        var found = LessonResults.Of(questions, learners.ConvertAll(l => l.Answers));
        return TypedResults.Ok(
            new LessonResultsView(
                [
                    .. learners
                        .Take(MostLearners)
                        .Select(l => new LearnerResult(
                            l.Name,
                            l.SeenShare,
                            l.CompletedAt,
                            l.SeenLastAt,
                            l.Answers.Count,
                            l.Answers.Sum(a => a.Tries),
                            l.Score,
                            l.Passed
                        )),
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

    private static async Task<Results<Ok<LessonPulse>, ProblemHttpResult>> PulseAsync(
        Guid id,
        Guid? outlet,
        Guid? group,
        LessonResultsReader reader,
        CancellationToken cancel
    ) => await reader.PulseAsync(id, new Among(outlet, group), cancel) is { } pulse ? TypedResults.Ok(pulse) : Problems.NotThere("lesson");

    private static async Task<Results<Ok<SurveyView>, NoContent, ProblemHttpResult>> SurveyAsync(
        Guid id,
        Guid? outlet,
        Guid? group,
        LessonResultsReader reader,
        CancellationToken cancel
    )
    {
        if (await reader.LessonAsync(id, cancel) is not { } lesson)
            return Problems.NotThere("lesson");
        if (lesson.Survey is not { } survey)
            return TypedResults.NoContent();
        var (named, said) = await reader.SaidAsync(id, new Among(null, group), cancel);
        // Before anybody replied, it is what learners are told now.
        named &= said.Count > 0 || survey.Named;
        if (group is not null && !named)
            return TypedResults.Ok(new SurveyView(survey.Title, named, SurveyResults.OfGroup));
        List<SurveyReply> replies = [.. said.Select(s => s.Reply)];
        var results = outlet is { } place
            ? SurveyResults.At(survey, named, replies, await reader.OutletAsync(place, cancel))
            : SurveyResults.Of(survey, named, replies);
        return TypedResults.Ok(new SurveyView(survey.Title, named, results));
    }

    private static async Task<Results<Ok<RescoreOutcome>, ProblemHttpResult>> AnswerAsync(Task<RescoreOutcome?> outcome) =>
        await outcome is { } found ? TypedResults.Ok(found) : Problems.NotThere("question");

    /// <summary>All of it as a table, a learner a line.</summary>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> FileAsync(
        Guid id,
        Guid? outlet,
        Guid? group,
        LessonResultsReader reader,
        CancellationToken cancel
    ) =>
        await reader.LessonAsync(id, cancel) is { } lesson
            ? await ResultFiles.LearnersAsync(lesson.Questions, await reader.LearnersAsync(id, new Among(outlet, group), cancel))
            : Problems.NotThere("lesson");

    /// <summary>What was said, a reply a line; nothing where so few said it that somebody could tell who.</summary>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> SurveyFileAsync(Guid id, LessonResultsReader reader, CancellationToken cancel)
    {
        if (await reader.LessonAsync(id, cancel) is not { Survey: { } survey })
            return Problems.NotThere("survey");
        var (named, said) = await reader.SaidAsync(id, new Among(null, null), cancel);
        List<SurveyReply> replies = [.. said.Select(s => s.Reply)];
        var withheld = SurveyResults.Of(survey, named, replies).Withheld is not null;
        return await ResultFiles.SurveyAsync(survey, withheld ? [] : said, SurveyResults.MayBreakDown(named, replies));
    }
}
