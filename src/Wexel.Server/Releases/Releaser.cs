using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Outlets;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Media.Rendering;
using Wexel.Server.Live;
using Wexel.Server.People;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>Changes what stands at outlets and makes nothing: stops what is on its way, has it taken down, and says who may see it.</summary>
internal sealed class Releaser(
    WexelDb db,
    OutletShelf outlets,
    StandingReader standings,
    ReleaseWishes wishes,
    Invitations invitations,
    LiveNews news,
    TimeProvider clock
)
{
    /// <summary>Stops releases that are on their way; what stands there stays.</summary>
    internal async Task StopAsync(Release release, CancellationToken cancel)
    {
        if (!ReleasePhases.IsUnderWay(release.Phase))
            return;
        var why = new Problem("release-stopped", "It was stopped on its way. What was done is kept: going on begins there.");
        await SayAsync(
            release,
            [],
            r =>
            {
                if (!ReleasePhases.IsUnderWay(r.Phase))
                    return;
                r.Go(ReleasePhase.Failed, clock.GetUtcNow());
                r.Problem = WexelJson.Write(why);
            },
            cancel
        );
        await news.LessonAsync(release.LessonId);
    }

    /// <summary>Has releases taken down, in the background. Where what was put at an outlet can be taken away from here, it is.</summary>
    internal async Task TakeDownAsync(IReadOnlyList<Release> releases, CancellationToken cancel)
    {
        foreach (var release in releases.Where(r => r.Phase != ReleasePhase.TakenDown))
        {
            await SayAsync(
                release,
                SaidOfReleases.Wanting,
                r =>
                {
                    (r.WantsDown, r.Problem, r.SentBytes, r.BytesToSend) = (true, null, 0, null);
                    r.Go(ReleasePhase.Planned, clock.GetUtcNow());
                },
                cancel
            );
            wishes.Call(release.Id);
        }

        foreach (var lesson in releases.Select(r => r.LessonId).Distinct())
            await news.LessonAsync(lesson);
    }

    /// <summary>Says who may see a release. Neither its file, nor its address, nor its revision changes.</summary>
    /// <param name="release">The release, with its outlet and its lesson.</param>
    /// <param name="opening">Who may see it from now on, or from when and until when.</param>
    /// <param name="named">Who is named; null for those who were before.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>What must be answered before, or null.</returns>
    internal async Task<Problem?> OpenAsync(Release release, Opening opening, NamedPeople? named, CancellationToken cancel)
    {
        if (Unanswered(release, release.Lesson!, outlets.Known(release.Outlet!), opening.Visibility, await standings.ReadAsync(cancel)) is { } unanswered)
            return unanswered;
        await SayAsync(
            release,
            SaidOfReleases.Opening,
            r =>
            {
                (r.Visibility, r.WantedVisibility, r.OpensAt, r.EndsAt) = (opening.Visibility, opening.Visibility, opening.From, opening.Until);
                r.Named = named is null ? r.Named : NamedPeople.Format.Write(named);
            },
            cancel
        );
        // Where others show it, they are told.
        if (outlets.Known(release.Outlet!).Kind.PublishesVideos)
            await wishes.GoOnAsync(release.Id, cancel);
        await invitations.TellAsync(release.Id, cancel);
        await news.LessonAsync(release.LessonId);
        return null;
    }

    /// <summary>What must be answered before somebody else may see a release, or null.</summary>
    internal static Problem? Unanswered(Release release, Lesson lesson, KnownOutlet outlet, Visibility visibility, Standing standing)
    {
        var said = standing.Details(outlet, DetailShelf.Said(lesson), DetailShelf.Said(release)).Values;
        var isOpen = release.MadeFrom.Length > 0 && OpenToAll.Is(outlet.Kind, release.Visibility);
        return OpenToAll.Unanswered(outlet.Kind, visibility, said, isOpen, outlet.Row.Name);
    }

    /// <summary>Writes down what somebody says of a release; where somebody else was a moment faster, it is said of what that left.</summary>
    private async Task SayAsync(Release release, IReadOnlyList<string> what, Action<Release> say, CancellationToken cancel)
    {
        while (true)
        {
            say(release);
            db.Say(release, what);
            try
            {
                await db.SaveChangesAsync(cancel);
                return;
            }
            catch (DbUpdateConcurrencyException)
            {
                await db.Entry(release).ReloadAsync(cancel);
            }
        }
    }

    /// <summary>Where a release's video lies on Wexel's own pages.</summary>
    internal static string VideoPath(string token, Container container) =>
        $"/watch/{token}/{(ContainerFacts.Of(container) is { IsFolder: false, Ending: var ending } ? "video" + ending : Muxing.FileName(container))}";
}
