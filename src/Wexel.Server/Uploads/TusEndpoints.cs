using System.Globalization;
using System.Security.Claims;
using System.Security.Cryptography;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Contents;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Server.Serving;
using Wexel.Server.Setup;
using Wexel.Server.SignIn;

namespace Wexel.Server.Uploads;

/// <summary>Resumable upload by tus 1.0: core, creation, creation-with-upload, termination, checksum, expiration.</summary>
internal static class TusEndpoints
{
    internal const string At = "/api/uploads";

    internal static void MapTus(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup(At).ExcludeFromDescription().AddEndpointFilter(SpeaksTusAsync);
        group.MapMethods("", [HttpMethods.Options], OfferAsync);
        group.MapPost("", CreateAsync).RequireRateLimiting(Limits.Uploads).WithName("BeginUpload");
        group.MapMethods("{id:guid}", [HttpMethods.Head], StandAsync);
        group.MapPatch("{id:guid}", AddAsync);
        group.MapDelete("{id:guid}", EndAsync).WithName("EndUpload");
    }

    private static async ValueTask<object?> SpeaksTusAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var (request, response) = (context.HttpContext.Request, context.HttpContext.Response);
        response.Headers["Tus-Resumable"] = TusHeaders.Version;
        response.Headers.CacheControl = "no-store";
        if (HttpMethods.IsOptions(request.Method) || request.Headers["Tus-Resumable"] == TusHeaders.Version)
            return await next(context);
        response.Headers["Tus-Version"] = TusHeaders.Version;
        return Refused(
            StatusCodes.Status412PreconditionFailed,
            "tus-version",
            $"This server speaks tus {TusHeaders.Version}; say so in the header Tus-Resumable."
        );
    }

    private static Task<IResult> OfferAsync(HttpResponse response, IOptions<WexelOptions> options)
    {
        response.Headers["Tus-Version"] = TusHeaders.Version;
        response.Headers["Tus-Extension"] = TusHeaders.Extensions;
        response.Headers["Tus-Checksum-Algorithm"] = TusHeaders.Algorithms;
        response.Headers["Tus-Max-Size"] = options.Value.LargestRecording.ToString(CultureInfo.InvariantCulture);
        return Task.FromResult(Results.NoContent());
    }

    private static async Task<IResult> CreateAsync(
        HttpRequest request,
        HttpResponse response,
        WexelDb db,
        UploadKeeper uploads,
        FileStore store,
        PieceWriter pieces,
        DiskRoom room,
        IOptions<WexelOptions> options,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (TusHeaders.Bytes(request, "Upload-Length") is not { } bytes)
            return Refused(StatusCodes.Status400BadRequest, "tus-length", "The header Upload-Length must say how many bytes will come.");
        if (TusHeaders.Metadata(request) is not { } metadata)
            return Refused(StatusCodes.Status400BadRequest, "tus-metadata", "The header Upload-Metadata must hold keys with values in Base64.");
        var name = Receiver.CleanName(metadata.GetValueOrDefault("filename", ""));
        if (Receiver.TooLarge(bytes, name, options.Value) is { } tooLarge)
            return Refused(StatusCodes.Status413PayloadTooLarge, tooLarge.Code, tooLarge.Sentence);
        if (await room.LacksBesideUploadsAsync(bytes, $"“{name}”", cancel) is { } full)
            return Refused(StatusCodes.Status507InsufficientStorage, full.Code, full.Sentence);
        if (await uploads.UnderWayAsync(user.Id(), cancel) >= options.Value.UploadsUnderWay)
            return Refused(
                StatusCodes.Status429TooManyRequests,
                "uploads-too-many",
                $"{options.Value.UploadsUnderWay} of your uploads have not come to their end. Send those, or stop some."
            );
        var upload = new Upload
        {
            FileName = name,
            Title = metadata.GetValueOrDefault("title") is { } title ? SectionRules.OneLine(title) : null,
            Bytes = bytes,
            Changed = metadata.GetValueOrDefault("changed") is { } changed ? SectionRules.OneLine(changed) : null,
            ForLesson = Guid.TryParse(metadata.GetValueOrDefault("lesson"), out var lesson) ? lesson : null,
            By = user.Id(),
            ByName = user.Identity!.Name!,
            ExpiresAt = uploads.Expires,
        };
        await File.WriteAllBytesAsync(store.Uploading(upload.Id), [], cancel);
        db.Uploads.Add(upload);
        await db.SaveChangesAsync(cancel);
        response.Headers.Location = $"{At}/{upload.Id}";
        response.Headers["Upload-Expires"] = upload.ExpiresAt.ToString("R", CultureInfo.InvariantCulture);
        if (request.ContentType != TusHeaders.PieceType)
            return bytes == 0 ? await KeptAsync(upload, uploads, response, StatusCodes.Status201Created) : Results.StatusCode(StatusCodes.Status201Created);
        var result = await PieceAsync(upload, 0, request, uploads, store, pieces, room, cancel);
        return result is not null ? result : await KeptAsync(upload, uploads, response, StatusCodes.Status201Created);
    }

    private static async Task<IResult> StandAsync(Guid id, HttpResponse response, UploadKeeper uploads, ClaimsPrincipal user, CancellationToken cancel)
    {
        if (await uploads.FindAsync(id, user.Id(), cancel) is not { } upload)
            return Results.NotFound();
        response.Headers["Upload-Offset"] = (await uploads.ArrivedAsync(upload, cancel)).ToString(CultureInfo.InvariantCulture);
        response.Headers["Upload-Length"] = upload.Bytes.ToString(CultureInfo.InvariantCulture);
        response.Headers["Upload-Expires"] = upload.ExpiresAt.ToString("R", CultureInfo.InvariantCulture);
        return Results.Ok();
    }

    private static async Task<IResult> AddAsync(
        Guid id,
        HttpRequest request,
        HttpResponse response,
        UploadKeeper uploads,
        FileStore store,
        PieceWriter pieces,
        DiskRoom room,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (await uploads.FindAsync(id, user.Id(), cancel) is not { } upload)
            return Ended();
        if (request.ContentType != TusHeaders.PieceType)
            return Refused(StatusCodes.Status415UnsupportedMediaType, "tus-type", $"A piece must be sent as {TusHeaders.PieceType}.");
        if (TusHeaders.Bytes(request, "Upload-Offset") is not { } offset)
            return Refused(StatusCodes.Status400BadRequest, "tus-offset", "The header Upload-Offset must say where the piece starts.");
        if (UploadKeeper.AllCame(upload))
            return offset == upload.Bytes
                ? Stands(response, upload.Bytes)
                : Refused(StatusCodes.Status409Conflict, "tus-offset", "All of it has come already.");
        var result = await PieceAsync(upload, offset, request, uploads, store, pieces, room, cancel);
        return result is not null ? result : await KeptAsync(upload, uploads, response, StatusCodes.Status204NoContent);
    }

    private static async Task<IResult> EndAsync(Guid id, UploadKeeper uploads, ClaimsPrincipal user, CancellationToken cancel)
    {
        if (await uploads.FindAsync(id, user.Id(), cancel) is not { } upload)
            return Results.NotFound();
        await uploads.RemoveAsync(upload, cancel);
        return Results.NoContent();
    }

    /// <summary>Takes the request's body as a piece; null where it was kept.</summary>
    private static async Task<IResult?> PieceAsync(
        Upload upload,
        long offset,
        HttpRequest request,
        UploadKeeper uploads,
        FileStore store,
        PieceWriter pieces,
        DiskRoom room,
        CancellationToken cancel
    )
    {
        request.TakeAnySize();
        // Others may have filled the disk since this began; what has come stays until there is room again.
        if (room.Lacks(request.ContentLength ?? 0, $"“{upload.FileName}”") is { } full)
            return Refused(StatusCodes.Status507InsufficientStorage, full.Code, full.Sentence);
        (HashAlgorithmName, byte[])? expected = null;
        if (TusHeaders.Checksum(request) is { } checksum)
        {
            if (checksum.Algorithm is not { } algorithm)
                return Refused(
                    StatusCodes.Status400BadRequest,
                    "tus-checksum",
                    $"The header Upload-Checksum must hold one of {TusHeaders.Algorithms} and the sum in Base64."
                );
            expected = (algorithm, checksum.Sum);
        }

        return await pieces.AddAsync(store.Uploading(upload.Id), offset, upload.Bytes, request.Body, request.ContentLength, expected, cancel) switch
        {
            PieceResult.Kept => null,
            PieceResult.OtherOffset => Refused(
                StatusCodes.Status409Conflict,
                "tus-offset",
                $"The piece must start at {await uploads.ArrivedAsync(upload, cancel)}, where what has come ends."
            ),
            PieceResult.TooLong => Refused(
                StatusCodes.Status413PayloadTooLarge,
                "tus-too-long",
                $"The piece goes over the {upload.Bytes} bytes that were announced."
            ),
            PieceResult.NoRoom => Problems.Answer(DiskRoom.NoMore($"“{upload.FileName}”"), StatusCodes.Status507InsufficientStorage),
            PieceResult.OtherChecksum => Refused(460, "tus-checksum", "The piece’s checksum is another than was said; send it again."),
            _ => Refused(StatusCodes.Status423Locked, "tus-busy", "Another piece of this file is coming; try again in a moment."),
        };
    }

    private static async Task<IResult> KeptAsync(Upload upload, UploadKeeper uploads, HttpResponse response, int status)
    {
        if (await uploads.KeptAsync(upload) is not { } kept)
            return Ended();
        response.Headers["Upload-Expires"] = kept.Expires.ToString("R", CultureInfo.InvariantCulture);
        return Stands(response, kept.Arrived, status);
    }

    private static IResult Stands(HttpResponse response, long offset, int status = StatusCodes.Status204NoContent)
    {
        response.Headers["Upload-Offset"] = offset.ToString(CultureInfo.InvariantCulture);
        return Results.StatusCode(status);
    }

    private static ProblemHttpResult Ended() =>
        Refused(StatusCodes.Status404NotFound, "not-there", "There is no such upload; it may have been stopped, or waited too long.");

    private static ProblemHttpResult Refused(int status, string code, string sentence) => Problems.Answer(new Problem(code, sentence), status);
}
