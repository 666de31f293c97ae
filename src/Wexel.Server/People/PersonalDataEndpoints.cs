using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Data.Model;
using Wexel.Server.Setup;
using Wexel.Server.SignIn;

namespace Wexel.Server.People;

/// <summary>What is known of somebody, for themselves and for administrators, and its removal.</summary>
internal static class PersonalDataEndpoints
{
    internal static void MapPersonalData(this IEndpointRouteBuilder routes)
    {
        routes
            .MapGet("/api/me/data", (ClaimsPrincipal user, PersonalData data, CancellationToken cancel) => FileAsync(user.Id(), data, cancel))
            .RequireAuthorization()
            .ExcludeFromDescription();
        var others = routes.MapGroup("/api/people/{id:guid}/data").RequireAuthorization(policy => policy.RequireRole(Roles.Administrator));
        others.MapGet("", FileAsync).ExcludeFromDescription();
        others.MapDelete("", RemoveAsync).WithName("RemovePersonalData");
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> FileAsync(Guid id, PersonalData data, CancellationToken cancel) =>
        await data.ExportAsync(id, cancel) is { } file ? TypedResults.File(file, "application/json", "what-wexel-knows.json") : Problems.NotThere("person");

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(Guid id, ClaimsPrincipal user, PersonalData data, CancellationToken cancel) =>
        await data.RemoveAsync(id, user.Id(), cancel) is { } problem ? Problems.Answer(problem) : TypedResults.NoContent();
}
