using Microsoft.AspNetCore.Authentication;
using Wexel.Core.Encoding;
using Wexel.Core.Kit;
using Wexel.Core.Packages;
using Wexel.Core.People;
using Wexel.Making.Storage;
using Wexel.Media.Rendering;
using Wexel.Server.People;
using Wexel.Server.Serving;

namespace Wexel.Server.Channel;

/// <summary>
/// The files of released lessons. A player asks for parts of them many times a minute, so they are answered right behind the routing: what a release
/// is, is known, and
/// who asks is only looked for where not everybody may have it.
/// </summary>
internal sealed class ReleasedFiles(KnownReleases releases, Viewers viewers, MadeFileSender files, FileStore store, TimeProvider clock)
{
    internal static void Map(IEndpointRouteBuilder routes)
    {
        // With the first request: what cannot be had says so where the server starts.
        var files = new Lazy<ReleasedFiles>(routes.ServiceProvider.GetRequiredService<ReleasedFiles>);
        void Send(string address, Func<ReleasedFiles, HttpContext, Task> send) =>
            routes.MapMethods("/watch/{token}/" + address, ["GET", "HEAD"], http => send(files.Value, http)).ShortCircuit();
        foreach (var ending in Enum.GetValues<Container>().Select(c => ContainerFacts.Of(c).Ending).Distinct())
            Send("video" + ending, (all, http) => all.VideoAsync(http));
        Send(LessonFiles.PiecesFolder + "{**piece}", (all, http) => all.PieceAsync(http));
        Send("download", (all, http) => all.DownloadAsync(http));
        Send("poster.jpg", (all, http) => all.PosterAsync(http));
        Send(LessonFiles.ShownFolder + "{key:length(64)}.jpg", (all, http) => all.ShownAsync(http));
    }

    private async Task VideoAsync(HttpContext http)
    {
        if (await AllowedAsync(http) is { } release)
            await files.SendAsync(http, release.FileKey, Muxing.FileName(release.Container), ContainerFacts.Of(release.Container).MediaType);
    }

    /// <summary>The file that learners keep, where it is another than the one that plays.</summary>
    private async Task DownloadAsync(HttpContext http)
    {
        if (await AllowedAsync(http) is not { } release)
            return;
        if (release is { DownloadKey: { } key, DownloadContainer: { } container })
            await files.SendAsync(http, key, Muxing.FileName(container), ContainerFacts.Of(container).MediaType);
        else
            http.Response.StatusCode = StatusCodes.Status404NotFound;
    }

    /// <summary>A playlist or a piece of a lesson that is loaded piece by piece.</summary>
    private async Task PieceAsync(HttpContext http)
    {
        if (await AllowedAsync(http) is not { } release)
            return;
        var linked = store.Derived(release.FileKey, Muxing.FileName(release.Container));
        if (http.Request.RouteValues["piece"] is string piece && Muxing.Pieces(release.Container, linked)?.Contains(piece) == true)
            await files.SendAsync(http, release.FileKey, LessonFiles.PiecesFolder + piece, HlsFolder.MediaType(piece));
        else
            http.Response.StatusCode = StatusCodes.Status404NotFound;
    }

    /// <summary>A picture that stands with a question or a note. Whoever has its key knows what is in it: it is a hash of its bytes.</summary>
    private async Task ShownAsync(HttpContext http)
    {
        if (await AllowedAsync(http) is null)
            return;
        if (http.Request.RouteValues["key"] is string key && ImageFacts.IsKey(key) && store.Has(key, MadeNames.Shown))
            await files.SendAsync(http, key, MadeNames.Shown, "image/jpeg");
        else
            http.Response.StatusCode = StatusCodes.Status404NotFound;
    }

    private async Task PosterAsync(HttpContext http)
    {
        if (await AllowedAsync(http) is not { } release)
            return;
        if (release.PosterKey is { } key)
            await files.SendAsync(http, key, MadeNames.Poster, "image/jpeg");
        else
            http.Response.StatusCode = StatusCodes.Status404NotFound;
    }

    /// <summary>The release whose file is asked for, if whoever asks may have it; otherwise the answer is given already.</summary>
    private async ValueTask<KnownRelease?> AllowedAsync(HttpContext http)
    {
        SafeHeaders.ForOthers(http.Response);
        if (await releases.FindAsync((string)http.Request.RouteValues["token"]!, http.RequestAborted) is not { } release)
            http.Response.StatusCode = StatusCodes.Status404NotFound;
        else if (
            !Seeing.May(release.Shown, Viewer.Stranger, SeenIn.Address, clock.GetUtcNow())
            && !Seeing.May(
                release.Shown,
                await viewers.FindAsync((await http.AuthenticateAsync()).Principal, http.RequestAborted),
                SeenIn.Address,
                clock.GetUtcNow()
            )
        )
            http.Response.StatusCode = StatusCodes.Status401Unauthorized;
        else
            return release;
        return null;
    }
}
