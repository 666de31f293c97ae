using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.Extensions.Options;
using Microsoft.Net.Http.Headers;
using Wexel.Making.Storage;
using Wexel.Server.Setup;

namespace Wexel.Server.Serving;

/// <summary>
/// Sends made files to learners: ranges, conditional requests and HEAD included (RFC 9110, sections 13 and 14). What comes by a proxy that can send
/// files itself, it
/// is only told (<c>X-Accel-Redirect</c>, as nginx understands it).
/// </summary>
internal sealed class MadeFileSender(FileStore store, IOptions<WexelOptions> options)
{
    /// <summary>A made file, which whoever asks may have.</summary>
    /// <param name="http">The request.</param>
    /// <param name="key">The key under which it lies.</param>
    /// <param name="name">Its path in the key's folder, with slashes.</param>
    /// <param name="mediaType">What it is.</param>
    internal Task SendAsync(HttpContext http, string key, string name, string mediaType)
    {
        // It may be kept, and is asked for again before it is used: who may see it can change at any time.
        http.Response.Headers.CacheControl = "private, no-cache";
        if (options.Value.SendFilesBy is { Length: > 0 } at && CameByProxy(http.Request))
        {
            http.Response.Headers["X-Accel-Redirect"] = at + Encoded(FileStore.Within(key, name));
            http.Response.ContentType = mediaType;
            return Task.CompletedTask;
        }

        var path = store.Derived(key, name);
        if (File.Exists(path))
            return TypedResults
                .PhysicalFile(path, mediaType, entityTag: new EntityTagHeaderValue($"\"{key[..32]}\""), enableRangeProcessing: true)
                .ExecuteAsync(http);
        http.Response.StatusCode = StatusCodes.Status404NotFound;
        return Task.CompletedTask;
    }

    private static string Encoded(string path) => string.Join('/', path.Split('/').Select(Uri.EscapeDataString));

    /// <summary>Who asked the proxy stands beside it once its word was taken for that.</summary>
    private static bool CameByProxy(HttpRequest request) => request.Headers.ContainsKey(ForwardedHeadersDefaults.XOriginalForHeaderName);
}
