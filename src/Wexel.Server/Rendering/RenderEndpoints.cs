using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Lessons;
using Wexel.Core.Packages;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Lessons;
using Wexel.Making.Storage;
using Wexel.Media.Rendering;
using Wexel.Server.Estimates;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.SignIn;

namespace Wexel.Server.Rendering;

/// <param name="Size">The picture's size; null for sound alone.</param>
/// <param name="ScalePercent">How large the picture is shown; null for sound alone.</param>
/// <param name="Findings">What does not hold for the profile with this lesson.</param>
/// <param name="EncodedSince">Why the picture is encoded and not copied, to stand behind "since"; null where it is copied, or where there is none.</param>
/// <param name="SoundEncodedSince">The same of the sound.</param>
/// <param name="NothingToEncode">Whether everything is encoded already.</param>
internal sealed record ProfileOffer(
    string Id,
    string Title,
    string Description,
    string Container,
    PictureSize? Size,
    double? ScalePercent,
    bool WholeFactor,
    string Coding,
    string? EncodedSince,
    string? SoundEncodedSince,
    EstimateView Estimate,
    long? EncodedBytes,
    bool NothingToEncode,
    IReadOnlyList<ProfileFinding> Findings
);

internal sealed record RenditionView(
    Guid Id,
    Guid LessonId,
    string LessonTitle,
    string ProfileId,
    string ProfileTitle,
    int Revision,
    RenditionState State,
    double Progress,
    double? SecondsLeft,
    DateTimeOffset RequestedAt,
    DateTimeOffset? EndedAt,
    TimeSpan Length,
    long Bytes,
    string? Codecs,
    IReadOnlyList<CheckedFact> Check,
    IReadOnlyList<LetPassView> LetPass,
    string? Said,
    string? Advice,
    TimeSpan EstimatedTime
);

/// <summary>A fact that somebody let pass.</summary>
internal sealed record LetPassView(string Code, string Reason, string By, DateTimeOffset At);

internal sealed record DeliverView(Problem? NotReady, IReadOnlyList<ProfileOffer> Profiles, IReadOnlyList<RenditionView> Renditions);

internal sealed record RenderRequest(IReadOnlyList<Guid> Lessons, IReadOnlyList<string> Profiles);

internal sealed record AskedView(IReadOnlyList<RenditionView> Renditions, IReadOnlyList<RefusedRender> Refused);

internal static class RenderEndpoints
{
    private const int MostAtOnce = 500;

    internal static void MapRendering(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/lessons/{id:guid}/deliver", DeliverAsync).WithName("Deliver");
        routes.MapPost("/api/renditions", RenderAsync).WithName("Render");
        routes.MapGet("/api/queue", QueueAsync).WithName("Queue");
        routes.MapGet("/api/renditions/{id:guid}/file", FileAsync).WithName("RenditionFile").ExcludeFromDescription();
    }

    private static async Task<Results<Ok<DeliverView>, ProblemHttpResult>> DeliverAsync(
        Guid id,
        WexelDb db,
        OutletShelf places,
        RenderPlans plans,
        LessonSaver saver,
        ProfileShelf shelf,
        FileStore store,
        EstimateReader estimates,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var lesson = await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel);
        if (lesson is null)
            return Problems.NotThere("lesson");
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        var renderable = await plans.LessonAsync(document, cancel);
        var offers = new List<ProfileOffer>();
        if (LessonRules.NotReady(document) is not { Code: "lesson-all-cut" })
        {
            foreach (var profile in await shelf.AllAsync(cancel))
            {
                if (renderable.With(profile) is { } planned)
                    offers.Add(Offer(profile, planned, await estimates.EstimateAsync(planned, cancel), planned.EncodedBytes(store), renderable.Check(profile)));
            }
        }

        var notReady = renderable.Found.Failure is { } failure
            ? new Problem("recording-damaged", failure)
            : LessonRules.NotReady(document)
                ?? (
                    offers.Count > 0
                        ? null
                        : new Problem("recording-not-looked-through", "The recording is still being looked through; this page goes on by itself.")
                );
        var renditions = await db
            .Renditions.AsNoTracking()
            .Include(r => r.Lesson)
            .Where(r => r.LessonId == id)
            .OrderByDescending(r => r.RequestedAt)
            .ThenBy(r => r.Place)
            .Take(30)
            .ToListAsync(cancel);
        var outlets = await places.AllAsync(cancel);
        var encodes = renditions.Select(r => r.EncodeKey).ToList();
        var overrides = await db.CheckOverrides.AsNoTracking().Where(o => encodes.Contains(o.EncodeKey)).ToListAsync(cancel);
        return TypedResults.Ok(new DeliverView(notReady, offers, [.. renditions.Select(r => View(r, clock.GetUtcNow(), outlets, overrides))]));
    }

    private static ProfileOffer Offer(Profile profile, PlannedRendition planned, EstimateView estimate, long? encoded, IReadOnlyList<ProfileFinding> findings)
    {
        var (picture, placement) = (planned.Plan.Picture, planned.Plan.Picture?.Parts[0].Placement);
        return new ProfileOffer(
            profile.Id,
            profile.Title,
            profile.Description,
            ContainerFacts.Of(profile.Container).Name,
            picture?.Size,
            placement?.ScalePercent,
            placement?.WholeFactor ?? true,
            CodingWords.Say(planned.Plan),
            picture?.EncodedSince,
            planned.Plan.Sound?.EncodedSince,
            estimate,
            encoded,
            encoded is not null,
            findings
        );
    }

    private static async Task<Results<Ok<AskedView>, ProblemHttpResult>> RenderAsync(
        RenderRequest request,
        WexelDb db,
        RenderQueue queue,
        ProfileShelf shelf,
        ClaimsPrincipal user,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (request.Lessons.Count * request.Profiles.Count is 0 or > MostAtOnce)
            return Problems.Answer(new Problem("render-nothing", $"Choose at least one lesson and one profile, and at most {MostAtOnce} files at once."));
        var lessons = await db.Lessons.Include(l => l.Course).Where(l => request.Lessons.Contains(l.Id)).ToListAsync(cancel);
        if (lessons.Count < request.Lessons.Distinct().Count())
            return Problems.NotThere("lesson");
        var profiles = new List<Profile>();
        foreach (var id in request.Profiles.Distinct())
        {
            if (await shelf.FindAsync(id, cancel) is not { } profile)
                return Problems.NotThere("profile");
            profiles.Add(profile);
        }

        var asked = await queue.AskAsync([.. lessons.OrderBy(l => l.CourseId).ThenBy(l => l.Position)], profiles, user.Id(), tells: true, cancel);
        if (asked is { Renditions.Count: 0, Refused: [{ Problem: var refused }, ..] })
            return Problems.Answer(
                refused,
                refused.Code == DiskRoom.Full ? StatusCodes.Status507InsufficientStorage : StatusCodes.Status422UnprocessableEntity
            );
        return TypedResults.Ok(new AskedView([.. asked.Renditions.Select(r => View(r, clock.GetUtcNow()))], asked.Refused));
    }

    private static async Task<Ok<List<RenditionView>>> QueueAsync(WexelDb db, TimeProvider clock, CancellationToken cancel)
    {
        var all = await db
            .Renditions.AsNoTracking()
            .Include(r => r.Lesson)
            .OrderBy(r =>
                r.State == RenditionState.Working ? 0
                : r.State == RenditionState.Waiting ? 1
                : r.State == RenditionState.Held ? 2
                : 3
            )
            .ThenBy(r => r.State == RenditionState.Working || r.State == RenditionState.Waiting ? r.Place : 0)
            .ThenByDescending(r => r.RequestedAt)
            .ThenBy(r => r.Place)
            .Take(300)
            .ToListAsync(cancel);
        return TypedResults.Ok(all.Select(r => View(r, clock.GetUtcNow())).ToList());
    }

    private static async Task<IResult> FileAsync(Guid id, WexelDb db, FileStore store, FileNamer names, CancellationToken cancel)
    {
        var rendition = await db
            .Renditions.AsNoTracking()
            .Include(r => r.Lesson)
            .FirstOrDefaultAsync(r => r.Id == id && r.State == RenditionState.Done, cancel);
        if (rendition?.FileKey is not { } key)
            return Problems.NotThere("file");
        var profile = Profile.Format.Read(rendition.Profile);
        return Download(store, key, profile.Container, await names.NameAsync(rendition.Lesson!, profile.Title, cancel));
    }

    /// <summary>One file as it is; a folder of pieces as a ZIP that is packed while it goes.</summary>
    private static IResult Download(FileStore store, string key, Container container, string name)
    {
        var facts = ContainerFacts.Of(container);
        var file = store.Keyed(key, MadeNames.Finished(container));
        if (Muxing.Pieces(container, file.Path) is { } pieces)
            return new ZipDownload([.. LessonFiles.OfPieces(file, pieces)], name + ".zip");
        return TypedResults.PhysicalFile(file.Path, facts.MediaType, name + facts.Ending, enableRangeProcessing: true);
    }

    private static RenditionView View(
        Rendition r,
        DateTimeOffset now,
        IReadOnlyList<KnownOutlet>? outlets = null,
        IReadOnlyList<CheckOverride>? overrides = null
    )
    {
        double? left = r is { State: RenditionState.Working, Progress: > 0.02, StartedAt: { } started }
            ? (now - started).TotalSeconds * (1 - r.Progress) / r.Progress
            : null;
        return new RenditionView(
            r.Id,
            r.LessonId,
            r.Lesson!.Title,
            r.ProfileId,
            Profile.Format.Read(r.Profile).Title,
            r.Revision,
            r.State,
            r.Progress,
            left,
            r.RequestedAt,
            r.EndedAt,
            r.Length,
            r.Bytes,
            r.Codecs,
            CheckOverrides.Facts(r, outlets ?? []),
            [.. (overrides ?? []).Where(o => o.EncodeKey == r.EncodeKey).Select(o => new LetPassView(o.Code, o.Reason, o.By, o.At))],
            r.Said,
            r.Advice,
            r.EstimatedTime
        );
    }
}
