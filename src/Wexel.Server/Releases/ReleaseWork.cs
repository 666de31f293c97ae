using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Media.Tools;
using Wexel.Server.Shelves;
using Wexel.Server.Telemetry;

namespace Wexel.Server.Releases;

/// <summary>How what is wanted at outlets is worked on: by one worker alone, step by step, and what fails says why.</summary>
internal sealed class ReleaseWork(WexelDb db, IDbContextFactory<WexelDb> databases, Figures figures, ILogger<ReleaseWork> log)
{
    private static readonly TimeSpan Overlap = TimeSpan.FromSeconds(1);

    /// <summary>By what one worker alone has a release, of a lesson or of a course.</summary>
    internal static string HoldOf(Guid id) => $"release {id:N}";

    /// <summary>Does what is left, one thing after the other.</summary>
    /// <param name="id">The release.</param>
    /// <param name="next">Does the next thing, and says whether there may be more.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Whether it was done here: whoever has the release finds all that there is to do.</returns>
    internal async Task<bool> DoAsync(Guid id, Func<Task<bool>> next, CancellationToken cancel)
    {
        await using var holding = await databases.CreateDbContextAsync(cancel);
        // Who is just about to let it go is waited for.
        if (await WorkHold.TryAsync(holding, HoldOf(id), Overlap, cancel) is not { } hold)
            return false;
        await using (hold)
        {
            while (await NextAsync(next)) { }
        }

        return true;
    }

    private async Task<bool> NextAsync(Func<Task<bool>> next)
    {
        db.ChangeTracker.Clear();
        try
        {
            return await next();
        }
        catch (DbUpdateConcurrencyException)
        {
            // Something else is wanted since it was read; what is left is found by that.
            return true;
        }
    }

    /// <summary>Does a step.</summary>
    /// <returns>What stood in its way, also where nobody expected that it could; null where nothing did.</returns>
    internal async Task<Problem?> TryAsync(Guid id, Func<Task<Problem?>> step)
    {
        try
        {
            return await step();
        }
        catch (ToolFailedException failed)
        {
            return new Problem("release-tool-failed", $"{failed.Said} {failed.Advice}".Trim());
        }
        catch (IOException failed)
        {
            return new Problem("release-not-written", $"{failed.Message} Look whether the server’s disk is full, then try again.");
        }
        catch (Exception failed) when (failed is not (OperationCanceledException or DbUpdateConcurrencyException) && !DatabaseOutage.Is(failed))
        {
            figures.Fault("release");
            log.LogError(failed, "Release {Release} failed in a way that nobody expected", id);
            return new Problem(
                "release-failed",
                $"Wexel itself failed: {failed.Message} Try again; if it fails again, whoever looks after the server finds more in its log."
            );
        }
    }
}
