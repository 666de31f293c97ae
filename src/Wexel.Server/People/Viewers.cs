using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Remembering;
using Wexel.Server.SignIn;

namespace Wexel.Server.People;

/// <summary>Finds who asks, as far as it matters to what they may see. It is remembered for some seconds, and forgotten where it changes.</summary>
internal sealed class Viewers(IDbContextFactory<WexelDb> databases, Changes changes, TimeProvider clock)
{
    private readonly Remembered<Viewer> _known = new(changes, clock, "AspNetUsers", "GroupMembers");

    /// <summary>Who somebody is who signed in, or did not.</summary>
    internal ValueTask<Viewer> FindAsync(ClaimsPrincipal? user, CancellationToken cancel) =>
        user?.Identity?.IsAuthenticated == true ? new(SignedInAsync(user.Id(), user.IsInRole(Roles.Trainer), cancel)) : new(Viewer.Stranger);

    /// <summary>Who somebody is who is not there; null where they can sign in no more.</summary>
    internal Task<Viewer?> AwayAsync(Guid person, CancellationToken cancel) => ReadAsync(person, makesLessons: false, cancel);

    private async Task<Viewer> SignedInAsync(Guid person, bool makesLessons, CancellationToken cancel) =>
        await _known.FindAsync($"{person:N} {makesLessons}", stop => ReadAsync(person, makesLessons, stop), cancel) ?? Viewer.Stranger;

    private async Task<Viewer?> ReadAsync(Guid person, bool makesLessons, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var mail = await db.Users.Where(p => p.Id == person && p.DisabledAt == null).Select(p => new { p.Email, p.IsGuest }).FirstOrDefaultAsync(cancel);
        if (mail is null)
            return null;
        var groups = await db.GroupMembers.Where(m => m.PersonId == person).Select(m => m.GroupId).ToListAsync(cancel);
        return new Viewer(person, mail.Email, groups.ToHashSet(), makesLessons, mail.IsGuest);
    }
}
