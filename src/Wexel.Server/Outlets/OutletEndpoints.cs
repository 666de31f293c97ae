using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core.Outlets;
using Wexel.Data;
using Wexel.Delivering;
using Wexel.Delivering.VideoServices;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Outlets;

/// <summary>A kind of outlet, for whoever adds one.</summary>
/// <param name="GeneralNames">Names that say nothing of what is there, in small letters.</param>
/// <param name="PublishesVideos">Whether lessons go there under accounts that are connected.</param>
/// <param name="Start">What a new one starts with.</param>
internal sealed record OutletKindView(
    string Code,
    string Name,
    string About,
    IReadOnlyList<OutletField> Fields,
    IReadOnlyList<DeliveryView> Deliveries,
    IReadOnlyList<Carried> Carries,
    IReadOnlyList<string> GeneralNames,
    bool PublishesVideos,
    JsonObject Start
);

/// <param name="AskedFor">What is asked for where it puts things; null where it puts nothing anywhere.</param>
/// <param name="Hint">What helps to say where; null for nothing.</param>
internal sealed record DeliveryView(string Code, string Name, string? AskedFor, string? Hint);

/// <summary>A profile that an outlet does not take, and why.</summary>
internal sealed record ProfileRefusal(string ProfileId, string Sentence);

/// <param name="KindName">What it is, for people.</param>
/// <param name="ProfileId">The profile that was chosen for it; null for what is usual for its kind.</param>
/// <param name="UsualProfile">The profile that is taken for it.</param>
/// <param name="Refuses">The profiles that it does not take.</param>
/// <param name="Takes">What it takes, in words.</param>
/// <param name="Limits">Its limits as somebody set them.</param>
internal sealed record OutletEntry(
    Guid Id,
    string Kind,
    string KindName,
    string Name,
    JsonObject Settings,
    string DeliverBy,
    string? DeliverTo,
    string? ProfileId,
    string UsualProfile,
    IReadOnlyList<ProfileRefusal> Refuses,
    string Takes,
    OutletLimits Limits
);

/// <summary>An outlet's limits as somebody set them; null for none.</summary>
internal sealed record LimitsRequest(long? MostBytes, TimeSpan? MostLength, long? MostBitsPerSecond);

internal sealed record OutletProfileRequest(string? ProfileId);

/// <summary>Outlets of every kind: what there is, and adding, changing and removing them.</summary>
internal static class OutletEndpoints
{
    internal static void MapOutlets(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/outlet-kinds", Kinds).WithName("OutletKinds");
        var group = routes.MapGroup("/api/outlets");
        group.MapGet("", ListAsync).WithName("Outlets");
        group.MapPost("{kind}", AddAsync).WithName("AddOutlet");
        group.MapPut("{id:guid}", SaveAsync).WithName("SaveOutlet");
        group.MapDelete("{id:guid}", RemoveAsync).WithName("RemoveOutlet");
        group.MapPut("{id:guid}/limits", LimitAsync).WithName("LimitOutlet");
        group.MapPut("{id:guid}/profile", ChooseProfileAsync).WithName("ChooseOutletProfile");
    }

    private static Ok<List<OutletKindView>> Kinds(OutletKinds kinds, Deliveries deliveries, AllVideoServices services) =>
        TypedResults.Ok(
            kinds
                .All.Select(k => new OutletKindView(
                    k.Code,
                    k.Name,
                    k.About,
                    k.Fields,
                    k.PublishesVideos
                        ? [.. services.All.Select(s => new DeliveryView(s.Code, s.Name, null, null))]
                        : [.. deliveries.FindAll(k.Deliveries).Select(d => new DeliveryView(d.Code, d.Name, d.AskedFor, d.Hint))],
                    k.Carries,
                    k.GeneralNames,
                    k.PublishesVideos,
                    k.Start()
                ))
                .ToList()
        );

    private static async Task<Ok<List<OutletEntry>>> ListAsync(OutletShelf outlets, ProfileShelf shelf, CancellationToken cancel)
    {
        var profiles = await shelf.AllAsync(cancel);
        return TypedResults.Ok((await outlets.AllAsync(cancel)).Select(p => Entry(p, profiles)).ToList());
    }

    private static OutletEntry Entry(KnownOutlet place, IReadOnlyList<Core.Encoding.Profile> profiles) =>
        new(
            place.Row.Id,
            place.Row.Kind,
            place.Kind.Name,
            place.Row.Name,
            place.Kind.Show(place.Row.Settings),
            place.Row.DeliverBy,
            place.Row.DeliverTo,
            place.Row.ProfileId,
            place.UsualProfile,
            Refused(place, profiles),
            place.Terms.Takes.Words,
            new OutletLimits(place.Row.Name, place.Row.MostBytes, place.Row.MostLength, place.Row.MostBitsPerSecond)
        );

    /// <summary>The profiles that an outlet does not take.</summary>
    internal static IReadOnlyList<ProfileRefusal> Refused(KnownOutlet place, IReadOnlyList<Core.Encoding.Profile> profiles) =>
        [
            .. profiles
                .Select(p => (p.Id, Refusal: place.Refusal(p)))
                .Where(p => p.Refusal is not null)
                .Select(p => new ProfileRefusal(p.Id, p.Refusal!.Sentence)),
        ];

    private static async Task<Results<Ok<OutletEntry>, ProblemHttpResult>> AddAsync(
        string kind,
        OutletRequest request,
        OutletKeeper keeper,
        OutletShelf outlets,
        ProfileShelf shelf,
        CancellationToken cancel
    ) =>
        (await keeper.AddAsync(kind, request, cancel)).Is(out var outlet, out var problem)
            ? TypedResults.Ok(Entry(outlets.Known(outlet), await shelf.AllAsync(cancel)))
            : Problems.Answer(problem);

    private static async Task<Results<Ok<OutletEntry>, ProblemHttpResult>> SaveAsync(
        Guid id,
        OutletRequest request,
        HttpContext http,
        OutletKeeper keeper,
        OutletShelf outlets,
        ProfileShelf shelf,
        CancellationToken cancel
    )
    {
        if (await outlets.FindAsync(id, cancel) is not { } place)
            return Problems.NotThere("outlet");
        if (await keeper.NotTheirsAsync(place.Row, http.User, cancel) is { } theirs)
            return Problems.Answer(theirs, StatusCodes.Status403Forbidden);
        return await keeper.SaveAsync(place.Row, request, cancel) is { } problem
            ? Problems.Answer(problem)
            : TypedResults.Ok(Entry(outlets.Known(place.Row), await shelf.AllAsync(cancel)));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(
        Guid id,
        HttpContext http,
        OutletKeeper keeper,
        OutletShelf outlets,
        CancellationToken cancel
    )
    {
        if (await outlets.FindAsync(id, cancel) is not { } place)
            return Problems.NotThere("outlet");
        if (await keeper.NotTheirsAsync(place.Row, http.User, cancel) is { } theirs)
            return Problems.Answer(theirs, StatusCodes.Status403Forbidden);
        return await keeper.RemoveAsync(place.Row, cancel) is { } problem ? Problems.Answer(problem, StatusCodes.Status409Conflict) : TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> LimitAsync(
        Guid id,
        LimitsRequest request,
        WexelDb db,
        OutletShelf outlets,
        CancellationToken cancel
    )
    {
        if (await outlets.FindAsync(id, cancel) is not { Row: var outlet })
            return Problems.NotThere("outlet");
        if (new OutletLimits(outlet.Name, request.MostBytes, request.MostLength, request.MostBitsPerSecond).Unusable() is { } unusable)
            return Problems.Answer(unusable);
        (outlet.MostBytes, outlet.MostLength, outlet.MostBitsPerSecond) = (request.MostBytes, request.MostLength, request.MostBitsPerSecond);
        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> ChooseProfileAsync(
        Guid id,
        OutletProfileRequest request,
        WexelDb db,
        OutletShelf outlets,
        ProfileShelf shelf,
        CancellationToken cancel
    )
    {
        if (await outlets.FindAsync(id, cancel) is not { } place)
            return Problems.NotThere("outlet");
        if (request.ProfileId is { } chosen)
        {
            if (await shelf.FindAsync(chosen, cancel) is not { } profile)
                return Problems.NotThere("profile");
            if (place.Refusal(profile) is { } refusal)
                return Problems.Answer(refusal);
        }

        place.Row.ProfileId = request.ProfileId;
        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }
}
