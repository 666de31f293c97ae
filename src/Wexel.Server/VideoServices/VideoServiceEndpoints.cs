using System.Security.Cryptography;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Outlets;
using Wexel.Core.Outlets.VideoServices;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Delivering.VideoServices;
using Wexel.Server.Live;
using Wexel.Server.Releases;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.SignIn;

namespace Wexel.Server.VideoServices;

/// <summary>An account at a video service.</summary>
/// <param name="Withdrawn">Whether Wexel may not act for it any more.</param>
/// <param name="MostMinutes">How long a video may be; null for any.</param>
/// <param name="Categories">The categories that the service knows; none where any is taken.</param>
/// <param name="Heights">The heights in which videos play there, in pixels, the largest first.</param>
internal sealed record VideoAccountView(
    Guid Id,
    string Name,
    IReadOnlyList<ServiceChannel> Channels,
    bool Withdrawn,
    DateTimeOffset ConnectedAt,
    double? MostMinutes,
    IReadOnlyList<string> Categories,
    IReadOnlyList<int> Heights
);

/// <summary>The accounts of an outlet.</summary>
/// <param name="Service">What the service is called.</param>
/// <param name="Last">Where a lesson went last; null where none did yet.</param>
internal sealed record VideoAccountsView(string Service, IReadOnlyList<VideoAccountView> Accounts, VideoPlace? Last);

/// <summary>Where somebody goes to let Wexel act for an account.</summary>
internal sealed record ConnectView(Uri Address);

/// <param name="IsOpen">Whether everybody may see it.</param>
internal sealed record NewListRequest(string Channel, string Title, bool IsOpen);

/// <param name="Take">Whether what stands there is taken; otherwise what Wexel says is put back.</param>
internal sealed record FoundRequest(bool Take);

/// <summary>Connecting accounts with video services, and choosing where lessons go there.</summary>
internal static class VideoServiceEndpoints
{
    private static readonly TimeSpan TimeToAnswer = TimeSpan.FromMinutes(20);

    /// <summary>What comes back with somebody who was asked at a service; nobody else can make or read it.</summary>
    /// <param name="Person">Who was asked.</param>
    /// <param name="Outlet">The outlet of the service.</param>
    /// <param name="Lesson">The lesson from which it was begun, to which they come back; null where it was the outlet's own page.</param>
    /// <param name="Verifier">What only Wexel knows (RFC 7636, 4.1).</param>
    private sealed record Asked(Guid Person, Guid Outlet, Guid? Lesson, string Verifier);

    internal static void MapVideoServices(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/outlets/{id:guid}/video-accounts", AccountsAsync).WithName("VideoAccounts");
        routes.MapPost("/api/outlets/{id:guid}/video-accounts", AskAsync).WithName("ConnectVideoAccount");
        routes.MapGet("/api/video-services/back", BackAsync).ExcludeFromDescription();
        routes.MapDelete("/api/video-accounts/{id:guid}", RemoveAsync).WithName("RemoveVideoAccount");
        routes.MapGet("/api/video-accounts/{id:guid}/lists", ListsAsync).WithName("VideoLists");
        routes.MapPost("/api/video-accounts/{id:guid}/lists", AddListAsync).WithName("AddVideoList");
        routes.MapPut("/api/lessons/{id:guid}/video-places/{outletId:guid}", PlaceAsync).WithName("SetVideoPlace");
        routes.MapPost("/api/releases/{id:guid}/video/look", LookAsync).WithName("LookAtVideo");
        routes.MapPost("/api/releases/{id:guid}/video/found", FoundAsync).WithName("SettleVideo");
    }

    private static Uri Back(WexelOptions options) => new(options.PublicAddress, "api/video-services/back");

    private static async Task<Results<Ok<VideoAccountsView>, ProblemHttpResult>> AccountsAsync(
        Guid id,
        WexelDb db,
        OutletShelf outlets,
        AllVideoServices services,
        CancellationToken cancel
    )
    {
        if (await outlets.FindAsync(id, cancel) is not { Kind.PublishesVideos: true } outlet || services.Find(outlet.Row.DeliverBy) is not { } service)
            return Problems.NotThere("outlet");
        var rows = await db.VideoAccounts.AsNoTracking().Where(a => a.Service == service.Code).OrderBy(a => a.Name).ToListAsync(cancel);
        var last = await db
            .Releases.IgnoreQueryFilters()
            .Where(r => r.OutletId == id && r.VideoPlace != null && r.BatchId != null)
            .OrderByDescending(r => r.BatchId)
            .Select(r => r.VideoPlace)
            .FirstOrDefaultAsync(cancel);
        return TypedResults.Ok(
            new VideoAccountsView(
                service.Name,
                rows.ConvertAll(a =>
                {
                    var facts = VideoAccounts.Facts(a);
                    return new VideoAccountView(
                        a.Id,
                        a.Name,
                        facts.Channels,
                        a.WithdrawnAt is not null,
                        a.ConnectedAt,
                        facts.MostLength?.TotalMinutes,
                        facts.Categories,
                        facts.Heights
                    );
                }),
                last is null ? null : VideoPlace.Format.Read(last)
            )
        );
    }

    private static async Task<Results<Ok<ConnectView>, ProblemHttpResult>> AskAsync(
        Guid id,
        Guid? lesson,
        HttpContext http,
        OutletShelf outlets,
        AllVideoServices services,
        IDataProtectionProvider protection,
        IOptions<WexelOptions> options,
        CancellationToken cancel
    )
    {
        if (await outlets.FindAsync(id, cancel) is not { Kind.PublishesVideos: true } outlet || services.Find(outlet.Row.DeliverBy) is not { } service)
            return Problems.NotThere("outlet");
        var verifier = WebEncoders.Base64UrlEncode(RandomNumberGenerator.GetBytes(32));
        var challenge = WebEncoders.Base64UrlEncode(SHA256.HashData(System.Text.Encoding.ASCII.GetBytes(verifier)));
        var state = Protector(protection).Protect(WexelJson.Write(new Asked(http.User.Id(), id, lesson, verifier)), TimeToAnswer);
        return TypedResults.Ok(new ConnectView(service.AskAt(Back(options.Value), state, challenge)));
    }

    /// <summary>Somebody comes back from a service.</summary>
    private static async Task<RedirectHttpResult> BackAsync(
        string? code,
        string? state,
        string? error,
        HttpContext http,
        OutletShelf outlets,
        AllVideoServices services,
        VideoAccounts accounts,
        IDataProtectionProvider protection,
        IOptions<WexelOptions> options,
        CancellationToken cancel
    )
    {
        Asked asked;
        try
        {
            asked = WexelJson.Read<Asked>(Protector(protection).Unprotect(state ?? ""));
        }
        catch (CryptographicException)
        {
            return TypedResults.Redirect("/kit");
        }

        var page = asked.Lesson is { } lesson ? $"/lessons/{lesson}/deliver?outlet={asked.Outlet}&" : $"/kit/outlets/{asked.Outlet}?";
        RedirectHttpResult Say(string sentence) => TypedResults.Redirect($"{page}refused={Uri.EscapeDataString(sentence)}");
        if (asked.Person != http.User.Id())
            return Say("Somebody else began this. Press Connect an account once more.");
        if (await outlets.FindAsync(asked.Outlet, cancel) is not { } outlet || services.Find(outlet.Row.DeliverBy) is not { } service)
            return TypedResults.Redirect("/kit");
        if (error is not null || code is null)
            return Say($"{service.Name} was not allowed to let Wexel in, so nothing is connected.");
        if (!(await service.ConnectAsync(code, asked.Verifier, Back(options.Value), cancel)).Is(out var tokens, out var refused))
            return Say(refused.Sentence);
        return (await accounts.ConnectAsync(service, tokens, cancel)).Is(out var account, out var problem)
            ? TypedResults.Redirect($"{page}connected={Uri.EscapeDataString(account.Name)}")
            : Say(problem.Sentence);
    }

    private static ITimeLimitedDataProtector Protector(IDataProtectionProvider protection) =>
        protection.CreateProtector("wexel", "video account asked").ToTimeLimitedDataProtector();

    /// <summary>Forgets an account. What stands there stays.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(Guid id, WexelDb db, CancellationToken cancel)
    {
        if (await db.VideoAccounts.FirstOrDefaultAsync(a => a.Id == id, cancel) is not { } account)
            return Problems.NotThere("account");
        var kept = await db.Releases.IgnoreQueryFilters().Where(r => r.VideoThere != null).Select(r => r.VideoThere!).ToListAsync(cancel);
        var count = kept.Count(t => VideoThere.Format.Read(t) is { Id: not null, Stage: not VideoStage.Gone } there && there.Account == id);
        if (count > 0)
            return Problems.Answer(
                new Problem(
                    "video-account-in-use",
                    $"{(count == 1 ? "A video stands" : $"{count} videos stand")} under “{account.Name}”. Take {(count == 1 ? "it" : "them")} down first, or "
                        + "nobody could change what stands there."
                ),
                StatusCodes.Status409Conflict
            );
        db.VideoAccounts.Remove(account);
        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<IReadOnlyList<ServiceList>>, ProblemHttpResult>> ListsAsync(
        Guid id,
        string channel,
        VideoAccounts accounts,
        CancellationToken cancel
    ) =>
        await accounts.FindAsync(id, cancel) is not { } account ? Problems.NotThere("account")
        : (await account.Service.ListsAsync(account.Access, channel, cancel)).Is(out var lists, out var problem) ? TypedResults.Ok(lists)
        : Problems.Answer(problem);

    private static async Task<Results<Ok<ServiceList>, ProblemHttpResult>> AddListAsync(
        Guid id,
        NewListRequest request,
        VideoAccounts accounts,
        CancellationToken cancel
    )
    {
        if (await accounts.FindAsync(id, cancel) is not { } account)
            return Problems.NotThere("account");
        if (SectionRules.OneLine(request.Title, DetailFields.LongestLine) is not { Length: > 0 } title)
            return Problems.Answer(new Problem("list-without-title", "Give the playlist a title.", "title"));
        return (await account.Service.AddListAsync(account.Access, request.Channel, title, request.IsOpen, cancel)).Is(out var list, out var problem)
            ? TypedResults.Ok(list)
            : Problems.Answer(problem);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> PlaceAsync(
        Guid id,
        Guid outletId,
        VideoPlace place,
        WexelDb db,
        OutletShelf outlets,
        ReleaseShelf releases,
        VideoAccounts accounts,
        LiveNews news,
        CancellationToken cancel
    )
    {
        if (!await db.Lessons.AnyAsync(l => l.Id == id, cancel))
            return Problems.NotThere("lesson");
        if (await outlets.FindAsync(outletId, cancel) is not { Kind.PublishesVideos: true } outlet)
            return Problems.NotThere("outlet");
        if (
            await accounts.FindAsync(place.Account, cancel) is not { } account
            || account.Service.Code != outlet.Row.DeliverBy
            || account.Facts.Channels.All(c => c.Id != place.Channel)
        )
            return Problems.Answer(new Problem("video-place-unknown", "Choose an account that is connected, and one of its channels.", "videoPlace"));
        (await releases.FindOrAddAsync(id, outletId, cancel)).VideoPlace = VideoPlace.Format.Write(place);
        await db.SaveChangesAsync(cancel);
        await news.LessonAsync(id);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> LookAsync(Guid id, WexelDb db, VideoWatch watch, CancellationToken cancel)
    {
        if (!await db.Releases.IgnoreQueryFilters().AnyAsync(r => r.Id == id && r.VideoThere != null, cancel))
            return Problems.NotThere("release");
        return await watch.LookAsync(id, cancel) is { } problem ? Problems.Answer(problem) : TypedResults.NoContent();
    }

    /// <summary>Ends that somebody changed something at the service: what stands there is taken, or what Wexel says is put back.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> FoundAsync(
        Guid id,
        FoundRequest request,
        WexelDb db,
        VideoAccounts accounts,
        ReleaseWishes wishes,
        LiveNews news,
        CancellationToken cancel
    )
    {
        var release = await db.Releases.IgnoreQueryFilters().FirstOrDefaultAsync(r => r.Id == id, cancel);
        if (release is not { VideoThere: { } kept } || VideoThere.Format.Read(kept) is not { Found: { } found, Said: { } said } there)
            return Problems.NotThere("change");
        if (request.Take)
        {
            release.Details = DetailShelf.Write(DetailFields.Tidy(Taken(DetailShelf.Said(release), said, found), DetailLevel.Release));
            if (found.Visibility != said.Visibility)
                (release.Visibility, release.WantedVisibility) = (found.Visibility, found.Visibility);
            if (found.Visibility == Visibility.Named)
                release.Named = NamedPeople.Format.Write(NamedPeople.Read(release.Named) with { Mails = found.Named });
            // What stands there is what Wexel says from now on; what else is to be said is found by the difference.
            there = there with { Said = found, Found = null };
        }
        else
        {
            if (await accounts.FindAsync(there.Account, cancel) is not { } account)
                return Problems.NotThere("account");
            if (await account.Service.SayAsync(account.Access, there.Id!, said, cancel) is { } problem)
                return Problems.Answer(problem);
            there = there with { Found = null };
        }

        release.VideoThere = VideoThere.Format.Write(there);
        db.Say(release, [nameof(Release.VideoThere)]);
        await db.SaveChangesAsync(cancel);
        await wishes.GoOnAsync(id, cancel);
        await news.LessonAsync(release.LessonId);
        return TypedResults.NoContent();
    }

    /// <summary>What is said there alone from now on: all that somebody changed at the service. Contents are the lesson's, and stay.</summary>
    private static DetailSet Taken(DetailSet own, VideoTexts said, VideoTexts found)
    {
        var above = DescribedContents.Read(found.Description).Description;
        return own with
        {
            Title = found.Title == said.Title ? own.Title : found.Title,
            Description = above == DescribedContents.Read(said.Description).Description ? own.Description : above,
            Tags = found.Tags.SequenceEqual(said.Tags) ? own.Tags : found.Tags,
            Category = found.Category == said.Category ? own.Category : found.Category,
            ForChildren = found.ForChildren == said.ForChildren ? own.ForChildren : found.ForChildren,
            MayEmbed = found.MayEmbed == said.MayEmbed ? own.MayEmbed : found.MayEmbed,
        };
    }
}
