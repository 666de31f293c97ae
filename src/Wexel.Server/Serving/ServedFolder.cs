using Microsoft.AspNetCore.StaticFiles;
using Microsoft.Extensions.FileProviders;
using Microsoft.Net.Http.Headers;

namespace Wexel.Server.Serving;

/// <summary>
/// Serves a folder that was built. Where the build has put a smaller form of a file beside it (<c>.br</c>, <c>.gz</c>), that is sent to whoever takes
/// it. What has
/// its content's hash in its name is kept by browsers for ever, and the rest asked for again each time.
/// </summary>
internal static class ServedFolder
{
    private static readonly (string Coding, string Ending)[] Codings = [("br", ".br"), ("gzip", ".gz")];

    private static readonly FileExtensionContentTypeProvider Types = new();

    /// <param name="app">The application.</param>
    /// <param name="folder">The folder; nothing is served where it is not there.</param>
    /// <param name="at">The path under which it is served.</param>
    /// <param name="hashed">Whether its files have their hash in their names.</param>
    internal static void Serve(this WebApplication app, string folder, string at, bool hashed = false)
    {
        if (!Directory.Exists(folder))
            return;
        var files = new PhysicalFileProvider(folder);
        app.Use(
            (http, next) =>
            {
                if (
                    (HttpMethods.IsGet(http.Request.Method) || HttpMethods.IsHead(http.Request.Method))
                    && http.Request.Path.StartsWithSegments(at, out var within)
                    && Smaller(http, files, within) is { } smaller
                )
                    http.Request.Path = at + smaller;
                return next(http);
            }
        );
        app.UseStaticFiles(
            new StaticFileOptions
            {
                FileProvider = files,
                RequestPath = at,
                ServeUnknownFileTypes = false,
                ContentTypeProvider = new OfWhole(),
                OnPrepareResponse = context =>
                {
                    var headers = context.Context.Response.Headers;
                    headers.CacheControl = hashed ? "public, max-age=31536000, immutable" : "public, no-cache";
                    headers.Vary = HeaderNames.AcceptEncoding;
                    if (Codings.FirstOrDefault(c => context.File.Name.EndsWith(c.Ending, StringComparison.Ordinal)).Coding is { } coding)
                        headers.ContentEncoding = coding;
                    SafeHeaders.ForOthers(context.Context.Response);
                },
            }
        );
    }

    /// <summary>The path of a smaller form that the client takes (RFC 9110, section 12.5.3); null where there is none.</summary>
    private static string? Smaller(HttpContext http, PhysicalFileProvider files, PathString path)
    {
        if (!path.HasValue || http.Request.Headers.ContainsKey(HeaderNames.Range))
            return null;
        var taken = http.Request.GetTypedHeaders().AcceptEncoding;
        return Codings
            .Where(c => taken.Any(t => t.Value == c.Coding && t.Quality is null or > 0))
            .Select(c => path.Value + c.Ending)
            .FirstOrDefault(p => files.GetFileInfo(p).Exists);
    }

    /// <summary>A smaller form is of the type of what it was made of.</summary>
    private sealed class OfWhole : IContentTypeProvider
    {
        public bool TryGetContentType(string subpath, out string contentType)
        {
            var ending = Codings.FirstOrDefault(c => subpath.EndsWith(c.Ending, StringComparison.Ordinal)).Ending;
            return Types.TryGetContentType(ending is null ? subpath : subpath[..^ending.Length], out contentType!);
        }
    }
}
