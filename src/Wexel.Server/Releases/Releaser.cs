using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Data.Storage;
using Wexel.Media.Rendering;
using Wexel.Server.Lessons;
using Wexel.Server.Live;
using Wexel.Server.Profiles;
using Wexel.Server.Rendering;
using Wexel.Server.Setup;
using Wexel.Server.Telemetry;

namespace Wexel.Server.Releases;

/// <summary>A lesson as it stands, whose picture is encoded.</summary>
internal sealed record ReadyLesson(LessonDocument Document, PlannedRender Planned, IReadOnlyList<Cue> Cues)
{
    internal RenderPlan Plan => Planned.Plan;

    /// <summary>The contents in lesson time.</summary>
    internal IReadOnlyList<Section> Sections => Planned.Sections;
}

/// <summary>Releases lessons: whatever was made before stays, only what changed is made again, and addresses stay.</summary>
internal sealed class Releaser(WexelDb db, FileStore store, LessonSaver saver, RenderPlans plans, ProfileShelf shelf, Finisher finisher, CheckOverrides checks, Packer packer, EpisodeMaker episodes, LiveNews news, Figures figures, TimeProvider clock)
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

        var finished = await finisher.FinishAsync(ready.Planned, ready.Document.Title, cancel);
        IReadOnlyList<CheckedFact> facts = [.. finished.Check, .. OutletLimitsOf.Outlet(outlet).Check(finished.Bytes, ready.Plan.Length)];
        if (await checks.BlockedAsync(ready.Planned.EncodeKey, ready.Document.Title, facts, cancel) is { } blocked)
            return (null, blocked);
        var release = await db.Releases.FirstOrDefaultAsync(r => r.LessonId == lessonId && r.OutletId == outletId, cancel);
        if (release is null)
            db.Releases.Add(release = new Release { LessonId = lessonId, OutletId = outletId, Token = Tokens.New(), ProfileId = "", FileKey = "", Player = "{}", FirstReleasedAt = clock.GetUtcNow() });
        var player = Player(release.Token, ready);
        (release.Revision, release.ProfileId, release.FileKey, release.Container, release.PosterKey, release.Visibility, release.Player, release.ReleasedAt) =
            (lesson.Revision, profile.Id, finished.FileKey, profile.Container, ready.Planned.PosterKey, visibility, Json.Write(player), clock.GetUtcNow());
        if (outlet.Kind == OutletKind.PodcastFeed)
            await episodes.MakeAsync(release, ready, player, cancel);
        else if (outlet.Kind != OutletKind.Channel)
            await packer.PackAsync(release, outlet.Kind, Identifier(release), player.Title, [Packed(player, ready, finished)], cancel);
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
    internal static string Identifier(Release release) => $"lesson-{release.Token}";

    /// <summary>A lesson as it stands, rendered with a profile; or what is missing.</summary>
    internal async Task<(ReadyLesson? Ready, Problem? Problem)> ReadyAsync(Lesson lesson, Profile profile, CancellationToken cancel)
    {
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        if (LessonRules.NotReady(document) is { } notReady)
            return (null, notReady);
        var lessonNow = await plans.OfAsync(document, cancel);
        return lessonNow.With(profile) is { } planned && planned.IsEncoded(store)
            ? (new ReadyLesson(document, planned, lessonNow.Cues), null)
            : (null, new Problem("render-first", $"The lesson is not rendered with “{profile.Title}” as it stands now; a key frame must stand where each section starts. Render it, then release.", "profileId"));
    }

    /// <summary>What a ready lesson is in a package.</summary>
    internal async Task<PackedLesson> PackedAsync(Guid lessonId, ReadyLesson ready, CancellationToken cancel)
    {
        var finished = await finisher.FinishAsync(ready.Planned, ready.Document.Title, cancel);
        return Packed(Player(lessonId.ToString("N"), ready), ready, finished);
    }

    /// <summary>What of a ready lesson's file keeps it from being released, or null.</summary>
    internal async Task<Problem?> BlockedAsync(ReadyLesson ready, CancellationToken cancel) =>
        await checks.BlockedAsync(ready.Planned.EncodeKey, ready.Document.Title, (await finisher.FinishAsync(ready.Planned, ready.Document.Title, cancel)).Check, cancel);

    private static PackedLesson Packed(PlayerLesson player, ReadyLesson ready, FinishedFile finished) => new(player, ready.Planned.PosterKey, finished.FileKey, ready.Plan.File.Container);

    /// <summary>Where a release's video lies on Wexel's own pages.</summary>
    internal static string VideoPath(string token, Container container) => $"/watch/{token}/{(ContainerFacts.Of(container) is { IsFolder: false, Ending: var ending } ? "video" + ending : Finishing.FileName(container))}";

    private static PlayerLesson Player(string token, ReadyLesson ready)
    {
        var document = ready.Document;
        // Captions that are part of the picture are not shown a second time over it.
        var cues = document.Captions is null || ready.Plan.Picture?.Captions is not null ? null : ready.Cues;
        // A feed of sound alone has no picture; its page shows none.
        var size = ready.Plan.Picture?.Size ?? new PictureSize(1280, 720);
        return new PlayerLesson(
            token, document.Title, document.Description, document.Language, ready.Plan.Length, size.Width, size.Height,
            VideoPath(token, ready.Plan.File.Container), $"/watch/{token}/poster.jpg", ready.Sections,
            cues is null ? null : new PlayerCaptions(document.Captions!.Language, WhatFollows.Cues(cues, ready.Planned.Map)), ReportTo: $"/watch/{token}/progress");
    }
}
