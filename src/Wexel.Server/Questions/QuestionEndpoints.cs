using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Naming;
using Wexel.Core.Packages;
using Wexel.Core.Questions;
using Wexel.Core.Questions.Lists;
using Wexel.Core.Questions.Qti;
using Wexel.Data;
using Wexel.Making.Releasing;
using Wexel.Media.Tools;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Questions;

/// <summary>A question as a learner gets it, with what keeps it from being asked.</summary>
/// <param name="Faults">Why it cannot be asked yet, each in a sentence that says what to do.</param>
/// <param name="Asked">As the player asks it, with what is right, in recording time.</param>
internal sealed record QuestionLook(IReadOnlyList<string> Faults, PlayerQuestion Asked);

/// <param name="Text">A list of questions, in GIFT, Aiken or CSV.</param>
internal sealed record QuestionText(string Text);

/// <summary>Questions as they are written.</summary>
internal static class QuestionEndpoints
{
    private const int Most = 200;

    internal static void MapQuestions(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/questions/look", Look).WithName("LookAtQuestions");
        routes.MapPost("/api/questions/read", (QuestionText list) => TypedResults.Ok(QuestionList.Read(list.Text))).WithName("ReadQuestions");
        routes.MapPost("/api/questions/file", ReadFileAsync).WithName("ReadQuestionFile").Accepts<Stream>("application/octet-stream");
        routes.MapGet("/api/lessons/{id:guid}/questions-{version}.zip", PackageAsync).ExcludeFromDescription();
        routes.MapGet("/api/lessons/{id:guid}/questions.html", PaperAsync).ExcludeFromDescription();
    }

    /// <summary>Reads a file; nothing of it is kept.</summary>
    private static async Task<Results<Ok<QuestionList>, ProblemHttpResult>> ReadFileAsync(HttpRequest request, CancellationToken cancel)
    {
        request.TakeAtMost(QuestionFile.Largest);
        using var bytes = new MemoryStream();
        await request.Body.CopyToAsync(bytes, cancel);
        return QuestionFile.Read(bytes.ToArray()).Is(out var list, out var problem) ? TypedResults.Ok(list) : Problems.Answer(problem);
    }

    /// <summary>A lesson's questions as a QTI package.</summary>
    /// <param name="id">The lesson.</param>
    /// <param name="version">qti22 or qti30.</param>
    private static async Task<Results<ZipDownload, ProblemHttpResult>> PackageAsync(
        Guid id,
        string version,
        RenderPlans plans,
        QuestionPacker packer,
        CancellationToken cancel
    )
    {
        var qti = version switch
        {
            "qti22" => QtiVersion.V22,
            "qti30" => QtiVersion.V30,
            _ => (QtiVersion?)null,
        };
        if (qti is null || await plans.LessonAsync(id, cancel) is not { } lesson)
            return Problems.NotThere("lesson");
        try
        {
            var files = await packer.PackAsync(id.ToString("N"), lesson, qti.Value, cancel);
            return new ZipDownload(files, $"{FileName.Safe(lesson.Document.Title, "questions")} questions.zip");
        }
        catch (ToolFailedException)
        {
            return Problems.Answer(
                new Problem("questions-picture", "The recording cannot be read where a place on its picture is asked for. Look at it in Bring in.", "recording")
            );
        }
    }

    /// <summary>A lesson's questions for printing, what is right apart.</summary>
    private static async Task<Results<ContentHttpResult, ProblemHttpResult>> PaperAsync(Guid id, WexelDb db, LessonSaver lessons, CancellationToken cancel) =>
        await db.Lessons.FirstOrDefaultAsync(l => l.Id == id, cancel) is { } lesson && await lessons.CurrentAsync(lesson, cancel) is { } now
            ? TypedResults.Content(QuestionPaper.Html(now.Title, now.Language, now.Questions), "text/html; charset=utf-8")
            : Problems.NotThere("lesson");

    /// <summary>Looks at questions before they are saved: nothing is kept.</summary>
    private static Ok<IReadOnlyList<QuestionLook>> Look(IReadOnlyList<Question> questions) =>
        TypedResults.Ok<IReadOnlyList<QuestionLook>>([
            .. questions
                .Take(Most)
                .SelectMany(q => Question.Kind.Tidy([q], TimeSpan.MaxValue))
                .Select(q => new QuestionLook(q.Faults, PlayerQuestion.List([q], [], q.At)[0])),
        ]);
}
