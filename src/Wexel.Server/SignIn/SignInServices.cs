using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.Options;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.SignIn;

/// <summary>How people sign in: their accounts, the cookie, and who may do what where nothing else is said.</summary>
internal static class SignInServices
{
    private static readonly TimeSpan SignedInFor = TimeSpan.FromDays(14);

    internal static void AddSignIn(this IServiceCollection services)
    {
        services.AddHttpContextAccessor();
        services
            .AddIdentity<Person, IdentityRole<Guid>>(options =>
            {
                options.User.RequireUniqueEmail = true;
                // Long rather than odd (NIST SP 800-63B, section 3.1.1.2): nothing is asked for but length and that it is no usual one.
                options.Password.RequiredLength = UnusualPassword.Shortest;
                options.Password.RequireDigit =
                    options.Password.RequireLowercase =
                    options.Password.RequireUppercase =
                    options.Password.RequireNonAlphanumeric =
                        false;
                // Strangers must not be able to lock anybody out; SignInLimits holds them back.
                options.Lockout.AllowedForNewUsers = false;
            })
            .AddEntityFrameworkStores<WexelDb>()
            .AddDefaultTokenProviders()
            .AddClaimsPrincipalFactory<NamedClaims>()
            .AddPasswordValidator<UnusualPassword>();
        services
            .AddOptions<PasswordHasherOptions>()
            .Configure<IOptions<WexelOptions>>((hashing, options) => hashing.IterationCount = options.Value.PasswordIterations);
        services.Configure<DataProtectionTokenProviderOptions>(tokens => tokens.TokenLifespan = NewPasswords.GoodFor);
        services
            .AddOptions<IdentityPasskeyOptions>()
            .Configure<IOptions<WexelOptions>>(
                (passkeys, options) =>
                {
                    // A number is nobody's domain; there, only those who come by the machine's name can have one.
                    var named = options.Value.PublicAddress is { HostNameType: UriHostNameType.Dns } address ? address.Host : null;
                    // The device asks for a finger, a face or a number: it is two factors in one.
                    (passkeys.ServerDomain, passkeys.UserVerificationRequirement, passkeys.ResidentKeyRequirement) = (named, "required", "required");
                }
            );
        services.AddScoped<NewPasswords>();
        services.AddSingleton<SessionStore>().AddSingleton<SignInLimits>().AddSingleton<SecurityLog>().AddScoped<SecondFactor>();
        services
            .AddOptions<CookieAuthenticationOptions>(IdentityConstants.ApplicationScheme)
            .Configure<SessionStore, IOptions<WexelOptions>>(
                (cookie, sessions, options) =>
                {
                    var secure = options.Value.PublicAddress.Scheme == Uri.UriSchemeHttps;
                    // A browser takes the name's beginning for a promise: only over TLS, only this host, the whole of it (RFC 6265bis, section 4.1.3.2).
                    cookie.Cookie.Name = secure ? "__Host-wexel" : "wexel";
                    (cookie.Cookie.SecurePolicy, cookie.Cookie.HttpOnly, cookie.Cookie.SameSite) = (
                        secure ? CookieSecurePolicy.Always : CookieSecurePolicy.SameAsRequest,
                        true,
                        SameSiteMode.Lax
                    );
                    (cookie.ExpireTimeSpan, cookie.SlidingExpiration, cookie.SessionStore) = (SignedInFor, true, sessions);
                    cookie.Events.OnRedirectToLogin = context => Answer(context.Response, StatusCodes.Status401Unauthorized);
                    cookie.Events.OnRedirectToAccessDenied = context => Answer(context.Response, StatusCodes.Status403Forbidden);
                }
            );
        services.AddAuthorizationBuilder().SetFallbackPolicy(new AuthorizationPolicyBuilder().RequireRole(Roles.Trainer).Build());
    }

    private static Task Answer(HttpResponse response, int status)
    {
        response.StatusCode = status;
        return Task.CompletedTask;
    }
}
