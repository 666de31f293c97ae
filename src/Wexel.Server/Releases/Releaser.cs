using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Data.Storage;
using Wexel.Server.Kit;
using Wexel.Server.Lessons;
using Wexel.Server.Live;
using Wexel.Server.Rendering;
using Wexel.Server.Setup;

namespace Wexel.Server.Releases;

/// <summary>A lesson as it stands, whose picture is encoded.</summary>
internal sealed record ReadyLesson(LessonDocument Document, PlannedRender Planned)
{
    internal RenderPlan Plan => Planned.Plan;

    internal string EncodeKey => Planned.EncodeKey;

    /// <summary>The contents in lesson time.</summary>
    internal IReadOnlyList<Section> Sections => Planned.Sections;
}

/// <summary>Releases lessons: whatever was made before stays, only what changed is made again, and addresses stay.</summary>
internal sealed class Releaser(WexelDb db, FileStore store, LessonSaver saver, LessonReels reels, Finisher finisher, Packer packer, EpisodeMaker episodes, LiveNews news, TimeProvider clock)
{
    internal async Task<(Release? Release, Problem? Problem)> ReleaseAsync(Guid lessonId, Guid outletId, string profileId, Visibility visibility, CancellationToken cancel)
    {
        var lesson = await db.Lessons.Include(l => l.Course).FirstAsync(l => l.Id == lessonId, cancel);
        var outlet = await db.Outlets.FirstAsync(o => o.Id == outletId, cancel);
        if (Profiles.Find(profileId) is not { } profile)
            return (null, new Problem("profile-unknown", "Choose a profile that the lesson was rendered with.", "profileId"));
        var (ready, problem) = await ReadyAsync(lesson, profile, cancel);
        if (ready is null)
            return (null, problem);
        if (outlet.Kind == OutletKind.PodcastFeed && await episodes.UnfitAsync(outletId, ready, profile, cancel) is { } unfit)
            return (null, unfit);

        var finished = await finisher.FinishAsync(ready.EncodeKey, ready.Plan, ready.Document.Title, ready.Sections, cancel);
        var release = await db.Releases.FirstOrDefaultAsync(r => r.LessonId == lessonId && r.OutletId == outletId, cancel);
        if (release is null)
            db.Releases.Add(release = new Release { LessonId = lessonId, OutletId = outletId, Token = Tokens.New(), ProfileId = "", FileKey = "", Player = "{}", FirstReleasedAt = clock.GetUtcNow() });
        var player = await PlayerAsync(release.Token, ready, cancel);
        (release.Revision, release.ProfileId, release.FileKey, release.Visibility, release.Player, release.ReleasedAt) =
            (lesson.Revision, profile.Id, finished.FileKey, visibility, Json.Write(player), clock.GetUtcNow());
        if (outlet.Kind == OutletKind.PodcastFeed)
            await episodes.MakeAsync(release, ready, player, cancel);
        else if (outlet.Kind != OutletKind.Channel)
            await packer.PackAsync(release, outlet.Kind, Identifier(release), player.Title, [new PackedLesson(player, ready.EncodeKey, finished.FileKey)], cancel);
        await db.SaveChangesAsync(cancel);
        await news.LessonAsync(lessonId);
        return (release, null);
    }

    /// <summary>The name of a release's package, the same whenever it is made again.</summary>
    internal static string Identifier(Release release) => $"lesson-{release.Token}";

    /// <summary>A lesson as it stands, rendered with a profile; or what is missing.</summary>
    internal async Task<(ReadyLesson? Ready, Problem? Problem)> ReadyAsync(Lesson lesson, Profile profile, CancellationToken cancel)
    {
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        if (LessonRules.NotReady(document) is { } notReady)
            return (null, notReady);
        return RenderPlans.Of(await reels.OfAsync(document, cancel), document, profile, HouseKeeper.OnPictures(await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel))) is { } planned && store.Has(planned.EncodeKey, RenderJob.EncodeName)
            ? (new ReadyLesson(document, planned), null)
            : (null, new Problem("render-first", $"The lesson is not rendered with “{profile.Title}” as it stands now; a key frame must stand where each section starts. Render it, then release.", "profileId"));
    }

    /// <summary>What a ready lesson is in a package.</summary>
    internal async Task<PackedLesson> PackedAsync(Guid lessonId, ReadyLesson ready, CancellationToken cancel)
    {
        var finished = await finisher.FinishAsync(ready.EncodeKey, ready.Plan, ready.Document.Title, ready.Sections, cancel);
        return new PackedLesson(await PlayerAsync(lessonId.ToString("N"), ready, cancel), ready.EncodeKey, finished.FileKey);
    }

    private async Task<PlayerLesson> PlayerAsync(string token, ReadyLesson ready, CancellationToken cancel)
    {
        var document = ready.Document;
        var cues = document.Captions is { } track ? await CaptionStore.ReadAsync(store, track.Hash, cancel) : null;
        var size = ready.Plan.Picture.Size;
        return new PlayerLesson(
            token, document.Title, document.Description, document.Language, ready.Plan.Length, size.Width, size.Height,
            $"/watch/{token}/video.mp4", $"/watch/{token}/poster.jpg", ready.Sections,
            cues is null ? null : new PlayerCaptions(document.Captions!.Language, WhatFollows.Cues(cues, ready.Planned.Map)), ReportTo: $"/watch/{token}/progress");
    }
}
