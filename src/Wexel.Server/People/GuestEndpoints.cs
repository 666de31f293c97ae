using Hangfire;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Wexel.Core;
using Wexel.Data.Model;
using Wexel.Server.Setup;
using Wexel.Server.SignIn;

namespace Wexel.Server.People;

/// <param name="Email">The mail address to which a code is to go.</param>
internal sealed record CodeWanted(string Email);

/// <param name="Email">The mail address to which the code went.</param>
/// <param name="Code">The code.</param>
internal sealed record CodeTyped(string Email, string Code);

/// <summary>How people who are named sign in without an account.</summary>
internal static class GuestEndpoints
{
    private const string What = "code by mail";

    internal static void MapGuests(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/sign-in/code", WantAsync).AllowAnonymous().WithName("WantCode");
        routes.MapPost("/api/sign-in/code/typed", TypedAsync).AllowAnonymous().WithName("SignInByCode");
    }

    /// <summary>Has a code sent; the answer is the same whoever asks for whom, so that asking does not tell who is named.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> WantAsync(
        CodeWanted request,
        HttpContext http,
        SignInLimits limits,
        SecurityLog log,
        IBackgroundJobClient jobs
    )
    {
        using var once = await limits.BeginAsync(http, request.Email);
        if (once.Wait is not null)
            return once.TooOften(http, "code-too-often", "email");
        // A mail is as dear as a wrong password.
        once.Failed();
        log.Write(What, request.Email, "done", "asked for");
        jobs.Enqueue<MailedCodes>(codes => codes.SendAsync(request.Email.Trim(), CancellationToken.None));
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> TypedAsync(
        CodeTyped request,
        HttpContext http,
        SignInManager<Person> signIn,
        MailedCodes codes,
        SignInLimits limits,
        SecurityLog log,
        CancellationToken cancel
    )
    {
        using var once = await limits.BeginAsync(http, request.Email);
        if (once.Wait is not null)
            return once.TooOften(http, "code-too-often", "code");
        if (await codes.TakeAsync(request.Email, request.Code, cancel) is not { } guest)
        {
            once.Failed();
            log.Write(What, request.Email, "refused", "wrong code");
            return Problems.Answer(
                new Problem("code-wrong", "That is not the code of the last mail, or it is over or was used. Have another one sent.", "code"),
                StatusCodes.Status401Unauthorized
            );
        }

        await signIn.SignInAsync(guest, isPersistent: true);
        log.Write(What, request.Email, "done");
        return TypedResults.NoContent();
    }
}
