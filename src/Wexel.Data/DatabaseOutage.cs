using System.Data.Common;

namespace Wexel.Data;

/// <summary>
/// Whether something failed since the database did not answer. EF Core wraps what it takes for a passing fault, and the job queue wraps
/// it again; what is at the bottom decides.
/// </summary>
public static class DatabaseOutage
{
    /// <summary>True where the database is not there, is starting or ending, or has no room now: the same may work a moment later.</summary>
    /// <param name="failed">What was thrown.</param>
    public static bool MayPass(Exception failed)
    {
        for (Exception? at = failed; at is not null; at = at.InnerException)
        {
            if (at is DbException { IsTransient: true } or TimeoutException)
                return true;
        }

        return false;
    }

    /// <summary>True for a fault of the database or of the way to it, however deep it is wrapped.</summary>
    /// <param name="failed">What was thrown.</param>
    public static bool Is(Exception failed)
    {
        for (Exception? at = failed; at is not null; at = at.InnerException)
        {
            if (at is DbException or TimeoutException)
                return true;
        }

        return false;
    }
}
