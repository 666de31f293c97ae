using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core;

namespace Wexel.Server.Setup;

/// <summary>Puts what a person can mend on the wire (RFC 9457).</summary>
internal static class Problems
{
    internal static ProblemHttpResult Answer(Problem problem, int status = StatusCodes.Status422UnprocessableEntity) =>
        TypedResults.Problem(
            detail: problem.Sentence,
            statusCode: status,
            title: problem.Sentence,
            type: "urn:wexel:" + problem.Code,
            extensions: new Dictionary<string, object?> { ["code"] = problem.Code, ["field"] = problem.Field }
        );

    internal static ProblemHttpResult NotThere(string what) =>
        Answer(new Problem("not-there", $"There is no such {what}; it may have been removed."), StatusCodes.Status404NotFound);
}
