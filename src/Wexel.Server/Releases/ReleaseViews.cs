using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets;
using Wexel.Core.Outlets.VideoServices;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Delivering.VideoServices;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>Shows what stands of a lesson at each outlet, and what is on its way there.</summary>
internal sealed class ReleaseViews(WexelDb db, HandOns handOns, LessonSaver lessons, AllVideoServices services, TimeProvider clock)
{
    private static readonly IReadOnlyList<UnfitHandOn> Unfit =
    [
        .. VisibilityWords.All.Where(w => w.EmbedWarning is not null).Select(w => new UnfitHandOn(w.Level, w.EmbedWarning!)),
    ];

    internal async Task<IReadOnlyList<OutletView>> OfLessonAsync(Guid lessonId, Standing standing, CancellationToken cancel)
    {
        var lesson = await db
            .Lessons.AsNoTracking()
            .IgnoreQueryFilters()
            .Include(l => l.Releases)
            .Include(l => l.Renditions.Where(r => r.State == RenditionState.Working))
            .FirstAsync(l => l.Id == lessonId, cancel);
        IReadOnlyList<LessonDocument> said = await lessons.CurrentAsync(lesson, cancel) is { } document ? [document] : [];
        IReadOnlyList<VideoAccount> accounts = standing.Outlets.Any(o => o.Kind.PublishesVideos)
            ? await db.VideoAccounts.AsNoTracking().ToListAsync(cancel)
            : [];
        return [.. standing.Outlets.Select(o => View(o, lesson, standing, said, accounts))];
    }

    private OutletView View(KnownOutlet outlet, Lesson lesson, Standing standing, IReadOnlyList<LessonDocument> said, IReadOnlyList<VideoAccount> accounts)
    {
        var row = lesson.Releases.FirstOrDefault(r => r.OutletId == outlet.Row.Id);
        var release = row is { MadeFrom.Length: > 0 } stands ? View(outlet, stands, lesson, standing) : null;
        return new OutletView(
            outlet.Row.Id,
            outlet.Row.Kind,
            outlet.Kind.Name,
            outlet.Kind.HasPages,
            outlet.Kind.PackageWord,
            outlet.Row.Name,
            outlet.Row.DeliverTo is not null,
            outlet.UsualProfile,
            standing.Refused(outlet),
            release,
            row is { BatchId: not null } ? Way(row, lesson) : null,
            row is { Phase: not ReleasePhase.TakenDown } && (row.BatchId is not null || release is not null) ? handOns.Find(outlet, row) : null,
            release is null ? [] : outlet.Kind.ByHand(release.Package?.Files.FirstOrDefault(f => f.IsThePageToLink)?.Path),
            outlet.Kind.TitleThere(lesson.Title),
            Carried.Sentence(Carried.For(outlet.Kind.Carries, said)),
            outlet.Kind.SeenBy,
            outlet.Kind.IsOpen,
            outlet.Kind.HasPages ? Unfit : [],
            [.. outlet.Kind.WhoMaySee.Select(w => new WhoThere(w, outlet.Kind.Means(w)))],
            outlet.Kind.PublishesVideos ? Video(outlet, row, lesson, standing, accounts) : null
        );
    }

    private VideoView Video(KnownOutlet outlet, Release? row, Lesson lesson, Standing standing, IReadOnlyList<VideoAccount> accounts)
    {
        var there = row?.VideoThere is { } kept ? VideoThere.Format.Read(kept) : null;
        var place = row?.VideoPlace is { } chosen ? VideoPlace.Format.Read(chosen) : null;
        var account = accounts.FirstOrDefault(a => a.Id == place?.Account);
        var facts = account is null ? null : WexelJson.Read<ServiceAccount>(account.Facts);
        var category = standing.Details(outlet, DetailShelf.Said(lesson), row is null ? DetailSet.None : DetailShelf.Said(row)).Values.Category;
        return new VideoView(
            place,
            there?.Stage,
            there?.Reason,
            there?.ReadyAt,
            place is not null && there is not null && !there.IsAt(place),
            account is null || services.Find(outlet.Row.DeliverBy) is not { } service
                ? null
                : VideoUnfit.Find(account, service.Name, facts!, category, lesson.Length),
            facts?.Categories ?? [],
            there is { Said: { } ours, Found: { } found } ? VideoTexts.Differences(ours, found) : []
        );
    }

    private WayView Way(Release row, Lesson lesson)
    {
        var rendering = row.Phase == ReleasePhase.Rendering ? lesson.Renditions.FirstOrDefault(r => r.ProfileId == row.WantedProfileId) : null;
        var progress = rendering?.Progress ?? (row is { Phase: ReleasePhase.Sending, BytesToSend: > 0 and var all } ? (double)row.SentBytes / all : null);
        var since = row.Phase == ReleasePhase.Rendering ? rendering?.StartedAt : row.PhaseAt;
        return new WayView(
            row.Id,
            row.Phase,
            row.PhaseAt,
            row.Problem is { } problem ? WexelJson.Read<Problem>(problem) : null,
            progress,
            row.SentBytes,
            row.BytesToSend,
            row.WantedProfileId,
            row.WantedVisibility,
            row.OpensAt,
            row.EndsAt,
            NamedPeople.Read(row.Named),
            // At the pace so far; of the first two per cent that says little.
            progress > 0.02
            && since is { } begun
                ? (clock.GetUtcNow() - begun).TotalSeconds * (1 - progress.Value) / progress.Value
                : null,
            row.WantsDown
        );
    }

    private ReleaseView View(KnownOutlet outlet, Release release, Lesson lesson, Standing standing)
    {
        var handed = handOns.Find(outlet, release);
        return new ReleaseView(
            release.Id,
            release.Revision,
            release.ReleasedAt,
            standing.IsBehind(outlet, release.Stands(), lesson.Here()),
            release.Visibility,
            release.OpensAt,
            release.EndsAt,
            NamedPeople.Read(release.Named),
            release.ProfileId,
            outlet.Kind.HasPages ? handed.Link : null,
            handed.EmbedCode,
            handed.EmbedWarning,
            ReleaseEndpoints.Package(release, $"/api/releases/{release.Id}/package.zip"),
            handed.Feed
        );
    }
}
