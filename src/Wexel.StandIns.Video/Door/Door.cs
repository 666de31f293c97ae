using System.Security.Cryptography;
using Microsoft.AspNetCore;
using Microsoft.IdentityModel.Tokens;
using OpenIddict.Abstractions;
using OpenIddict.Server;
using OpenIddict.Validation.AspNetCore;
using static OpenIddict.Abstractions.OpenIddictConstants;
using static OpenIddict.Server.OpenIddictServerEvents;

namespace Wexel.StandIns.Video.Door;

/// <summary>A program that people let act for them.</summary>
/// <param name="Id">What it is called in requests.</param>
/// <param name="Secret">What it shows that it is the one.</param>
/// <param name="Back">Where people are sent back to.</param>
internal sealed record Client(string Id, string Secret, string Back);

/// <summary>
/// Lets programs act for accounts (OAuth 2.0, RFC 6749, authorization code with PKCE, RFC 7636, and refresh tokens). What somebody allowed can be
/// withdrawn at any time, and then neither kind of token is worth anything.
/// </summary>
internal static class Doors
{
    /// <summary>The scope that lets a program publish.</summary>
    internal const string Publish = "publish";

    /// <summary>The claim that names what somebody allowed.</summary>
    internal const string Grant = "skerry_grant";

    internal static void AddDoor(this IServiceCollection services, IConfiguration configuration, string data)
    {
        var seconds = configuration.GetValue("Video:TokenSeconds", 600.0);
        services
            .AddOpenIddict()
            .AddServer(server =>
            {
                server.SetAuthorizationEndpointUris("door/authorize").SetTokenEndpointUris("door/token");
                server.AllowAuthorizationCodeFlow().AllowRefreshTokenFlow().RequireProofKeyForCodeExchange();
                server.RegisterScopes(Publish, Scopes.OfflineAccess);
                server.SetAccessTokenLifetime(TimeSpan.FromSeconds(seconds)).SetRefreshTokenLifetime(TimeSpan.FromDays(180));
                // Tokens that were given out before a restart are good after it.
                server.EnableDegradedMode().AddSigningKey(Kept(data)).AddEncryptionKey(Secret(data)).DisableAccessTokenEncryption();
                server.UseAspNetCore().EnableAuthorizationEndpointPassthrough().DisableTransportSecurityRequirement();
                server.AddEventHandler<ValidateAuthorizationRequestContext>(handler => handler.UseInlineHandler(ValidateAsync));
                server.AddEventHandler<ValidateTokenRequestContext>(handler => handler.UseInlineHandler(ValidateAsync));
                server.AddEventHandler<ProcessSignInContext>(handler => handler.UseInlineHandler(RefuseWithdrawnAsync).SetOrder(int.MinValue + 1));
            })
            .AddValidation(validation =>
            {
                validation.UseLocalServer();
                validation.UseAspNetCore();
            });
        services.AddAuthentication(OpenIddictValidationAspNetCoreDefaults.AuthenticationScheme);
        services.AddAuthorization();
    }

    internal static Client? Find(IConfiguration configuration, string? id) =>
        (configuration.GetSection("Video:Clients").Get<List<Client>>() ?? []).Find(c => c.Id == id);

    private static T Service<T>(BaseContext context)
        where T : notnull => context.Transaction.GetHttpRequest()!.HttpContext.RequestServices.GetRequiredService<T>();

    private static ValueTask ValidateAsync(ValidateAuthorizationRequestContext context)
    {
        if (Find(Service<IConfiguration>(context), context.ClientId) is not { } client)
            context.Reject(Errors.InvalidClient, "Skerry does not know this program.");
        else if (context.RedirectUri != client.Back)
            context.Reject(Errors.InvalidRequest, "The program has not said that people go back to this address.");
        return ValueTask.CompletedTask;
    }

    private static ValueTask ValidateAsync(ValidateTokenRequestContext context)
    {
        if (
            Find(Service<IConfiguration>(context), context.ClientId) is not { } client
            || context.ClientSecret is not { } secret
            || !CryptographicOperations.FixedTimeEquals(System.Text.Encoding.UTF8.GetBytes(client.Secret), System.Text.Encoding.UTF8.GetBytes(secret))
        )
            context.Reject(Errors.InvalidClient, "The program is not known, or its secret is another.");
        return ValueTask.CompletedTask;
    }

    private static ValueTask RefuseWithdrawnAsync(ProcessSignInContext context)
    {
        if (
            context.EndpointType == OpenIddictServerEndpointType.Token
            && context.Principal?.GetClaim(Grant) is { } grant
            && !Service<Accounts>(context).Stands(grant)
        )
            context.Reject(Errors.InvalidGrant, "What was allowed has been withdrawn.");
        return ValueTask.CompletedTask;
    }

    private static RsaSecurityKey Kept(string data)
    {
        var file = Path.Combine(data, "door.pem");
        var key = RSA.Create(2048);
        if (File.Exists(file))
            key.ImportFromPem(File.ReadAllText(file));
        else
            File.WriteAllText(file, key.ExportPkcs8PrivateKeyPem());
        return new RsaSecurityKey(key) { KeyId = "door" };
    }

    private static SymmetricSecurityKey Secret(string data)
    {
        var file = Path.Combine(data, "door.key");
        if (!File.Exists(file))
            File.WriteAllBytes(file, RandomNumberGenerator.GetBytes(32));
        return new SymmetricSecurityKey(File.ReadAllBytes(file)) { KeyId = "codes" };
    }
}
