using System.Security.Claims;
using Hangfire;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Kit;
using Wexel.Core.Lessons;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Data.Storage;
using Wexel.Server.Kit;
using Wexel.Server.Lessons;
using Wexel.Server.Live;
using Wexel.Server.Setup;
using Wexel.Server.SignIn;

namespace Wexel.Server.Rendering;

internal sealed record ProfileOffer(string Id, string Title, string Description, PictureSize Size, double ScalePercent, bool WholeFactor, string Level, long EstimatedBytes, TimeSpan EstimatedTime, bool NothingToEncode);

internal sealed record RenditionView(Guid Id, Guid LessonId, string LessonTitle, string ProfileTitle, int Revision, RenditionState State, double Progress, double? SecondsLeft, DateTimeOffset RequestedAt, DateTimeOffset? EndedAt, long Bytes, string? Codecs, IReadOnlyList<CheckedFact> Check, string? Said, string? Advice, TimeSpan EstimatedTime);

internal sealed record DeliverView(Problem? NotReady, IReadOnlyList<ProfileOffer> Profiles, IReadOnlyList<RenditionView> Renditions);

internal sealed record RenderRequest(string ProfileId);

internal static class RenderEndpoints
{
    internal static void MapRendering(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/lessons/{id:guid}/deliver", DeliverAsync).WithName("Deliver");
        routes.MapPost("/api/lessons/{id:guid}/renditions", RenderAsync).WithName("Render");
        routes.MapGet("/api/profiles", () => TypedResults.Ok(Profiles.All)).WithName("Profiles");
        routes.MapGet("/api/queue", QueueAsync).WithName("Queue");
        routes.MapPost("/api/renditions/{id:guid}/cancel", CancelAsync).WithName("CancelRendition");
        routes.MapGet("/api/renditions/{id:guid}/file", FileAsync).WithName("RenditionFile").ExcludeFromDescription();
    }

    private static async Task<Results<Ok<DeliverView>, ProblemHttpResult>> DeliverAsync(Guid id, WexelDb db, RenderPlans plans, LessonSaver saver, LessonReels reels, FileStore store, TimeProvider clock, CancellationToken cancel)
    {
        var lesson = await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel);
        if (lesson is null)
            return Problems.NotThere("lesson");
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        var found = await reels.OfAsync(document, cancel);
        var slowness = await plans.SlownessAsync(cancel);
        var mark = HouseKeeper.OnPictures(await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel));
        var offers = Profiles.All.Select(profile => Offer(found, document, profile, mark, slowness, store)).OfType<ProfileOffer>().ToList();
        var notReady = found.Failure is { } failure ? new Problem("recording-damaged", failure)
            : LessonRules.NotReady(document)
            ?? (offers.Count > 0 ? null : new Problem("recording-not-looked-through", "The recording is still being looked through; this page goes on by itself."));
        var renditions = await db.Renditions.AsNoTracking().Include(r => r.Lesson).Where(r => r.LessonId == id).OrderByDescending(r => r.RequestedAt).Take(20).ToListAsync(cancel);
        return TypedResults.Ok(new DeliverView(notReady, offers, [.. renditions.Select(r => View(r, clock.GetUtcNow()))]));
    }

    private static ProfileOffer? Offer(LessonReel found, LessonDocument document, Profile profile, MarkOnPicture? mark, double slowness, FileStore store)
    {
        if (RenderPlans.Of(found, document, profile, mark) is not { } planned)
            return null;
        var picture = planned.Plan.Picture;
        var estimate = RenderEstimator.Of(planned.Plan, planned.Reel, planned.Analysis.ChangedShare, MachineSpeed.Small);
        var level = H264Level.All.First(l => l.Number == picture.Level).Name;
        return new ProfileOffer(
            profile.Id, profile.Title, profile.Description, picture.Size, planned.Plan.Parts[0].Placement.ScalePercent, planned.Plan.Parts[0].Placement.WholeFactor, level,
            estimate.Bytes, estimate.Time * slowness, store.Has(planned.EncodeKey, RenderJob.EncodeName));
    }

    private static async Task<Results<Ok<RenditionView>, ProblemHttpResult>> RenderAsync(Guid id, RenderRequest request, WexelDb db, LessonSaver saver, LessonReels reels, DiskRoom room, LiveNews news, IBackgroundJobClient jobs, ClaimsPrincipal user, TimeProvider clock, CancellationToken cancel)
    {
        var lesson = await db.Lessons.FirstOrDefaultAsync(l => l.Id == id, cancel);
        if (lesson is null)
            return Problems.NotThere("lesson");
        if (Profiles.Find(request.ProfileId) is not { } profile)
            return Problems.NotThere("profile");
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        var found = await reels.OfAsync(document, cancel);
        if (LessonRules.NotReady(document) is { } notReady)
            return Problems.Of(notReady);
        if (RenderPlans.Of(found, document, profile, HouseKeeper.OnPictures(await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel))) is not { } planned)
            return Problems.Of(new Problem("recording-not-looked-through", "The recording is still being looked through. Try again in a moment."));
        var estimate = RenderEstimator.Of(planned.Plan, planned.Reel, planned.Analysis.ChangedShare, MachineSpeed.Small);
        // The encode and the finished copy lie on the disk together, and an estimate can be low.
        if (room.Lacks(estimate.Bytes * 3, "the rendition") is { } full)
            return Problems.Of(full, StatusCodes.Status507InsufficientStorage);
        var same = await db.Renditions.Include(r => r.Lesson).FirstOrDefaultAsync(r => r.LessonId == id && r.EncodeKey == planned.EncodeKey && (r.State == RenditionState.Waiting || r.State == RenditionState.Working), cancel);
        if (same is not null)
            return TypedResults.Ok(View(same, clock.GetUtcNow()));
        var rendition = new Rendition
        {
            LessonId = id,
            Lesson = lesson,
            Revision = lesson.Revision,
            ProfileId = profile.Id,
            RequestedBy = user.Id(),
            RequestedAt = clock.GetUtcNow(),
            EncodeKey = planned.EncodeKey,
            EstimatedBytes = estimate.Bytes,
            EstimatedTime = estimate.Time,
        };
        db.Renditions.Add(rendition);
        await db.SaveChangesAsync(cancel);
        jobs.Enqueue<RenderJob>(job => job.RunAsync(rendition.Id, CancellationToken.None));
        await news.RenditionAsync(new RenditionNews(rendition.Id, id, rendition.State, 0, null));
        return TypedResults.Ok(View(rendition, clock.GetUtcNow()));
    }

    private static async Task<Ok<List<RenditionView>>> QueueAsync(WexelDb db, TimeProvider clock, CancellationToken cancel)
    {
        var all = await db.Renditions.AsNoTracking().Include(r => r.Lesson).OrderByDescending(r => r.RequestedAt).Take(200).ToListAsync(cancel);
        return TypedResults.Ok(all.Select(r => View(r, clock.GetUtcNow())).ToList());
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> CancelAsync(Guid id, WexelDb db, LiveNews news, TimeProvider clock, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        var stopped = await db.Renditions.Where(r => r.Id == id && (r.State == RenditionState.Waiting || r.State == RenditionState.Working))
            .ExecuteUpdateAsync(set => set.SetProperty(r => r.State, RenditionState.Cancelled).SetProperty(r => r.EndedAt, now), cancel);
        if (stopped == 0)
            return Problems.Of(new Problem("rendition-over", "It has ended already; there is nothing to stop."), StatusCodes.Status409Conflict);
        var lessonId = await db.Renditions.Where(r => r.Id == id).Select(r => r.LessonId).FirstAsync(cancel);
        await news.RenditionAsync(new RenditionNews(id, lessonId, RenditionState.Cancelled, 0, null));
        return TypedResults.NoContent();
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> FileAsync(Guid id, WexelDb db, FileStore store, CancellationToken cancel)
    {
        var rendition = await db.Renditions.AsNoTracking().Include(r => r.Lesson).FirstOrDefaultAsync(r => r.Id == id && r.State == RenditionState.Done, cancel);
        return rendition?.FileKey is { } key
            ? TypedResults.PhysicalFile(store.Derived(key, Finisher.VideoName), "video/mp4", rendition.Lesson!.Title + ".mp4", enableRangeProcessing: true)
            : Problems.NotThere("file");
    }

    private static RenditionView View(Rendition r, DateTimeOffset now)
    {
        double? left = r is { State: RenditionState.Working, Progress: > 0.02, StartedAt: { } started } ? (now - started).TotalSeconds * (1 - r.Progress) / r.Progress : null;
        return new RenditionView(
            r.Id, r.LessonId, r.Lesson!.Title, Profiles.Find(r.ProfileId)?.Title ?? r.ProfileId, r.Revision, r.State, r.Progress, left, r.RequestedAt, r.EndedAt, r.Bytes, r.Codecs,
            r.Check is null ? [] : Json.Read<IReadOnlyList<CheckedFact>>(r.Check), r.Said, r.Advice, r.EstimatedTime);
    }
}
