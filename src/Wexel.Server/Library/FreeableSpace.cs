using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Encoding;
using Wexel.Core.Lessons;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Lessons;
using Wexel.Making.Storage;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Library;

/// <summary>A kind of file that takes room.</summary>
/// <param name="What">What it is.</param>
/// <param name="Files">How many there are.</param>
/// <param name="Bytes">How much they take.</param>
/// <param name="FreeableFiles">How many of them nothing needs.</param>
/// <param name="FreeableBytes">How much those take.</param>
/// <param name="Consequence">What it means to free them; null where nothing of this kind is ever freed.</param>
/// <param name="Code">A name for programs.</param>
internal sealed record SpaceKind(string Code, string What, int Files, long Bytes, int FreeableFiles, long FreeableBytes, string? Consequence);

/// <summary>What the library takes on the disk, and what of it nothing needs.</summary>
internal sealed class FreeableSpace(
    WexelDb db,
    LessonSaver saver,
    RenderPlans plans,
    ProfileShelf shelf,
    MadeFileReader reader,
    FileStore store,
    IOptions<WexelOptions> options,
    TimeProvider clock
)
{
    private const string Finished = "finished",
        Encoded = "encoded",
        Packages = "packages",
        Looks = "looks",
        Other = "other",
        Recordings = "recordings";

    private static readonly Dictionary<string, (string What, string? Consequence)> Words = new()
    {
        [Recordings] = ("Recordings", null),
        [Finished] = ("Finished files", "They are behind their lessons, no outlet has them, and nobody keeps them."),
        [Encoded] = (
            "Encoded pictures and sound",
            "No lesson as it stands now is made of them. Whoever goes back to an earlier revision has it encoded again."
        ),
        [Packages] = ("Packages", "No release hands them on."),
        [Looks] = ("Samples, compared pictures, single frames", "They were made to be looked at, and are made again when somebody looks."),
        [Other] = ("Pictures of the run sheet, viewing copies, captions, the house’s own", null),
    };

    /// <summary>What takes room, the largest first.</summary>
    internal async Task<IReadOnlyList<SpaceKind>> FindAsync(CancellationToken cancel)
    {
        var made = store.Made().ToList();
        var freeable = (await FreeableAsync(made, cancel)).ToLookup(f => KindOf(f.Name));
        var kinds = made.GroupBy(f => KindOf(f.Name))
            .Select(kind =>
            {
                var free = freeable[kind.Key].ToList();
                return new SpaceKind(
                    kind.Key,
                    Words[kind.Key].What,
                    kind.Count(),
                    kind.Sum(f => f.Bytes),
                    free.Count,
                    free.Sum(f => f.Bytes),
                    Words[kind.Key].Consequence
                );
            });
        var (files, bytes) = store.Recordings();
        return [.. kinds.Append(new SpaceKind(Recordings, Words[Recordings].What, files, bytes, 0, 0, null)).OrderByDescending(k => k.Bytes)];
    }

    /// <summary>Whether anything of a kind is ever freed.</summary>
    internal static bool IsFreed(string code) => Words.TryGetValue(code, out var words) && words.Consequence is not null;

    /// <summary>Frees what nothing needs of one kind, and says how much that was.</summary>
    internal async Task<long> FreeAsync(string code, CancellationToken cancel)
    {
        var freed = 0L;
        foreach (var file in (await FreeableAsync(store.Made().ToList(), cancel)).Where(f => KindOf(f.Name) == code))
        {
            // What was found out about a finished file lies beside it and goes with it; beside an encoded picture lies its poster, which stays.
            store.Remove(file.Key, code is Encoded ? file.Name : null);
            freed += file.Bytes;
        }

        // A rendition without its file is nothing that anybody could download.
        if (code == Finished)
        {
            var gone = (await db.Renditions.Where(r => r.State == RenditionState.Done && r.FileKey != null && !r.Kept).ToListAsync(cancel)).Where(r =>
                !store.Has(r.FileKey!, MadeNames.Finished(Profile.Format.Read(r.Profile).Container))
            );
            db.Renditions.RemoveRange(gone);
            await db.SaveChangesAsync(cancel);
        }

        return freed;
    }

    /// <summary>Removes a finished file, and of what it was put together from all that nothing else needs. Its releases are gone already.</summary>
    internal async Task RemoveAsync(LibraryFile file, CancellationToken cancel)
    {
        var own = new HashSet<string>();
        foreach (var rendition in await db.Renditions.Where(r => r.FileKey == file.Key && r.State == RenditionState.Done).ToListAsync(cancel))
        {
            own.UnionWith(await TracksAsync(rendition, cancel));
            db.Renditions.Remove(rendition);
        }

        await db.SaveChangesAsync(cancel);
        store.Remove(file.Key, null);
        if (own.Count == 0)
            return;
        own.ExceptWith(await NeededTracksAsync(cancel));
        foreach (var track in store.Made().Where(f => own.Contains(f.Key) && KindOf(f.Name) == Encoded).ToList())
            store.Remove(track.Key, track.Name);
    }

    private static string KindOf(string name) =>
        MadeNames.KindOf(name) switch
        {
            StoredKind.Package => Packages,
            StoredKind.Encoded => Encoded,
            StoredKind.Look => Looks,
            StoredKind.Finished => Finished,
            _ => Other,
        };

    private async Task<List<StoredFile>> FreeableAsync(IReadOnlyList<StoredFile> made, CancellationToken cancel)
    {
        var tracks = await NeededTracksAsync(cancel);
        var finished = await NeededFilesAsync(cancel);
        // What was written a moment ago may belong to something that is being made.
        var before = clock.GetUtcNow() - options.Value.FreeAfter;
        return
        [
            .. made.Where(f =>
                f.WrittenAt < before
                && KindOf(f.Name) switch
                {
                    Encoded => !tracks.Contains(f.Key),
                    Finished or Packages => !finished.Contains(f.Key),
                    Looks => true,
                    _ => false,
                }
            ),
        ];
    }

    /// <summary>The keys of finished files and packages that are released, kept, or up to date.</summary>
    private async Task<HashSet<string>> NeededFilesAsync(CancellationToken cancel)
    {
        var needed = new HashSet<string>();
        foreach (var release in await db.Releases.AsNoTracking().Select(r => new { r.FileKey, r.PackageKey }).ToListAsync(cancel))
            needed.UnionWith(new[] { release.FileKey, release.PackageKey }.OfType<string>());
        needed.UnionWith((await db.CourseReleases.AsNoTracking().Select(r => r.PackageKey).ToListAsync(cancel)).OfType<string>());
        foreach (var lesson in await db.Lessons.AsNoTracking().ToListAsync(cancel))
            needed.UnionWith((await reader.ReadAsync(lesson, cancel)).Where(f => !f.Facts.CanBeFreed).Select(f => f.Key));
        return needed;
    }

    /// <summary>The keys of all that lessons as they stand are encoded from, with every profile that they were rendered or released with, and of what
    /// is still to be made.</summary>
    private async Task<HashSet<string>> NeededTracksAsync(CancellationToken cancel)
    {
        var needed = new HashSet<string>();
        foreach (var lesson in await db.Lessons.AsNoTracking().Include(l => l.Releases).ToListAsync(cancel))
        {
            var now = await plans.LessonAsync((await saver.CurrentAsync(lesson, cancel))!, cancel);
            var profiles = (
                await db.Renditions.AsNoTracking().Where(r => r.LessonId == lesson.Id).Select(r => r.Profile).Distinct().ToListAsync(cancel)
            ).ConvertAll(Profile.Format.Read);
            foreach (var id in lesson.Releases.Select(r => r.ProfileId).Distinct())
            {
                if (await shelf.FindAsync(id, cancel) is { } profile)
                    profiles.Add(profile);
            }

            needed.UnionWith(profiles.Select(now.With).OfType<PlannedRendition>().SelectMany(p => p.Keys.Tracks));
        }

        foreach (
            var open in await db
                .Renditions.AsNoTracking()
                .Where(r => r.State == RenditionState.Waiting || r.State == RenditionState.Working || r.State == RenditionState.Held)
                .ToListAsync(cancel)
        )
            needed.UnionWith(await TracksAsync(open, cancel));
        return needed;
    }

    /// <summary>What a rendition is put together from: by the plan that it was made by, or where it is still to be made, by that of its revision.</summary>
    private async Task<IEnumerable<string>> TracksAsync(Rendition rendition, CancellationToken cancel)
    {
        if (rendition.MadeBy is { } madeBy)
            return MadeBy.Format.Read(madeBy).Keys.Tracks;
        var saved = await db
            .LessonRevisions.AsNoTracking()
            .FirstOrDefaultAsync(r => r.LessonId == rendition.LessonId && r.Number == rendition.Revision, cancel);
        return saved is null
            ? []
            : (await plans.LessonAsync(LessonDocument.Format.Read(saved.Document), cancel)).With(Profile.Format.Read(rendition.Profile))?.Keys.Tracks ?? [];
    }
}
