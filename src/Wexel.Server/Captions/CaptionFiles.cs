using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Naming;
using Wexel.Data;
using Wexel.Making.Transcripts;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Captions;

/// <summary>A lesson's captions as files, in the time of the lesson as it is seen.</summary>
internal static class CaptionFiles
{
    private const string PlainText = "txt";
    private const string Document = "docx";

    internal static void MapCaptionFiles(this IEndpointRouteBuilder routes) =>
        routes.MapGet("/api/lessons/{id:guid}/captions/{track}/file.{ending}", GetAsync).WithName("CaptionFile").ExcludeFromDescription();

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> GetAsync(
        Guid id,
        string track,
        string ending,
        WexelDb db,
        LessonSaver saver,
        LessonReels reels,
        CaptionStore captions,
        CancellationToken cancel
    )
    {
        if (await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel) is not { } lesson)
            return Problems.NotThere("lesson");
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        if (document.Captions.FirstOrDefault(t => t.Id == track) is not { } found || await captions.ReadAsync(found.Hash, cancel) is not { } cues)
            return Problems.NotThere("caption track");
        if (await reels.TimesAsync(document.Recordings, cancel) is not { } reel)
            return Problems.NotThere("recording");
        var map = reel.Map(document.Cuts);
        var shown = Cue.Kind.Following(cues, map);
        var headings = Section.Kind.Following(document.Sections, map).Select(s => (s.At, s.Title)).ToList();
        var name = $"{FileName.Safe(document.Title, "captions")}-{found.Language}.{ending}";
        return ending switch
        {
            PlainText => File(Encoding.UTF8.GetBytes(Transcript.Text(shown, headings)), "text/plain; charset=utf-8"),
            Document => File(TranscriptDocument.Write(document.Title, found.Language, Transcript.Parts(shown, headings)), TranscriptDocument.MediaType),
            _ when CaptionFormats.Find(ending) is { } format => File(
                Encoding.UTF8.GetBytes(format.Write(shown, found.Language)),
                format.MediaType + "; charset=utf-8"
            ),
            _ => Problems.NotThere("caption format"),
        };

        FileContentHttpResult File(byte[] bytes, string type) => TypedResults.File(bytes, type, name);
    }
}
