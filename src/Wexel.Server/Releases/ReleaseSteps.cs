using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Keys;
using Wexel.Core.Naming;
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
internal sealed record ReleaseAim(Guid LessonId, Guid OutletId, string ProfileId, Visibility Visibility)
{
    /// <summary>What is wanted of a release.</summary>
    internal static ReleaseAim Of(Release release) => new(release.LessonId, release.OutletId, release.WantedProfileId, release.WantedVisibility);

    /// <summary>What a wish comes to: what it does not say is as it stands there, as it was wanted before, or as the outlet takes it by itself.</summary>
    internal static ReleaseAim Of(ReleaseWish wish, Release? release, KnownOutlet outlet)
    {
        var stands = release is { MadeFrom.Length: > 0 };
        return new(
            wish.LessonId,
            wish.OutletId,
            wish.ProfileId ?? (stands ? release!.ProfileId : outlet.UsualProfile),
            wish.Visibility ?? (stands ? release!.Visibility : release?.WantedVisibility ?? Seeing.Usual)
        );
    }
}

/// <summary>A lesson on its way to an outlet, as it was found.</summary>
/// <param name="Aim">What is wanted.</param>
/// <param name="Lesson">The lesson.</param>
/// <param name="Outlet">The outlet.</param>
/// <param name="Release">What stands there, or is going to.</param>
/// <param name="Profile">The profile that it is made with.</param>
/// <param name="Planned">The lesson, planned with it.</param>
/// <param name="Said">What is said about the lesson there.</param>
/// <param name="Wanted">What of it is wanted there.</param>
/// <param name="Download">Another file that learners download; null where there is none.</param>
/// <param name="IsThere">Whether what is wanted was put where the outlet is.</param>
internal sealed record ReleaseWay(
    ReleaseAim Aim,
    Lesson Lesson,
    KnownOutlet Outlet,
    Release Release,
    Profile Profile,
    PlannedRendition Planned,
    DetailSet Said,
    ReleaseWanted Wanted,
    ReleaseFile? Download,
    bool IsThere = false
)
{
    /// <summary>The files that learners get.</summary>
    internal IEnumerable<ReleaseFile> Files => Download is null ? [new(Profile, Planned)] : [new(Profile, Planned), Download];
}

/// <summary>A file of a release.</summary>
/// <param name="Profile">The profile that it is made with.</param>
/// <param name="Planned">The lesson, planned with it.</param>
internal sealed record ReleaseFile(Profile Profile, PlannedRendition Planned);

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
    ReleaseShelf releases,
    RenditionMaker maker,
    Packer packer,
    EpisodeMaker episodes,
    PictureMaker pictures,
    ShownPictures shown,
    IEnumerable<IReleaseDeliverer> deliverers,
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
        if (await outlets.FindAsync(aim.OutletId, cancel) is not { } outlet)
            return new Problem("outlet-gone", "The outlet was removed meanwhile; the lesson is not released there.");
        if (await shelf.FindAsync(aim.ProfileId, cancel) is not { } profile)
            return new Problem("profile-unknown", "Choose a profile that the lesson was rendered with.", "profileId");
        if (!(await lessons.PlannedAsync(lesson, profile, cancel)).Is(out var planned, out var problem))
            return problem;
        if ((outlet.Refusal(profile) ?? outlet.Terms.Takes.Unfit(planned.Lesson.Document.Title, planned.Plan)) is { } refusal)
            return refusal;

        var release = await releases.FindOrAddAsync(aim.LessonId, aim.OutletId, cancel);
        var (standing, own) = (await standings.ReadAsync(cancel), DetailShelf.Said(release));
        var said = standing.Details(outlet, planned.Lesson.Document.Said, own).Values;
        if (DetailRule.Missing(outlet.Kind.Details, said, outlet.Row.Name) is [var missing, ..])
            return missing;
        var isOpen = release.MadeFrom.Length > 0 && OpenToAll.Is(outlet.Kind, release.Visibility);
        if (OpenToAll.Unanswered(outlet.Kind, aim.Visibility, said, isOpen, outlet.Row.Name) is { } unanswered)
            return unanswered;
        if (!(await DownloadAsync(outlet, planned.Lesson, said, profile, cancel)).Is(out var download, out var unusable))
            return unusable;
        var key = standing.Wanted(outlet, lesson.Here(), release.Details, profile);
        var way = new ReleaseWay(aim, lesson, outlet, release, profile, planned, said, Wanted(outlet, planned, said, key, download), download);
        if (Deliverer(outlet) is not { } deliverer)
            return way;
        return (await deliverer.IsThereAsync(way, cancel)).Is(out var isThere, out var unfit) ? way with { IsThere = isThere } : unfit;
    }

    /// <summary>What is left of the way, in its order.</summary>
    internal IReadOnlyList<ReleaseStep> Left(ReleaseWay way) => ReleasePlan.Steps(way.Wanted, Actual(way));

    /// <summary>What there is of what is wanted.</summary>
    internal ReleaseActual Actual(ReleaseWay way) => Actual(way.Wanted, way.Release, way.IsThere);

    /// <summary>Notes what is wanted and makes nothing new: who may see it, and a profile of another name that makes the same.</summary>
    internal static void Settle(ReleaseWay way) =>
        (way.Release.Visibility, way.Release.ProfileId, way.Release.Profile) = (way.Aim.Visibility, way.Profile.Id, Profile.Format.Write(way.Profile));

    /// <summary>Does a step.</summary>
    internal async Task<StepCame> DoAsync(ReleaseWay way, ReleaseStep step, CancellationToken cancel)
    {
        if (step is ReleaseStep.Pack or ReleaseStep.Publish)
            foreach (var file in way.Files)
                if (await lessons.BlockedAsync(way.Outlet, file.Planned, cancel) is { } blocked)
                    return blocked;
        switch (step)
        {
            case ReleaseStep.Encode:
                throw new InvalidOperationException("Whoever encodes takes it from the queue.");
            case ReleaseStep.Finish:
                foreach (var file in way.Files)
                    await maker.FinishAsync(file.Planned, cancel);
                break;
            case ReleaseStep.Check:
                foreach (var file in way.Files)
                    await maker.CheckAsync(file.Planned, cancel);
                break;
            case ReleaseStep.Copy:
                foreach (var (media, _) in Copies(way.Outlet, way.Planned, way.Said))
                    await episodes.MakeAsync(way.Planned, media, way.Said, Artwork(way.Outlet), cancel);
                break;
            case ReleaseStep.Pack:
                await PackAsync(way, cancel);
                break;
            case ReleaseStep.Publish:
                await PublishAsync(way, cancel);
                break;
            case ReleaseStep.Deliver:
                return await Deliverer(way.Outlet)!.DeliverAsync(way, cancel);
        }

        return StepCame.Done;
    }

    private IReleaseDeliverer? Deliverer(KnownOutlet outlet) => deliverers.FirstOrDefault(d => d.Serves(outlet));

    /// <summary>Takes away what was put at the outlet, where that can be done from here.</summary>
    internal async Task<Problem?> TakeBackAsync(Release release, CancellationToken cancel) =>
        release.Outlet is { } row && outlets.Known(row) is var outlet && Deliverer(outlet) is { } deliverer
            ? await deliverer.TakeBackAsync(release, outlet, cancel)
            : null;

    /// <summary>Notes that nothing stands there. The row stays, and so does the address: its page says that it was taken down, and whoever releases it
    /// again has it back.</summary>
    internal async Task GoneAsync(Release release, CancellationToken cancel)
    {
        (release.MadeFrom, release.PackageKey, release.PackageFiles, release.PackageBytes, release.PackedFrom) = ("", null, null, 0, null);
        // What cannot be taken away from here is left to whoever is told so, and is put anew when it is released again.
        (release.There, release.SentKey, release.SentAt, release.SentTo, release.VideoThere) = (null, null, null, null, null);
        // An app that asks whether the feed changed must be told that it did.
        if (await db.PodcastFeeds.FirstOrDefaultAsync(f => f.OutletId == release.OutletId, cancel) is { } feed)
            feed.ChangedAt = clock.GetUtcNow();
    }

    /// <summary>The file that learners are to download beside the one that plays, null where that is the same; or why it cannot be made.</summary>
    private async Task<Result<ReleaseFile?>> DownloadAsync(KnownOutlet outlet, LessonToMake lesson, DetailSet said, Profile plays, CancellationToken cancel)
    {
        if (!outlet.Kind.Details.Any(r => r.Field == DetailFields.DownloadAs) || WantedAt.OtherDownload(said, plays) is not { } id)
            return new Result<ReleaseFile?>(null);
        if (await shelf.FindAsync(id, cancel) is not { } profile)
            return new Problem(
                "download-profile-gone",
                "The profile of the file that learners download is gone. Choose another.",
                DetailFields.DownloadAs.Code
            );
        if (ContainerFacts.Of(profile.Container).IsFolder)
            return new Problem(
                "download-in-pieces",
                $"With “{profile.Title}” a lesson comes in pieces, and is no file that learners could download. Choose another.",
                DetailFields.DownloadAs.Code
            );
        if (!lesson.Wanted(profile).Is(out var planned, out var problem))
            return new Problem(problem.Code, $"The file that learners download: {problem.Sentence}", DetailFields.DownloadAs.Code);
        return new ReleaseFile(profile, planned);
    }

    private ReleaseWanted Wanted(KnownOutlet outlet, PlannedRendition planned, DetailSet said, string key, ReleaseFile? download)
    {
        return new ReleaseWanted(
            key,
            Tracks(planned),
            planned.FileKey,
            [.. Copies(outlet, planned, said).Select(c => c.Key)],
            outlet.Terms.TakesPlayer,
            Deliverer(outlet) is not null,
            download is null ? null : new DownloadWanted(Tracks(download.Planned), download.Planned.FileKey)
        );
    }

    /// <summary>As what it is copied, with the key of each: what has no sound is not among what is heard alone besides.</summary>
    private IEnumerable<(FeedMedia Media, string Key)> Copies(KnownOutlet outlet, PlannedRendition planned, DetailSet said) =>
        outlet
            .Terms.Copies.Where((media, place) => place == 0 || media != FeedMedia.Sound || planned.Plan.Sound is not null)
            .Select(media => (media, EpisodeMaker.KeyOf(planned, media, said, Artwork(outlet).Key)));

    private static IReadOnlyList<string> Tracks(PlannedRendition planned) =>
        [.. planned.Keys.Pictures, .. planned.Keys.Sound is { } sound ? new[] { sound } : []];

    private ReleaseActual Actual(ReleaseWanted wanted, Release release, bool isThere)
    {
        var files = new HashSet<string>();
        bool Whole(string key, Func<string, bool> isIt) =>
            Directory.Exists(store.Folder(key))
            && Directory.EnumerateFiles(store.Folder(key), "*", SearchOption.AllDirectories).Any(f => isIt(f) && Wholeness.IsWhole(f));
        files.UnionWith(
            wanted.Tracks.Concat(wanted.Download?.Tracks ?? []).Where(t => Whole(t, f => MadeNames.KindOf(Path.GetFileName(f)) == StoredKind.Encoded))
        );
        files.UnionWith(
            wanted.Files.Concat(wanted.Copies).Where(k => Whole(k, f => MadeNames.KindOf(Path.GetRelativePath(store.Folder(k), f)) == StoredKind.Finished))
        );
        var packed = release.PackageKey is { } package && store.Has(package, MadeNames.Package) ? release.PackedFrom : null;
        return new ReleaseActual(
            files,
            wanted.Files.Where(maker.IsChecked).ToHashSet(),
            packed,
            release.MadeFrom is { Length: > 0 } from ? from : null,
            isThere ? wanted.Key : null
        );
    }

    private async Task PackAsync(ReleaseWay way, CancellationToken cancel)
    {
        var sources = packer.Sources(
            Identifier(way.Release),
            way.Said.Title ?? "",
            [await lessons.PackedAsync(way.Release.LessonId, way.Planned, way.Said, cancel)]
        );
        var files = way.Outlet.Terms.Package(sources)!;
        if (way.Outlet.Kind.DeliversFiles)
            files = PackageFile.Within(files, FileName.Safe(way.Said.Title ?? "", "lesson"));
        Note(way.Release, await packer.PackAsync(files, cancel), way.Wanted.Key);
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Notes in a release the package that was made for it.</summary>
    internal static void Note(PackagedRelease release, MadePackage made, string key) =>
        (release.PackageKey, release.PackageBytes, release.PackageFiles, release.PackedFrom) = (made.Key, made.Bytes, WexelJson.Write(made.Files), key);

    private async Task PublishAsync(ReleaseWay way, CancellationToken cancel)
    {
        var (outlet, release, planned, wanted) = (way.Outlet, way.Release, way.Planned, way.Wanted);
        var picture = await pictures.MakeAsync(planned.Lesson, null, cancel);
        foreach (var key in planned.Lesson.Document.ShownPictures)
            await shown.MakeAsync(key);
        var player = LearnerPage.Compose(release.Token, planned, way.Said).WithFilesIn($"/watch/{release.Token}/") with
        {
            Video = Releaser.VideoPath(release.Token, planned.Plan.File.Container),
            Poster = picture is null ? null : new PlayerPoster($"/watch/{release.Token}/poster.jpg", picture.Size.Width, picture.Size.Height),
            ReportTo = $"/watch/{release.Token}/progress",
        };
        if (release.MadeFrom.Length == 0)
            release.FirstReleasedAt = clock.GetUtcNow();
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
            wanted.Copies is [var copy, ..] ? copy : wanted.File,
            way.Profile.Container,
            picture?.Key,
            PlayerLesson.Format.Write(player),
            clock.GetUtcNow(),
            wanted.Key
        );
        var kept = way.Download?.Planned;
        (release.DownloadKey, release.DownloadContainer, release.DownloadWidth, release.DownloadHeight) = (
            kept?.FileKey,
            kept?.Plan.File.Container,
            kept?.Plan.Picture?.Size.Width,
            kept?.Plan.Picture?.Size.Height
        );
        release.SoundKey = wanted.Copies.ElementAtOrDefault(1);
        release.SoundBytes = release.SoundKey is { } sound ? episodes.Bytes(sound, FeedMedia.Sound) : null;
        if (outlet.Terms.Copies is [var media, ..])
            release.Episode = Episode.Format.Write(
                episodes.Describe(
                    planned,
                    media,
                    way.Said,
                    Artwork(outlet),
                    release.OutletId.ToString(),
                    release.LessonId.ToString(),
                    release.Token,
                    [.. player.Captions.Select(c => c.Language)],
                    picture?.Size
                )
            );
        await db.SaveChangesAsync(cancel);
        figures.Released(outlet.Row.Kind);
    }

    private KeyedFile Artwork(KnownOutlet outlet) => new(store.Derived(outlet.Row.Feed!.ArtworkKey, MadeNames.Artwork), outlet.Row.Feed.ArtworkKey);
}
