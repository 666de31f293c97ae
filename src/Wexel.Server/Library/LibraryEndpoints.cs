using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Core.Library;
using Wexel.Core.Naming;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Server.Releases;
using Wexel.Server.Rendering;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.SignIn;

namespace Wexel.Server.Library;

/// <param name="Key">What it is asked for by.</param>
/// <param name="Name">The name that it is saved under.</param>
/// <param name="Title">The profile that it was made with, or the outlet.</param>
/// <param name="Purpose">What it is for.</param>
/// <param name="LinkThis">Whether this is the one whose place is handed on.</param>
/// <param name="Link">The page that learners open, where it has one on this server.</param>
/// <param name="Sha256">Its SHA-256 in hexadecimal; of a folder of pieces that of the list of theirs.</param>
/// <param name="GoesWith">What is lost when it is deleted, a sentence for each release that is taken down.</param>
/// <param name="RenditionId">The rendition, where it is the file of one.</param>
internal sealed record MadeFileView(
    string Key,
    string Name,
    MadeKind Kind,
    string Title,
    string Purpose,
    bool LinkThis,
    string? Link,
    long Bytes,
    int Pieces,
    string Sha256,
    DateTimeOffset MadeAt,
    int Revision,
    FileAge Age,
    bool Kept,
    IReadOnlyList<string> GoesWith,
    Guid? RenditionId
);

/// <param name="Files">The one that is handed on first, then the newest.</param>
/// <param name="HasMaster">Whether a master copy of the lesson as it stands is there.</param>
internal sealed record MadeView(Guid LessonId, string LessonTitle, IReadOnlyList<MadeFileView> Files, bool HasMaster);

internal sealed record KeepRequest(bool Kept);

/// <param name="FreeBytes">What is free on the disk.</param>
internal sealed record SpaceView(long FreeBytes, IReadOnlyList<SpaceKind> Kinds);

internal sealed record FreedView(long Bytes);

internal static class LibraryEndpoints
{
    /// <summary>How long who deletes waits for somebody else who does; longer takes only a backup.</summary>
    private static readonly TimeSpan LongestWait = TimeSpan.FromSeconds(5);

    internal static void MapLibrary(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/lessons/{id:guid}/files", ListAsync).WithName("MadeFiles");
        routes.MapGet("/api/lessons/{id:guid}/files.zip", ZipAsync).WithName("AllMadeFiles").ExcludeFromDescription();
        routes.MapGet("/api/lessons/{id:guid}/files/{key}", FileAsync).WithName("MadeFile").ExcludeFromDescription();
        routes.MapPut("/api/lessons/{id:guid}/files/{key}/kept", KeepAsync).WithName("KeepFile");
        routes.MapDelete("/api/lessons/{id:guid}/files/{key}", DeleteAsync).WithName("DeleteFile").AddEndpointFilter(UnlessBackedUpAsync);
        routes.MapPost("/api/lessons/{id:guid}/master", MasterAsync).WithName("KeepMaster");
        routes.MapGet("/api/space", SpaceAsync).WithName("Space");
        routes.MapPost("/api/space/{code}/free", FreeAsync).WithName("FreeSpace").AddEndpointFilter(UnlessBackedUpAsync);
    }

    /// <summary>
    /// Nothing goes while a backup is made: what it has written down of the database must still be there when it comes to the files. It holds the same name
    /// (<c>ops/backup.sh</c>). Who only meets another person's deleting waits for its end.
    /// </summary>
    private static async ValueTask<object?> UnlessBackedUpAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var db = context.HttpContext.RequestServices.GetRequiredService<WexelDb>();
        using var enough = CancellationTokenSource.CreateLinkedTokenSource(context.HttpContext.RequestAborted);
        enough.CancelAfter(LongestWait);
        try
        {
            await using var hold = await WorkHold.WaitAsync(db, "backup", enough.Token);
            return await next(context);
        }
        catch (OperationCanceledException) when (enough.IsCancellationRequested && !context.HttpContext.RequestAborted.IsCancellationRequested)
        {
            return Problems.Answer(
                new Problem("backup-under-way", "A backup is being made, and needs every file until it is done. Delete it then."),
                StatusCodes.Status409Conflict
            );
        }
    }

    private static async Task<Results<Ok<MadeView>, ProblemHttpResult>> ListAsync(
        Guid id,
        WexelDb db,
        MadeFileReader reader,
        FileNamer namer,
        OutletKinds kinds,
        FileStore store,
        CancellationToken cancel
    )
    {
        if (await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel) is not { } lesson)
            return Problems.NotThere("lesson");
        var files = await reader.ReadAsync(lesson, cancel);
        var toLink = MadeFiles.ToLink([.. files.Select(f => f.Facts)]);
        var names = await NamesAsync(lesson, files, namer, cancel);
        var views = new List<MadeFileView>();
        foreach (var (i, file) in files.Index())
        {
            var parts = file.Files(store);
            var folder = store.Folder(file.Key);
            var channel = file.Releases.FirstOrDefault(r => kinds[r.Outlet!.Kind].HasPages);
            views.Add(
                new MadeFileView(
                    file.Key,
                    names[i],
                    file.Facts.Kind,
                    file.Title,
                    file.Facts.Purpose,
                    i == toLink,
                    channel is null ? null : $"/watch/{channel.Token}",
                    parts.Sum(p => new FileInfo(Path.Combine(folder, p)).Length),
                    parts.Count,
                    FileSums.One(await FileSums.ListAsync(folder, parts, cancel)),
                    file.MadeAt,
                    file.Revision,
                    file.Facts.Age,
                    file.Facts.Kept,
                    [.. file.Facts.Uses.Select(u => u.Loss)],
                    file.Rendition
                )
            );
        }

        return TypedResults.Ok(
            new MadeView(id, lesson.Title, [.. views.OrderByDescending(v => v.LinkThis)], files.Any(f => f.Facts is { IsMaster: true, Age: FileAge.UpToDate }))
        );
    }

    /// <summary>Names that tell the files of one lesson apart.</summary>
    private static async Task<List<string>> NamesAsync(Lesson lesson, IReadOnlyList<LibraryFile> files, FileNamer names, CancellationToken cancel)
    {
        var distinct = new DistinctNames();
        var all = new List<string>(files.Count);
        foreach (var file in files)
        {
            var ending = file.Facts.Container is { } container && ContainerFacts.Of(container).IsFolder ? "" : Path.GetExtension(file.Name);
            all.Add(distinct.Take(await names.NameAsync(lesson, file.Title, cancel), ending));
        }

        return all;
    }

    private static async Task<IResult> FileAsync(
        Guid id,
        string key,
        WexelDb db,
        MadeFileReader reader,
        FileNamer namer,
        FileStore store,
        CancellationToken cancel
    )
    {
        if (await FindAsync(id, key, db, reader, namer, cancel) is not { } found)
            return Problems.NotThere("file");
        if (found.File.Files(store) is { Count: > 1 })
            return new ZipDownload(await PackedAsync(found.File, "", store, cancel), found.Name + ".zip");
        return TypedResults.PhysicalFile(store.Derived(key, found.File.Name), found.File.MediaType, found.Name, enableRangeProcessing: true);
    }

    /// <summary>All files of a lesson in one ZIP, with their sums; it is packed while it goes.</summary>
    private static async Task<IResult> ZipAsync(Guid id, WexelDb db, MadeFileReader reader, FileNamer namer, FileStore store, CancellationToken cancel)
    {
        if (await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel) is not { } lesson)
            return Problems.NotThere("lesson");
        var files = await reader.ReadAsync(lesson, cancel);
        if (files.Count == 0)
            return Problems.Answer(new Problem("nothing-made", "Nothing has been made of this lesson yet. Render it first."));
        var (packed, sums) = (new List<PackageFile>(), "");
        foreach (var (file, name) in files.Zip(await NamesAsync(lesson, files, namer, cancel)))
        {
            var inside = await PackedAsync(file, name, store, cancel);
            packed.AddRange(inside);
            sums += string.Concat(
                (await FileSums.ListAsync(store.Folder(file.Key), file.Files(store), cancel))
                    .Split('\n', StringSplitOptions.RemoveEmptyEntries)
                    .Zip(inside, (line, to) => $"{line[..64]}  {to.Path}\n")
            );
        }

        packed.Add(new PackageFile("SHA256SUMS.txt", "The SHA-256 of each file; sha256sum -c checks them.", new PackageContent.Text(sums)));
        return new ZipDownload(packed, await namer.NameAsync(lesson, null, cancel) + ".zip");
    }

    /// <summary>A file as it stands in a ZIP: under its name, or the pieces of a folder below it.</summary>
    private static async Task<List<PackageFile>> PackedAsync(LibraryFile file, string name, FileStore store, CancellationToken cancel)
    {
        var parts = file.Files(store);
        // The sums are written in the order of the pieces, so both are gone through alike.
        await FileSums.ListAsync(store.Folder(file.Key), parts, cancel);
        return
        [
            .. parts.Select(p => new PackageFile(
                parts.Count == 1 ? name : Path.Join(name, p[LessonFiles.PiecesFolder.Length..]),
                file.Facts.Purpose,
                new PackageContent.Copy(store.Keyed(file.Key, p), AlreadyCompressed: true)
            )),
        ];
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> KeepAsync(Guid id, string key, KeepRequest request, WexelDb db, CancellationToken cancel)
    {
        var changed = await db
            .Renditions.Where(r => r.LessonId == id && r.FileKey == key && r.State == RenditionState.Done)
            .ExecuteUpdateAsync(set => set.SetProperty(r => r.Kept, request.Kept), cancel);
        return changed == 0 ? Problems.NotThere("file") : TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> DeleteAsync(
        Guid id,
        string key,
        bool? takeDown,
        WexelDb db,
        MadeFileReader reader,
        FileNamer namer,
        Releaser releaser,
        ReleaseWaiting waiting,
        FreeableSpace space,
        CancellationToken cancel
    )
    {
        if (await FindAsync(id, key, db, reader, namer, cancel) is not { File: var file })
            return Problems.NotThere("file");
        if (file.Facts.Kept)
            return Problems.Answer(
                new Problem("file-kept", "This file is kept. Say first that it need not be, then delete it."),
                StatusCodes.Status409Conflict
            );
        if (file.Releases.Count > 0 && takeDown != true)
            return Problems.Answer(
                new Problem(
                    "file-in-use",
                    $"{string.Join(" and ", file.Facts.Uses.Select(u => $"“{u.Outlet}”"))} would lose it. Take it down there first, or delete it "
                        + $"together with the release."
                ),
                StatusCodes.Status409Conflict
            );
        await releaser.TakeDownAsync(file.Releases, cancel);
        foreach (var release in file.Releases)
        {
            if (await waiting.UntilOverAsync<Release>(release.Id, cancel) is { } problem)
                return Problems.Answer(problem);
            if (await db.Releases.AnyAsync(r => r.Id == release.Id, cancel))
                return Problems.Answer(
                    new Problem("release-busy", "It is still being taken down. Delete the file once nothing stands there any more."),
                    StatusCodes.Status409Conflict
                );
        }

        await space.RemoveAsync(file, cancel);
        return TypedResults.NoContent();
    }

    /// <summary>Has a master copy made, which is kept until somebody lets go of it.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> MasterAsync(
        Guid id,
        WexelDb db,
        RenderQueue queue,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (await db.Lessons.Include(l => l.Course).FirstOrDefaultAsync(l => l.Id == id, cancel) is not { } lesson)
            return Problems.NotThere("lesson");
        var asked = await queue.AskAsync([lesson], [Core.Encoding.Profiles.Master], user.Id(), tells: true, cancel);
        if (asked.Refused is [{ Problem: var refused }, ..])
            return Problems.Answer(refused);
        foreach (var rendition in asked.Renditions)
            await db.Renditions.Where(r => r.Id == rendition.Id).ExecuteUpdateAsync(set => set.SetProperty(r => r.Kept, true), cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Ok<SpaceView>> SpaceAsync(FreeableSpace space, FileStore store, CancellationToken cancel) =>
        TypedResults.Ok(new SpaceView(store.FreeBytes, await space.FindAsync(cancel)));

    private static async Task<Results<Ok<FreedView>, ProblemHttpResult>> FreeAsync(string code, FreeableSpace space, CancellationToken cancel) =>
        FreeableSpace.IsFreed(code) ? TypedResults.Ok(new FreedView(await space.FreeAsync(code, cancel))) : Problems.NotThere("kind of file that is freed");

    private static async Task<(LibraryFile File, string Name)?> FindAsync(
        Guid lessonId,
        string key,
        WexelDb db,
        MadeFileReader reader,
        FileNamer namer,
        CancellationToken cancel
    )
    {
        if (await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == lessonId, cancel) is not { } lesson)
            return null;
        var files = await reader.ReadAsync(lesson, cancel);
        var names = await NamesAsync(lesson, files, namer, cancel);
        return files.Zip(names).Where(f => f.First.Key == key).Select(f => ((LibraryFile, string)?)f).FirstOrDefault();
    }
}
