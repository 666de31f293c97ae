using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Inspection;
using Wexel.Core.Keys;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Lessons;
using Wexel.Making.Releasing;
using Wexel.Making.Rendering;
using Wexel.Making.Storage;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;
using Wexel.Server.Live;
using Wexel.Server.Rendering;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.Telemetry;

namespace Wexel.Server.Releases;

/// <summary>
/// Brings lessons to outlets: what is wanted there is held against what there is, and the steps between the two are done. Whatever was made
/// before stays, and addresses stay; done again, nothing is done.
/// </summary>
internal sealed class Releaser(
    WexelDb db,
    FileStore store,
    LessonSaver saver,
    RenderPlans plans,
    ProfileShelf shelf,
    OutletShelf outlets,
    RenditionMaker maker,
    CheckOverrides checks,
    Packer packer,
    EpisodeMaker episodes,
    PackageDeliverer deliverer,
    StandingReader standings,
    LiveNews news,
    Figures figures,
    TimeProvider clock
)
{
    internal async Task<Result<Release>> ReleaseAsync(Guid lessonId, Guid outletId, string profileId, Visibility visibility, CancellationToken cancel)
    {
        var lesson = await db.Lessons.Include(l => l.Course).FirstAsync(l => l.Id == lessonId, cancel);
        var outlet = (await outlets.FindAsync(outletId, cancel))!;
        if (await shelf.FindAsync(profileId, cancel) is not { } profile)
            return new Problem("profile-unknown", "Choose a profile that the lesson was rendered with.", "profileId");
        if (!(await PlannedAsync(lesson, profile, cancel)).Is(out var planned, out var problem))
            return problem;
        if ((outlet.Refusal(profile) ?? outlet.Terms.Unfit(planned.Lesson.Document.Title, planned.Plan)) is { } refusal)
            return refusal;

        var release = await db.Releases.FirstOrDefaultAsync(r => r.LessonId == lessonId && r.OutletId == outletId, cancel)
            ?? new Release
            {
                LessonId = lessonId,
                OutletId = outletId,
                Token = Tokens.New(),
                ProfileId = "",
                Profile = "{}",
                FileKey = "",
                Player = "{}",
                MadeFrom = "",
                FirstReleasedAt = clock.GetUtcNow(),
            };
        var wanted = Wanted(outlet, lesson, planned, (await standings.ReadAsync(cancel)).Wanted(outlet, lesson.AtHand(), profile));
        foreach (var step in ReleasePlan.Steps(wanted, Actual(wanted, release)))
        {
            if (await DoAsync(step) is { } stopped)
                return stopped;
        }

        // Neither makes anything new: who may see it, and a profile of another name that makes the same.
        (release.Visibility, release.ProfileId, release.Profile) = (visibility, profile.Id, Profile.Format.Write(profile));
        await db.SaveChangesAsync(cancel);

        await news.LessonAsync(lessonId);
        return release;

        async Task<Problem?> DoAsync(ReleaseStep step)
        {
            if (step is ReleaseStep.Pack or ReleaseStep.Publish && await BlockedAsync(outlet, planned, cancel) is { } blocked)
                return blocked;
            switch (step)
            {
                case ReleaseStep.Encode:
                    return new Problem(
                        "render-first",
                        $"The lesson is not rendered with “{profile.Title}” as it stands now; a key frame must stand where each section starts. "
                            + $"Render it, then release.",
                        "profileId"
                    );
                case ReleaseStep.Finish:
                    await maker.FinishAsync(planned, cancel);
                    break;
                case ReleaseStep.Check:
                    await maker.CheckAsync(planned, cancel);
                    break;
                case ReleaseStep.Copy:
                    await episodes.MakeAsync(planned, outlet.Terms.Copy!.Value, Artwork(outlet), cancel);
                    break;
                case ReleaseStep.Pack:
                    await PackAsync(outlet, release, planned, wanted.Key, cancel);
                    break;
                case ReleaseStep.Publish:
                    release.Visibility = visibility;
                    await PublishAsync(outlet, lesson, release, profile, planned, wanted, cancel);
                    break;
            }

            return null;
        }
    }

    /// <summary>Puts what a release has where its outlet is: what changed, and nothing else.</summary>
    internal async Task<Problem?> DeliverAsync(Release release, CancellationToken cancel)
    {
        var outlet = outlets.Known(release.Outlet ?? await db.Outlets.FirstAsync(o => o.Id == release.OutletId, cancel));
        return await deliverer.DeliverAsync(release, outlet, Identifier(release), cancel);
    }

    /// <summary>Takes releases down. Where what was put at an outlet can be taken away from here, it is.</summary>
    internal async Task<Problem?> TakeDownAsync(IReadOnlyList<Release> releases, CancellationToken cancel)
    {
        foreach (var release in releases.Where(r => r.Outlet is not null))
        {
            if (await deliverer.TakeBackAsync(release, outlets.Known(release.Outlet!), cancel) is not { } problem)
                continue;
            // What went is written down, so that going on begins there.
            await db.SaveChangesAsync(CancellationToken.None);
            return problem;
        }

        db.Releases.RemoveRange(releases);
        // An app that asks whether the feed changed must be told that it did.
        var gone = releases.Select(r => r.OutletId).ToList();
        foreach (var feed in await db.PodcastFeeds.Where(f => gone.Contains(f.OutletId)).ToListAsync(cancel))
            feed.ChangedAt = clock.GetUtcNow();
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>The name of a release's package, the same whenever it is made again.</summary>
    internal static string Identifier(Release release) => $"lesson-{release.LessonId:N}";

    /// <summary>Where a release's video lies on Wexel's own pages.</summary>
    internal static string VideoPath(string token, Container container) =>
        $"/watch/{token}/{(ContainerFacts.Of(container) is { IsFolder: false, Ending: var ending } ? "video" + ending : Muxing.FileName(container))}";

    /// <summary>A lesson as it stands, planned with a profile, all of it encoded; or what is missing.</summary>
    internal async Task<Result<PlannedRendition>> ReadyAsync(Lesson lesson, Profile profile, CancellationToken cancel)
    {
        if (!(await PlannedAsync(lesson, profile, cancel)).Is(out var planned, out var problem))
            return problem;
        return planned.IsEncoded(store) ? planned : new Problem("render-first", $"It is not rendered with “{profile.Title}” as it stands now.", "profileId");
    }

    /// <summary>What of a finished file keeps it from an outlet, or null; it is finished and checked where it was not.</summary>
    internal async Task<Problem?> BlockedAsync(KnownOutlet outlet, PlannedRendition planned, CancellationToken cancel)
    {
        await maker.FinishAsync(planned, cancel);
        var finished = await maker.CheckAsync(planned, cancel);
        IReadOnlyList<CheckedFact> facts = [.. finished.Check, .. outlet.Limits.Check(finished.Bytes, planned.Plan.Length)];
        return await checks.BlockedAsync(planned.Keys.Encodes, planned.Lesson.Document.Title, facts, cancel);
    }

    /// <summary>What a finished lesson is in a package.</summary>
    internal LessonSources Packed(Guid lessonId, PlannedRendition planned) => packer.Sources(LearnerPage.Compose(lessonId.ToString("N"), planned), planned);

    private async Task<Result<PlannedRendition>> PlannedAsync(Lesson lesson, Profile profile, CancellationToken cancel)
    {
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        if (LessonRules.NotReady(document) is { } notReady)
            return notReady;
        return (await plans.LessonAsync(document, cancel)).With(profile) is { } planned
            ? planned
            : new Problem("render-first", $"The lesson is not rendered with “{profile.Title}” as it stands now. Render it, then release.", "profileId");
    }

    private ReleaseWanted Wanted(KnownOutlet outlet, Lesson lesson, PlannedRendition planned, string key)
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
            null
        );
    }

    private async Task PackAsync(KnownOutlet outlet, Release release, PlannedRendition planned, string key, CancellationToken cancel)
    {
        var files = outlet.Terms.Package(packer.Sources(Identifier(release), planned.Lesson.Document.Title, [Packed(release.LessonId, planned)]))!;
        Note(release, await packer.PackAsync(files, cancel), key);
    }

    /// <summary>Notes in a release the package that was made for it.</summary>
    internal static void Note(PackagedRelease release, MadePackage made, string key) =>
        (release.PackageKey, release.PackageBytes, release.PackageFiles, release.PackedFrom) = (made.Key, made.Bytes, WexelJson.Write(made.Files), key);

    private async Task PublishAsync(
        KnownOutlet outlet,
        Lesson lesson,
        Release release,
        Profile profile,
        PlannedRendition planned,
        ReleaseWanted wanted,
        CancellationToken cancel
    )
    {
        var player = LearnerPage.Compose(release.Token, planned) with
        {
            Video = VideoPath(release.Token, planned.Plan.File.Container),
            Poster = $"/watch/{release.Token}/poster.jpg",
            ReportTo = $"/watch/{release.Token}/progress",
        };
        (
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
            Profile.Format.Write(profile),
            lesson.Revision,
            profile.Id,
            wanted.Copy ?? wanted.File,
            profile.Container,
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
        if (db.Entry(release).State == EntityState.Detached)
            db.Releases.Add(release);
        await db.SaveChangesAsync(cancel);
        figures.Released(outlet.Row.Kind);
    }

    private KeyedFile Artwork(KnownOutlet outlet) => new(store.Derived(outlet.Row.Feed!.ArtworkKey, MadeNames.Artwork), outlet.Row.Feed.ArtworkKey);
}
