using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Contents;
using Wexel.Core.Naming;
using Wexel.Data;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Contents;

/// <summary>A lesson's contents as files, in the time of the lesson as it is seen.</summary>
internal static class ContentsFiles
{
    internal static void MapContentsFiles(this IEndpointRouteBuilder routes) =>
        routes.MapGet("/api/lessons/{id:guid}/contents.{ending}", GetAsync).WithName("ContentsFile").ExcludeFromDescription();

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> GetAsync(
        Guid id,
        string ending,
        WexelDb db,
        LessonSaver saver,
        LessonReels reels,
        CancellationToken cancel
    )
    {
        if (await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel) is not { } lesson)
            return Problems.NotThere("lesson");
        if (ContentsFormats.Find(ending) is not { } format)
            return Problems.NotThere("format of contents");
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        if (await reels.TimesAsync(document.Recordings, cancel) is not { } reel)
            return Problems.NotThere("recording");
        var map = reel.Map(document.Cuts);
        var text = format.Write(document.Title, Section.Kind.Following(document.Sections, map), map.Length);
        return TypedResults.File(
            Encoding.UTF8.GetBytes(text),
            format.MediaType + "; charset=utf-8",
            $"{FileName.Safe(document.Title, "contents")}-contents{format.Ending}"
        );
    }
}
