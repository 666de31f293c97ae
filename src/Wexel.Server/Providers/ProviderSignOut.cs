using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.OpenIdConnect;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Microsoft.IdentityModel.JsonWebTokens;
using Microsoft.IdentityModel.Protocols.OpenIdConnect;
using Microsoft.IdentityModel.Tokens;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;
using Wexel.Server.SignIn;

namespace Wexel.Server.Providers;

/// <summary>
/// Ends at the other end what is ended at one: who signs out here is sent to the provider (OpenID Connect RP-Initiated Logout 1.0), and what the provider says
/// is over is over here (OpenID Connect Back-Channel Logout 1.0).
/// </summary>
internal sealed class ProviderSignOut(
    WexelDb db,
    SessionStore sessions,
    IOptionsMonitor<OpenIdConnectOptions> schemes,
    IOptions<WexelOptions> options,
    ILogger<ProviderSignOut> log
) : ISignOutElsewhere
{
    private const string Event = "http://schemas.openid.net/event/backchannel-logout";

    /// <summary>Where a browser goes to be signed out there too; null where it signed in here, or the provider does not do that.</summary>
    public async Task<Uri?> NextAsync(HttpContext http)
    {
        if (!Guid.TryParse(http.User.FindFirstValue(SessionStore.Provider), out var id) || await FindAsync(id, http.RequestAborted) is not { } provider)
            return null;
        var scheme = schemes.Get(ProviderScheme.For(provider).Name);
        try
        {
            var there = await scheme.ConfigurationManager!.GetConfigurationAsync(http.RequestAborted);
            if (string.IsNullOrEmpty(there.EndSessionEndpoint))
                return null;
            var message = new OpenIdConnectMessage
            {
                IssuerAddress = there.EndSessionEndpoint,
                IdTokenHint = await http.GetTokenAsync(ProviderSignIn.IdToken),
                ClientId = scheme.ClientId,
                PostLogoutRedirectUri = new Uri(options.Value.PublicAddress, "sign-in").AbsoluteUri,
            };
            return new Uri(message.CreateLogoutRequestUrl());
        }
        catch (Exception away) when (away is InvalidOperationException or HttpRequestException or IOException)
        {
            // Whoever wants to leave is let go here, whatever the other end does.
            log.LogWarning("Nobody could be signed out at {Provider}: {Why}", provider.Name, away.Message);
            return null;
        }
    }

    /// <summary>Takes what a provider says is over.</summary>
    /// <returns>Whether it is believed (section 2.6).</returns>
    internal async Task<bool> TakeAsync(Guid id, string token, CancellationToken cancel)
    {
        if (await FindAsync(id, cancel) is not { } provider)
            return false;
        var scheme = schemes.Get(ProviderScheme.For(provider).Name);
        var there = await scheme.ConfigurationManager!.GetConfigurationAsync(cancel);
        var read = await new JsonWebTokenHandler { MapInboundClaims = false }.ValidateTokenAsync(
            token,
            new TokenValidationParameters
            {
                ValidIssuer = there.Issuer,
                ValidAudience = scheme.ClientId,
                IssuerSigningKeys = there.SigningKeys,
                RequireExpirationTime = false,
                ValidateLifetime = true,
            }
        );
        if (
            !read.IsValid
            || read.Claims.ContainsKey("nonce")
            || !read.Claims.TryGetValue("events", out var events)
            || events.ToString()?.Contains(Event) != true
        )
            return false;
        var (subject, session) = (Said(read.Claims, ProviderClaims.Subject), Said(read.Claims, ProviderClaims.Session));
        if (subject is null && session is null)
            return false;
        var login = id.ToString("D");
        Guid? person = subject is null
            ? null
            : await db.UserLogins.Where(l => l.LoginProvider == login && l.ProviderKey == subject).Select(l => (Guid?)l.UserId).FirstOrDefaultAsync(cancel);
        if (subject is null || person is not null)
            await sessions.EndProvidedAsync(id, session, person);
        return true;
    }

    private static string? Said(IDictionary<string, object> claims, string name) => claims.TryGetValue(name, out var value) ? value as string : null;

    private Task<SignInProvider?> FindAsync(Guid id, CancellationToken cancel) =>
        db.SignInProviders.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id, cancel);
}
