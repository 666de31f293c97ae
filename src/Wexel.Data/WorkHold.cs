using System.Data;
using Microsoft.EntityFrameworkCore;

namespace Wexel.Data;

/// <summary>
/// Keeps a piece of work to one worker among all servers on the database. The hold is PostgreSQL's session advisory lock: it lives in
/// the connection, so a server that dies lets go of it.
/// </summary>
public sealed class WorkHold : IAsyncDisposable
{
    private static readonly TimeSpan AskAgain = TimeSpan.FromMilliseconds(50);

    private readonly WexelDb _db;
    private readonly string _work;

    private WorkHold(WexelDb db, string work) => (_db, _work) = (db, work);

    /// <summary>Takes hold of the work, or gives null when somebody has it.</summary>
    /// <param name="db">Its connection stays open until the hold is let go.</param>
    /// <param name="work">The work's name, the same for all who may do it.</param>
    /// <param name="cancel">Gives up asking.</param>
    public static async Task<WorkHold?> TryAsync(WexelDb db, string work, CancellationToken cancel)
    {
        await db.Database.OpenConnectionAsync(cancel);
        if (await db.Database.SqlQuery<bool>($"select pg_try_advisory_lock(hashtextextended({work}, 0)) as \"Value\"").SingleAsync(cancel))
            return new WorkHold(db, work);
        await db.Database.CloseConnectionAsync();
        return null;
    }

    /// <summary>Takes hold of the work, or gives null when somebody has it for longer than one waits.</summary>
    /// <param name="db">Its connection stays open until the hold is let go.</param>
    /// <param name="work">The work's name, the same for all who may do it.</param>
    /// <param name="patience">How long one waits.</param>
    /// <param name="cancel">Gives up waiting.</param>
    public static async Task<WorkHold?> TryAsync(WexelDb db, string work, TimeSpan patience, CancellationToken cancel)
    {
        using var enough = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        enough.CancelAfter(patience);
        try
        {
            return await WaitAsync(db, work, enough.Token);
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            return null;
        }
    }

    /// <summary>Takes hold of the work once nobody else has it.</summary>
    /// <param name="db">Its connection stays open until the hold is let go.</param>
    /// <param name="work">The work's name, the same for all who may do it.</param>
    /// <param name="cancel">Gives up waiting.</param>
    public static async Task<WorkHold> WaitAsync(WexelDb db, string work, CancellationToken cancel)
    {
        while (true)
        {
            if (await TryAsync(db, work, cancel) is { } hold)
                return hold;
            await Task.Delay(AskAgain, cancel);
        }
    }

    /// <summary>Whether nobody has hold of the work.</summary>
    /// <param name="db">The database.</param>
    /// <param name="work">The work's name.</param>
    /// <param name="cancel">Gives up asking.</param>
    public static async Task<bool> IsFreeAsync(WexelDb db, string work, CancellationToken cancel)
    {
        await using var hold = await TryAsync(db, work, cancel);
        return hold is not null;
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        // A lost connection has let go already.
        if (_db.Database.GetDbConnection().State == ConnectionState.Open)
            await _db.Database.ExecuteSqlAsync($"select pg_advisory_unlock(hashtextextended({_work}, 0))");
        await _db.Database.CloseConnectionAsync();
    }
}
