using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.Extensions.Options;
using Wexel.Core.Documents;
using Wexel.Core.Kit;
using Wexel.Core.Naming;
using Wexel.Core.Outlets;
using Wexel.Core.Recordings;
using Wexel.Core.Speech;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Kit;

/// <param name="Placement">Where the mark stands on lessons; null where it is not put on them.</param>
/// <param name="MarkSize">The mark's own size; null without a mark, or where it was never measured.</param>
internal sealed record HouseView(
    string Name,
    string Colour,
    string? Mark,
    PictureSize? MarkSize,
    MarkPlacement? Placement,
    MarkPlacement UsualPlacement,
    HostingPlan Plan,
    string FilePattern,
    string FileExample
);

/// <param name="Placement">Where the mark is to stand on lessons; null to take it off them.</param>
internal sealed record PlacementRequest(MarkPlacement? Placement);

/// <param name="Placement">Where the mark would stand.</param>
/// <param name="Picture">The size of the picture.</param>
/// <param name="Mark">The mark's own size; null for the house's.</param>
internal sealed record BoxRequest(MarkPlacement Placement, PictureSize Picture, PictureSize? Mark = null);

internal sealed record HouseColour(string Colour);

/// <param name="FilePattern">How files are to be named; empty for what is usual.</param>
internal sealed record NamesRequest(string FilePattern);

/// <summary>The house's name, colour and mark.</summary>
internal static class HouseEndpoints
{
    internal static void MapHouse(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/house");
        group
            .MapGet("", async (HouseKeeper keeper, IOptions<WexelOptions> options, CancellationToken cancel) =>
                TypedResults.Ok(View(await keeper.FindAsync(cancel), options))
            )
            .WithName("House");
        group.MapPut("", SaveAsync).WithName("SaveHouse");
        group.MapPut("plan", SavePlanAsync).WithName("SavePlan");
        group.MapPut("names", SaveNamesAsync).WithName("SaveNames");
        group.MapGet("words", WordsAsync).WithName("HouseWords");
        group.MapPut("words", SaveWordsAsync).WithName("SaveHouseWords");
        group.MapPut("mark", TakeMarkAsync).WithName("TakeMark").Accepts<Stream>("application/octet-stream");
        group.MapPut("mark/placement", PlaceAsync).WithName("PlaceMark");
        group.MapPost("mark/box", BoxAsync).WithName("MarkBox");
        group.MapDelete("mark", DropMarkAsync).WithName("DropMark");
        group.MapGet("mark/{key}", MarkAsync).WithName("Mark").ExcludeFromDescription();
    }

    private static async Task<Results<Ok<HouseView>, ProblemHttpResult>> SaveAsync(
        HouseColour colour,
        HouseKeeper keeper,
        IOptions<WexelOptions> options,
        CancellationToken cancel
    ) =>
        await keeper.SaveColourAsync(colour.Colour, cancel) is { } problem
            ? Problems.Answer(problem)
            : TypedResults.Ok(View(await keeper.FindAsync(cancel), options));

    private static async Task<Results<Ok<HouseView>, ProblemHttpResult>> SavePlanAsync(
        HostingPlan plan,
        HouseKeeper keeper,
        IOptions<WexelOptions> options,
        CancellationToken cancel
    ) => await keeper.SavePlanAsync(plan, cancel) is { } problem ? Problems.Answer(problem) : TypedResults.Ok(View(await keeper.FindAsync(cancel), options));

    private static async Task<Results<Ok<HouseView>, ProblemHttpResult>> SaveNamesAsync(
        NamesRequest names,
        HouseKeeper keeper,
        IOptions<WexelOptions> options,
        CancellationToken cancel
    ) =>
        await keeper.SaveNamesAsync(names.FilePattern, cancel) is { } problem
            ? Problems.Answer(problem)
            : TypedResults.Ok(View(await keeper.FindAsync(cancel), options));

    private static async Task<Ok<WordList>> WordsAsync(HouseKeeper keeper, CancellationToken cancel) =>
        TypedResults.Ok(HouseShelf.Words(await keeper.FindAsync(cancel)));

    private static async Task<Results<Ok<WordList>, ProblemHttpResult>> SaveWordsAsync(WordList words, HouseKeeper keeper, CancellationToken cancel) =>
        await keeper.SaveWordsAsync(words, cancel) is { } problem ? Problems.Answer(problem) : await WordsAsync(keeper, cancel);

    private static async Task<Results<Ok<HouseView>, ProblemHttpResult>> TakeMarkAsync(
        HttpRequest request,
        HouseKeeper keeper,
        IOptions<WexelOptions> options,
        CancellationToken cancel
    )
    {
        request.TakeAnySize();
        if (await keeper.TakeMarkAsync(request.Body, cancel) is { } problem)
            return Problems.Answer(problem);
        return TypedResults.Ok(View(await keeper.FindAsync(cancel), options));
    }

    private static async Task<Results<Ok<HouseView>, ProblemHttpResult>> PlaceAsync(
        PlacementRequest request,
        HouseKeeper keeper,
        IOptions<WexelOptions> options,
        CancellationToken cancel
    ) =>
        await keeper.PlaceAsync(request.Placement, cancel) is { } problem
            ? Problems.Answer(problem)
            : TypedResults.Ok(View(await keeper.FindAsync(cancel), options));

    /// <summary>Where the mark would stand on a picture, in its pixels.</summary>
    private static async Task<Results<Ok<PictureRect>, ProblemHttpResult>> BoxAsync(BoxRequest request, HouseKeeper keeper, CancellationToken cancel) =>
        (request.Mark ?? MarkSize(await keeper.FindAsync(cancel))) is { Width: > 0, Height: > 0 } mark && request.Picture is { Width: >= 16, Height: >= 16 }
            ? TypedResults.Ok(request.Placement.On(request.Picture, mark))
            : Problems.NotThere("mark");

    private static async Task<Ok<HouseView>> DropMarkAsync(HouseKeeper keeper, IOptions<WexelOptions> options, CancellationToken cancel)
    {
        await keeper.DropMarkAsync(cancel);
        return TypedResults.Ok(View(await keeper.FindAsync(cancel), options));
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> MarkAsync(
        string key,
        HouseKeeper keeper,
        FileStore store,
        CancellationToken cancel
    ) =>
        await keeper.FindAsync(cancel) is { MarkKey: { } mark, MarkType: { } type } && mark == key
            ? TypedResults.PhysicalFile(store.Derived(mark, MadeNames.Mark), type)
            : Problems.NotThere("mark");

    private static PictureSize? MarkSize(House house) => house is { MarkWidth: { } width, MarkHeight: { } height } ? new PictureSize(width, height) : null;

    private static HouseView View(House house, IOptions<WexelOptions> options) =>
        new(
            options.Value.House,
            house.Colour,
            house.MarkKey is { } mark ? $"/api/house/mark/{mark}" : null,
            MarkSize(house),
            house.MarkPlacement is { } placement ? WexelJson.Read<MarkPlacement>(placement) : null,
            MarkPlacement.Usual,
            HouseShelf.Plan(house),
            house.FilePattern ?? NamePattern.UsualText,
            HouseShelf.Pattern(house).Name(Example) + ".mp4"
        );

    /// <summary>A lesson as there might be one, for whoever writes a pattern.</summary>
    private static readonly NameParts Example = new("Closing the till", "The till", "Ticket desk basics", 3, "Web 720p", new DateOnly(2026, 11, 5));
}
