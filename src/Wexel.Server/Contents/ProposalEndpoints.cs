using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Documents;
using Wexel.Core.Proposing;
using Wexel.Data;
using Wexel.Server.Setup;

namespace Wexel.Server.Contents;

/// <summary>How contents are proposed for a lesson.</summary>
/// <param name="Amount">Few (0) to many (1).</param>
/// <param name="Left">Where somebody decided against a section, in recording time.</param>
internal sealed record Proposing(double Amount, IReadOnlyList<TimeSpan> Left)
{
    internal static Proposing Usual { get; } = new(ContentsProposals.UsualAmount, []);
}

/// <summary>The sections that are proposed for a lesson.</summary>
/// <param name="Proposing">How they are.</param>
/// <param name="Proposals">In order; none where there is a section, and none that was left.</param>
/// <param name="Waiting">What they still wait for, in words; empty where for nothing.</param>
/// <param name="Missing">What they go without, in sentences.</param>
/// <param name="CanTryAgain">Whether it failed, and can be tried again.</param>
internal sealed record ProposalsView(
    Proposing Proposing,
    IReadOnlyList<SectionProposal> Proposals,
    string Waiting,
    IReadOnlyList<string> Missing,
    bool CanTryAgain
);

/// <summary>Proposed contents.</summary>
internal static class ProposalEndpoints
{
    private const int MostLeft = 2000;

    internal static void MapProposals(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/lessons/{id:guid}/proposals");
        group.MapGet("", GetAsync).WithName("Proposals");
        group.MapPut("", SaveAsync).WithName("SaveProposing");
        group.MapPost("again", AgainAsync).WithName("ReadScreenAgain");
    }

    private static async Task<Results<Ok<ProposalsView>, ProblemHttpResult>> GetAsync(Guid id, ProposalReader proposals, CancellationToken cancel) =>
        await proposals.ReadAsync(id, cancel) is { } view ? TypedResults.Ok(view) : Problems.NotThere("lesson");

    private static async Task<Results<Ok<ProposalsView>, ProblemHttpResult>> AgainAsync(Guid id, ProposalReader proposals, CancellationToken cancel) =>
        await proposals.TryAgainAsync(id, cancel) ? await GetAsync(id, proposals, cancel) : Problems.NotThere("lesson");

    private static async Task<Results<Ok<ProposalsView>, ProblemHttpResult>> SaveAsync(
        Guid id,
        Proposing wanted,
        WexelDb db,
        ProposalReader proposals,
        CancellationToken cancel
    )
    {
        var proposing = WexelJson.Write(
            new Proposing(
                double.IsFinite(wanted.Amount) ? Math.Clamp(wanted.Amount, 0, 1) : ContentsProposals.UsualAmount,
                [.. wanted.Left.Distinct().TakeLast(MostLeft)]
            )
        );
        await db.Lessons.Where(l => l.Id == id).ExecuteUpdateAsync(set => set.SetProperty(l => l.Proposing, proposing), cancel);
        return await GetAsync(id, proposals, cancel);
    }
}
