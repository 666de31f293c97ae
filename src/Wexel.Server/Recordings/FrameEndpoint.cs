using System.Collections.Concurrent;
using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core.Documents;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Making.Storage;
using Wexel.Media.Analysing;
using Wexel.Media.Tools;
using Wexel.Server.Setup;

namespace Wexel.Server.Recordings;

/// <summary>Single frames for the run sheet, taken when somebody looks.</summary>
internal static class FrameEndpoint
{
    /// <summary>Not more at once: each is a decoder, and there may be renders beside them.</summary>
    private static readonly SemaphoreSlim AtOnce = new(2);

    /// <summary>What is being taken, so that thirty questions for one bundle are one piece of work.</summary>
    private static readonly ConcurrentDictionary<string, Lazy<Task>> UnderWay = new();

    internal static void MapFrames(this IEndpointRouteBuilder routes) =>
        routes.MapGet("/api/recordings/{hash}/frames/{number:long}.jpg", FrameAsync).WithName("RecordingFrame").ExcludeFromDescription();

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> FrameAsync(
        string hash,
        long number,
        WexelDb db,
        FileStore store,
        HttpResponse response,
        CancellationToken cancel
    )
    {
        if (await db.Recordings.FindAsync([hash], cancel) is not { } recording)
            return Problems.NotThere("recording");
        var facts = WexelJson.Read<RecordingFacts>(recording.Facts);
        if (facts.Picture is null || number < 0 || number >= Reel.Of(facts).Frames)
            return Problems.NotThere("frame");
        var bundle = number / FrameTaker.InARow;
        var folder = store.Folder(RecordingKeys.Frames(hash, bundle));
        try
        {
            if (!Directory.Exists(folder))
                await UnderWay.GetOrAdd(folder, _ => new Lazy<Task>(() => TakeAsync(store.Recording(hash), facts, bundle, folder))).Value.WaitAsync(cancel);
        }
        catch (ToolFailedException)
        {
            return Problems.NotThere("frame");
        }

        // Where the recording's picture ends before its length does, the last frame stands on.
        var path = Enumerable
            .Range(0, FrameTaker.InARow)
            .Select(back => Path.Combine(folder, FrameTaker.Name(Math.Max(bundle * FrameTaker.InARow, number - back))))
            .FirstOrDefault(File.Exists);
        if (path is null)
            return Problems.NotThere("frame");
        response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return TypedResults.PhysicalFile(path, "image/jpeg");
    }

    private static async Task TakeAsync(string path, RecordingFacts facts, long bundle, string folder)
    {
        await AtOnce.WaitAsync();
        try
        {
            Directory.CreateDirectory(Path.GetDirectoryName(folder)!);
            await FrameTaker.TakeAsync(facts, path, bundle, folder, CancellationToken.None);
        }
        finally
        {
            AtOnce.Release();
            UnderWay.TryRemove(folder, out _);
        }
    }
}
