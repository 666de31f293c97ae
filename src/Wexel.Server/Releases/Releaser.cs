using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Lessons;
using Wexel.Making.Releasing;
using Wexel.Making.Rendering;
using Wexel.Making.Storage;
using Wexel.Media.Rendering;
using Wexel.Server.Lessons;
using Wexel.Server.Live;
using Wexel.Server.Profiles;
using Wexel.Server.Rendering;
using Wexel.Server.Setup;
using Wexel.Server.Telemetry;

namespace Wexel.Server.Releases;

/// <summary>Releases lessons: whatever was made before stays, only what changed is made again, and addresses stay.</summary>
internal sealed class Releaser(WexelDb db, FileStore store, LessonSaver saver, RenderPlans plans, ProfileShelf shelf, RenditionMaker maker, CheckOverrides checks, Packer packer, EpisodeReleaser episodes, LiveNews news, Figures figures, TimeProvider clock)
{
    internal async Task<(Release? Release, Problem? Problem)> ReleaseAsync(Guid lessonId, Guid outletId, string profileId, Visibility visibility, CancellationToken cancel)
    {
        var lesson = await db.Lessons.Include(l => l.Course).FirstAsync(l => l.Id == lessonId, cancel);
        var outlet = await db.Outlets.Include(o => o.Feed).FirstAsync(o => o.Id == outletId, cancel);
        if (await shelf.FindAsync(profileId, cancel) is not { } profile)
            return (null, new Problem("profile-unknown", "Choose a profile that the lesson was rendered with.", "profileId"));
        var (ready, problem) = await ReadyAsync(lesson, profile, cancel);
        if (ready is null)
            return (null, problem);
        if (OutletProfiles.Refusal(outlet, profile) is { } refusal)
            return (null, refusal);
        if (outlet.Kind == OutletKind.PodcastFeed && await episodes.UnfitAsync(outletId, ready, cancel) is { } unfit)
            return (null, unfit);

        var finished = await FinishedAsync(ready, cancel);
        IReadOnlyList<CheckedFact> facts = [.. finished.Check, .. OutletLimitsOf.Outlet(outlet).Check(finished.Bytes, ready.Plan.Length)];
        if (await checks.BlockedAsync(ready.Keys.Encodes, ready.Lesson.Document.Title, facts, cancel) is { } blocked)
            return (null, blocked);
        var release = await db.Releases.FirstOrDefaultAsync(r => r.LessonId == lessonId && r.OutletId == outletId, cancel);
        if (release is null)
            db.Releases.Add(release = new Release { LessonId = lessonId, OutletId = outletId, Token = Tokens.New(), ProfileId = "", FileKey = "", Player = "{}", FirstReleasedAt = clock.GetUtcNow() });
        var player = OnPages(release.Token, ready);
        (release.Revision, release.ProfileId, release.FileKey, release.Container, release.PosterKey, release.Visibility, release.Player, release.ReleasedAt) =
            (lesson.Revision, profile.Id, finished.FileKey, profile.Container, ready.Keys.Poster, visibility, PlayerLesson.Format.Write(player), clock.GetUtcNow());
        if (outlet.Kind == OutletKind.PodcastFeed)
            await episodes.MakeAsync(release, ready, player.Captions?.Language, cancel);
        else if (outlet.Kind != OutletKind.Channel)
            Note(release, await packer.PackAsync(packer.Plan(outlet.Kind, Identifier(release), player.Title, [Packed(lessonId, ready)]), cancel));
        await db.SaveChangesAsync(cancel);
        figures.Released(outlet.Kind.ToString());
        await news.LessonAsync(lessonId);
        return (release, null);
    }

    /// <summary>Takes releases down.</summary>
    internal async Task TakeDownAsync(IReadOnlyList<Release> releases, CancellationToken cancel)
    {
        db.Releases.RemoveRange(releases);
        // An app that asks whether the feed changed must be told that it did.
        var outlets = releases.Select(r => r.OutletId).ToList();
        foreach (var feed in await db.PodcastFeeds.Where(f => outlets.Contains(f.OutletId)).ToListAsync(cancel))
            feed.ChangedAt = clock.GetUtcNow();
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>The name of a release's package, the same whenever it is made again.</summary>
    internal static string Identifier(Release release) => $"lesson-{release.LessonId:N}";

    /// <summary>Notes in a release the package that was made for it.</summary>
    internal static void Note(PackagedRelease release, MadePackage made) => (release.PackageKey, release.PackageBytes, release.PackageFiles) = (made.Key, made.Bytes, WexelJson.Write(made.Files));

    /// <summary>A lesson as it stands, rendered with a profile; or what is missing.</summary>
    internal async Task<(PlannedRendition? Ready, Problem? Problem)> ReadyAsync(Lesson lesson, Profile profile, CancellationToken cancel)
    {
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        if (LessonRules.NotReady(document) is { } notReady)
            return (null, notReady);
        return (await plans.OfAsync(document, cancel)).With(profile) is { } planned && planned.IsEncoded(store)
            ? (planned, null)
            : (null, new Problem("render-first", $"The lesson is not rendered with “{profile.Title}” as it stands now; a key frame must stand where each section starts. Render it, then release.", "profileId"));
    }

    /// <summary>What a finished lesson is in a package.</summary>
    internal LessonSources Packed(Guid lessonId, PlannedRendition ready) => packer.Sources(LearnerPage.Of(lessonId.ToString("N"), ready), ready);

    /// <summary>What of a ready lesson's file keeps it from being released, or null.</summary>
    internal async Task<Problem?> BlockedAsync(PlannedRendition ready, CancellationToken cancel) =>
        await checks.BlockedAsync(ready.Keys.Encodes, ready.Lesson.Document.Title, (await FinishedAsync(ready, cancel)).Check, cancel);

    private async Task<FinishedRendition> FinishedAsync(PlannedRendition ready, CancellationToken cancel)
    {
        await maker.FinishAsync(ready, cancel);
        return await maker.CheckAsync(ready, cancel);
    }

    /// <summary>Where a release's video lies on Wexel's own pages.</summary>
    internal static string VideoPath(string token, Container container) => $"/watch/{token}/{(ContainerFacts.Of(container) is { IsFolder: false, Ending: var ending } ? "video" + ending : Finishing.FileName(container))}";

    /// <summary>What learners get on Wexel's own pages.</summary>
    private static PlayerLesson OnPages(string token, PlannedRendition ready) => LearnerPage.Of(token, ready) with
    {
        Video = VideoPath(token, ready.Plan.File.Container),
        Poster = $"/watch/{token}/poster.jpg",
        ReportTo = $"/watch/{token}/progress",
    };
}
