using Hangfire;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.SignIn;

namespace Wexel.Server.People;

/// <summary>Adds people and changes them, one at a time or as a list says. Whoever is disabled or does something else from now on is signed out everywhere at
/// once, and there is always an administrator.</summary>
internal sealed class PeopleKeeper(WexelDb db, ILookupNormalizer normalizer, SessionStore sessions, IBackgroundJobClient jobs, TimeProvider clock)
{
    private const long OneAtATime = 0x70656F706C65;

    private static readonly Problem NoAdministrator = new(
        "people-no-administrator",
        "Then nobody could add and change people any more. Make somebody else an administrator first."
    );

    /// <summary>Who has a role.</summary>
    internal IQueryable<Guid> InRole(string role) => db.UserRoles.Join(db.Roles.Where(r => r.Name == role), m => m.RoleId, r => r.Id, (m, _) => m.UserId);

    /// <summary>People with their roles and groups, in their order.</summary>
    internal async Task<IReadOnlyList<KnownPerson>> AsKnownAsync(IReadOnlyList<Person> people, CancellationToken cancel)
    {
        var ids = people.Select(p => p.Id).ToList();
        var trainers = (await InRole(Roles.Trainer).Where(id => ids.Contains(id)).ToListAsync(cancel)).ToHashSet();
        var administrators = (await InRole(Roles.Administrator).Where(id => ids.Contains(id)).ToListAsync(cancel)).ToHashSet();
        var groups = (
            await db
                .GroupMembers.Where(m => ids.Contains(m.PersonId))
                .Join(db.PeopleGroups, m => m.GroupId, g => g.Id, (m, g) => new { m.PersonId, g.Name })
                .OrderBy(m => m.Name)
                .ToListAsync(cancel)
        ).ToLookup(m => m.PersonId, m => m.Name);
        PersonRole RoleOf(Guid id) =>
            administrators.Contains(id) ? PersonRole.Administrator
            : trainers.Contains(id) ? PersonRole.Trainer
            : PersonRole.Learner;
        return [.. people.Select(p => new KnownPerson(p.Email!, p.DisplayName, RoleOf(p.Id), [.. groups[p.Id]], p.IsGuest, p.DisabledAt is not null))];
    }

    /// <summary>What lines of a list will do.</summary>
    internal async Task<IReadOnlyList<PlannedLine>> PlanAsync(IReadOnlyList<PersonLine> lines, CancellationToken cancel) =>
        PeoplePlan.Plan(lines, await AsKnownAsync([.. (await FindAsync(lines.Select(l => l.Mail), cancel)).Values], cancel));

    /// <summary>The groups that lines will make.</summary>
    internal async Task<IReadOnlyList<string>> NewGroupsAsync(IEnumerable<PlannedLine> lines, CancellationToken cancel)
    {
        var known = await db.PeopleGroups.Select(g => g.Name).ToListAsync(cancel);
        return
        [
            .. lines
                .SelectMany(l => l.Wanted?.Groups ?? [])
                .Distinct(StringComparer.OrdinalIgnoreCase)
                .Except(known, StringComparer.OrdinalIgnoreCase)
                .Order(StringComparer.OrdinalIgnoreCase),
        ];
    }

    /// <summary>Does what lines say, all of it or nothing.</summary>
    /// <param name="lines">The lines; those that do nothing are passed over.</param>
    /// <param name="invite">Whether those who are added may choose a password by a mail.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Why not; null where it is done.</returns>
    internal async Task<Problem?> TakeAsync(IReadOnlyList<PlannedLine> lines, bool invite, CancellationToken cancel)
    {
        await using var all = await BeginAsync(cancel);
        var wanted = lines.Select(l => l.Wanted).OfType<KnownPerson>().ToList();
        var people = await FindAsync(wanted.Select(w => w.Mail), cancel);
        var groups = await GroupsAsync(wanted.SelectMany(w => w.Groups), cancel);
        var members = (
            await db
                .GroupMembers.Where(m => people.Values.Select(p => p.Id).Contains(m.PersonId))
                .Select(m => new { m.GroupId, m.PersonId })
                .ToListAsync(cancel)
        )
            .Select(m => (m.GroupId, m.PersonId))
            .ToHashSet();
        var (added, elsewhere) = (new List<Guid>(), new List<Guid>());
        var roles = await RolesAsync(cancel);
        foreach (var one in wanted)
        {
            if (!people.TryGetValue(normalizer.NormalizeEmail(one.Mail), out var person))
            {
                person = New(one.Mail);
                db.Users.Add(person);
                added.Add(person.Id);
            }

            (person.DisplayName, person.IsGuest) = (one.Name, false);
            if (roles.Set(db, person.Id, one.Role) && !added.Contains(person.Id))
                elsewhere.Add(person.Id);
            db.GroupMembers.AddRange(
                one.Groups.Select(g => groups[g]).Where(g => members.Add((g, person.Id))).Select(g => new GroupMember { GroupId = g, PersonId = person.Id })
            );
        }

        await db.SaveChangesAsync(cancel);
        if (!await HasAdministratorAsync(cancel))
            return NoAdministrator;
        await all.CommitAsync(cancel);
        foreach (var person in elsewhere)
            await sessions.EndAllAsync(person, butNot: null);
        if (invite)
            foreach (var person in added)
                jobs.Enqueue<NewPasswords>(mails => mails.InviteAsync(person, CancellationToken.None));
        return null;
    }

    /// <summary>Gives somebody another name or role.</summary>
    /// <returns>Why not; null where it is done.</returns>
    internal async Task<Problem?> ChangeAsync(Guid id, string name, PersonRole role, CancellationToken cancel)
    {
        await using var all = await BeginAsync(cancel);
        if (await db.Users.FirstOrDefaultAsync(p => p.Id == id, cancel) is not { } person)
            return Gone;
        if (PeopleList.Unusable(person.Email!, name) is { } unusable)
            return unusable;
        if (name.Length == 0)
            return new Problem("person-no-name", "Write a name; it stands wherever this person is named.", "name");
        person.DisplayName = name;
        var another = (await RolesAsync(cancel)).Set(db, id, role);
        await db.SaveChangesAsync(cancel);
        if (!await HasAdministratorAsync(cancel))
            return NoAdministrator;
        await all.CommitAsync(cancel);
        if (another)
            await sessions.EndAllAsync(id, butNot: null);
        return null;
    }

    /// <summary>Lets somebody sign in no more, or again; what they did stays.</summary>
    /// <returns>Why not; null where it is done.</returns>
    internal async Task<Problem?> DisableAsync(Guid id, bool disabled, CancellationToken cancel)
    {
        await using var all = await BeginAsync(cancel);
        if (await db.Users.FirstOrDefaultAsync(p => p.Id == id, cancel) is not { } person)
            return Gone;
        person.DisabledAt = disabled ? person.DisabledAt ?? clock.GetUtcNow() : null;
        await db.SaveChangesAsync(cancel);
        if (!await HasAdministratorAsync(cancel))
            return NoAdministrator;
        await all.CommitAsync(cancel);
        if (disabled)
            await sessions.EndAllAsync(id, butNot: null);
        return null;
    }

    private static Problem Gone { get; } = new("person-gone", "This person is not there any more. Load the page again.");

    private Person New(string mail) =>
        new()
        {
            Id = Guid.CreateVersion7(),
            DisplayName = "",
            UserName = mail,
            NormalizedUserName = normalizer.NormalizeName(mail),
            Email = mail,
            NormalizedEmail = normalizer.NormalizeEmail(mail),
            SecurityStamp = Guid.NewGuid().ToString("N"),
        };

    /// <summary>Two who change people at once do so one after the other.</summary>
    private async Task<Microsoft.EntityFrameworkCore.Storage.IDbContextTransaction> BeginAsync(CancellationToken cancel)
    {
        var transaction = await db.Database.BeginTransactionAsync(cancel);
        await db.Database.ExecuteSqlAsync($"SELECT pg_advisory_xact_lock({OneAtATime})", cancel);
        return transaction;
    }

    private async Task<Dictionary<string, Person>> FindAsync(IEnumerable<string> mails, CancellationToken cancel)
    {
        var keys = mails.Where(m => m.Length > 0).Select(m => normalizer.NormalizeEmail(m)).Distinct().ToList();
        return await db.Users.Where(p => keys.Contains(p.NormalizedEmail!)).ToDictionaryAsync(p => p.NormalizedEmail!, cancel);
    }

    /// <summary>The groups of these names; those that are not there yet are made.</summary>
    private async Task<Dictionary<string, Guid>> GroupsAsync(IEnumerable<string> names, CancellationToken cancel)
    {
        var groups = new Dictionary<string, Guid>(StringComparer.OrdinalIgnoreCase);
        foreach (var group in await db.PeopleGroups.OrderBy(g => g.Name).ToListAsync(cancel))
            groups.TryAdd(group.Name, group.Id);
        foreach (var name in names.Where(n => !groups.ContainsKey(n)))
        {
            var made = new PeopleGroup { Name = name };
            if (groups.TryAdd(name, made.Id))
                db.PeopleGroups.Add(made);
        }

        return groups;
    }

    /// <summary>Whether somebody may add and change people.</summary>
    internal async Task<bool> HasAdministratorAsync(CancellationToken cancel) =>
        await db.Users.AnyAsync(p => p.DisabledAt == null && InRole(Roles.Administrator).Contains(p.Id), cancel);

    private async Task<KeptRoles> RolesAsync(CancellationToken cancel)
    {
        var ids = await db.Roles.ToDictionaryAsync(r => r.Name!, r => r.Id, cancel);
        var held = await db.UserRoles.ToListAsync(cancel);
        return new KeptRoles(ids[Roles.Trainer], ids[Roles.Administrator], held);
    }

    /// <summary>Who has which role, while it is changed.</summary>
    private sealed class KeptRoles(Guid trainer, Guid administrator, IEnumerable<IdentityUserRole<Guid>> held)
    {
        private readonly Dictionary<(Guid, Guid), IdentityUserRole<Guid>> _held = held.ToDictionary(h => (h.UserId, h.RoleId));

        /// <returns>Whether it was another before.</returns>
        internal bool Set(WexelDb db, Guid person, PersonRole role) =>
            Set(db, person, trainer, role >= PersonRole.Trainer) | Set(db, person, administrator, role == PersonRole.Administrator);

        private bool Set(WexelDb db, Guid person, Guid role, bool has)
        {
            if (_held.TryGetValue((person, role), out var kept) == has)
                return false;
            if (has)
                db.UserRoles.Add(new IdentityUserRole<Guid> { UserId = person, RoleId = role });
            else
                db.UserRoles.Remove(kept!);
            return true;
        }
    }
}
