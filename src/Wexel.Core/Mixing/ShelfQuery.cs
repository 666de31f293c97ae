namespace Wexel.Core.Mixing;

/// <summary>In which order sounds stand.</summary>
public enum ShelfOrder
{
    /// <summary>By title.</summary>
    Title,

    /// <summary>The shortest first.</summary>
    Length,

    /// <summary>The slowest first; those without a beat last.</summary>
    Tempo,

    /// <summary>By author, then by title.</summary>
    Author,
}

/// <summary>What is looked for on the shelf. Within one list any will do; all lists must agree.</summary>
/// <param name="Use">What it is to be for.</param>
/// <param name="Genres">Any of these; empty for all.</param>
/// <param name="Moods">Any of these; empty for all.</param>
/// <param name="Lengths">The codes of any of these <see cref="LengthRange"/>s; empty for all.</param>
/// <param name="Words">Words, all of which it must have, in part at least; empty for all.</param>
/// <param name="Order">In which order.</param>
public sealed record ShelfQuery(
    SoundUse Use,
    IReadOnlyList<string> Genres,
    IReadOnlyList<string> Moods,
    IReadOnlyList<string> Lengths,
    string Words = "",
    ShelfOrder Order = ShelfOrder.Title
)
{
    /// <summary>Looks through the shelf.</summary>
    /// <param name="shelf">All sounds.</param>
    public ShelfAnswer Ask(IReadOnlyList<ShelvedSound> shelf)
    {
        List<ShelvedSound> those = [.. shelf.Where(s => s.Use == Use && HasWords(s))];
        return new ShelfAnswer(
            Ordered([.. those.Where(s => HasGenre(s) && HasMood(s) && HasLength(s))]),
            // What a box would find together with what is ticked in the other lists.
            Counted(those.Where(s => HasMood(s) && HasLength(s)).Select(s => s.Genre), those.Select(s => s.Genre)),
            Counted(those.Where(s => HasGenre(s) && HasLength(s)).SelectMany(s => s.Moods), those.SelectMany(s => s.Moods)),
            [
                .. LengthRange
                    .All.Where(r => those.Any(s => s.Length == r))
                    .Select(r => new ShelfChoice(r.Code, r.Name, those.Count(s => s.Length == r && HasGenre(s) && HasMood(s)))),
            ]
        );
    }

    private bool HasGenre(ShelvedSound sound) => Genres.Count == 0 || Genres.Contains(sound.Genre, StringComparer.OrdinalIgnoreCase);

    private bool HasMood(ShelvedSound sound) => Moods.Count == 0 || sound.Moods.Intersect(Moods, StringComparer.OrdinalIgnoreCase).Any();

    private bool HasLength(ShelvedSound sound) => Lengths.Count == 0 || Lengths.Contains(sound.Length.Code, StringComparer.Ordinal);

    private bool HasWords(ShelvedSound sound)
    {
        var all = $"{sound.Sound.Title} {sound.Sound.Author} {sound.Genre} {string.Join(' ', sound.Moods)} {sound.Words}";
        return Words.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries).All(word => all.Contains(word, StringComparison.InvariantCultureIgnoreCase));
    }

    private IReadOnlyList<ShelvedSound> Ordered(List<ShelvedSound> sounds)
    {
        var byTitle = sounds.OrderBy(s => s.Sound.Title, StringComparer.InvariantCultureIgnoreCase);
        return
        [
            .. Order switch
            {
                ShelfOrder.Length => byTitle.OrderBy(s => s.Sound.Length),
                ShelfOrder.Tempo => byTitle.OrderBy(s => s.Sound.Tempo ?? double.MaxValue),
                ShelfOrder.Author => byTitle.OrderBy(s => s.Sound.Author, StringComparer.InvariantCultureIgnoreCase),
                _ => byTitle,
            },
        ];
    }

    private static IReadOnlyList<ShelfChoice> Counted(IEnumerable<string> found, IEnumerable<string> all)
    {
        var counts = found.GroupBy(f => f, StringComparer.OrdinalIgnoreCase).ToDictionary(g => g.Key, g => g.Count(), StringComparer.OrdinalIgnoreCase);
        return
        [
            .. all.Where(a => a.Length > 0)
                .Distinct(StringComparer.OrdinalIgnoreCase)
                .Order(StringComparer.InvariantCultureIgnoreCase)
                .Select(a => new ShelfChoice(a, a, counts.GetValueOrDefault(a))),
        ];
    }
}

/// <summary>What was found on the shelf.</summary>
/// <param name="Sounds">The sounds, in the order that was asked for.</param>
/// <param name="Genres">The genres that there are, each with how many it would find.</param>
/// <param name="Moods">The moods, in the same way.</param>
/// <param name="Lengths">The lengths, in the same way, the shortest first.</param>
public sealed record ShelfAnswer(
    IReadOnlyList<ShelvedSound> Sounds,
    IReadOnlyList<ShelfChoice> Genres,
    IReadOnlyList<ShelfChoice> Moods,
    IReadOnlyList<ShelfChoice> Lengths
);

/// <summary>Something that can be ticked.</summary>
/// <param name="Code">What names it.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Count">How many sounds it would find.</param>
public sealed record ShelfChoice(string Code, string Name, int Count);
