using System.Globalization;

namespace Wexel.StandIns.Video.Studio;

/// <summary>Takes files in pieces (tus 1.0.0, core protocol).</summary>
internal static class Uploading
{
    /// <summary>The piece from which on a used-up quota is noticed.</summary>
    private const int QuotaFrom = 7;

    internal static void MapUploading(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/upload").RequireAuthorization().AddEndpointFilter(VideoApi.StandingAsync);
        group.MapMethods("/{id}/{source:int}", ["HEAD"], Where);
        group.MapPatch("/{id}/{source:int}", TakeAsync);
    }

    private static Video? Find(HttpContext http, Store store, string id, int source) =>
        VideoApi.Find(http, store, id) is { } video && video.Source == source ? video : null;

    private static IResult Where(string id, int source, HttpContext http, Store store)
    {
        http.Response.Headers["Tus-Resumable"] = "1.0.0";
        if (Find(http, store, id, source) is not { } video)
            return Results.StatusCode(404);
        http.Response.Headers["Upload-Offset"] = Length(store.Source(video)).ToString(CultureInfo.InvariantCulture);
        http.Response.Headers["Upload-Length"] = video.Bytes.ToString(CultureInfo.InvariantCulture);
        http.Response.Headers.CacheControl = "no-store";
        return Results.Ok();
    }

    private static async Task<IResult> TakeAsync(string id, int source, HttpContext http, Store store, Troubles troubles, Pieces pieces)
    {
        await Task.Delay(pieces.Pause, http.RequestAborted);
        http.Response.Headers["Tus-Resumable"] = "1.0.0";
        if (Find(http, store, id, source) is not { } video)
            return Results.StatusCode(404);
        if (http.Request.ContentType != "application/offset+octet-stream")
            return Results.StatusCode(415);
        if (!long.TryParse(http.Request.Headers["Upload-Offset"], CultureInfo.InvariantCulture, out var offset) || offset != Length(store.Source(video)))
            return Results.StatusCode(409);
        if (pieces.Next(id) >= QuotaFrom && troubles.Left("quota") > 0)
            return Results.Problem("The quota of this account is used up for today. It is full again at midnight.", statusCode: 403, title: "Quota");
        try
        {
            await using var file = new FileStream(store.Source(video), FileMode.Append, FileAccess.Write, FileShare.Read);
            var piece = new byte[256 * 1024];
            for (int got; (got = await http.Request.Body.ReadAsync(piece, http.RequestAborted)) > 0; offset += got)
            {
                if (offset + got > video.Bytes)
                    return Results.StatusCode(413);
                await file.WriteAsync(piece.AsMemory(0, got), http.RequestAborted);
            }
        }
        catch (Exception broken) when (broken is IOException or OperationCanceledException or BadHttpRequestException)
        {
            // What has come of it stays.
            return Results.StatusCode(499);
        }

        if (offset == video.Bytes && video.UploadedAt is null)
            await store.UploadedAsync(video);
        http.Response.Headers["Upload-Offset"] = offset.ToString(CultureInfo.InvariantCulture);
        return Results.NoContent();
    }

    private static long Length(string file) => File.Exists(file) ? new FileInfo(file).Length : 0;
}

/// <summary>Counts the pieces of uploads, and takes its time over each.</summary>
internal sealed class Pieces(IConfiguration configuration)
{
    /// <summary>How long it takes over each.</summary>
    internal TimeSpan Pause { get; } = TimeSpan.FromSeconds(configuration.GetValue("Video:SecondsAPiece", 0.0));

    private readonly System.Collections.Concurrent.ConcurrentDictionary<string, int> _all = new();

    internal int Next(string id) => _all.AddOrUpdate(id, 1, (_, now) => now + 1);
}
