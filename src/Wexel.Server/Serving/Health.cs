using Microsoft.EntityFrameworkCore;
using Wexel.Data;
using Wexel.Making.Storage;

namespace Wexel.Server.Serving;

/// <summary>
/// Whether the server lives (<c>/healthz</c>: it answers; whoever sees that it does not starts it anew), and whether it can work (<c>/readyz</c>:
/// database and files can
/// be used; whoever sees that it cannot sends people elsewhere, and starts nothing anew).
/// </summary>
internal static class Health
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(5);

    internal static void MapHealth(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("").AllowAnonymous().ExcludeFromDescription();
        group.MapGet("/healthz", () => TypedResults.Text("ok"));
        group.MapGet("/readyz", ReadyAsync);
    }

    private static async Task<IResult> ReadyAsync(IDbContextFactory<WexelDb> databases, FileStore store, CancellationToken cancel)
    {
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        patience.CancelAfter(Patience);
        var lacking = new List<string>();
        if (!await AnswersAsync(databases, patience.Token))
            lacking.Add("database");
        if (!store.CanWrite())
            lacking.Add("files");
        return TypedResults.Text(
            lacking.Count == 0 ? "ready" : $"not ready: {string.Join(", ", lacking)}",
            statusCode: lacking.Count == 0 ? StatusCodes.Status200OK : StatusCodes.Status503ServiceUnavailable
        );
    }

    private static async Task<bool> AnswersAsync(IDbContextFactory<WexelDb> databases, CancellationToken cancel)
    {
        try
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            return await db.Database.SqlQuery<int>($"select 1 as \"Value\"").SingleAsync(cancel) == 1;
        }
        catch (Exception failed) when (DatabaseOutage.Is(failed) || failed is OperationCanceledException)
        {
            return false;
        }
    }
}
