using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Contents;
using Wexel.Core.Documents;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Recordings;
using Wexel.Server.Setup;
using Wexel.Server.SignIn;

namespace Wexel.Server.Uploads;

/// <param name="Changed">When the file was last changed where it comes from, as it was announced.</param>
/// <param name="Arrived">How many bytes have come.</param>
/// <param name="ForLesson">The lesson that it is to become a recording of; null where it is to be a lesson of its own.</param>
/// <param name="RecordingHash">The hash of what has come, once it was taken.</param>
/// <param name="LessonId">The lesson that was made of it; null until then.</param>
internal sealed record UploadView(
    Guid Id,
    string FileName,
    string? Title,
    long Bytes,
    string? Changed,
    long Arrived,
    DateTimeOffset ExpiresAt,
    Guid? LessonId,
    Guid? ForLesson,
    string? RecordingHash,
    bool KnownBefore,
    Problem? Problem
);

internal sealed record UploadTitle(string Title);

/// <summary>One's own uploads: how far they are, and their titles while they come.</summary>
internal static class UploadEndpoints
{
    internal static void MapUploads(this IEndpointRouteBuilder routes)
    {
        routes.MapPut("/api/recordings", BringInAsync).WithName("BringIn").Accepts<Stream>("application/octet-stream");
        routes.MapGet(TusEndpoints.At, ListAsync).WithName("Uploads");
        routes.MapGet(TusEndpoints.At + "/{id:guid}", GetAsync).WithName("Upload");
        routes.MapPut(TusEndpoints.At + "/{id:guid}/title", NameAsync).WithName("NameUpload");
    }

    /// <summary>Brings in a recording that comes in one request.</summary>
    private static async Task<Results<Ok<BroughtIn>, ProblemHttpResult>> BringInAsync(
        string fileName,
        Guid? forLesson,
        HttpRequest request,
        Receiver receiver,
        WexelDb db,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (forLesson is not null && !await db.Lessons.AnyAsync(l => l.Id == forLesson, cancel))
            return Problems.NotThere("lesson");
        request.TakeAnySize();
        var (done, problem) = await receiver.TakeAsync(request.Body, request.ContentLength, fileName, user.Id(), user.Identity!.Name!, cancel, forLesson);
        return done is not null ? TypedResults.Ok(done) : Problems.Answer(problem!);
    }

    private static async Task<Ok<List<UploadView>>> ListAsync(
        WexelDb db,
        UploadKeeper uploads,
        ClaimsPrincipal user,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var (now, by) = (clock.GetUtcNow(), user.Id());
        var mine = await db
            .Uploads.AsNoTracking()
            .Where(u => u.By == by && u.ExpiresAt > now && u.LessonId == null && u.Problem == null)
            .OrderBy(u => u.Id)
            .ToListAsync(cancel);
        var views = new List<UploadView>();
        foreach (var upload in mine)
            views.Add(await ViewAsync(upload, uploads, cancel));
        return TypedResults.Ok(views);
    }

    private static async Task<Results<Ok<UploadView>, ProblemHttpResult>> GetAsync(
        Guid id,
        UploadKeeper uploads,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) => await uploads.FindAsync(id, user.Id(), cancel) is { } upload ? TypedResults.Ok(await ViewAsync(upload, uploads, cancel)) : Problems.NotThere("upload");

    private static async Task<Results<NoContent, ProblemHttpResult>> NameAsync(
        Guid id,
        UploadTitle wanted,
        WexelDb db,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        var (by, title) = (user.Id(), SectionRules.OneLine(wanted.Title));
        // Once it is a lesson, the lesson's own page has the title.
        var named = await db
            .Uploads.Where(u => u.Id == id && u.By == by && u.LessonId == null)
            .ExecuteUpdateAsync(set => set.SetProperty(u => u.Title, title), cancel);
        return named == 1 ? TypedResults.NoContent() : Problems.NotThere("upload");
    }

    private static async Task<UploadView> ViewAsync(Upload u, UploadKeeper uploads, CancellationToken cancel) =>
        new(
            u.Id,
            u.FileName,
            u.Title,
            u.Bytes,
            u.Changed,
            await uploads.ArrivedAsync(u, cancel),
            u.ExpiresAt,
            u.LessonId,
            u.ForLesson,
            u.LessonId is null ? null : u.RecordingHash,
            u.KnownBefore,
            u.Problem is null ? null : WexelJson.Read<Problem>(u.Problem)
        );
}
