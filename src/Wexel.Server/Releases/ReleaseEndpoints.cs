using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Outlets;
using Wexel.Core.Outlets.VideoServices;
using Wexel.Core.Packages;
using Wexel.Core.People;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Media.Packaging;
using Wexel.Server.Feeds;
using Wexel.Server.Outlets;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.SignIn;

namespace Wexel.Server.Releases;

internal sealed record ReleaseRequest(Guid OutletId, string? ProfileId, Visibility? Visibility);

/// <summary>What is wanted in one step: of each lesson at each outlet what is not said is as it was, or as the outlet takes it by itself.</summary>
internal sealed record ReleasesRequest(IReadOnlyList<ReleaseWish> Wishes);

/// <param name="Visibility">Who may see it.</param>
/// <param name="OpensAt">From when; null for at once.</param>
/// <param name="EndsAt">Until when; null for ever.</param>
/// <param name="Named">Who is named as those who may see it; null for those who were before.</param>
internal sealed record VisibilityRequest(Visibility Visibility, DateTimeOffset? OpensAt = null, DateTimeOffset? EndsAt = null, NamedPeople? Named = null);

/// <summary>A lesson on its way to an outlet.</summary>
/// <param name="Id">The release.</param>
/// <param name="Phase">How far it is.</param>
/// <param name="Since">Since when.</param>
/// <param name="Problem">What stood in the way.</param>
/// <param name="Progress">How much of the phase is done, 0 to 1; null where nobody knows.</param>
/// <param name="SentBytes">How much was put there so far.</param>
/// <param name="BytesToSend">How much there is to put; null where nothing is sent now.</param>
/// <param name="ProfileId">The profile with which it is wanted.</param>
/// <param name="Visibility">Who is to see it.</param>
/// <param name="OpensAt">From when; null for at once.</param>
/// <param name="EndsAt">Until when; null for ever.</param>
/// <param name="Named">Who is named as those who are to see it.</param>
/// <param name="SecondsLeft">About how long the phase takes still; null where nobody knows.</param>
internal sealed record WayView(
    Guid Id,
    ReleasePhase Phase,
    DateTimeOffset Since,
    Problem? Problem,
    double? Progress,
    long SentBytes,
    long? BytesToSend,
    string ProfileId,
    Visibility Visibility,
    DateTimeOffset? OpensAt,
    DateTimeOffset? EndsAt,
    NamedPeople Named,
    double? SecondsLeft,
    bool TakesDown
);

internal sealed record ReleaseView(
    Guid Id,
    int Revision,
    DateTimeOffset ReleasedAt,
    bool Behind,
    Visibility Visibility,
    DateTimeOffset? OpensAt,
    DateTimeOffset? EndsAt,
    NamedPeople Named,
    string ProfileId,
    string? Link,
    string? EmbedCode,
    string? EmbedWarning,
    PackageView? Package,
    string? Feed
);

internal sealed record PackageView(string Link, long Bytes, IReadOnlyList<WrittenFile> Files, SentView? Sent);

internal sealed record SentView(DateTimeOffset At, string? To, bool Behind);

/// <param name="KindName">What it is, for people.</param>
/// <param name="HasPages">Whether learners come to Wexel's own pages, where who may see it is asked.</param>
/// <param name="PackageWord">What the package that is made for it is called; null where none is.</param>
/// <param name="TakesPackages">Whether what is made can be put there from here.</param>
/// <param name="Release">What stands there; null where nothing does.</param>
/// <param name="Way">What was wanted there last, and how far that is; null where nobody wanted it yet.</param>
/// <param name="HandsOn">What is handed on, from the moment that it is wanted; null before, and once it is taken down.</param>
/// <param name="ByHand">What has to be done there by hand, each in a sentence.</param>
/// <param name="Survives">What of a lesson is not there, or something else, in sentences; empty where all of it survives.</param>
/// <param name="SeenBy">Who sees what stands there, where that is not said at each release.</param>
/// <param name="IsOpen">Whether people outside the house may come to what stands there, whatever is said at the release.</param>
/// <param name="Unfit">What of what is handed on does not fit who may see it, by that.</param>
/// <param name="WhoMaySee">Of whom it is asked at each release whether they may see it; nobody where that is not asked.</param>
/// <param name="Video">How it stands at a video service, where it is one.</param>
/// <param name="TitleThere">What becomes of the title there, in a sentence; null where it stays as it is.</param>
internal sealed record OutletView(
    Guid Id,
    string Kind,
    string KindName,
    bool HasPages,
    string? PackageWord,
    string Name,
    bool TakesPackages,
    string UsualProfile,
    IReadOnlyList<ProfileRefusal> Refuses,
    ReleaseView? Release,
    WayView? Way,
    HandedOn? HandsOn,
    IReadOnlyList<string> ByHand,
    string? TitleThere,
    string Survives,
    string? SeenBy,
    bool IsOpen,
    IReadOnlyList<UnfitHandOn> Unfit,
    IReadOnlyList<WhoThere> WhoMaySee,
    VideoView? Video
);

/// <summary>A lesson at a video service.</summary>
/// <param name="Place">Where it goes there; null where nobody said.</param>
/// <param name="Stage">How far it is; null where nothing of it is there.</param>
/// <param name="Reason">Why it was refused.</param>
/// <param name="ReadyAt">When it is ready at the earliest; null where nobody knows.</param>
/// <param name="Moves">Whether it is to stand elsewhere there, or in other playlists.</param>
/// <param name="Unfit">What keeps the lesson from that account, as far as it is known before.</param>
/// <param name="Categories">The categories that the service knows; none where any is taken.</param>
/// <param name="Differences">What somebody changed there by hand.</param>
internal sealed record VideoView(
    VideoPlace? Place,
    VideoStage? Stage,
    string? Reason,
    DateTimeOffset? ReadyAt,
    bool Moves,
    Problem? Unfit,
    IReadOnlyList<string> Categories,
    IReadOnlyList<VideoDifference> Differences
);

/// <summary>Somebody of whom it is asked whether they may see it.</summary>
/// <param name="Means">What that means there, in a sentence.</param>
internal sealed record WhoThere(Visibility Visibility, string Means);

/// <summary>What is handed on does not fit who may see it.</summary>
internal sealed record UnfitHandOn(Visibility Visibility, string Sentence);

internal static class ReleaseEndpoints
{
    internal static void MapReleases(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/lessons/{id:guid}/releases", ListAsync).WithName("Releases");
        routes.MapPost("/api/lessons/{id:guid}/releases", ReleaseAsync).WithName("Release");
        routes.MapDelete("/api/releases/{id:guid}", TakeDownAsync).WithName("TakeDown");
        routes.MapPost("/api/releases/{id:guid}/stop", StopAsync).WithName("StopRelease");
        routes.MapPost("/api/releases", WantAsync).WithName("WantReleases");
        routes.MapPut("/api/releases/{id:guid}/visibility", OpenAsync).WithName("OpenRelease");
        routes.MapGet("/api/releases/{id:guid}/package.zip", PackageAsync).WithName("ReleasePackage").ExcludeFromDescription();
    }

    private const int MostAtOnce = 10_000;

    private static async Task<Results<Ok<List<OutletView>>, ProblemHttpResult>> ListAsync(
        Guid id,
        WexelDb db,
        StandingReader reader,
        ReleaseViews views,
        CancellationToken cancel
    ) =>
        await db.Lessons.AnyAsync(l => l.Id == id, cancel)
            ? TypedResults.Ok((await views.OfLessonAsync(id, await reader.ReadAsync(cancel), cancel)).ToList())
            : Problems.NotThere("lesson");

    /// <summary>Releases one lesson to one outlet, and answers when it is there, when it failed, or when it takes long.</summary>
    private static async Task<Results<Ok<OutletView>, ProblemHttpResult>> ReleaseAsync(
        Guid id,
        ReleaseRequest request,
        WexelDb db,
        ReleaseWishes wishes,
        StandingReader reader,
        ReleaseViews views,
        ReleaseWaiting waiting,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (!await db.Lessons.AnyAsync(l => l.Id == id, cancel))
            return Problems.NotThere("lesson");
        if (!await db.Outlets.AnyAsync(o => o.Id == request.OutletId, cancel))
            return Problems.NotThere("outlet");
        var wish = new ReleaseWish(id, request.OutletId, request.ProfileId, request.Visibility);
        var release = (await wishes.WantAsync([wish], user.Id(), tells: false, cancel))[0];
        if (await waiting.UntilOverAsync<Release>(release, cancel) is { } problem)
            return Problems.Answer(problem);
        return TypedResults.Ok((await views.OfLessonAsync(id, await reader.ReadAsync(cancel), cancel)).First(o => o.Id == request.OutletId));
    }

    private static async Task<Results<Ok<IReadOnlyList<Guid>>, ProblemHttpResult>> WantAsync(
        ReleasesRequest request,
        WexelDb db,
        ReleaseWishes wishes,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (request.Wishes.Count is 0 or > MostAtOnce)
            return Problems.Answer(new Problem("release-nothing", $"Choose at least one lesson and one outlet, and at most {MostAtOnce:#,0} at once."));
        var (lessons, places) = (request.Wishes.Select(w => w.LessonId).ToHashSet(), request.Wishes.Select(w => w.OutletId).ToHashSet());
        if (await db.Lessons.CountAsync(l => lessons.Contains(l.Id), cancel) < lessons.Count)
            return Problems.NotThere("lesson");
        if (await db.Outlets.CountAsync(o => places.Contains(o.Id), cancel) < places.Count)
            return Problems.NotThere("outlet");
        var accepted = new List<ReleaseWish>();
        foreach (var wish in request.Wishes.DistinctBy(w => (w.LessonId, w.OutletId)))
        {
            if (!Accepted(wish).Is(out var usable, out var unusable))
                return Problems.Answer(unusable);
            accepted.Add(usable);
        }

        return TypedResults.Ok(await wishes.WantAsync(accepted, user.Id(), tells: true, cancel));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> OpenAsync(
        Guid id,
        VisibilityRequest request,
        WexelDb db,
        Releaser releaser,
        CancellationToken cancel
    )
    {
        var found = db.Releases.IgnoreQueryFilters().Include(r => r.Outlet).Include(r => r.Lesson);
        if (await found.FirstOrDefaultAsync(r => r.Id == id, cancel) is not { } release)
            return Problems.NotThere("release");
        var opening = new Opening(request.Visibility, request.OpensAt, request.EndsAt);
        var before = NamedPeople.Read(release.Named);
        if (!Accepted(opening, request.Named, before).Is(out var named, out var unusable))
            return Problems.Answer(unusable);
        return await releaser.OpenAsync(release, opening, named, cancel) is { } problem ? Problems.Answer(problem) : TypedResults.NoContent();
    }

    private static Result<ReleaseWish> Accepted(ReleaseWish wish) =>
        wish.Visibility is not { } visibility ? wish
        : Accepted(new Opening(visibility, wish.OpensAt, wish.EndsAt), wish.Named, null).Is(out var named, out var problem)
            ? wish with
            {
                Named = wish.Named is null ? null : named,
            }
        : problem;

    /// <summary>Who is named, as somebody entered it; or what of it cannot be meant.</summary>
    private static Result<NamedPeople> Accepted(Opening opening, NamedPeople? entered, NamedPeople? before)
    {
        if (opening.Unusable is { } unusable)
            return unusable;
        if (!(entered ?? before ?? NamedPeople.Nobody).Accepted().Is(out var named, out var problem))
            return problem;
        return opening.Visibility == Visibility.Named && named is { Mails.Count: 0, Groups.Count: 0 } && (entered ?? before) is not null
            ? new Problem("named-nobody", "Name at least one person or group who may see it.", "named")
            : named;
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> StopAsync(Guid id, WexelDb db, Releaser releaser, CancellationToken cancel)
    {
        if (await db.Releases.IgnoreQueryFilters().FirstOrDefaultAsync(r => r.Id == id, cancel) is not { } release)
            return Problems.NotThere("release");
        await releaser.StopAsync(release, cancel);
        return TypedResults.NoContent();
    }

    /// <summary>Has one release taken down, and answers when it is, when it could not be, or when it takes long.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> TakeDownAsync(
        Guid id,
        WexelDb db,
        Releaser releaser,
        ReleaseWaiting waiting,
        CancellationToken cancel
    )
    {
        if (await db.Releases.IgnoreQueryFilters().FirstOrDefaultAsync(r => r.Id == id, cancel) is not { } release)
            return Problems.NotThere("release");
        await releaser.TakeDownAsync([release], cancel);
        return await waiting.UntilOverAsync<Release>(id, cancel) is { } problem ? Problems.Answer(problem) : TypedResults.NoContent();
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> PackageAsync(
        Guid id,
        WexelDb db,
        FileStore store,
        FileNamer names,
        CancellationToken cancel
    )
    {
        var release = await db.Releases.AsNoTracking().Include(r => r.Lesson).FirstOrDefaultAsync(r => r.Id == id, cancel);
        return release?.PackageKey is { } key
            ? TypedResults.PhysicalFile(
                store.Derived(key, MadeNames.Package),
                "application/zip",
                await names.NameAsync(release.Lesson!, null, cancel) + ".zip",
                enableRangeProcessing: true
            )
            : Problems.NotThere("package");
    }

    internal static PackageView? Package(PackagedRelease release, string link) =>
        release.PackageFiles is null
            ? null
            : new PackageView(
                link,
                release.PackageBytes,
                WexelJson.Read<IReadOnlyList<WrittenFile>>(release.PackageFiles),
                release.SentAt is { } at ? new SentView(at, release.SentTo, release.SentKey != release.PackageKey) : null
            );
}
