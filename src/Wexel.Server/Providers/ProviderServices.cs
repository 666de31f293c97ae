using Microsoft.AspNetCore.Authentication.OpenIdConnect;
using Microsoft.Extensions.Options;
using Wexel.Server.SignIn;

namespace Wexel.Server.Providers;

/// <summary>What signing in by providers needs. The framework's handler is set up by hand, since its providers are in the database.</summary>
internal static class ProviderServices
{
    internal static void AddProviders(this IServiceCollection services)
    {
        services.AddTransient<OpenIdConnectHandler>();
        services.AddSingleton<ProviderScheme>();
        services.AddSingleton<IConfigureOptions<OpenIdConnectOptions>>(all => all.GetRequiredService<ProviderScheme>());
        services.AddSingleton<IPostConfigureOptions<OpenIdConnectOptions>, OpenIdConnectPostConfigureOptions>();
        services.AddScoped<ProviderSignIn>().AddScoped<ProviderSignOut>().AddScoped<ProviderKeeper>();
        services.AddScoped<ISignOutElsewhere>(all => all.GetRequiredService<ProviderSignOut>());
    }
}
