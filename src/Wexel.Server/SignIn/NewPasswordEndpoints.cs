using Hangfire;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Wexel.Core;
using Wexel.Server.Setup;

namespace Wexel.Server.SignIn;

/// <param name="Email">The address of the account.</param>
internal sealed record PasswordForgotten(string Email);

/// <param name="Person">Whose password.</param>
/// <param name="Token">What stood in the link.</param>
/// <param name="Password">The new password.</param>
internal sealed record PasswordChosen(Guid Person, string Token, string Password);

/// <summary>How somebody who does not know their password gets another one.</summary>
internal static class NewPasswordEndpoints
{
    private const string What = "new password";

    internal static void MapNewPasswords(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/sign-in/forgotten", ForgottenAsync).AllowAnonymous().WithName("ForgetPassword");
        routes.MapPost("/api/sign-in/new-password", ChooseAsync).AllowAnonymous().WithName("ChoosePassword");
    }

    /// <summary>Has a link sent; the answer is the same whoever asks for whom, so that asking does not tell who has an account.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> ForgottenAsync(
        PasswordForgotten request,
        HttpContext http,
        SignInLimits limits,
        SecurityLog log,
        IBackgroundJobClient jobs
    )
    {
        using var once = await limits.BeginAsync(http, request.Email);
        if (once.Wait is not null)
            return once.TooOften(http, "password-too-often", "email");
        // A mail is as dear as a wrong password.
        once.Failed();
        log.Write(What, request.Email, "done", "asked for");
        jobs.Enqueue<NewPasswords>(mails => mails.SendAsync(request.Email.Trim(), CancellationToken.None));
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> ChooseAsync(
        PasswordChosen request,
        HttpContext http,
        NewPasswords passwords,
        SessionStore sessions,
        SignInLimits limits,
        SecurityLog log
    )
    {
        var account = request.Person.ToString("N");
        using var once = await limits.BeginAsync(http, account);
        if (once.Wait is not null)
            return once.TooOften(http, "password-too-often", "email");
        var taken = await passwords.TakeAsync(request.Person, request.Token, request.Password);
        if (taken.Succeeded)
        {
            // Whoever knew the old one is signed in nowhere any more.
            await sessions.EndAllAsync(request.Person, butNot: null);
            log.Write(What, account, "done");
            return TypedResults.NoContent();
        }

        if (taken.Errors.All(e => e.Code != nameof(IdentityErrorDescriber.InvalidToken)))
            return Problems.Answer(new Problem("password-weak", string.Join(' ', taken.Errors.Select(e => e.Description)), "password"));
        once.Failed();
        log.Write(What, account, "refused", "wrong link");
        return Problems.Answer(
            new Problem("password-link-over", "This link was used already, or is over, or is not whole. Have another one sent.", "token"),
            StatusCodes.Status401Unauthorized
        );
    }
}
