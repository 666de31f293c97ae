using Hangfire;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Documents;
using Wexel.Core.Outlets;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Server.Mailing;
using Wexel.Server.Setup;

namespace Wexel.Server.People;

/// <summary>Tells those who are named by their mail addresses and have no account where the lesson is; each once.</summary>
internal sealed class Invitations(WexelDb db, OutletKinds kinds, IBackgroundJobClient jobs, IOptions<WexelOptions> options, TimeProvider clock)
{
    /// <summary>Tells whoever was not told yet of a release that stands there.</summary>
    internal async Task TellAsync(Guid releaseId, CancellationToken cancel)
    {
        var release = await db
            .Releases.AsNoTracking()
            .Where(r =>
                r.Id == releaseId
                && r.Visibility == Visibility.Named
                && r.Named != null
                && r.Phase == ReleasePhase.Live
                && kinds.WithPages.Contains(r.Outlet!.Kind)
            )
            .Select(r => new
            {
                r.Named,
                r.Invited,
                r.Token,
                r.OpensAt,
                r.Lesson!.Title,
            })
            .FirstOrDefaultAsync(cancel);
        if (release is null)
            return;
        var told = release.Invited is { } kept ? WexelJson.Read<IReadOnlyList<string>>(kept) : [];
        var left = NamedPeople.Read(release.Named).Mails.Except(told, StringComparer.OrdinalIgnoreCase).ToList();
        if (left.Count == 0)
            return;
        var (now, before) = (WexelJson.Write<IReadOnlyList<string>>([.. told, .. left]), release.Invited);
        // Two who come here at once do not both tell.
        var mine = db.Releases.Where(r => r.Id == releaseId && r.Invited == before);
        if (await mine.ExecuteUpdateAsync(set => set.SetProperty(r => r.Invited, now), cancel) == 0)
            return;
        var keys = left.ConvertAll(m => m.ToUpperInvariant());
        var known = await db.Users.Where(p => !p.IsGuest && keys.Contains(p.NormalizedEmail!)).Select(p => p.NormalizedEmail!).ToListAsync(cancel);
        var page = new Uri(options.Value.PublicAddress, $"watch/{release.Token}");
        var house = options.Value.House;
        var opens = release.OpensAt is { } at && at > clock.GetUtcNow() ? $"It opens on {at.UtcDateTime:d MMMM yyyy, HH:mm} UTC. " : "";
        foreach (var mail in left.Where(m => !known.Contains(m.ToUpperInvariant())))
        {
            var text =
                $"“{release.Title}” is open to you at {house}:\n{page}\n\n{opens}You need no password: there, have a code sent to this address, and type it. "
                + "It is open to you alone; whoever else has this link sees nothing.\n";
            jobs.Enqueue<Mailer>(mailer => mailer.SendAsync(mail, $"A lesson for you: {release.Title}", text, CancellationToken.None));
        }
    }
}
