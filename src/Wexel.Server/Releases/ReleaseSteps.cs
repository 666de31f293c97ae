using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Keys;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Lessons;
using Wexel.Making.Releasing;
using Wexel.Making.Rendering;
using Wexel.Making.Storage;
using Wexel.Media.Tools;
using Wexel.Server.Rendering;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.Telemetry;

namespace Wexel.Server.Releases;

/// <summary>What somebody wants of a lesson at an outlet.</summary>
internal sealed record ReleaseAim(Guid LessonId, Guid OutletId, string ProfileId, Visibility Visibility);

/// <summary>A lesson on its way to an outlet, as it was found.</summary>
/// <param name="Aim">What is wanted.</param>
/// <param name="Lesson">The lesson.</param>
/// <param name="Outlet">The outlet.</param>
/// <param name="Release">What stands there, or is going to.</param>
/// <param name="Profile">The profile that it is made with.</param>
/// <param name="Planned">The lesson, planned with it.</param>
/// <param name="Wanted">What of it is wanted there.</param>
internal sealed record ReleaseWay(
    ReleaseAim Aim,
    Lesson Lesson,
    KnownOutlet Outlet,
    Release Release,
    Profile Profile,
    PlannedRendition Planned,
    ReleaseWanted Wanted
);

/// <summary>
/// The steps on a lesson's way to an outlet. What each does lies in the store or in the database when it is over, so that whoever comes next,
/// be it the same press or a job of another process, finds what is left; done again, a step does nothing new.
/// </summary>
internal sealed class ReleaseSteps(
    WexelDb db,
    FileStore store,
    ReadyLessons lessons,
    ProfileShelf shelf,
    OutletShelf outlets,
    RenditionMaker maker,
    Packer packer,
    EpisodeMaker episodes,
    PackageDeliverer deliverer,
    StandingReader standings,
    Figures figures,
    TimeProvider clock
)
{
    /// <summary>The name of a release's package, the same whenever it is made again.</summary>
    internal static string Identifier(Release release) => $"lesson-{release.LessonId:N}";

    /// <summary>Finds where a lesson is on its way; or what keeps it from going.</summary>
    internal async Task<Result<ReleaseWay>> FindAsync(ReleaseAim aim, CancellationToken cancel)
    {
        var lesson = await db.Lessons.Include(l => l.Course).FirstAsync(l => l.Id == aim.LessonId, cancel);
        var outlet = (await outlets.FindAsync(aim.OutletId, cancel))!;
        if (await shelf.FindAsync(aim.ProfileId, cancel) is not { } profile)
            return new Problem("profile-unknown", "Choose a profile that the lesson was rendered with.", "profileId");
        if (!(await lessons.PlannedAsync(lesson, profile, cancel)).Is(out var planned, out var problem))
            return problem;
        if ((outlet.Refusal(profile) ?? outlet.Terms.Unfit(planned.Lesson.Document.Title, planned.Plan)) is { } refusal)
            return refusal;

        var release = await db.Releases.IgnoreQueryFilters().FirstOrDefaultAsync(r => r.LessonId == aim.LessonId && r.OutletId == aim.OutletId, cancel)
            ?? new Release
            {
                LessonId = aim.LessonId,
                OutletId = aim.OutletId,
                Token = Tokens.New(),
                ProfileId = "",
                Profile = "{}",
                FileKey = "",
                Player = "{}",
                MadeFrom = "",
                FirstReleasedAt = clock.GetUtcNow(),
            };
        var key = (await standings.ReadAsync(cancel)).Wanted(outlet, lesson.AtHand(), profile);
        return new ReleaseWay(aim, lesson, outlet, release, profile, planned, Wanted(outlet, planned, key));
    }

    /// <summary>What is left of the way, in its order.</summary>
    internal IReadOnlyList<ReleaseStep> Left(ReleaseWay way) => ReleasePlan.Steps(way.Wanted, Actual(way.Wanted, way.Release));

    /// <summary>Does a step.</summary>
    /// <returns>What stops the lesson there, or null.</returns>
    internal async Task<Problem?> DoAsync(ReleaseWay way, ReleaseStep step, CancellationToken cancel)
    {
        if (step is ReleaseStep.Pack or ReleaseStep.Publish && await lessons.BlockedAsync(way.Outlet, way.Planned, cancel) is { } blocked)
            return blocked;
        switch (step)
        {
            case ReleaseStep.Encode:
                return new Problem(
                    "render-first",
                    $"The lesson is not rendered with “{way.Profile.Title}” as it stands now; a key frame must stand where each section starts. "
                        + $"Render it, then release.",
                    "profileId"
                );
            case ReleaseStep.Finish:
                await maker.FinishAsync(way.Planned, cancel);
                break;
            case ReleaseStep.Check:
                await maker.CheckAsync(way.Planned, cancel);
                break;
            case ReleaseStep.Copy:
                await episodes.MakeAsync(way.Planned, way.Outlet.Terms.Copy!.Value, Artwork(way.Outlet), cancel);
                break;
            case ReleaseStep.Pack:
                await PackAsync(way, cancel);
                break;
            case ReleaseStep.Publish:
                await PublishAsync(way, cancel);
                break;
            case ReleaseStep.Deliver:
                return await deliverer.DeliverAsync(way.Release, way.Outlet, Identifier(way.Release), cancel);
        }

        return null;
    }

    private ReleaseWanted Wanted(KnownOutlet outlet, PlannedRendition planned, string key)
    {
        var copy = outlet.Terms.Copy is { } media ? EpisodeMaker.KeyOf(planned, media, Artwork(outlet).Key) : null;
        // Nothing is put anywhere before somebody says so.
        return new ReleaseWanted(
            key,
            [.. planned.Keys.Pictures, .. planned.Keys.Sound is { } sound ? new[] { sound } : []],
            planned.FileKey,
            copy,
            outlet.Terms.TakesPlayer,
            Delivers: false
        );
    }

    private ReleaseActual Actual(ReleaseWanted wanted, Release release)
    {
        var files = new HashSet<string>();
        bool Whole(string key, Func<string, bool> isIt) =>
            Directory.Exists(store.Folder(key))
            && Directory.EnumerateFiles(store.Folder(key), "*", SearchOption.AllDirectories).Any(f => isIt(f) && Wholeness.IsWhole(f));
        files.UnionWith(wanted.Tracks.Where(t => Whole(t, f => MadeNames.KindOf(Path.GetFileName(f)) == StoredKind.Encoded)));
        files.UnionWith(
            new[] { wanted.File, wanted.Copy }
                .OfType<string>()
                .Where(k => Whole(k, f => MadeNames.KindOf(Path.GetRelativePath(store.Folder(k), f)) == StoredKind.Finished))
        );
        var packed = release.PackageKey is { } package && store.Has(package, MadeNames.Package) ? release.PackedFrom : null;
        return new ReleaseActual(
            files,
            maker.IsChecked(wanted.File) ? new HashSet<string> { wanted.File } : [],
            packed,
            release.MadeFrom is { Length: > 0 } from ? from : null,
            release.SentKey is { } sent && sent == release.PackageKey ? release.PackedFrom : null
        );
    }

    private async Task PackAsync(ReleaseWay way, CancellationToken cancel)
    {
        var sources = packer.Sources(Identifier(way.Release), way.Planned.Lesson.Document.Title, [lessons.Packed(way.Release.LessonId, way.Planned)]);
        Note(way.Release, await packer.PackAsync(way.Outlet.Terms.Package(sources)!, cancel), way.Wanted.Key);
        await KeepAsync(way.Release, cancel);
    }

    /// <summary>Notes in a release the package that was made for it.</summary>
    internal static void Note(PackagedRelease release, MadePackage made, string key) =>
        (release.PackageKey, release.PackageBytes, release.PackageFiles, release.PackedFrom) = (made.Key, made.Bytes, WexelJson.Write(made.Files), key);

    private async Task PublishAsync(ReleaseWay way, CancellationToken cancel)
    {
        var (outlet, release, planned, wanted) = (way.Outlet, way.Release, way.Planned, way.Wanted);
        var player = LearnerPage.Compose(release.Token, planned) with
        {
            Video = Releaser.VideoPath(release.Token, planned.Plan.File.Container),
            Poster = $"/watch/{release.Token}/poster.jpg",
            ReportTo = $"/watch/{release.Token}/progress",
        };
        (
            release.Visibility,
            release.Profile,
            release.Revision,
            release.ProfileId,
            release.FileKey,
            release.Container,
            release.PosterKey,
            release.Player,
            release.ReleasedAt,
            release.MadeFrom
        ) = (
            way.Aim.Visibility,
            Profile.Format.Write(way.Profile),
            way.Lesson.Revision,
            way.Profile.Id,
            wanted.Copy ?? wanted.File,
            way.Profile.Container,
            planned.Keys.Poster,
            PlayerLesson.Format.Write(player),
            clock.GetUtcNow(),
            wanted.Key
        );
        if (outlet.Terms.Copy is { } media)
            release.Episode = Episode.Format.Write(
                episodes.Describe(
                    planned,
                    media,
                    Artwork(outlet),
                    release.OutletId,
                    release.LessonId,
                    release.Token,
                    [.. player.Captions.Select(c => c.Language)]
                )
            );
        await KeepAsync(release, cancel);
        figures.Released(outlet.Row.Kind);
    }

    private async Task KeepAsync(Release release, CancellationToken cancel)
    {
        if (db.Entry(release).State == EntityState.Detached)
            db.Releases.Add(release);
        await db.SaveChangesAsync(cancel);
    }

    private KeyedFile Artwork(KnownOutlet outlet) => new(store.Derived(outlet.Row.Feed!.ArtworkKey, MadeNames.Artwork), outlet.Row.Feed.ArtworkKey);
}
