using Wexel.Core.Mixing;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Mixing;

/// <summary>A usual sound and how it is laid, from which tests depart in one point.</summary>
internal static class Sounds
{
    /// <summary>Twelve seconds, 120 beats a minute: six bars of two seconds.</summary>
    internal static ShelfSound Music { get; } = new(new string('a', 64), "Morning tide", "Wexel", "CC0-1.0", Ms.Of(12_000), 2, -16, -4, TimeSpan.Zero, 120);

    internal static SoundBed Bed(long from, long to) =>
        new("s1", new TimeRange(Ms.Of(from), Ms.Of(to)), Music, TimeSpan.Zero, TimeSpan.Zero, 20, 10, Ms.Of(300), Ms.Of(800), true, false);

    internal static Voice Speaking(params (long From, long To)[] spoken) => new([.. spoken.Select(s => new TimeRange(Ms.Of(s.From), Ms.Of(s.To)))], -20, -3);
}
