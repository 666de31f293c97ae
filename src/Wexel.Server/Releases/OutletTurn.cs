using Wexel.Data;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>One of as many turns as an outlet takes at a time.</summary>
internal static class OutletTurn
{
    private static readonly TimeSpan AskAgain = TimeSpan.FromMilliseconds(200);

    /// <summary>Waits until one is free.</summary>
    /// <param name="outlet">The outlet.</param>
    /// <param name="waiting">Its connection stays open until the turn is let go.</param>
    /// <param name="cancel">Gives up waiting.</param>
    /// <returns>The turn, which is let go when it is over; null where the outlet takes any number.</returns>
    internal static async Task<WorkHold?> WaitAsync(KnownOutlet outlet, WexelDb waiting, CancellationToken cancel)
    {
        if (outlet.Terms.Takes.FilesAtATime is not { } most)
            return null;
        while (true)
        {
            for (var turn = 0; turn < most; turn++)
            {
                if (await WorkHold.TryAsync(waiting, $"outlet {outlet.Row.Id:N} {turn}", cancel) is { } hold)
                    return hold;
            }

            await Task.Delay(AskAgain, cancel);
        }
    }
}
