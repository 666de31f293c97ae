using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core.Packages;
using Wexel.Core.Questions;
using Wexel.Core.Questions.Lists;

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
    }

    /// <summary>Looks at questions before they are saved: nothing is kept.</summary>
    private static Ok<IReadOnlyList<QuestionLook>> Look(IReadOnlyList<Question> questions) =>
        TypedResults.Ok<IReadOnlyList<QuestionLook>>([
            .. questions
                .Take(Most)
                .SelectMany(q => Question.Kind.Tidy([q], TimeSpan.MaxValue))
                .Select(q => new QuestionLook(q.Faults, PlayerQuestion.List([q], [], q.At)[0])),
        ]);
}
