using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Server.Setup;
using Wexel.Server.SignIn;

namespace Wexel.Server.Lists;

/// <param name="Id">Which.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Visibility">Who may see it.</param>
/// <param name="Named">Who is named as those who may see it.</param>
/// <param name="Link">Its page.</param>
/// <param name="Count">How many lessons are in it.</param>
/// <param name="Holds">Whether the lesson is in it that was asked for.</param>
/// <param name="IsLast">Whether it is the one that whoever asks used last.</param>
/// <param name="Hidden">How many of its lessons are hidden from whom, in a sentence; null where none is.</param>
internal sealed record ListView(Guid Id, string Name, Visibility Visibility, NamedPeople Named, Uri Link, int Count, bool Holds, bool IsLast, string? Hidden);

/// <param name="LessonId">Which.</param>
/// <param name="Title">Its title.</param>
/// <param name="HiddenFrom">From whom of those who may see the list it is hidden; null where from nobody.</param>
internal sealed record ListedView(Guid LessonId, string Title, string? HiddenFrom);

internal sealed record ListAdded(Guid Id);

/// <param name="Lessons">The lessons in the order that is wanted.</param>
internal sealed record ListOrderRequest(IReadOnlyList<Guid> Lessons);

/// <summary>Lists across courses, for trainers.</summary>
internal static class ListEndpoints
{
    internal static void MapLists(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/lists").AddEndpointFilter(UnlessAnothersAsync);
        group.MapGet("", AllAsync).WithName("Lists");
        group.MapPost("", AddAsync).WithName("AddList");
        group.MapGet("{id:guid}/lessons", LessonsAsync).WithName("ListedLessons");
        group.MapPut("{id:guid}", SaveAsync).WithName("SaveList");
        group.MapDelete("{id:guid}", RemoveAsync).WithName("RemoveList");
        group.MapPut("{id:guid}/order", OrderAsync).WithName("OrderList");
        group.MapPut("{id:guid}/lessons/{lesson:guid}", PutInAsync).WithName("PutIntoList");
        group.MapDelete("{id:guid}/lessons/{lesson:guid}", TakeOutAsync).WithName("TakeOutOfList");
    }

    /// <summary>A list that somebody keeps for themselves is there for nobody else.</summary>
    private static async ValueTask<object?> UnlessAnothersAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var http = context.HttpContext;
        var lists = http.RequestServices.GetRequiredService<WexelDb>().LessonLists;
        return
            Guid.TryParse(http.Request.RouteValues["id"] as string, out var id)
            && await lists.AnyAsync(l => l.Id == id, http.RequestAborted)
            && !await ListKeeper.For(lists, http.User.Id()).AnyAsync(l => l.Id == id, http.RequestAborted)
            ? Problems.NotThere("list")
            : await next(context);
    }

    /// <param name="lesson">A lesson of which is said whether they hold it; null for none.</param>
    private static async Task<Ok<List<ListView>>> AllAsync(
        Guid? lesson,
        WexelDb db,
        ListKeeper keeper,
        ClaimsPrincipal user,
        IOptions<WexelOptions> options,
        CancellationToken cancel
    )
    {
        var me = user.Id();
        var last = await db
            .ListedLessons.Where(l => l.AddedBy == me)
            .OrderByDescending(l => l.AddedAt)
            .Select(l => (Guid?)l.ListId)
            .FirstOrDefaultAsync(cancel);
        var lists = await ListKeeper.For(db.LessonLists, me).AsNoTracking().OrderBy(l => l.Name).ToListAsync(cancel);
        var lessons = await keeper.InAsync(lists.ConvertAll(l => l.Id), cancel);
        return TypedResults.Ok(
            lists.ConvertAll(l => new ListView(
                l.Id,
                l.Name,
                l.Visibility,
                NamedPeople.Read(l.Named),
                new Uri(options.Value.PublicAddress, $"list/{l.Token}"),
                lessons[l.Id].Count(),
                lessons[l.Id].Any(e => e.Lesson.LessonId == lesson),
                l.Id == last,
                ListAudience.Sentence(ListKeeper.Shown(l), [.. lessons[l.Id].Select(e => e.Shown)])
            ))
        );
    }

    private static async Task<Results<Ok<ListAdded>, ProblemHttpResult>> AddAsync(
        ListRequest request,
        ListKeeper keeper,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) =>
        (await keeper.SaveAsync(null, request, user.Id(), cancel)).Is(out var id, out var problem)
            ? TypedResults.Ok(new ListAdded(id))
            : Problems.Answer(problem);

    private static async Task<Results<Ok<List<ListedView>>, ProblemHttpResult>> LessonsAsync(Guid id, WexelDb db, ListKeeper keeper, CancellationToken cancel)
    {
        if (await db.LessonLists.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel) is not { } list)
            return Problems.NotThere("list");
        return TypedResults.Ok(
            (await keeper.InAsync([id], cancel))[id]
                .Select(e => new ListedView(e.Lesson.LessonId, e.Lesson.Lesson!.Title, ListAudience.HiddenFrom(ListKeeper.Shown(list), e.Shown)))
                .ToList()
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SaveAsync(
        Guid id,
        ListRequest request,
        ListKeeper keeper,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) => (await keeper.SaveAsync(id, request, user.Id(), cancel)).Is(out _, out var problem) ? TypedResults.NoContent() : Problems.Answer(problem);

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(Guid id, WexelDb db, CancellationToken cancel) =>
        await db.LessonLists.Where(l => l.Id == id).ExecuteDeleteAsync(cancel) > 0 ? TypedResults.NoContent() : Problems.NotThere("list");

    private static async Task<Results<NoContent, ProblemHttpResult>> OrderAsync(
        Guid id,
        ListOrderRequest request,
        ListKeeper keeper,
        CancellationToken cancel
    ) => await keeper.OrderAsync(id, request.Lessons, cancel) is { } problem ? Problems.Answer(problem) : TypedResults.NoContent();

    private static async Task<Results<NoContent, ProblemHttpResult>> PutInAsync(
        Guid id,
        Guid lesson,
        ListKeeper keeper,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) => await keeper.AddAsync(id, lesson, user.Id(), cancel) is { } problem ? Problems.Answer(problem) : TypedResults.NoContent();

    private static async Task<NoContent> TakeOutAsync(Guid id, Guid lesson, WexelDb db, CancellationToken cancel)
    {
        await db.ListedLessons.Where(l => l.ListId == id && l.LessonId == lesson).ExecuteDeleteAsync(cancel);
        return TypedResults.NoContent();
    }
}
