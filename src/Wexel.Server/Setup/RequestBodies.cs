using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Server.Kestrel.Core.Features;

namespace Wexel.Server.Setup;

/// <summary>How large the bodies of requests may be.</summary>
internal static class RequestBodies
{
    /// <summary>Lifts the host's limit where the endpoint has one of its own: too much then gets a sentence, not a closed connection.</summary>
    internal static void TakeAnySize(this HttpRequest request)
    {
        if (request.HttpContext.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit)
            limit.MaxRequestBodySize = null;
        // A slow line is no reason to break off what can take hours.
        if (request.HttpContext.Features.Get<IHttpMinRequestBodyDataRateFeature>() is { } rate)
            rate.MinDataRate = null;
    }
}
