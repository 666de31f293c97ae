using System.Text;
using Hangfire;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Outlets;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Mailing;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>Tells whoever wanted lessons at outlets, once, when all of them are there or could not be brought there: with what is handed on.</summary>
internal sealed class ReleaseMail(
    WexelDb db,
    OutletShelf outlets,
    HandOns handOns,
    IBackgroundJobClient jobs,
    IOptions<WexelOptions> options,
    TimeProvider clock
)
{
    /// <param name="releaseId">The release that has come to an end.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task TellAsync(Guid releaseId, CancellationToken cancel)
    {
        var batch = await db
            .ReleaseBatches.AsNoTracking()
            .FirstOrDefaultAsync(b => db.Releases.IgnoreQueryFilters().Any(r => r.Id == releaseId && r.BatchId == b.Id), cancel);
        if (batch is not { ToldAt: null })
            return;
        var releases = await db
            .Releases.IgnoreQueryFilters()
            .AsNoTracking()
            .Include(r => r.Lesson)
            .Include(r => r.Outlet)
                .ThenInclude(o => o!.Feed!.Listings)
            .Where(r => r.BatchId == batch.Id)
            .ToListAsync(cancel);
        if (releases.Any(r => ReleasePhases.IsUnderWay(r.Phase)))
            return;
        var now = clock.GetUtcNow();
        // Two workers may end the last two at once; one of them tells.
        if (
            await db.ReleaseBatches.Where(b => b.Id == batch.Id && b.ToldAt == null).ExecuteUpdateAsync(set => set.SetProperty(b => b.ToldAt, now), cancel) == 0
        )
            return;
        // Whoever had one of them taken down knows it.
        releases.RemoveAll(r => r.WantsDown);
        if (releases.Count == 0)
            return;
        var asker = await db.Users.Where(u => u.Id == batch.AskedBy).Select(u => u.Email).FirstOrDefaultAsync(cancel);
        if (asker is null)
            return;
        var (subject, text) = (Subject(releases), Text(releases));
        jobs.Enqueue<Mailer>(mailer => mailer.SendAsync(asker, subject, text, CancellationToken.None));
    }

    private static string Subject(List<Release> releases)
    {
        var failed = releases.Count(r => r.Phase == ReleasePhase.Failed);
        var what = releases.Select(r => r.LessonId).Distinct().Count() == 1 ? releases[0].Lesson!.Title : $"{releases.Count} releases";
        return (failed, releases.Count) switch
        {
            (0, _) => $"Released: {what}",
            var (none, all) when none == all => $"Not released: {what}",
            var (some, all) => $"{all - some} of {all} places have it, {some} {(some == 1 ? "does" : "do")} not: {what}",
        };
    }

    private string Text(List<Release> releases)
    {
        var text = new StringBuilder();
        foreach (
            var release in releases.OrderBy(r => r.Lesson!.Title, StringComparer.CurrentCulture).ThenBy(r => r.Outlet!.Name, StringComparer.CurrentCulture)
        )
        {
            var desk = new Uri(options.Value.PublicAddress, $"lessons/{release.LessonId}/deliver");
            text.Append('“').Append(release.Lesson!.Title).Append('”');
            if (release.Phase == ReleasePhase.Failed)
            {
                var why = release.Problem is { } problem ? WexelJson.Read<Problem>(problem).Sentence : "";
                text.Append(" is not at ").Append(release.Outlet!.Name).Append(".\n").Append(why).Append("\nTry again: ").Append(desk).Append("\n\n");
                continue;
            }

            text.Append(" is at ").Append(release.Outlet!.Name).Append(".\n");
            foreach (var (label, value) in handOns.Find(outlets.Known(release.Outlet!), release).Lines)
                text.Append(label).Append(": ").Append(value).Append('\n');
            text.Append('\n');
        }

        return text.ToString();
    }
}
