using System.Security.Claims;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Outlets;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Delivering;
using Wexel.Delivering.VideoServices;
using Wexel.Server.Shelves;
using Wexel.Server.SignIn;

namespace Wexel.Server.Outlets;

/// <summary>An outlet as somebody wants it.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Settings">The settings of its kind; what is not said is as it was, or as a new one has it.</param>
/// <param name="DeliverBy">By which delivery things are put there; null for as it was.</param>
/// <param name="DeliverTo">Where they are put.</param>
internal sealed record OutletRequest(string Name, JsonObject? Settings = null, string? DeliverBy = null, string? DeliverTo = null);

/// <summary>Adds, changes and removes outlets of every kind.</summary>
internal sealed class OutletKeeper(WexelDb db, OutletKinds kinds, Deliveries deliveries, AllVideoServices services, IEnumerable<IOutletCare> cares)
{
    private const int LongestName = 255;

    internal async Task<Result<Outlet>> AddAsync(string kind, OutletRequest request, CancellationToken cancel)
    {
        if (kinds.Find(kind) is not { } known)
            return new Problem(
                "outlet-kind-unknown",
                $"There is no kind of outlet “{Problem.Shown(kind)}”; choose one of: {string.Join(", ", kinds.All.Select(k => k.Name))}.",
                "kind"
            );
        var outlet = new Outlet { Kind = known.Code, Name = "" };
        if (await ChangeAsync(outlet, known, request, cancel) is { } problem)
            return problem;
        db.Outlets.Add(outlet);
        await db.SaveChangesAsync(cancel);
        return outlet;
    }

    /// <summary>Why somebody may not change an outlet, or null.</summary>
    internal async Task<Problem?> NotTheirsAsync(Outlet outlet, ClaimsPrincipal user, CancellationToken cancel)
    {
        var keepers = kinds[outlet.Kind].Keepers(outlet.Settings);
        var names = await db.Users.Where(p => keepers.Contains(p.Id) && p.DisabledAt == null).Select(p => new { p.Id, p.DisplayName }).ToListAsync(cancel);
        // Where none of them is there any more, it is everybody's again.
        return names.Count == 0 || user.IsInRole(Roles.Administrator) || names.Exists(p => p.Id == user.Id())
            ? null
            : new Problem(
                "outlet-is-others",
                $"“{outlet.Name}” is looked after by {string.Join(", ", names.Select(p => p.DisplayName))}. Ask them to change it."
            );
    }

    internal async Task<Problem?> SaveAsync(Outlet outlet, OutletRequest request, CancellationToken cancel)
    {
        if (await ChangeAsync(outlet, kinds[outlet.Kind], request, cancel) is { } problem)
            return problem;
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>Removes an outlet where nothing stands any more.</summary>
    internal async Task<Problem?> RemoveAsync(Outlet outlet, CancellationToken cancel)
    {
        var count =
            await db.Releases.CountAsync(r => r.OutletId == outlet.Id, cancel) + await db.CourseReleases.CountAsync(r => r.OutletId == outlet.Id, cancel);
        if (count > 0)
            return new Problem(
                "outlet-has-releases",
                $"{(count == 1 ? "A release stands" : $"{count} releases stand")} at “{outlet.Name}”. Take {(count == 1 ? "it" : "them")} down "
                    + $"first, so that nobody follows a link to nothing."
            );
        if (
            await db
                .Releases.IgnoreQueryFilters()
                .AnyAsync(r => r.OutletId == outlet.Id && (r.There != null || ReleasePhases.UnderWay.Contains(r.Phase)), cancel)
        )
            return new Problem(
                "outlet-in-use",
                $"A lesson is on its way to “{outlet.Name}”, or something of one still lies there. Stop it under Deliver and take it down first."
            );
        db.Outlets.Remove(outlet);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    private async Task<Problem?> ChangeAsync(Outlet outlet, OutletKind kind, OutletRequest request, CancellationToken cancel)
    {
        var name = request.Name.Trim();
        if (name.Length is 0 or > LongestName)
            return new Problem(
                "outlet-without-name",
                $"Give the outlet a name of at most {LongestName} characters; lessons are released to it by that.",
                "name"
            );
        var entered = kind.Show(outlet.Settings);
        foreach (var (field, value) in request.Settings ?? [])
            entered[field] = value?.DeepClone();
        if (!kind.Accept(entered).Is(out var settings, out var unusable))
            return unusable;
        var service = services.Find(request.DeliverBy ?? outlet.DeliverBy) ?? services.Usual;
        if (kind.PublishesVideos && service is null)
            return new Problem("video-service-none", "No video service is set up. Whoever looks after the server can do that (Wexel__Skerry__Address).");
        if (!kind.PublishesVideos && DeliveryProblem(outlet, kind, request) is { } problem)
            return problem;
        var care = cares.FirstOrDefault(c => c.Kind == kind.Code);
        if (care is not null && await care.RefusalAsync(outlet, name, settings, cancel) is { } refused)
            return refused;
        (outlet.Name, outlet.Settings) = (name, settings);
        if (kind.PublishesVideos)
            outlet.DeliverBy = service!.Code;
        else if (request.DeliverBy is { } by)
            (outlet.DeliverBy, outlet.DeliverTo) = (by, string.IsNullOrWhiteSpace(request.DeliverTo) ? null : request.DeliverTo.Trim());
        if (care is not null)
            await care.SavingAsync(outlet, cancel);
        return null;
    }

    private Problem? DeliveryProblem(Outlet outlet, OutletKind kind, OutletRequest request) =>
        request.DeliverBy is null && outlet.DeliverTo is null && kind.Deliveries.Count > 0 && !kind.Deliveries.Contains("download")
            ? deliveries.Find(kind.Deliveries[0])!.Unusable(null)
        : request.DeliverBy is not { } by || (by == "download" && kind.Deliveries.Count == 0) ? null
        : !kind.Deliveries.Contains(by) || deliveries.Find(by) is not { } delivery
            ? new Problem("delivery-unknown", $"A {kind.Name} cannot be reached so; choose another way.", "deliverBy")
        : delivery.Unusable(request.DeliverTo?.Trim());
}
