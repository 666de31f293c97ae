using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.OpenIdConnect;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Microsoft.IdentityModel.Protocols.OpenIdConnect;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Delivering.Http;
using Wexel.Server.Setup;

namespace Wexel.Server.Providers;

/// <summary>
/// The framework's handler of OpenID Connect for each provider that an administrator has set up. A provider that is changed has another scheme's name, so that
/// every server takes it as it is now, and what was begun before it is begun again.
/// </summary>
internal sealed class ProviderScheme(IDbContextFactory<WexelDb> databases, IDataProtectionProvider protection, IOptions<WexelOptions> options)
    : IConfigureNamedOptions<OpenIdConnectOptions>
{
    private const string Prefix = "provider ";

    private readonly IDataProtector _secrets = protection.CreateProtector("wexel", "provider secret");

    /// <summary>Where people come back to.</summary>
    internal static string Back(Guid provider) => $"/provider/{provider:D}/back";

    /// <summary>Where the provider says that somebody has signed out there.</summary>
    internal static string SignedOut(Guid provider) => $"/provider/{provider:D}/signed-out";

    internal static AuthenticationScheme For(SignInProvider provider) => new($"{Prefix}{provider.Id:D} {provider.Version}", null, typeof(OpenIdConnectHandler));

    internal string Protected(string secret) => _secrets.Protect(secret);

    public void Configure(string? name, OpenIdConnectOptions oidc)
    {
        if (name?.StartsWith(Prefix, StringComparison.Ordinal) != true)
            return;
        var id = Guid.Parse(name.AsSpan(Prefix.Length, 36));
        using var db = databases.CreateDbContext();
        Configure(db.SignInProviders.AsNoTracking().Single(p => p.Id == id), oidc);
    }

    public void Configure(OpenIdConnectOptions options) { }

    private void Configure(SignInProvider provider, OpenIdConnectOptions oidc)
    {
        var secure = options.Value.PublicAddress.Scheme == Uri.UriSchemeHttps;
        (oidc.Authority, oidc.ClientId) = (provider.Address, provider.Client);
        oidc.ClientSecret = provider.Secret is { } secret ? _secrets.Unprotect(secret) : null;
        // The answer comes by an address, so that the cookies that it is held against need not be sent to other sites' pages (RFC 9700, section 2.1.1).
        (oidc.ResponseType, oidc.ResponseMode, oidc.UsePkce) = (OpenIdConnectResponseType.Code, OpenIdConnectResponseMode.Query, true);
        oidc.Scope.Clear();
        foreach (var scope in (string[])["openid", "profile", "email", .. provider.Scopes.Split(' ', StringSplitOptions.RemoveEmptyEntries)])
            oidc.Scope.Add(scope);
        (oidc.CallbackPath, oidc.RemoteSignOutPath, oidc.SignedOutCallbackPath) = (Back(provider.Id), PathString.Empty, PathString.Empty);
        (oidc.MapInboundClaims, oidc.GetClaimsFromUserInfoEndpoint, oidc.SaveTokens, oidc.DisableTelemetry) = (false, true, true, true);
        oidc.ClaimActions.MapUniqueJsonKey(ProviderClaims.MailIsVerified, ProviderClaims.MailIsVerified);
        if (provider.GroupClaim.Length > 0)
            oidc.ClaimActions.MapJsonKey(provider.GroupClaim, provider.GroupClaim);
        (oidc.BackchannelTimeout, oidc.RequireHttpsMetadata) = (options.Value.ProviderAnswersWithin, !MayBePlain(options.Value, new Uri(provider.Address)));
        oidc.BackchannelHttpHandler = OutsideOnly.Handler(options.Value.MayReach);
        foreach (var cookie in (CookieBuilder[])[oidc.CorrelationCookie, oidc.NonceCookie])
            (cookie.SameSite, cookie.SecurePolicy) = (SameSiteMode.Lax, secure ? CookieSecurePolicy.Always : CookieSecurePolicy.SameAsRequest);
        oidc.Events.OnRedirectToIdentityProvider = context =>
        {
            context.ProtocolMessage.RedirectUri = new Uri(options.Value.PublicAddress, Back(provider.Id)).AbsoluteUri;
            return Task.CompletedTask;
        };
        oidc.Events.OnTicketReceived = context => context.HttpContext.RequestServices.GetRequiredService<ProviderSignIn>().TakeAsync(context, provider.Id);
        oidc.Events.OnRemoteFailure = context =>
        {
            ProviderSignIn.Refuse(context, provider.Id, ProviderFaults.From(context.Failure));
            return Task.CompletedTask;
        };
        oidc.Events.OnAccessDenied = context =>
        {
            ProviderSignIn.Refuse(context, provider.Id, ProviderFaults.Declined);
            return Task.CompletedTask;
        };
    }

    /// <summary>Whether people may sign in at an address without TLS: only on this machine, where the settings allow that.</summary>
    internal static bool MayBePlain(WexelOptions options, Uri address) => options.MayReach(address.Host, address.Port);

    internal static ProviderSettings Settings(SignInProvider provider) =>
        new(
            provider.Name,
            provider.Address,
            provider.Client,
            provider.Scopes,
            provider.GroupClaim,
            [.. provider.Groups.OrderBy(g => g.Value, StringComparer.Ordinal).Select(g => new GroupMapping(g.Value, g.GroupId))],
            provider.OwnsAddresses
        );
}

/// <summary>What claims are called (OpenID Connect Core 1.0, section 5.1).</summary>
internal static class ProviderClaims
{
    internal const string Subject = "sub",
        Session = "sid",
        Mail = "email",
        MailIsVerified = "email_verified",
        Name = "name";
}
