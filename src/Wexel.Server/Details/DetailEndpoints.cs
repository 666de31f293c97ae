using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Details;
using Wexel.Data;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Details;

/// <summary>All that can be said about lessons, for whoever asks it.</summary>
internal sealed record DetailForm(IReadOnlyList<DetailFieldView> Fields, IReadOnlyList<Licence> Licences);

/// <param name="OfOneLesson">Whether it can be said of one lesson only, and of no house or outlet.</param>
internal sealed record DetailFieldView(string Code, string Label, DetailInput Input, string Help, bool OfOneLesson, string? OnlyWith);

/// <summary>What is said about everything at an outlet.</summary>
/// <param name="Own">What is said of it.</param>
/// <param name="House">What holds where it says nothing.</param>
/// <param name="Rules">The details that it has.</param>
internal sealed record OutletDetails(DetailSet Own, DetailSet House, IReadOnlyList<DetailRuleView> Rules);

/// <param name="Field">The detail's code.</param>
/// <param name="Longest">The most characters, or tags, that it takes; null for as many as there are.</param>
internal sealed record DetailRuleView(string Field, bool Required, int? Longest);

/// <summary>What is said about a lesson.</summary>
/// <param name="House">About everything that the house makes.</param>
/// <param name="Lesson">About the lesson, wherever it goes.</param>
/// <param name="Outlets">What holds at each outlet.</param>
internal sealed record LessonDetails(DetailSet House, DetailSet Lesson, IReadOnlyList<DetailsAtOutlet> Outlets);

/// <param name="Outlet">What is said about everything there.</param>
/// <param name="Release">What is said about the lesson there alone.</param>
/// <param name="Values">What holds.</param>
/// <param name="Otherwise">What would hold where nothing were said there alone.</param>
/// <param name="From">Where each detail of that comes from, by its code.</param>
/// <param name="Rules">The details that the outlet has.</param>
/// <param name="Missing">What keeps the lesson from it.</param>
internal sealed record DetailsAtOutlet(
    Guid OutletId,
    string Name,
    DetailSet Outlet,
    DetailSet Release,
    DetailSet Values,
    DetailSet Otherwise,
    IReadOnlyDictionary<string, DetailLevel> From,
    IReadOnlyList<DetailRuleView> Rules,
    IReadOnlyList<Problem> Missing
);

/// <summary>What is said about lessons: of the house, at outlets, and at one outlet alone. What a lesson says wherever it goes is saved with it.</summary>
internal static class DetailEndpoints
{
    internal static void MapDetails(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/details", Form).WithName("DetailForm");
        routes.MapGet("/api/house/details", OfHouseAsync).WithName("HouseDetails");
        routes.MapPut("/api/house/details", SaveHouseAsync).WithName("SaveHouseDetails");
        routes.MapGet("/api/outlets/{id:guid}/details", OfOutletAsync).WithName("OutletDetails");
        routes.MapPut("/api/outlets/{id:guid}/details", SaveOutletAsync).WithName("SaveOutletDetails");
        routes.MapGet("/api/lessons/{id:guid}/details", OfLessonAsync).WithName("LessonDetails");
        routes.MapPut("/api/lessons/{id:guid}/outlets/{outletId:guid}/details", SaveReleaseAsync).WithName("SaveReleaseDetails");
    }

    private static Ok<DetailForm> Form() =>
        TypedResults.Ok(
            new DetailForm([.. DetailFields.All.Select(f => new DetailFieldView(f.Code, f.Label, f.Input, f.Help, f.OfOneLesson, f.OnlyWith))], Licences.All)
        );

    private static async Task<Ok<DetailSet>> OfHouseAsync(WexelDb db, CancellationToken cancel) =>
        TypedResults.Ok(DetailShelf.Said(await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel)));

    private static async Task<Results<NoContent, ProblemHttpResult>> SaveHouseAsync(DetailSet details, DetailKeeper keeper, CancellationToken cancel) =>
        await keeper.SaveHouseAsync(details, cancel) is { } problem ? Problems.Answer(problem) : TypedResults.NoContent();

    private static async Task<Results<Ok<OutletDetails>, ProblemHttpResult>> OfOutletAsync(Guid id, WexelDb db, OutletShelf outlets, CancellationToken cancel)
    {
        if (await outlets.FindAsync(id, cancel) is not { } outlet)
            return Problems.NotThere("outlet");
        var house = DetailShelf.Said(await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel));
        return TypedResults.Ok(new OutletDetails(outlet.Details, house, Rules(outlet)));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SaveOutletAsync(
        Guid id,
        DetailSet details,
        OutletShelf outlets,
        DetailKeeper keeper,
        CancellationToken cancel
    )
    {
        if (await outlets.FindAsync(id, cancel) is not { } outlet)
            return Problems.NotThere("outlet");
        return await keeper.SaveOutletAsync(outlet.Row, details, cancel) is { } problem ? Problems.Answer(problem) : TypedResults.NoContent();
    }

    private static async Task<Results<Ok<LessonDetails>, ProblemHttpResult>> OfLessonAsync(Guid id, WexelDb db, OutletShelf outlets, CancellationToken cancel)
    {
        if (await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel) is not { } lesson)
            return Problems.NotThere("lesson");
        var releases = await db
            .Releases.IgnoreQueryFilters()
            .Where(r => r.LessonId == id)
            .Select(r => new { r.OutletId, r.Details })
            .ToDictionaryAsync(r => r.OutletId, r => DetailShelf.Read(r.Details), cancel);
        var (house, said) = (DetailShelf.Said(await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel)), DetailShelf.Said(lesson));
        return TypedResults.Ok(
            new LessonDetails(house, said, [.. (await outlets.AllAsync(cancel)).Select(o => There(o, releases.GetValueOrDefault(o.Row.Id, DetailSet.None)))])
        );

        DetailsAtOutlet There(KnownOutlet outlet, DetailSet release)
        {
            var holds = new DetailLayers(house, outlet.Details, said, release).Resolve().Values;
            var otherwise = new DetailLayers(house, outlet.Details, said, DetailSet.None).Resolve();
            return new DetailsAtOutlet(
                outlet.Row.Id,
                outlet.Row.Name,
                outlet.Details,
                release,
                holds,
                otherwise.Values,
                otherwise.From,
                Rules(outlet),
                DetailRule.Missing(outlet.Kind.Details, holds, outlet.Row.Name)
            );
        }
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SaveReleaseAsync(
        Guid id,
        Guid outletId,
        DetailSet details,
        WexelDb db,
        DetailKeeper keeper,
        CancellationToken cancel
    )
    {
        if (!await db.Lessons.AnyAsync(l => l.Id == id, cancel))
            return Problems.NotThere("lesson");
        if (!await db.Outlets.AnyAsync(o => o.Id == outletId, cancel))
            return Problems.NotThere("outlet");
        return await keeper.SaveReleaseAsync(id, outletId, details, cancel) is { } problem ? Problems.Answer(problem) : TypedResults.NoContent();
    }

    private static IReadOnlyList<DetailRuleView> Rules(KnownOutlet outlet) =>
        [.. outlet.Kind.Details.Select(r => new DetailRuleView(r.Field.Code, r.Required, r.Longest))];
}
