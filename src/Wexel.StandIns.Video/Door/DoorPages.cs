using System.Security.Claims;
using Microsoft.AspNetCore;
using Microsoft.AspNetCore.Authentication;
using OpenIddict.Abstractions;
using OpenIddict.Server.AspNetCore;
using static OpenIddict.Abstractions.OpenIddictConstants;

namespace Wexel.StandIns.Video.Door;

/// <summary>Where somebody says whether a program may act for an account, and takes that back.</summary>
internal static class DoorPages
{
    internal static void MapDoor(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/door/authorize", Ask).AllowAnonymous();
        routes.MapPost("/door/authorize", AnswerAsync).AllowAnonymous();
        routes.MapPost("/door/withdraw", (string grant, Accounts accounts) =>
        {
            accounts.Withdraw(grant);
            return Results.Redirect("/");
        });
    }

    private static IResult Ask(HttpContext http)
    {
        var request = http.GetOpenIddictServerRequest()!;
        var asked = string.Concat(
            request.GetParameters().Select(p => $"<input type=\"hidden\" name=\"{Look.Text(p.Key)}\" value=\"{Look.Text(p.Value.ToString())}\">")
        );
        return Look.Page(
            "Let it in?",
            $"""
            <p><b>{Look.Text(request.ClientId)}</b> wants to publish videos for you, change them and see how often they are watched.</p>
            <form method="post" action="/door/authorize">{asked}
            {string.Concat(
                Account.All.Select(a =>
                    $"<p><button name=\"account\" value=\"{a.Id}\">Let it in for {Look.Text(a.Name)}</button> "
                    + $"{Look.Text(string.Join(", ", a.Channels.Select(c => c.Name)))}{(a.IsNew ? " (new: 10 minutes a video)" : "")}</p>"
                )
            )}
            <p><button name="account" value="">Do not</button></p></form>
            """
        );
    }

    private static async Task<IResult> AnswerAsync(HttpContext http, Accounts accounts)
    {
        var request = http.GetOpenIddictServerRequest()!;
        var form = await http.Request.ReadFormAsync();
        if (Account.Find(form["account"]) is not { } account)
            return Results.Forbid(
                new AuthenticationProperties(
                    new Dictionary<string, string?>
                    {
                        [OpenIddictServerAspNetCoreConstants.Properties.Error] = Errors.AccessDenied,
                        [OpenIddictServerAspNetCoreConstants.Properties.ErrorDescription] = "They did not want to.",
                    }
                ),
                [OpenIddictServerAspNetCoreDefaults.AuthenticationScheme]
            );
        var identity = new ClaimsIdentity("skerry", Claims.Name, Claims.Role);
        identity.SetClaim(Claims.Subject, account.Id).SetClaim(Doors.Grant, accounts.Allow(account.Id, request.ClientId!));
        identity.SetScopes(request.GetScopes());
        identity.SetDestinations(_ => [Destinations.AccessToken]);
        return Results.SignIn(new ClaimsPrincipal(identity), properties: null, OpenIddictServerAspNetCoreDefaults.AuthenticationScheme);
    }
}
