using System.Globalization;

namespace Wexel.Server.Tests;

/// <summary>
/// Servers, encoders and the database are killed at random moments while lessons are brought in, looked through, edited, rendered, released and watched; after
/// each everything that was acknowledged is there. <c>./wexel bench kills</c> runs the same for an hour.
/// </summary>
public sealed class KillTests(ITestOutputHelper output)
{
    [Fact]
    public async Task Nothing_is_lost_in_twenty_kills()
    {
        var seed = Number("WEXEL_KILL_SEED") ?? Environment.TickCount;
        var kills = new Kills(seed, Number("WEXEL_KILLS") ?? Kills.Short, TimeSpan.FromMinutes(Number("WEXEL_KILL_MINUTES") ?? 20), Say);
        Say($"seed {seed}");
        try
        {
            await kills.RunAsync();
        }
        finally
        {
            Say(kills.Report);
        }

        kills.Lost.ShouldBeEmpty();
        kills.Made.ShouldBeGreaterThanOrEqualTo(1);
    }

    private static int? Number(string name) =>
        int.TryParse(Environment.GetEnvironmentVariable(name), CultureInfo.InvariantCulture, out var number) ? number : null;

    private void Say(string line)
    {
        output.WriteLine(line);
        if (Environment.GetEnvironmentVariable("WEXEL_KILLS") is not null)
            Console.Error.WriteLine(line);
    }
}
