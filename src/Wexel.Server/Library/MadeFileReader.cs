using Microsoft.EntityFrameworkCore;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Library;
using Wexel.Core.Packages;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Lessons;
using Wexel.Making.Storage;
using Wexel.Media.Rendering;
using Wexel.Server.Releases;
using Wexel.Server.Shelves;

namespace Wexel.Server.Library;

/// <summary>A made file of a lesson where it lies.</summary>
/// <param name="Key">The key under which it lies.</param>
/// <param name="Name">Its path in the key's folder; of a folder of pieces that of its playlist.</param>
/// <param name="Title">What it was made with: the profile's name, or the outlet's.</param>
/// <param name="MediaType">Its media type.</param>
/// <param name="MadeAt">When it was made.</param>
/// <param name="Revision">The lesson's revision that it was made from.</param>
/// <param name="Facts">What decides what it is for.</param>
/// <param name="Releases">The releases that serve it.</param>
/// <param name="Rendition">The rendition that it is the file of, where it is one.</param>
internal sealed record LibraryFile(
    string Key,
    string Name,
    string Title,
    string MediaType,
    DateTimeOffset MadeAt,
    int Revision,
    MadeFile Facts,
    IReadOnlyList<Release> Releases,
    Guid? Rendition
)
{
    /// <summary>The files that it is: itself, or all pieces of its folder, relative to the key's folder.</summary>
    internal IReadOnlyList<string> Files(FileStore store) =>
        Facts.Container is { } container && Muxing.Pieces(container, store.Derived(Key, Name)) is { } pieces
            ? [.. pieces.Select(p => LessonFiles.PiecesFolder + p)]
            : [Name];
}

/// <summary>Finds all files that were made of a lesson.</summary>
internal sealed class MadeFileReader(
    WexelDb db,
    LessonSaver saver,
    RenderPlans plans,
    ProfileShelf shelf,
    OutletShelf outlets,
    StandingReader standings,
    FileStore store
)
{
    /// <summary>The files of a lesson that are there, the newest first.</summary>
    internal async Task<IReadOnlyList<LibraryFile>> ReadAsync(Lesson lesson, CancellationToken cancel)
    {
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        var now = await plans.LessonAsync(document, cancel);
        var releases = await db.Releases.Include(r => r.Outlet).ThenInclude(o => o!.Feed).Where(r => r.LessonId == lesson.Id).ToListAsync(cancel);
        var places = releases.ToDictionary(r => r.Id, r => outlets.Known(r.Outlet!));
        var standing = await standings.ReadAsync(cancel);
        var renditions = await db
            .Renditions.AsNoTracking()
            .Where(r => r.LessonId == lesson.Id && r.State == RenditionState.Done && r.FileKey != null)
            .OrderByDescending(r => r.EndedAt)
            .ToListAsync(cancel);
        var files = new List<LibraryFile>();
        foreach (var same in renditions.GroupBy(r => r.FileKey!))
        {
            var (last, profile) = (same.First(), Profile.Format.Read(same.First().Profile));
            files.Add(
                Rendition(
                    same.Key,
                    profile,
                    last.EndedAt ?? last.RequestedAt,
                    last.Revision,
                    same.Any(r => r.Kept),
                    last.Id,
                    Age(now, profile, same.Key, last.EncodeKey)
                )
            );
        }

        foreach (var release in releases)
        {
            // Releasing puts a new title into the file by itself; such a file belongs to no rendition.
            if (places[release.Id].Terms.Copies is [var media, ..])
            {
                files.Add(Episode(release, release.FileKey, media));
                if (release.SoundKey is { } sound)
                    files.Add(Episode(release, sound, FeedMedia.Sound));
            }
            else if (files.TrueForAll(f => f.Key != release.FileKey) && await shelf.FindAsync(release.ProfileId, cancel) is { } profile)
                files.Add(
                    Rendition(
                        release.FileKey,
                        profile with
                        {
                            Container = release.Container,
                        },
                        release.ReleasedAt,
                        release.Revision,
                        kept: false,
                        null,
                        Age(now, profile, release.FileKey, "")
                    )
                );
            if (release.PackageKey is { } package)
                files.Add(
                    new LibraryFile(
                        package,
                        MadeNames.Package,
                        release.Outlet!.Name,
                        "application/zip",
                        release.ReleasedAt,
                        release.Revision,
                        new MadeFile(MadeKind.Package, null, false, Uses([release]), Behind(release), false),
                        [release],
                        null
                    )
                );
        }

        return [.. files.Where(f => store.Has(f.Key, f.Name)).OrderByDescending(f => f.MadeAt)];

        LibraryFile Rendition(string key, Profile profile, DateTimeOffset madeAt, int revision, bool kept, Guid? rendition, FileAge age)
        {
            List<Release> serving = [.. releases.Where(r => (r.FileKey == key || r.DownloadKey == key) && places[r.Id].Terms.Copies.Count == 0)];
            List<string> copiedTo =
            [
                .. releases.Where(r => places[r.Id].Terms.Copies.Count > 0 && r.ProfileId == profile.Id && r.Revision == revision).Select(r => r.Outlet!.Name),
            ];
            var facts = new MadeFile(MadeKind.Rendition, profile.Container, profile.Id == Core.Encoding.Profiles.Master.Id, Uses(serving), age, kept, copiedTo);
            return new LibraryFile(
                key,
                Muxing.FileName(profile.Container),
                profile.Title,
                ContainerFacts.Of(profile.Container).MediaType,
                madeAt,
                revision,
                facts,
                serving,
                rendition
            );
        }

        LibraryFile Episode(Release release, string key, FeedMedia media)
        {
            var facts = new MadeFile(MadeKind.Episode, null, false, Uses([release]), Behind(release), false);
            return new LibraryFile(
                key,
                MadeNames.Episode(media),
                release.Outlet!.Name,
                FeedFiles.MediaType(media),
                release.ReleasedAt,
                release.Revision,
                facts,
                [release],
                null
            );
        }

        FileAge Behind(Release release) => standing.IsBehind(places[release.Id], release.Stands(), lesson.Here()) ? FileAge.Finishing : FileAge.UpToDate;

        List<FileUse> Uses(IReadOnlyList<Release> of) => [.. of.Select(r => new FileUse(places[r.Id].Kind, r.Outlet!.Name))];
    }

    private static FileAge Age(LessonToMake now, Profile profile, string fileKey, string encodeKey) =>
        now.With(profile) is not { } planned ? FileAge.UpToDate
        : planned.FileKey == fileKey ? FileAge.UpToDate
        : planned.Keys.Encodes == encodeKey ? FileAge.Finishing
        : FileAge.Encoding;
}
