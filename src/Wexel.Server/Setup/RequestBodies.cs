using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Server.Kestrel.Core.Features;

namespace Wexel.Server.Setup;

/// <summary>How large the bodies of requests may be.</summary>
internal static class RequestBodies
{
    /// <summary>Sets how large the body may be where it is not what it is usually; more is refused as too much (413).</summary>
    /// <exception cref="BadHttpRequestException">It says itself that it is larger.</exception>
    internal static void TakeAtMost(this HttpRequest request, long bytes)
    {
        if (request.ContentLength > bytes)
            throw new BadHttpRequestException("The body is too large.", StatusCodes.Status413PayloadTooLarge);
        if (request.HttpContext.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit)
            limit.MaxRequestBodySize = bytes;
    }

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
