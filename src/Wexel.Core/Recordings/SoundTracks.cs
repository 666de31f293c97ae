using System.Globalization;

namespace Wexel.Core.Recordings;

/// <summary>Which of a recording's sound tracks are used: recorders often keep the microphone and the machine's own sound apart.</summary>
public static class SoundTracks
{
    /// <summary>
    /// The track in which somebody speaks: speech comes and goes several times a second, which music, hum and clicks do less. Where that is
    /// so in none, the first in which anything can be heard; else the first.
    /// </summary>
    /// <param name="levels">How loud each track is, in their order; one or more.</param>
    /// <returns>Its place, from 0.</returns>
    public static int Spoken(IReadOnlyList<SoundLevels> levels)
    {
        var most = Enumerable.Range(0, levels.Count).MaxBy(i => levels[i].Edges().Count);
        return levels[most].Edges().Count > 0 ? most : Math.Max(0, levels.ToList().FindIndex(l => l.CarriesSound));
    }

    /// <summary>Reads a choice: <c>1</c>, <c>1+3</c> for both together, or <c>all</c>.</summary>
    /// <param name="choice">As a person writes it, counting from 1.</param>
    /// <param name="tracks">How many there are.</param>
    /// <returns>Places from 0, in order; null for what is no choice among so many.</returns>
    public static IReadOnlyList<int>? Read(string choice, int tracks)
    {
        if (choice.Trim().Equals("all", StringComparison.OrdinalIgnoreCase))
            return [.. Enumerable.Range(0, tracks)];
        var places = choice
            .Split('+', StringSplitOptions.TrimEntries)
            .Select(part => int.TryParse(part, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number - 1 : -1)
            .Distinct()
            .Order()
            .ToList();
        return places.All(p => p >= 0 && p < tracks) ? places : null;
    }

    /// <summary>Which are used, in words; null where there is no choice.</summary>
    public static string? InWords(RecordingFacts facts) =>
        facts.Sounds.Count < 2
            ? null
            : facts.UsedSounds switch
            {
                null => $"There are {facts.Sounds.Count} sound tracks; which one is spoken in is being looked for.",
                [var one] => $"There are {facts.Sounds.Count} sound tracks; track {one + 1} is used.",
                var several => $"There are {facts.Sounds.Count} sound tracks; tracks {string.Join(" and ", several.Select(s => s + 1))} are used together.",
            };
}
