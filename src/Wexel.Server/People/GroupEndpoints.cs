using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Npgsql;
using Wexel.Core;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.People;

/// <param name="Id">Which.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Count">How many are in it.</param>
/// <param name="NamedAt">At how many releases it is named.</param>
internal sealed record GroupEntry(Guid Id, string Name, int Count, int NamedAt);

/// <param name="Name">What it is called.</param>
/// <param name="Members">Who is in it; null where that stays as it is.</param>
internal sealed record GroupRequest(string Name, IReadOnlyList<Guid>? Members = null);

internal sealed record GroupAdded(Guid Id);

/// <summary>The groups in which people are named.</summary>
internal static class GroupEndpoints
{
    internal static void MapGroups(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/groups", ListAsync).WithName("Groups");
        routes.MapPost("/api/groups", AddAsync).WithName("AddGroup");
        routes.MapPut("/api/groups/{id:guid}", SaveAsync).WithName("SaveGroup");
        routes.MapDelete("/api/groups/{id:guid}", RemoveAsync).WithName("RemoveGroup");
        routes.MapPut("/api/groups/{id:guid}/members/{person:guid}", JoinAsync).WithName("JoinGroup");
        routes.MapDelete("/api/groups/{id:guid}/members/{person:guid}", LeaveAsync).WithName("LeaveGroup");
    }

    private static async Task<Ok<IReadOnlyList<GroupEntry>>> ListAsync(WexelDb db, CancellationToken cancel)
    {
        var groups = await db
            .PeopleGroups.OrderBy(g => g.Name)
            .Select(g => new
            {
                g.Id,
                g.Name,
                g.Members.Count,
            })
            .ToListAsync(cancel);
        var named = (await NamingAsync(db, cancel)).Select(r => NamedPeople.Read(r.Named)).ToList();
        return TypedResults.Ok<IReadOnlyList<GroupEntry>>([
            .. groups.Select(g => new GroupEntry(g.Id, g.Name, g.Count, named.Count(n => n.Groups.Contains(g.Id)))),
        ]);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> JoinAsync(Guid id, Guid person, WexelDb db, CancellationToken cancel)
    {
        if (!await db.PeopleGroups.AnyAsync(g => g.Id == id, cancel))
            return Problems.NotThere("group");
        if (!await db.Users.AnyAsync(p => p.Id == person, cancel))
            return Problems.NotThere("person");
        await db.Database.ExecuteSqlAsync($"""INSERT INTO "GroupMembers" ("GroupId", "PersonId") VALUES ({id}, {person}) ON CONFLICT DO NOTHING""", cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> LeaveAsync(Guid id, Guid person, WexelDb db, CancellationToken cancel)
    {
        await db.GroupMembers.Where(m => m.GroupId == id && m.PersonId == person).ExecuteDeleteAsync(cancel);
        return TypedResults.NoContent();
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

        foreach (var list in await db.LessonLists.Where(l => l.Named != null).ToListAsync(cancel))
            if (NamedPeople.Read(list.Named) is var named && named.Groups.Contains(id))
                list.Named = NamedPeople.Format.Write(named with { Groups = [.. named.Groups.Where(g => g != id)] });
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
        group.Name = PeopleList.OneLine(request.Name);
        if (group.Name.Length is 0 or > PeopleList.LongestName)
            return new Problem("group-name", $"Give the group a name of at most {PeopleList.LongestName} characters.", "name");
        var members = (request.Members ?? []).ToHashSet();
        if (await db.Users.CountAsync(p => members.Contains(p.Id), cancel) < members.Count)
            return new Problem("group-member-gone", "Somebody of the group is not there any more. Load the page again.", "members");
        if (request.Members is not null)
        {
            group.Members.RemoveAll(m => !members.Contains(m.PersonId));
            group.Members.AddRange(members.Except(group.Members.Select(m => m.PersonId)).Select(p => new GroupMember { GroupId = group.Id, PersonId = p }));
        }

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
