using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Npgsql;
using Wexel.Core;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.People;

/// <param name="Id">Who.</param>
/// <param name="Name">Their name.</param>
/// <param name="Mail">Their mail address, by which they sign in.</param>
/// <param name="MakesLessons">Whether they are a trainer.</param>
/// <param name="IsDisabled">Whether they can sign in no more.</param>
/// <param name="IsGuest">Whether they came by a code, and do not belong to the house.</param>
internal sealed record PersonEntry(Guid Id, string Name, string Mail, bool MakesLessons, bool IsDisabled, bool IsGuest);

/// <param name="Id">Which.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Members">Who is in it.</param>
/// <param name="NamedAt">At how many releases it is named.</param>
internal sealed record GroupEntry(Guid Id, string Name, IReadOnlyList<Guid> Members, int NamedAt);

internal sealed record PeopleView(IReadOnlyList<PersonEntry> People, IReadOnlyList<GroupEntry> Groups);

/// <param name="Name">What it is called.</param>
/// <param name="Members">Who is in it.</param>
internal sealed record GroupRequest(string Name, IReadOnlyList<Guid> Members);

internal sealed record GroupAdded(Guid Id);

/// <summary>People, and the groups in which they are named.</summary>
internal static class PeopleEndpoints
{
    private const int LongestName = 200;

    internal static void MapPeople(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/people", ListAsync).WithName("People");
        routes.MapGet("/api/visibilities", () => TypedResults.Ok(VisibilityWords.All)).WithName("Visibilities");
        routes.MapPost("/api/groups", AddAsync).WithName("AddGroup");
        routes.MapPut("/api/groups/{id:guid}", SaveAsync).WithName("SaveGroup");
        routes.MapDelete("/api/groups/{id:guid}", RemoveAsync).WithName("RemoveGroup");
    }

    private static async Task<Ok<PeopleView>> ListAsync(WexelDb db, CancellationToken cancel)
    {
        var trainers = (
            await db.UserRoles.Join(db.Roles.Where(r => r.Name == Roles.Trainer), m => m.RoleId, r => r.Id, (m, _) => m.UserId).ToListAsync(cancel)
        ).ToHashSet();
        var people = await db
            .Users.OrderBy(p => p.DisplayName)
            .ThenBy(p => p.Email)
            .Select(p => new
            {
                p.Id,
                p.DisplayName,
                p.Email,
                p.DisabledAt,
                p.IsGuest,
            })
            .ToListAsync(cancel);
        var groups = await db.PeopleGroups.AsNoTracking().Include(g => g.Members).OrderBy(g => g.Name).ToListAsync(cancel);
        var named = (await NamingAsync(db, cancel)).Select(r => NamedPeople.Read(r.Named)).ToList();
        return TypedResults.Ok(
            new PeopleView(
                [.. people.Select(p => new PersonEntry(p.Id, p.DisplayName, p.Email!, trainers.Contains(p.Id), p.DisabledAt is not null, p.IsGuest))],
                [.. groups.Select(g => new GroupEntry(g.Id, g.Name, [.. g.Members.Select(m => m.PersonId)], named.Count(n => n.Groups.Contains(g.Id))))]
            )
        );
    }

    private static async Task<Results<Ok<GroupAdded>, ProblemHttpResult>> AddAsync(GroupRequest request, WexelDb db, CancellationToken cancel)
    {
        var group = new PeopleGroup { Name = "" };
        db.PeopleGroups.Add(group);
        return await SaidAsync(group, request, db, cancel) is { } problem ? Problems.Answer(problem) : TypedResults.Ok(new GroupAdded(group.Id));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SaveAsync(Guid id, GroupRequest request, WexelDb db, CancellationToken cancel)
    {
        if (await db.PeopleGroups.Include(g => g.Members).FirstOrDefaultAsync(g => g.Id == id, cancel) is not { } group)
            return Problems.NotThere("group");
        return await SaidAsync(group, request, db, cancel) is { } problem ? Problems.Answer(problem) : TypedResults.NoContent();
    }

    /// <summary>Removes a group. Where it was named, its members are among those who may see it no more.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(Guid id, WexelDb db, CancellationToken cancel)
    {
        if (await db.PeopleGroups.FindAsync([id], cancel) is not { } group)
            return Problems.NotThere("group");
        await using var all = await db.Database.BeginTransactionAsync(cancel);
        foreach (var release in await NamingAsync(db, cancel))
        {
            var named = NamedPeople.Read(release.Named);
            if (!named.Groups.Contains(id))
                continue;
            var left = NamedPeople.Format.Write(named with { Groups = [.. named.Groups.Where(g => g != id)] });
            await db.Releases.IgnoreQueryFilters().Where(r => r.Id == release.Id).ExecuteUpdateAsync(set => set.SetProperty(r => r.Named, left), cancel);
        }

        db.PeopleGroups.Remove(group);
        await db.SaveChangesAsync(cancel);
        await all.CommitAsync(cancel);
        return TypedResults.NoContent();
    }

    private sealed record Naming(Guid Id, string? Named);

    private static Task<List<Naming>> NamingAsync(WexelDb db, CancellationToken cancel) =>
        db.Releases.IgnoreQueryFilters().Where(r => r.Named != null).Select(r => new Naming(r.Id, r.Named)).ToListAsync(cancel);

    private static async Task<Problem?> SaidAsync(PeopleGroup group, GroupRequest request, WexelDb db, CancellationToken cancel)
    {
        group.Name = string.Join(' ', request.Name.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        if (group.Name.Length is 0 or > LongestName)
            return new Problem("group-name", $"Give the group a name of at most {LongestName} characters.", "name");
        var members = request.Members.ToHashSet();
        if (await db.Users.CountAsync(p => members.Contains(p.Id), cancel) < members.Count)
            return new Problem("group-member-gone", "Somebody of the group is not there any more. Load the page again.", "members");
        group.Members.RemoveAll(m => !members.Contains(m.PersonId));
        group.Members.AddRange(members.Except(group.Members.Select(m => m.PersonId)).Select(p => new GroupMember { GroupId = group.Id, PersonId = p }));
        try
        {
            await db.SaveChangesAsync(cancel);
            return null;
        }
        catch (DbUpdateException failed) when (failed.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            return new Problem("group-name-taken", $"There is a group “{group.Name}” already. Give this one another name.", "name");
        }
    }
}
