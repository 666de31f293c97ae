using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Wexel.Core;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.SignIn;

/// <param name="Code">The code of the second factor, or one to recover with; null where none was asked for yet.</param>
internal sealed record SignInRequest(string Email, string Password, string? Code = null);

/// <param name="SecondFactor">Whether a code is asked for beside the password.</param>
/// <param name="HasPassword">Whether they have a password; who signs in by a provider may have none.</param>
internal sealed record Me(string Name, string Email, bool Trainer, bool Administrator, bool SecondFactor, bool HasPassword);

/// <param name="Next">Where the browser goes to be signed out there too; null for nowhere.</param>
internal sealed record SignedOutHere(Uri? Next);

internal static class SignInEndpoints
{
    /// <summary>The code of the problem that a code of the second factor is needed beside the password.</summary>
    internal const string CodeNeeded = "sign-in-code";

    internal const string What = "sign-in";

    internal static void MapSignIn(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/sign-in", SignInAsync).AllowAnonymous().WithName("SignIn");
        routes.MapPost("/api/sign-out", SignOutAsync).RequireAuthorization().WithName("SignOut");
        routes.MapGet("/api/me", MeAsync).RequireAuthorization().WithName("Me");
    }

    private static async Task<Results<Ok<Me>, ProblemHttpResult>> SignInAsync(
        SignInRequest request,
        HttpContext http,
        SignInManager<Person> signIn,
        UserManager<Person> people,
        SignInLimits limits,
        SecondFactor second,
        SecurityLog log
    )
    {
        using var once = await limits.BeginAsync(http, request.Email);
        if (once.Wait is not null)
        {
            log.Write(What, request.Email, "refused", "too many tries");
            return once.TooOften(http, "sign-in-too-often", "password", "; in a browser where you have signed in before you may try at once");
        }

        var person = await people.FindByEmailAsync(request.Email);
        // An address that nobody has takes as long as one that somebody has, so that trying does not tell which there are.
        var right = person is not null ? await people.CheckPasswordAsync(person, request.Password) : Nobody(people, request.Password);
        if (person is null || !right)
            return Wrong(once, log, request.Email, person is null ? "no such account" : "wrong password");
        if (person.DisabledAt is not null)
            return Wrong(once, log, request.Email, "disabled");
        if (person.TwoFactorEnabled)
        {
            if (string.IsNullOrWhiteSpace(request.Code))
                return Problems.Answer(
                    new Problem(CodeNeeded, "Type the code that your authenticator app shows now, or one of your recovery codes.", "code"),
                    StatusCodes.Status401Unauthorized
                );
            if (!await second.TakeAsync(person, request.Code))
            {
                once.Failed();
                log.Write(What, request.Email, "refused", "wrong code");
                return Problems.Answer(
                    new Problem(CodeNeeded, "That code is not the one that is shown now, or it was used already. Wait for the next one and type that.", "code"),
                    StatusCodes.Status401Unauthorized
                );
            }
        }

        await signIn.SignInAsync(person, isPersistent: true);
        limits.Remember(http, request.Email);
        log.Write(What, person.Email, "done");
        return TypedResults.Ok(await ViewAsync(person, people));
    }

    private static ProblemHttpResult Wrong(SignInTry once, SecurityLog log, string account, string why)
    {
        once.Failed();
        log.Write(What, account, "refused", why);
        return Problems.Answer(
            new Problem("sign-in-failed", "That address and password do not go together. Check both and try again.", "password"),
            StatusCodes.Status401Unauthorized
        );
    }

    private static bool Nobody(UserManager<Person> people, string password)
    {
        people.PasswordHasher.VerifyHashedPassword(NobodyInParticular.Person, NobodyInParticular.Hash(people.PasswordHasher), password);
        return false;
    }

    private static async Task<Ok<SignedOutHere>> SignOutAsync(
        HttpContext http,
        SignInManager<Person> signIn,
        IEnumerable<ISignOutElsewhere> elsewhere,
        SecurityLog log
    )
    {
        Uri? next = null;
        foreach (var other in elsewhere)
            next ??= await other.NextAsync(http);
        await signIn.SignOutAsync();
        log.Write("sign-out", http.User.Identity?.Name, "done");
        return TypedResults.Ok(new SignedOutHere(next));
    }

    private static async Task<Results<Ok<Me>, UnauthorizedHttpResult>> MeAsync(ClaimsPrincipal user, UserManager<Person> people) =>
        await people.GetUserAsync(user) is { } person ? TypedResults.Ok(await ViewAsync(person, people)) : TypedResults.Unauthorized();

    private static async Task<Me> ViewAsync(Person person, UserManager<Person> people) =>
        new(
            person.DisplayName,
            person.Email!,
            await people.IsInRoleAsync(person, Roles.Trainer),
            await people.IsInRoleAsync(person, Roles.Administrator),
            person.TwoFactorEnabled,
            await people.HasPasswordAsync(person)
        );

    internal static Guid Id(this ClaimsPrincipal user) => Guid.Parse(user.FindFirstValue(ClaimTypes.NameIdentifier)!);

    /// <summary>Which session a request belongs to; null where it belongs to none.</summary>
    internal static Guid? Session(this ClaimsPrincipal user) => Guid.TryParse(user.FindFirstValue(SessionStore.Claim), out var id) ? id : null;

    /// <summary>Somebody with a password that nobody knows.</summary>
    private static class NobodyInParticular
    {
        private static string? _hash;

        internal static Person Person { get; } = new() { DisplayName = "" };

        internal static string Hash(IPasswordHasher<Person> hasher) => _hash ??= hasher.HashPassword(Person, Tokens.New());
    }
}
