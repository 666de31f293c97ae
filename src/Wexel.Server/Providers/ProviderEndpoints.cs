using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.OpenIdConnect;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.Providers;

/// <param name="Id">Which.</param>
/// <param name="Name">What stands on the button.</param>
internal sealed record ProviderWay(Guid Id, string Name);

/// <summary>How one can sign in, and why it did not go.</summary>
/// <param name="Providers">The providers.</param>
/// <param name="Problem">Why it did not go; null where nothing was tried.</param>
internal sealed record SignInWays(IReadOnlyList<ProviderWay> Providers, string? Problem);

/// <summary>How people go to a provider, come back, and are signed out by it.</summary>
internal static class ProviderEndpoints
{
    internal static void MapProviderSignIn(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/sign-in/ways", WaysAsync).AllowAnonymous().WithName("SignInWays");
        var group = routes.MapGroup("/provider/{id:guid}").AllowAnonymous().ExcludeFromDescription();
        group.MapGet("go", GoAsync);
        group.MapGet("back", BackAsync);
        group.MapPost("signed-out", SignedOutAsync);
    }

    /// <param name="failed">The code of what went wrong, as it stands in the address.</param>
    /// <param name="provider">Where it did.</param>
    /// <param name="refused">What was said, as it stands in the address.</param>
    private static async Task<Ok<SignInWays>> WaysAsync(
        string? failed,
        Guid? provider,
        string? refused,
        WexelDb db,
        ProviderSignIn signIn,
        CancellationToken cancel
    )
    {
        var ways = await db.SignInProviders.OrderBy(p => p.Name).Select(p => new ProviderWay(p.Id, p.Name)).ToListAsync(cancel);
        var name = ways.Find(w => w.Id == provider)?.Name ?? "The provider";
        return TypedResults.Ok(
            new SignInWays(
                ways,
                failed is not null ? ProviderFaults.Sentence(failed, name)
                    : refused is not null ? signIn.Refusal(refused)
                    : null
            )
        );
    }

    /// <param name="to">Where somebody was before they were asked to sign in.</param>
    private static async Task<IResult> GoAsync(Guid id, string? to, HttpContext http, WexelDb db, CancellationToken cancel)
    {
        var wanted = RedirectHttpResult.IsLocalUrl(to) ? to! : "/";
        if (await HandlerAsync(id, http, db, cancel) is not { } handler)
        {
            ProviderSignIn.Refuse(http, id, ProviderFaults.Gone, wanted);
            return Results.Empty;
        }

        try
        {
            await handler.ChallengeAsync(new AuthenticationProperties { RedirectUri = wanted });
        }
        catch (Exception away) when (away is InvalidOperationException or HttpRequestException or IOException)
        {
            ProviderSignIn.Refuse(http, id, ProviderFaults.From(away) is "odd" ? ProviderFaults.Away : ProviderFaults.From(away), wanted);
        }

        return Results.Empty;
    }

    private static async Task<IResult> BackAsync(Guid id, HttpContext http, WexelDb db, CancellationToken cancel)
    {
        if (await HandlerAsync(id, http, db, cancel) is not { } handler)
            ProviderSignIn.Refuse(http, id, ProviderFaults.Gone, null);
        else if (!await handler.HandleRequestAsync())
            return Problems.NotThere("address");
        return Results.Empty;
    }

    private static async Task<IResult> SignedOutAsync(Guid id, HttpRequest request, ProviderSignOut signOut, CancellationToken cancel)
    {
        request.HttpContext.Response.Headers.CacheControl = "no-store";
        if (!request.HasFormContentType)
            return Results.BadRequest();
        var token = (await request.ReadFormAsync(cancel))["logout_token"].ToString();
        return token.Length > 0 && await signOut.TakeAsync(id, token, cancel) ? Results.Ok() : Results.BadRequest();
    }

    /// <summary>The framework's handler, held against this provider; null where there is no such.</summary>
    private static async Task<OpenIdConnectHandler?> HandlerAsync(Guid id, HttpContext http, WexelDb db, CancellationToken cancel)
    {
        if (await db.SignInProviders.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id, cancel) is not { } provider)
            return null;
        var handler = http.RequestServices.GetRequiredService<OpenIdConnectHandler>();
        await handler.InitializeAsync(ProviderScheme.For(provider), http);
        return handler;
    }
}
