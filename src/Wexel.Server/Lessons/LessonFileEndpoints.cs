using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Documents;
using Wexel.Core.Lessons;
using Wexel.Core.Packages;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Making.Lessons;
using Wexel.Making.Storage;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Lessons;

/// <summary>Lessons as files: to keep a copy at home, or to take one to another machine.</summary>
internal static class LessonFileEndpoints
{
    internal static void MapLessonFiles(this IEndpointRouteBuilder routes)
    {
        routes
            .MapGet("/api/lesson-files/schema", () => TypedResults.Content(LessonFile.Schema().ToJsonString(), "application/schema+json"))
            .WithName("LessonFileSchema");
        routes.MapGet("/api/lessons/{id:guid}/lesson.wexel.json", TextAsync).WithName("LessonFile").ExcludeFromDescription();
        routes.MapGet("/api/lessons/{id:guid}/lesson.zip", ZipAsync).WithName("LessonZip").ExcludeFromDescription();
    }

    /// <summary>The lesson file alone.</summary>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> TextAsync(
        Guid id,
        WexelDb db,
        RenderPlans plans,
        FileStore store,
        FileNamer names,
        CancellationToken cancel
    ) =>
        await PlanAsync(id, db, plans, store, cancel) is [{ Content: PackageContent.Text text }, ..] plan
            ? TypedResults.File(Encoding.UTF8.GetBytes(text.Value), "application/json", await names.NameAsync(id, cancel) + LessonFile.Ending)
            : Problems.NotThere("lesson");

    /// <summary>The lesson file with everything that it names; it is packed while it goes.</summary>
    private static async Task<IResult> ZipAsync(Guid id, WexelDb db, RenderPlans plans, FileStore store, FileNamer names, CancellationToken cancel) =>
        await PlanAsync(id, db, plans, store, cancel) is { } plan
            ? new ZipDownload(plan, await names.NameAsync(id, cancel) + ".wexel.zip")
            : Problems.NotThere("lesson");

    private static async Task<IReadOnlyList<PackageFile>?> PlanAsync(Guid id, WexelDb db, RenderPlans plans, FileStore store, CancellationToken cancel)
    {
        if (await plans.LessonAsync(id, cancel) is not { } lesson)
            return null;
        var (hashes, all) = (lesson.Document.Recordings, lesson.Document.AllRecordings);
        var rows = await db
            .Recordings.AsNoTracking()
            .Where(r => all.Contains(r.Hash))
            .Select(r => new
            {
                r.Hash,
                r.FileName,
                r.Facts,
            })
            .ToDictionaryAsync(r => r.Hash, cancel);
        return LessonArchive.Plan(
            lesson,
            id,
            [.. hashes.Select(h => (rows[h].FileName, WexelJson.Read<RecordingFacts>(rows[h].Facts).UsedSounds))],
            [.. lesson.Document.Cameras.Select(c => rows[c.Recording].FileName)],
            store
        );
    }
}
