using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;
using Wexel.Server.SignIn;

namespace Wexel.Server.People;

/// <param name="PersonId">Whose lesson it is; null where that was never noted.</param>
/// <param name="Name">Their name.</param>
/// <param name="MayGive">Whether whoever asks may give it to somebody else.</param>
internal sealed record OwnerView(Guid? PersonId, string? Name, bool MayGive);

/// <param name="PersonId">Whose it is to be: somebody who makes lessons.</param>
internal sealed record OwnerRequest(Guid PersonId);

/// <summary>Whose lessons are.</summary>
internal static class OwnerEndpoints
{
    internal static void MapOwners(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/lessons/{id:guid}/owner", ReadAsync).WithName("Owner");
        routes.MapPut("/api/lessons/{id:guid}/owner", GiveAsync).WithName("GiveLesson");
    }

    private static async Task<Results<Ok<OwnerView>, ProblemHttpResult>> ReadAsync(Guid id, WexelDb db, ClaimsPrincipal user, CancellationToken cancel)
    {
        if (await FindAsync(id, db, cancel) is not { } owned)
            return Problems.NotThere("lesson");
        return TypedResults.Ok(new OwnerView(owned.Owner?.Id, owned.Owner?.DisplayName, MayGive(owned.Owner, user)));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> GiveAsync(
        Guid id,
        OwnerRequest request,
        WexelDb db,
        PeopleKeeper keeper,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (await FindAsync(id, db, cancel) is not { } owned)
            return Problems.NotThere("lesson");
        if (!MayGive(owned.Owner, user))
            return Problems.Answer(
                new Problem("owner-is-another", $"The lesson is {owned.Owner!.DisplayName}’s. Only they can give it to somebody else."),
                StatusCodes.Status403Forbidden
            );
        if (!await db.Users.AnyAsync(p => p.Id == request.PersonId && p.DisabledAt == null && keeper.InRole(Roles.Trainer).Contains(p.Id), cancel))
            return Problems.Answer(new Problem("owner-unfit", "A lesson is owned by somebody who makes lessons and can sign in. Choose another.", "personId"));
        await db.Lessons.Where(l => l.Id == id).ExecuteUpdateAsync(set => set.SetProperty(l => l.OwnerId, request.PersonId), cancel);
        return TypedResults.NoContent();
    }

    private sealed record Owned(Person? Owner);

    private static Task<Owned?> FindAsync(Guid id, WexelDb db, CancellationToken cancel) =>
        db.Lessons.Where(l => l.Id == id).Select(l => new Owned(db.Users.FirstOrDefault(p => p.Id == l.OwnerId))).FirstOrDefaultAsync(cancel);

    // What is nobody's, or whose owner left, is given by anybody who makes lessons.
    private static bool MayGive(Person? owner, ClaimsPrincipal user) => owner is null or { DisabledAt: not null } || owner.Id == user.Id();
}
