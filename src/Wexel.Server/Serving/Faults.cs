using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics;
using Wexel.Core;
using Wexel.Data;
using Wexel.Media.Tools;
using Wexel.Server.Setup;
using Wexel.Server.Telemetry;

namespace Wexel.Server.Serving;

/// <summary>Says in a sentence what a request failed of: of itself, of the database, of a tool, or of Wexel.</summary>
internal sealed class Faults(Figures figures, ILogger<Faults> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        if (exception is OperationCanceledException && httpContext.RequestAborted.IsCancellationRequested)
            return true;
        var (problem, status) = Read(exception);
        if (status >= StatusCodes.Status500InternalServerError)
        {
            figures.Fault("request");
            log.LogError(exception, "{Method} {Path} failed", httpContext.Request.Method, httpContext.Request.Path);
        }

        if (status == StatusCodes.Status503ServiceUnavailable)
            httpContext.Response.Headers.RetryAfter = "5";
        await Problems.Answer(problem, status).ExecuteAsync(httpContext);
        return true;
    }

    /// <summary>Says it too where the framework itself has refused and only has a number for it: a body that grows too large while it is read.</summary>
    internal static void Say(ProblemDetailsContext context)
    {
        var details = context.ProblemDetails;
        if (details.Status != StatusCodes.Status413PayloadTooLarge || details.Extensions.ContainsKey("code"))
            return;
        (details.Title, details.Detail, details.Type) = (TooLarge.Sentence, TooLarge.Sentence, "urn:wexel:" + TooLarge.Code);
        details.Extensions["code"] = TooLarge.Code;
    }

    private static Problem TooLarge => new("body-too-large", "What was sent is larger than is taken here. Send less, or a smaller file.");

    private static (Problem Problem, int Status) Read(Exception exception) =>
        exception switch
        {
            BadHttpRequestException { StatusCode: StatusCodes.Status413PayloadTooLarge } => (TooLarge, StatusCodes.Status413PayloadTooLarge),
            BadHttpRequestException { InnerException: JsonException unreadable } => (
                new Problem(
                    "body-unreadable",
                    $"What was sent cannot be read{(unreadable.Path is { Length: > 2 } path ? $", at “{Shown(path[2..])}”" : "")}: {Reason(unreadable)}",
                    unreadable.Path is { Length: > 2 } field ? Shown(field[2..]) : null
                ),
                StatusCodes.Status400BadRequest
            ),
            BadHttpRequestException bad => (new Problem("request-unreadable", $"The request cannot be read: {bad.Message}"), bad.StatusCode),
            _ when DatabaseOutage.Is(exception) && exception is not Microsoft.EntityFrameworkCore.DbUpdateException => (
                new Problem("database-away", "The database does not answer. What you see stays; try again in a moment."),
                StatusCodes.Status503ServiceUnavailable
            ),
            ToolFailedException { MayPass: true } failed => (new Problem("tool-failed", failed.Advice), StatusCodes.Status503ServiceUnavailable),
            _ => (
                new Problem(
                    "wexel-failed",
                    "Wexel itself has failed at this. Try again; if it fails again, whoever looks after the server finds more in its log."
                ),
                StatusCodes.Status500InternalServerError
            ),
        };

    private static string Reason(JsonException unreadable) =>
        unreadable is UnusableTextException unusable ? unusable.Message
        : unreadable.Message.Contains("null", StringComparison.OrdinalIgnoreCase) ? "something is missing there that must be said."
        : "it is no such thing as is expected there.";

    private static string Shown(string path) => path.Length <= 60 ? path : path[..60] + "…";
}
