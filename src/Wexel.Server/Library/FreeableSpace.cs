using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Encoding;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets;
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
    ProfileShelf shelf,
    KeyReader keys,
    KnownKeys known,
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
            if (rendition.MadeBy is { } madeBy)
                own.UnionWith(MadeBy.Format.Read(madeBy).Keys.Tracks);
            db.Renditions.Remove(rendition);
        }

        await db.SaveChangesAsync(cancel);
        store.Remove(file.Key, null);
        if (own.Count == 0)
            return;
        own.ExceptWith((await NeededAsync(cancel)).Tracks);
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
        var needed = await NeededAsync(cancel);
        // What was written a moment ago may belong to something that is being made.
        var before = clock.GetUtcNow() - options.Value.FreeAfter;
        return
        [
            .. made.Where(f =>
                f.WrittenAt < before
                && KindOf(f.Name) switch
                {
                    Encoded => !needed.Tracks.Contains(f.Key),
                    Finished or Packages => !needed.Files.Contains(f.Key),
                    Looks => true,
                    _ => false,
                }
            ),
        ];
    }

    /// <summary>What must stay. Of tracks: all that lessons as they stand are encoded from, with every profile that they were rendered or released with,
    /// and what is still to be made. Of files and packages: what is released, kept, or up to date.</summary>
    private async Task<(HashSet<string> Tracks, HashSet<string> Files)> NeededAsync(CancellationToken cancel)
    {
        var profiles = (await shelf.AllAsync(cancel)).ToDictionary(p => p.Id);
        // What lies in the bin comes out of it as it was.
        var now = await db.Lessons.IgnoreQueryFilters().Select(l => new SavedLesson(l.Id, l.Revision)).ToDictionaryAsync(l => l.Lesson, cancel);
        var releases = await db
            .Releases.IgnoreQueryFilters()
            .Where(r => r.Phase != ReleasePhase.TakenDown)
            .Select(r => new
            {
                r.LessonId,
                r.ProfileId,
                r.WantedProfileId,
                r.FileKey,
                r.DownloadKey,
                r.SoundKey,
                r.PackageKey,
            })
            .ToListAsync(cancel);
        var courses = await db.CourseReleases.Select(r => r.PackageKey).ToListAsync(cancel);
        var rows = await db
            .Renditions.Select(r => new
            {
                r.LessonId,
                r.Revision,
                r.Profile,
                r.State,
                r.FileKey,
                r.Kept,
            })
            .ToListAsync(cancel);
        // A lesson that came after the first question was asked is not among them, and what is new is not freed.
        releases.RemoveAll(r => !now.ContainsKey(r.LessonId));
        rows.RemoveAll(r => !now.ContainsKey(r.LessonId));
        // Few profiles stand behind many renditions, each with a copy of its own.
        var read = rows.Select(r => r.Profile).Distinct().ToDictionary(text => text, Profile.Format.Read);
        var renditions = rows.ConvertAll(r => (Row: r, Profile: read[r.Profile]));
        var asked = renditions
            .Select(r => (Saved: now[r.Row.LessonId], r.Profile))
            .Concat(renditions.Where(r => IsOpen(r.Row.State)).Select(r => (new SavedLesson(r.Row.LessonId, r.Row.Revision), r.Profile)))
            .Concat(
                releases
                    .SelectMany(r => new[] { r.ProfileId, r.WantedProfileId }, (r, profile) => (r.LessonId, Profile: profile))
                    .Where(r => profiles.ContainsKey(r.Profile))
                    .Select(r => (now[r.LessonId], profiles[r.Profile]))
            )
            .Distinct()
            .ToLookup(a => a.Item1, a => a.Item2);
        var planned = await keys.ReadAsync(asked, cancel);
        known.KeepOnly(asked.Contains);

        // While a recording is looked through again, nobody knows what would be made.
        bool IsNow(Guid lesson, Profile profile, string file) =>
            planned.GetValueOrDefault(now[lesson])?.GetValueOrDefault(ProfileKeys.ProfileKey(profile)) is not { } would || would.File == file;
        var files = renditions
            .Where(r => r.Row is { State: RenditionState.Done, FileKey: not null })
            .Where(r => r.Row.Kept || IsNow(r.Row.LessonId, r.Profile, r.Row.FileKey!));
        return (
            [.. planned.Values.SelectMany(l => l.Values).OfType<PlannedKeys>().SelectMany(k => k.Tracks)],
            [
                .. releases.Select(r => r.FileKey),
                .. releases.SelectMany(r => new[] { r.PackageKey, r.DownloadKey, r.SoundKey }).Concat(courses).OfType<string>(),
                .. files.Select(r => r.Row.FileKey!),
            ]
        );
    }

    private static bool IsOpen(RenditionState state) => state is RenditionState.Waiting or RenditionState.Working or RenditionState.Held;
}
