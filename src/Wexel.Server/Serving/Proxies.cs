using System.Net;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.Extensions.Options;
using Wexel.Server.Setup;

namespace Wexel.Server.Serving;

/// <summary>Takes the word of proxies that are named in the settings, and of no others, for who asks and whether over TLS.</summary>
internal static class Proxies
{
    internal static void AddProxies(this IServiceCollection services) =>
        services
            .AddOptions<ForwardedHeadersOptions>()
            .Configure<IOptions<WexelOptions>>(
                (forwarded, options) =>
                {
                    forwarded.ForwardedHeaders =
                        options.Value.Proxies.Count == 0 ? ForwardedHeaders.None : ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
                    forwarded.KnownProxies.Clear();
                    forwarded.KnownIPNetworks.Clear();
                    foreach (var proxy in options.Value.Proxies)
                    {
                        if (System.Net.IPNetwork.TryParse(proxy, out var network))
                            forwarded.KnownIPNetworks.Add(network);
                        else
                            forwarded.KnownProxies.Add(IPAddress.Parse(proxy));
                    }
                }
            );
}
