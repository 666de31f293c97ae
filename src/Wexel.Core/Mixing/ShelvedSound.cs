using System.Text.Json.Serialization;
using Wexel.Core.Contents;
using Wexel.Core.Details;

namespace Wexel.Core.Mixing;

/// <summary>What a sound is for.</summary>
public enum SoundUse
{
    /// <summary>Laid under a stretch, and chosen by its genre, mood and length.</summary>
    Music,

    /// <summary>Heard at a moment, and found by words.</summary>
    Effect,
}

/// <summary>A sound as it stands on the shelf.</summary>
/// <param name="Sound">What lessons keep of it.</param>
/// <param name="Use">What it is for.</param>
/// <param name="Genre">The kind of music that it is; empty where nobody said, or for an effect.</param>
/// <param name="Moods">How it feels.</param>
/// <param name="Words">Other words by which it is found.</param>
/// <param name="Source">Where it comes from: a web address, or in one's own words; empty where nobody said.</param>
public sealed record ShelvedSound(ShelfSound Sound, SoundUse Use, string Genre, IReadOnlyList<string> Moods, string Words = "", string Source = "")
{
    /// <summary>The most moods that one has.</summary>
    public const int MostMoods = 6;

    private const int LongestWord = 40;

    /// <summary>Genres to choose from; another may be written.</summary>
    public static IReadOnlyList<string> Genres { get; } = ["Acoustic", "Ambient", "Electronic", "Folk", "Jazz", "Piano"];

    /// <summary>Moods to choose from; another may be written.</summary>
    public static IReadOnlyList<string> UsualMoods { get; } = ["Bright", "Busy", "Calm", "Playful", "Serious", "Warm"];

    /// <summary>In which list of lengths it stands.</summary>
    [JsonIgnore]
    public LengthRange Length => LengthRange.Of(Sound.Length);

    /// <summary>The same as it is kept.</summary>
    public ShelvedSound Tidied() =>
        this with
        {
            Sound = Sound.Tidied(),
            Use = Enum.IsDefined(Use) ? Use : SoundUse.Music,
            Genre = Use == SoundUse.Music ? SectionRules.OneLine(Genre, LongestWord) : "",
            Moods =
            [
                .. (Moods ?? [])
                    .Select(m => SectionRules.OneLine(m ?? "", LongestWord))
                    .Where(m => m.Length > 0)
                    .Distinct(StringComparer.OrdinalIgnoreCase)
                    .Take(MostMoods),
            ],
            Words = SectionRules.OneLine(Words, DetailFields.LongestLine),
            Source = SectionRules.OneLine(Source, DetailFields.LongestLine),
        };

    /// <summary>Why it cannot stand on the shelf as it is, tidied; null where it can.</summary>
    public Problem? Refusal() =>
        Sound.Title.Length == 0 ? new Problem("sound-no-title", "The sound has no title. Give it one by which it is found.", "title")
        : Sound.Licence.Length == 0
            ? new Problem("sound-no-licence", "Say under which licence the sound may be used; without one nobody knows whether it may.", "licence")
        : Sound is { AsksForCredit: true, Author.Length: 0 }
            ? new Problem("sound-no-author", $"{Licences.Find(Sound.Licence)?.Name ?? "The licence"} asks for the author’s name. Write who made it.", "author")
        : Sound.FirstBeat >= Sound.Length ? new Problem("sound-first-beat", "The first bar begins behind the sound’s end.", "firstBeat")
        : null;
}

/// <summary>A range of lengths, for lists.</summary>
/// <param name="Code">What names it.</param>
/// <param name="Name">What it is called.</param>
/// <param name="From">From which length on.</param>
public sealed record LengthRange(string Code, string Name, TimeSpan From)
{
    /// <summary>All of them, the shortest first.</summary>
    public static IReadOnlyList<LengthRange> All { get; } =
    [
        new("to15", "Under 15 s", TimeSpan.Zero),
        new("to30", "15 to 30 s", TimeSpan.FromSeconds(15)),
        new("to60", "30 s to 1 min", TimeSpan.FromSeconds(30)),
        new("to180", "1 to 3 min", TimeSpan.FromMinutes(1)),
        new("longer", "Over 3 min", TimeSpan.FromMinutes(3)),
    ];

    /// <summary>The one in which a length lies.</summary>
    public static LengthRange Of(TimeSpan length) => All.Last(r => length >= r.From);
}
