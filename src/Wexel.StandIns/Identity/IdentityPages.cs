using System.Security.Claims;
using Microsoft.AspNetCore;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.WebUtilities;
using OpenIddict.Abstractions;
using OpenIddict.Server.AspNetCore;
using static OpenIddict.Abstractions.OpenIddictConstants;

namespace Wexel.StandIns.Identity;

/// <summary>What people see of the crew pass.</summary>
internal static class IdentityPages
{
    private const string Look =
        "body{font:18px/1.5 'DejaVu Sans Condensed',sans-serif;background:repeating-linear-gradient(90deg,#0f3d5e 0 3rem,#124a70 3rem 6rem);color:#102030;"
        + "margin:0}main{max-width:30rem;margin:8vh auto;background:#fffbe8;padding:1.5rem 2rem 2rem;border-radius:1.2rem;border:6px solid #f0b429}"
        + "label{display:block;margin:.8rem 0}input,select{font:inherit;width:100%;box-sizing:border-box;padding:.4rem;border:2px solid #0f3d5e}"
        + "button{font:inherit;padding:.5rem 1.2rem;background:#0f3d5e;color:#fff;border:0;border-radius:2rem}a{color:#0f3d5e}";

    private static readonly (ProviderFault Fault, string Words)[] Faults =
    [
        (ProviderFault.None, "nothing"),
        (ProviderFault.Late, "answers half a minute late"),
        (ProviderFault.WronglySigned, "signs with a key that is not its own"),
        (ProviderFault.AnotherNonce, "says another nonce"),
        (ProviderFault.NoMail, "says no mail address"),
        (ProviderFault.UnverifiedMail, "says that the mail address is not verified"),
        (ProviderFault.ClockAhead, "its clock is an hour ahead"),
        (ProviderFault.ClockBehind, "its clock is hours behind"),
        (ProviderFault.AnotherAudience, "answers for another application"),
    ];

    internal static void MapIdentity(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/identity", async (HttpContext http, ClientDesk clients) => Page("Crew pass", Home(await SessionAsync(http), clients)));
        routes.MapPost("/identity/applications", async (HttpRequest request, ClientDesk clients) =>
        {
            var form = await request.ReadFormAsync();
            string Said(string name) => form[name].ToString().Trim();
            clients.Add(new Client(Said("id"), Said("secret"), Said("back"), Said("signedOut"), Said("backChannel")));
            return Results.Redirect("/identity");
        });
        routes.MapMethods("/identity/authorize", ["GET", "POST"], AuthorizeAsync);
        routes.MapPost("/identity/sign-in", SignInAsync);
        routes.MapPost("/identity/sign-out", async (HttpContext http, LogoutCalls calls) =>
            Page("Signed out", $"<p>{Pages.Text(string.Join(", ", await LeaveAsync(http, calls)))}</p><p><a href=\"/identity\">Crew pass</a></p>")
        );
        routes.MapMethods("/identity/leave", ["GET", "POST"], async (HttpContext http, LogoutCalls calls) =>
        {
            await LeaveAsync(http, calls);
            return Results.SignOut(new AuthenticationProperties { RedirectUri = "/identity" }, [OpenIddictServerAspNetCoreDefaults.AuthenticationScheme]);
        });
    }

    private static async Task<CrewSession?> SessionAsync(HttpContext http) => CrewSession.Read((await http.AuthenticateAsync(CrewSession.Scheme)).Principal);

    private static async Task<IReadOnlyList<string>> LeaveAsync(HttpContext http, LogoutCalls calls)
    {
        var session = await SessionAsync(http);
        await http.SignOutAsync(CrewSession.Scheme);
        return session is null ? [] : await calls.TellAsync(session, $"{http.Request.Scheme}://{http.Request.Host}/", http.RequestAborted);
    }

    private static async Task<IResult> AuthorizeAsync(HttpContext http, ClientDesk clients)
    {
        var request = http.GetOpenIddictServerRequest()!;
        if (await SessionAsync(http) is not { } session || request.HasPromptValue(PromptValues.Login))
            return request.HasPromptValue(PromptValues.None)
                ? Refuse(Errors.LoginRequired, "Nobody is signed in.")
                : Page("Crew pass", SignInForm($"/identity/authorize?{Again(request)}", clients.Find(request.ClientId)!.Id, ""));
        if (request["declined"]?.ToString() == "yes")
            return Refuse(Errors.AccessDenied, "They did not want to.");
        clients.Used(session.Id, request.ClientId!);
        var identity = new ClaimsIdentity("crew pass", Claims.Name, Claims.Role);
        identity.SetClaim(Claims.Subject, session.Who.Subject).SetClaim("sid", session.Id).SetClaim(IdentityProvider.Fault, session.Fault.ToString());
        if (request.HasScope(Scopes.Profile))
            identity.SetClaim(Claims.Name, session.Who.FullName);
        if (request.HasScope(Scopes.Email) && session.Fault != ProviderFault.NoMail)
            identity.SetClaim(Claims.Email, session.Who.Mail).SetClaim(Claims.EmailVerified, session.Fault != ProviderFault.UnverifiedMail);
        if (request.HasScope(IdentityProvider.Groups))
            identity.SetClaims(IdentityProvider.Groups, [.. session.Who.Groups]);
        identity.SetScopes(request.GetScopes());
        identity.SetDestinations(_ => [Destinations.IdentityToken]);
        return Results.SignIn(new ClaimsPrincipal(identity), properties: null, OpenIddictServerAspNetCoreDefaults.AuthenticationScheme);
    }

    private static async Task<IResult> SignInAsync(HttpContext http, ClientDesk clients)
    {
        var form = await http.Request.ReadFormAsync();
        var back = form["return"].ToString();
        var asked = back.StartsWith("/identity/authorize?", StringComparison.Ordinal) ? QueryHelpers.ParseQuery(back[(back.IndexOf('?') + 1)..]) : [];
        if (clients.Find(asked.GetValueOrDefault("client_id")) is not { } client)
            return Page("Crew pass", "<p role=\"alert\">Begin at the application where you want to sign in.</p>", 400);
        if (form["decline"].Count > 0)
        {
            await http.SignInAsync(CrewSession.Scheme, new CrewSession(Guid.NewGuid().ToString("N"), CrewMember.All[0], ProviderFault.None).AsCookie());
            return Results.Redirect(back + "&declined=yes");
        }

        if (CrewMember.Find(form["name"]) is not { } who || form["password"] != CrewMember.Password)
            return Page("Crew pass", SignInForm(back, client.Id, "That is not how anybody here signs in."), 401);
        var fault = Enum.TryParse<ProviderFault>(form["fault"], out var chosen) ? chosen : ProviderFault.None;
        await http.SignInAsync(CrewSession.Scheme, new CrewSession(Guid.NewGuid().ToString("N"), who, fault).AsCookie());
        return Results.Redirect(back);
    }

    /// <summary>The request once more, but that somebody must sign in: that is done then.</summary>
    private static string Again(OpenIddictRequest request) =>
        string.Join(
            '&',
            request.GetParameters().Where(p => p.Key != "prompt").Select(p => $"{Uri.EscapeDataString(p.Key)}={Uri.EscapeDataString(p.Value.ToString() ?? "")}")
        );

    private static IResult Refuse(string error, string why) =>
        Results.Forbid(
            new AuthenticationProperties(
                new Dictionary<string, string?>
                {
                    [OpenIddictServerAspNetCoreConstants.Properties.Error] = error,
                    [OpenIddictServerAspNetCoreConstants.Properties.ErrorDescription] = why,
                }
            ),
            [OpenIddictServerAspNetCoreDefaults.AuthenticationScheme]
        );

    private static string SignInForm(string back, string application, string problem) =>
        $"""
            <p>Show your pass to go on to <b>{Pages.Text(application)}</b>.</p>{(problem.Length > 0 ? $"<p role=\"alert\">{Pages.Text(problem)}</p>" : "")}
            <form method="post" action="/identity/sign-in"><input type="hidden" name="return" value="{Pages.Text(back)}">
            <label>Crew name <input name="name" autocomplete="username" autofocus></label>
            <label>Pass phrase <input type="password" name="password" autocomplete="current-password"></label>
            <label>What goes wrong <select name="fault">{string.Concat(
                Faults.Select(f => $"<option value=\"{f.Fault}\">{f.Words}</option>")
            )}</select></label>
            <p><button>Show my pass</button> <button name="decline" value="yes" formnovalidate>Rather not</button></p></form>
            """;

    private static string Home(CrewSession? session, ClientDesk clients) =>
        (
            session is null
                ? "<p>Nobody shows a pass in this browser.</p>"
                : $"<p>{Pages.Text(session.Who.FullName)}</p><form method=\"post\" action=\"/identity/sign-out\">"
                    + "<button>Put the pass away everywhere</button></form>"
        )
        + $"<h2>Crew</h2><p>Everybody’s pass phrase is {CrewMember.Password}.</p><ul>{string.Concat(
            CrewMember.All.Select(p => $"<li>{p.Name}: {Pages.Text(p.FullName)}, {Pages.Text(p.Mail)}, {Pages.Text(string.Join(" and ", p.Groups))}</li>")
        )}</ul><h2>Applications</h2><ul>{string.Concat(clients.All.Select(c => $"<li>{Pages.Text(c.Id)}: {Pages.Text(c.Back)}</li>"))}</ul>"
        + """
            <form method="post" action="/identity/applications">
            <label>Name <input name="id" required></label><label>Secret <input name="secret" required></label>
            <label>Goes back to <input name="back" type="url" required></label><label>When signed out <input name="signedOut" type="url"></label>
            <label>Is told of sign-outs at <input name="backChannel" type="url"></label><button>Let it in</button></form>
            """;

    private static IResult Page(string title, string body, int status = 200) => Pages.Html(title, body, status, Look);
}
