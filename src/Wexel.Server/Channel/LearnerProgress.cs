using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core;
using Wexel.Core.Learning;
using Wexel.Core.Packages;
using Wexel.Core.People;
using Wexel.Core.Scoring;
using Wexel.Core.Timing;
using Wexel.Server.Learning;
using Wexel.Server.People;
using Wexel.Server.Serving;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Channel;

/// <summary>What a player sends: ranges watched since the last time, and the place.</summary>
/// <param name="Opened">What the server said when the page was opened, see <see cref="ProgressState.Opened"/>.</param>
/// <param name="Event">What names this report, 32 hexadecimal digits: sent again, it counts once.</param>
/// <param name="Again">What was watched once more on this page; null for nothing.</param>
internal sealed record ProgressReport(
    string Learner,
    IReadOnlyList<IReadOnlyList<long>> Watched,
    long Position,
    string? Opened = null,
    string? Event = null,
    IReadOnlyList<IReadOnlyList<long>>? Again = null
);

/// <summary>An answer to a question.</summary>
/// <param name="Learner">The key that the learner's browser made.</param>
/// <param name="Event">What names this answer, 32 hexadecimal digits: sent again, it counts once.</param>
/// <param name="Question">The question's name inside the lesson.</param>
/// <param name="Answer">The values of the answer.</param>
/// <param name="Took">How long it took, in milliseconds.</param>
internal sealed record AnswerReport(string Learner, string Event, string Question, IReadOnlyList<string> Answer, long? Took = null);

/// <summary>What is known about a learner: all ranges, the place, what was answered, and whether the lesson is complete.</summary>
/// <param name="Answers">What was answered, question by question.</param>
/// <param name="Passed">Whether the lesson was passed or failed; null where that is not decided.</param>
/// <param name="NotAsked">The questions that this learner is not asked, where the lesson draws among them; said once, when the page is opened.</param>
/// <param name="Surveyed">Whether they said what they think of the lesson; said once, when the page is opened.</param>
/// <param name="Opened">To be sent along with reports: as much as has passed since then can have been watched.</param>
internal sealed record ProgressState(
    IReadOnlyList<IReadOnlyList<long>> Watched,
    long Position,
    double SeenShare,
    bool Complete,
    IReadOnlyList<AnswerKnown> Answers,
    LessonScore Score,
    bool? Passed,
    IReadOnlyList<string> NotAsked,
    bool Surveyed,
    string Opened
);

/// <summary>What is known of a learner's answers to a question.</summary>
/// <param name="Question">The question's name inside the lesson.</param>
/// <param name="Tries">How often it was answered.</param>
/// <param name="Share">The best share of its points.</param>
/// <param name="Right">Whether an answer was wholly right.</param>
/// <param name="Answer">The last answer.</param>
internal sealed record AnswerKnown(string Question, int Tries, double Share, bool Right, IReadOnlyList<string> Answer);

/// <summary>What is said to an answer.</summary>
/// <param name="Counted">Whether it counted; not where the question was right before, or no try was left.</param>
/// <param name="Right">Whether it is wholly right.</param>
/// <param name="Share">What it comes to by itself, 0 to 1.</param>
/// <param name="Says">What is said to it, in order.</param>
/// <param name="Solution">The right answer in words, where no try is left.</param>
/// <param name="Known">What is known now.</param>
internal sealed record AnswerJudged(bool Counted, bool Right, double Share, IReadOnlyList<string> Says, string? Solution, ProgressState Known);

/// <summary>How far learners are, and what they answer.</summary>
internal static class LearnerProgress
{
    private const int MostRanges = 2000;

    internal static void Map(IEndpointRouteBuilder group)
    {
        group.MapGet("/watch/{token}/progress", ReadAsync);
        group.MapPost("/watch/{token}/progress", WriteAsync).RequireRateLimiting(Limits.Progress);
        group.MapPost("/watch/{token}/answers", AnswerAsync).RequireRateLimiting(Limits.Progress);
    }

    private static async Task<Results<Ok<ProgressState>, NotFound, UnauthorizedHttpResult, ProblemHttpResult>> ReadAsync(
        string token,
        string learner,
        HttpContext http,
        KnownReleases releases,
        Viewers viewers,
        OpenedPages opened,
        LearningLog log,
        Surveys surveys,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (await releases.FindAsync(token, cancel) is not { } release)
            return TypedResults.NotFound();
        if (!Seeing.May(release.Shown, await viewers.FindAsync(http.User, cancel), SeenIn.Address, clock.GetUtcNow()))
            return TypedResults.Unauthorized();
        return LearnerKeys.From(learner, http.User) is { } key
            ? TypedResults.Ok(
                State(await log.LearnerAsync(release.Taken, key, cancel), opened.Now(), await surveys.DidAsync(release.Taken.LessonId, key, cancel))
            )
            : LearnerKeys.Unusable();
    }

    private static async Task<Results<Ok<ProgressState>, NotFound, UnauthorizedHttpResult, ProblemHttpResult>> WriteAsync(
        string token,
        ProgressReport report,
        HttpContext http,
        KnownReleases releases,
        Viewers viewers,
        LearningLog log,
        OpenedPages opened,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (await releases.FindAsync(token, cancel) is not { } release)
            return TypedResults.NotFound();
        if (!Seeing.May(release.Shown, await viewers.FindAsync(http.User, cancel), SeenIn.Address, clock.GetUtcNow()))
            return TypedResults.Unauthorized();
        if (!AreRanges(report.Watched) || !AreRanges(report.Again ?? []) || !IsEvent(report.Event, out var id))
            return Problems.Answer(
                new Problem(
                    "progress-unusable",
                    "A report holds at most 2,000 ranges, each a start and an end in milliseconds, and is named by 32 hexadecimal digits or not at all."
                ),
                StatusCodes.Status400BadRequest
            );
        if (LearnerKeys.From(report.Learner, http.User) is not { } key)
            return LearnerKeys.Unusable();
        return
            await log.AddAsync(
                release.Taken,
                Asking(key, http),
                new WatchedReport(id, Ranges(report.Watched), Milliseconds(report.Position), report.Opened, Ranges(report.Again ?? [])),
                cancel
            )
                is { } known
            ? TypedResults.Ok(State(known, report.Opened ?? opened.Now()))
            : TooMany();
    }

    /// <summary>Takes an answer and judges it as the question was released; the page does not know what is right.</summary>
    private static async Task<Results<Ok<AnswerJudged>, NotFound, UnauthorizedHttpResult, ProblemHttpResult>> AnswerAsync(
        string token,
        AnswerReport report,
        HttpContext http,
        ChannelReader reader,
        Viewers viewers,
        LearningLog log,
        OpenedPages opened,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (await reader.FindAsync(token, cancel) is not { } release)
            return TypedResults.NotFound();
        if (!Seeing.May(release.Shown(), await viewers.FindAsync(http.User, cancel), SeenIn.Address, clock.GetUtcNow()))
            return TypedResults.Unauthorized();
        var fits = report.Answer.Count <= AnswerKey.MostValues && report.Answer.All(v => v.Length <= AnswerKey.LongestValue);
        if (!fits || !IsEvent(report.Event, out var id) || id is null)
            return Problems.Answer(
                new Problem(
                    "answer-unusable",
                    $"An answer has at most {AnswerKey.MostValues} values of {AnswerKey.LongestValue} characters, and is named by 32 hexadecimal digits."
                ),
                StatusCodes.Status400BadRequest
            );
        if (LearnerKeys.From(report.Learner, http.User) is not { } learner)
            return LearnerKeys.Unusable();
        if (PlayerLesson.Format.Read(release.Player).Questions.FirstOrDefault(q => q.Id == report.Question) is not { Key: { } key } question)
            return Problems.Answer(new Problem("question-gone", "That question is not asked any more. Load the page again.", "question"));
        var taken = new Taken(release.LessonId, release.OutletId, release.Id, release.Revision);
        var took = report.Took is { } ms ? Milliseconds(ms) : (TimeSpan?)null;
        if (await log.AnswerAsync(taken, Asking(learner, http), new AnswerGiven(id.Value, question, report.Answer, took), cancel) is not { } known)
            return TooMany();
        var grade = key.Judge.Judge(report.Answer);
        if (known.Now.Answers.FirstOrDefault(a => a.Question == question.Id) is not { } state)
            return Problems.Answer(new Problem("question-not-asked", "You are asked other questions of this lesson. Load the page again.", "question"));
        // Nothing is said to one that did not count: otherwise it would be one more try.
        return TypedResults.Ok(
            new AnswerJudged(
                known.Counted,
                known.Counted ? grade.Right : state.Right,
                known.Counted ? grade.Share : state.Share,
                known.Counted ? [.. grade.Replies.Append(grade.Right ? key.Right : key.Wrong).Where(says => says.Length > 0)] : [],
                state.IsDone(question.Tries) && !state.Right ? key.Answer : null,
                State(known.Now, opened.Now())
            )
        );
    }

    internal static Learner Asking(string key, HttpContext http) =>
        new(key, http.User.FindFirstValue(ClaimTypes.GivenName), http.Connection.RemoteIpAddress?.ToString() ?? "");

    private static ProblemHttpResult TooMany() =>
        Problems.Answer(
            new Problem(
                "learners-too-many",
                "Too many new learners began this lesson from one address. What this browser has seen is kept in it; it is reported again later."
            ),
            StatusCodes.Status429TooManyRequests
        );

    private static ProgressState State(LearnerNow known, string opened, bool surveyed = false) =>
        new(
            [.. known.Watched.Select(r => new[] { (long)r.Start.TotalMilliseconds, (long)r.End.TotalMilliseconds })],
            (long)known.Position.TotalMilliseconds,
            known.SeenShare,
            known.Complete,
            [.. known.Answers.Select(a => new AnswerKnown(a.Question, a.Tries, a.Share, a.Right, a.Answer))],
            known.Score,
            known.Passed,
            known.NotAsked,
            surveyed,
            opened
        );

    private static bool AreRanges(IReadOnlyList<IReadOnlyList<long>> ranges) => ranges.Count <= MostRanges && ranges.All(r => r.Count == 2 && r[1] >= r[0]);

    private static IReadOnlyList<TimeRange> Ranges(IReadOnlyList<IReadOnlyList<long>> ranges) =>
        [.. ranges.Select(r => new TimeRange(Milliseconds(r[0]), Milliseconds(r[1])))];

    private static TimeSpan Milliseconds(long time) => TimeSpan.FromMilliseconds(Math.Clamp(time, 0, int.MaxValue));

    /// <summary>Whether a report has a usable name, or none.</summary>
    private static bool IsEvent(string? text, out Guid? id)
    {
        var named = Guid.TryParseExact(text, "N", out var read);
        id = named ? read : null;
        return named || text is null;
    }
}
