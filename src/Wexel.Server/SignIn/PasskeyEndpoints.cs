using System.Security.Claims;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.WebUtilities;
using Wexel.Core;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.SignIn;

/// <param name="Id">Which, in base64url.</param>
/// <param name="Name">What its owner calls it.</param>
/// <param name="Since">Since when.</param>
internal sealed record PasskeyView(string Id, string Name, DateTimeOffset Since);

/// <summary>What a browser is asked, or answers, as Web Authentication Level 3 writes it (section 5.1.8 and 5.1.9).</summary>
/// <param name="Said">The JSON.</param>
internal sealed record PasskeyWords(JsonElement Said);

/// <param name="Name">What its owner calls it.</param>
/// <param name="Said">What the browser answered.</param>
internal sealed record NewPasskey(string Name, JsonElement Said);

/// <summary>Signing in by a key that a device keeps (W3C Web Authentication Level 3), which no other site can have shown to it.</summary>
internal static class PasskeyEndpoints
{
    private const string What = "passkey";
    private const int Most = 20;
    private const int LongestName = 100;

    internal static void MapPasskeys(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/me/passkeys").RequireAuthorization();
        group.MapGet("", ListAsync).WithName("Passkeys");
        group.MapPost("begun", BeginAsync).WithName("BeginPasskey");
        group.MapPost("", AddAsync).WithName("AddPasskey");
        group.MapDelete("{id}", RemoveAsync).WithName("RemovePasskey");
        routes.MapPost("/api/sign-in/passkey/asked", AskAsync).AllowAnonymous().WithName("AskPasskey");
        routes.MapPost("/api/sign-in/passkey", SignInAsync).AllowAnonymous().WithName("SignInByPasskey");
    }

    private static async Task<Ok<List<PasskeyView>>> ListAsync(ClaimsPrincipal user, UserManager<Person> people) =>
        TypedResults.Ok<List<PasskeyView>>([
            .. (await people.GetPasskeysAsync((await people.GetUserAsync(user))!))
                .OrderBy(k => k.CreatedAt)
                .Select(k => new PasskeyView(WebEncoders.Base64UrlEncode(k.CredentialId), k.Name ?? "", k.CreatedAt)),
        ]);

    private static async Task<Results<Ok<PasskeyWords>, ProblemHttpResult>> BeginAsync(
        PasswordProof proof,
        HttpContext http,
        SignInManager<Person> signIn,
        UserManager<Person> people,
        SessionStore sessions,
        SignInLimits limits,
        SecurityLog log
    )
    {
        var (person, problem) = await AccountProof.WhoAsync(proof.Password, "password", http, people, sessions, limits, log, What);
        if (person is null)
            return problem!;
        if ((await people.GetPasskeysAsync(person)).Count >= Most)
            return Problems.Answer(new Problem("passkey-too-many", $"You have {Most} passkeys. Remove one that you do not use any more first."));
        return TypedResults.Ok(
            Words(
                await signIn.MakePasskeyCreationOptionsAsync(
                    new PasskeyUserEntity
                    {
                        Id = person.Id.ToString(),
                        Name = person.Email!,
                        DisplayName = person.DisplayName,
                    }
                )
            )
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> AddAsync(
        NewPasskey key,
        ClaimsPrincipal user,
        SignInManager<Person> signIn,
        UserManager<Person> people,
        SecurityLog log
    )
    {
        var person = (await people.GetUserAsync(user))!;
        var made = await signIn.PerformPasskeyAttestationAsync(key.Said.GetRawText());
        // What was begun by somebody else in this browser is nobody’s.
        if (!made.Succeeded || made.UserEntity.Id != person.Id.ToString())
        {
            log.Write(What, person.Email, "refused", made.Failure?.Message ?? "begun by somebody else");
            return Problems.Answer(new Problem("passkey-not-made", "The passkey was not taken. Begin again; it may have taken too long.", "name"));
        }

        made.Passkey.Name = key.Name.Trim() is { Length: > 0 } name ? name[..Math.Min(name.Length, LongestName)] : "Passkey";
        await people.AddOrUpdatePasskeyAsync(person, made.Passkey);
        log.Write(What, person.Email, "done", "added");
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(string id, ClaimsPrincipal user, UserManager<Person> people, SecurityLog log)
    {
        var person = (await people.GetUserAsync(user))!;
        if ((await people.GetPasskeysAsync(person)).FirstOrDefault(k => WebEncoders.Base64UrlEncode(k.CredentialId) == id) is not { } key)
            return Problems.NotThere("passkey");
        await people.RemovePasskeyAsync(person, key.CredentialId);
        log.Write(What, person.Email, "done", "removed");
        return TypedResults.NoContent();
    }

    /// <summary>Asks for any passkey: whose it is, the device says.</summary>
    private static async Task<Ok<PasskeyWords>> AskAsync(SignInManager<Person> signIn) =>
        TypedResults.Ok(Words(await signIn.MakePasskeyRequestOptionsAsync(user: null)));

    private static async Task<Results<NoContent, ProblemHttpResult>> SignInAsync(
        PasskeyWords answer,
        HttpContext http,
        SignInManager<Person> signIn,
        UserManager<Person> people,
        SignInLimits limits,
        SecurityLog log
    )
    {
        using var once = await limits.BeginAsync(http, What);
        if (once.Wait is not null)
            return once.TooOften(http, "sign-in-too-often", "passkey");
        var shown = await signIn.PerformPasskeyAssertionAsync(answer.Said.GetRawText());
        if (!shown.Succeeded || shown.User.DisabledAt is not null)
        {
            once.Failed();
            log.Write(SignInEndpoints.What, shown.User?.Email, "refused", shown.Failure?.Message ?? "disabled");
            return Problems.Answer(
                new Problem("passkey-wrong", "That passkey opens no account here, or it took too long. Try again, or sign in with your password.", "passkey"),
                StatusCodes.Status401Unauthorized
            );
        }

        // How often it was used is kept, so that a copy of it is noticed (section 6.1.1).
        await people.AddOrUpdatePasskeyAsync(shown.User, shown.Passkey);
        await signIn.SignInAsync(shown.User, isPersistent: true);
        limits.Remember(http, shown.User.Email!);
        log.Write(SignInEndpoints.What, shown.User.Email, "done", What);
        return TypedResults.NoContent();
    }

    private static PasskeyWords Words(string json) => new(JsonDocument.Parse(json).RootElement);
}
