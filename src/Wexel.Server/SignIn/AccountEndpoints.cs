using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using QRCoder;
using Wexel.Core;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.SignIn;

/// <param name="Here">Whether it is the browser that asks.</param>
internal sealed record SessionView(Guid Id, DateTimeOffset Since, DateTimeOffset SeenAt, string? Address, string? Browser, bool Here);

internal sealed record PasswordChange(string Now, string Wanted);

/// <param name="Key">What is typed into an app that reads no pictures, in Base32.</param>
/// <param name="Picture">What an app reads, as an SVG.</param>
internal sealed record SecondFactorBegun(string Key, string Picture);

internal sealed record SecondFactorCode(string Code);

internal sealed record RecoveryCodes(IReadOnlyList<string> Codes);

internal sealed record PasswordProof(string Password);

/// <summary>One's own account: its password, where it is signed in, and the second factor.</summary>
internal static class AccountEndpoints
{
    internal static void MapAccount(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/me").RequireAuthorization();
        group.MapGet("sessions", SessionsAsync).WithName("Sessions");
        group.MapDelete("sessions/{id:guid}", EndAsync).WithName("EndSession");
        group.MapPut("password", ChangeAsync).WithName("ChangePassword");
        group.MapPost("second-factor", BeginAsync).WithName("BeginSecondFactor");
        group.MapPut("second-factor", ConfirmAsync).WithName("ConfirmSecondFactor");
        group.MapDelete("second-factor", EndSecondAsync).WithName("EndSecondFactor");
    }

    private static async Task<Ok<List<SessionView>>> SessionsAsync(WexelDb db, ClaimsPrincipal user, TimeProvider clock, CancellationToken cancel)
    {
        var (person, here, now) = (user.Id(), user.Session(), clock.GetUtcNow());
        return TypedResults.Ok(
            await db
                .SignedIn.Where(s => s.PersonId == person && s.ExpiresAt > now)
                .OrderByDescending(s => s.SeenAt)
                .Select(s => new SessionView(s.Id, s.Since, s.SeenAt, s.Address, s.Browser, s.Id == here))
                .ToListAsync(cancel)
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> EndAsync(Guid id, SessionStore sessions, ClaimsPrincipal user, SecurityLog log)
    {
        if (!await sessions.EndAsync(user.Id(), id))
            return Problems.NotThere("session");
        log.Write("end session", user.Identity!.Name, "done");
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> ChangeAsync(
        PasswordChange wanted,
        HttpContext http,
        UserManager<Person> people,
        SessionStore sessions,
        SignInLimits limits,
        SecurityLog log
    )
    {
        var (person, problem) = await AccountProof.WhoAsync(wanted.Now, "now", http, people, sessions, limits, log, "change password");
        if (person is null)
            return problem!;
        var changed = await people.ChangePasswordAsync(person, wanted.Now, wanted.Wanted);
        if (!changed.Succeeded)
            return Problems.Answer(new Problem("password-weak", string.Join(' ', changed.Errors.Select(e => e.Description)), "wanted"));
        await sessions.EndAllAsync(person.Id, http.User.Session());
        log.Write("change password", person.Email, "done");
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<SecondFactorBegun>, ProblemHttpResult>> BeginAsync(
        PasswordProof proof,
        HttpContext http,
        UserManager<Person> people,
        SecondFactor second,
        SessionStore sessions,
        SignInLimits limits,
        SecurityLog log,
        IOptions<WexelOptions> options
    )
    {
        var (person, problem) = await AccountProof.WhoAsync(proof.Password, "password", http, people, sessions, limits, log, "begin second factor");
        if (person is null)
            return problem!;
        if (person.TwoFactorEnabled)
            return Problems.Answer(new Problem("second-factor-on", "The second factor is on already. Switch it off first, then on again with another app."));
        var key = await second.BeginAsync(person);
        using var code = QRCodeGenerator.GenerateQrCode(SecondFactor.Uri(options.Value.House, person, key), QRCodeGenerator.ECCLevel.M);
        using var picture = new SvgQRCode(code);
        return TypedResults.Ok(new SecondFactorBegun(key, picture.GetGraphic(4)));
    }

    private static async Task<Results<Ok<RecoveryCodes>, ProblemHttpResult>> ConfirmAsync(
        SecondFactorCode typed,
        ClaimsPrincipal user,
        UserManager<Person> people,
        SecondFactor second,
        SecurityLog log
    )
    {
        var person = (await people.GetUserAsync(user))!;
        if (await second.ConfirmAsync(person, typed.Code) is not { } codes)
            return Problems.Answer(
                new Problem(
                    "second-factor-code",
                    "That is not the code that the app shows now. Look whether the device’s clock is right, and type the next one.",
                    "code"
                )
            );
        log.Write("second factor on", person.Email, "done");
        return TypedResults.Ok(new RecoveryCodes(codes));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> EndSecondAsync(
        [Microsoft.AspNetCore.Mvc.FromBody] PasswordProof proof,
        HttpContext http,
        UserManager<Person> people,
        SecondFactor second,
        SessionStore sessions,
        SignInLimits limits,
        SecurityLog log
    )
    {
        var (person, problem) = await AccountProof.WhoAsync(proof.Password, "password", http, people, sessions, limits, log, "second factor off");
        if (person is null)
            return problem!;
        await second.EndAsync(person);
        log.Write("second factor off", person.Email, "done");
        return TypedResults.NoContent();
    }
}
