using System.Security.Cryptography;
using Microsoft.AspNetCore;
using Microsoft.IdentityModel.Tokens;
using OpenIddict.Abstractions;
using OpenIddict.Server;
using static OpenIddict.Abstractions.OpenIddictConstants;
using static OpenIddict.Server.OpenIddictServerEvents;
using static OpenIddict.Server.OpenIddictServerHandlers;

namespace Wexel.StandIns.Identity;

/// <summary>
/// The crew pass: an identity provider (OpenID Connect Core 1.0, authorization code with PKCE, RFC 7636; RP-Initiated Logout 1.0), in which what can go
/// wrong goes wrong where somebody chose so when they signed in.
/// </summary>
internal static class IdentityProvider
{
    /// <summary>The claim in which a code remembers what is to go wrong.</summary>
    internal const string Fault = "standins_fault";

    /// <summary>The scope and the claim of the groups.</summary>
    internal const string Groups = "groups";

    internal static void AddIdentityProvider(this IServiceCollection services)
    {
        services.AddSingleton<ClientDesk>().AddHttpClient(LogoutCalls.Client, http => http.Timeout = TimeSpan.FromSeconds(10));
        services.AddSingleton<LogoutCalls>();
        services
            .AddAuthentication()
            .AddCookie(CrewSession.Scheme, cookie => (cookie.Cookie.Name, cookie.ExpireTimeSpan) = ("crew-pass", TimeSpan.FromHours(8)));
        services
            .AddOpenIddict()
            .AddServer(server =>
            {
                server
                    .SetAuthorizationEndpointUris("identity/authorize")
                    .SetTokenEndpointUris("identity/token")
                    .SetUserInfoEndpointUris("identity/people")
                    .SetEndSessionEndpointUris("identity/leave");
                server.AllowAuthorizationCodeFlow().RequireProofKeyForCodeExchange();
                server.RegisterScopes(Scopes.Email, Scopes.Profile, Groups);
                server.RegisterClaims(Claims.Email, Claims.EmailVerified, Claims.Name, Groups, "sid");
                // It keeps nothing: what it knows of clients stands in the desk, and codes carry what they stand for.
                server.EnableDegradedMode().AddEphemeralEncryptionKey().AddEphemeralSigningKey().DisableAccessTokenEncryption();
                server.UseAspNetCore().EnableAuthorizationEndpointPassthrough().EnableEndSessionEndpointPassthrough().DisableTransportSecurityRequirement();
                server.AddEventHandler<ValidateAuthorizationRequestContext>(handler => handler.UseInlineHandler(ValidateAsync));
                server.AddEventHandler<ValidateTokenRequestContext>(handler => handler.UseInlineHandler(ValidateAsync));
                server.AddEventHandler<ValidateEndSessionRequestContext>(handler => handler.UseInlineHandler(ValidateAsync));
                server.AddEventHandler<ProcessSignInContext>(handler =>
                    handler.UseInlineHandler(GoWrongAsync).SetOrder(PrepareIdentityTokenPrincipal.Descriptor.Order + 1)
                );
                server.AddEventHandler<GenerateTokenContext>(handler =>
                    handler.UseInlineHandler(SignWronglyAsync).SetOrder(Protection.AttachSecurityCredentials.Descriptor.Order + 1)
                );
            });
    }

    private static ClientDesk Desk(BaseContext context) => context.Transaction.GetHttpRequest()!.HttpContext.RequestServices.GetRequiredService<ClientDesk>();

    private static ValueTask ValidateAsync(ValidateAuthorizationRequestContext context)
    {
        if (Desk(context).Find(context.ClientId) is not { } client)
            context.Reject(Errors.InvalidClient, "Nobody knows this application here.");
        else if (context.RedirectUri != client.Back)
            context.Reject(Errors.InvalidRequest, "The application has not said that people go back to this address.");
        return ValueTask.CompletedTask;
    }

    private static ValueTask ValidateAsync(ValidateTokenRequestContext context)
    {
        if (
            Desk(context).Find(context.ClientId) is not { } client
            || context.ClientSecret is not { } secret
            || !CryptographicOperations.FixedTimeEquals(System.Text.Encoding.UTF8.GetBytes(client.Secret), System.Text.Encoding.UTF8.GetBytes(secret))
        )
            context.Reject(Errors.InvalidClient, "The application is not known, or its secret is another.");
        return ValueTask.CompletedTask;
    }

    private static ValueTask ValidateAsync(ValidateEndSessionRequestContext context)
    {
        if (context.PostLogoutRedirectUri is { Length: > 0 } to && Desk(context).All.All(c => c.SignedOut != to))
            context.Reject(Errors.InvalidRequest, "No application has said that people go to this address when they have signed out.");
        return ValueTask.CompletedTask;
    }

    private static async ValueTask GoWrongAsync(ProcessSignInContext context)
    {
        if (context.IdentityTokenPrincipal is not { } token || FaultOf(context.Principal) is not (not ProviderFault.None and var fault))
            return;
        var now = DateTimeOffset.UtcNow;
        switch (fault)
        {
            case ProviderFault.Late:
                await Task.Delay(TimeSpan.FromSeconds(30), context.CancellationToken);
                break;
            case ProviderFault.AnotherNonce:
                token.SetClaim(Claims.Nonce, "another");
                token.SetClaim(Claims.Private.Nonce, "another");
                break;
            case ProviderFault.ClockAhead:
                token.SetCreationDate(now.AddHours(1)).SetExpirationDate(now.AddHours(2)).SetClaim("standins_from", "ahead");
                break;
            case ProviderFault.ClockBehind:
                token.SetCreationDate(now.AddHours(-2)).SetExpirationDate(now.AddHours(-1));
                break;
            case ProviderFault.AnotherAudience:
                token.SetAudiences("somebody-else").SetPresenters("somebody-else");
                break;
        }
    }

    private static ValueTask SignWronglyAsync(GenerateTokenContext context)
    {
        if (context.TokenType != TokenTypeIdentifiers.IdentityToken)
            return ValueTask.CompletedTask;
        var fault = FaultOf(context.Principal);
        if (fault == ProviderFault.ClockAhead)
            context.SecurityTokenDescriptor.NotBefore = DateTime.UtcNow.AddHours(1);
        if (fault == ProviderFault.WronglySigned)
            context.SigningCredentials = new SigningCredentials(
                new RsaSecurityKey(RSA.Create(2048)) { KeyId = context.SigningCredentials!.Key.KeyId },
                SecurityAlgorithms.RsaSha256
            );
        return ValueTask.CompletedTask;
    }

    private static ProviderFault FaultOf(System.Security.Claims.ClaimsPrincipal? principal) =>
        Enum.TryParse<ProviderFault>(principal?.GetClaim(Fault), out var fault) ? fault : ProviderFault.None;
}
