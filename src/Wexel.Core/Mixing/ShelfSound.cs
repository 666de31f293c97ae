using System.Text.Json.Serialization;
using Wexel.Core.Contents;
using Wexel.Core.Details;

namespace Wexel.Core.Mixing;

/// <summary>What is known of a sound on the shelf. A lesson keeps it as it was when the sound was laid under it, so that nothing of it changes
/// unasked.</summary>
/// <param name="Key">The SHA-256 of its file, in lower-case hexadecimal.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Author">Who made it; may be empty.</param>
/// <param name="Licence">The identifier of one of <see cref="Licences"/>, or what is allowed in one's own words.</param>
/// <param name="Length">How long it is.</param>
/// <param name="Channels">How many channels it has, 1 or 2.</param>
/// <param name="Lufs">Its integrated loudness by ITU-R BS.1770-4, in LUFS.</param>
/// <param name="TruePeak">Its greatest true peak, in dBTP.</param>
/// <param name="FirstBeat">Where its first bar begins.</param>
/// <param name="Tempo">Beats a minute, 20 to 400; null where it has no beat, or nobody said.</param>
/// <param name="Beats">How many beats a bar has, 1 to 16.</param>
public sealed record ShelfSound(
    string Key,
    string Title,
    string Author,
    string Licence,
    TimeSpan Length,
    int Channels,
    double Lufs,
    double TruePeak,
    TimeSpan FirstBeat,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] double? Tempo = null,
    int Beats = 4
)
{
    /// <summary>The longest sound that is taken.</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromMinutes(20);

    /// <summary>The shortest sound that is taken.</summary>
    public static readonly TimeSpan Shortest = TimeSpan.FromSeconds(0.05);

    /// <summary>The slowest and the fastest tempo, in beats a minute.</summary>
    public const double LeastTempo = 20,
        MostTempo = 400;

    /// <summary>The most beats that a bar has.</summary>
    public const int MostBeats = 16;

    /// <summary>How long a bar is; null where it has no beat, or not a whole bar.</summary>
    [JsonIgnore]
    public TimeSpan? Bar => Tempo is { } tempo && TimeSpan.FromMinutes(Beats / tempo) is var bar && FirstBeat + bar <= Length + Slack ? bar : null;

    /// <summary>What is played again and again: its whole bars, or all of it where it has none.</summary>
    [JsonIgnore]
    public (TimeSpan From, TimeSpan Length) Loop =>
        Bar is { } bar ? (FirstBeat, bar * Math.Floor((Length - FirstBeat + Slack) / bar)) : (TimeSpan.Zero, Length);

    /// <summary>Whether its licence asks for its author's name (CC BY and all that build on it, section 3(a) of their legal code; what is allowed in
    /// one's own words may too).</summary>
    [JsonIgnore]
    public bool AsksForCredit => Licences.Find(Licence) is { } known ? known.Id.StartsWith("CC-BY", StringComparison.Ordinal) : Licence.Length > 0;

    /// <summary>What is said of it where its licence asks for it: title, author, licence with the address of its terms.</summary>
    [JsonIgnore]
    public string Credit => $"Sound: “{Title}”{(Author.Length > 0 ? $" by {Author}" : "")}, {Licences.InWords(Licence)}.";

    /// <summary>The same with what is out of its range brought into it.</summary>
    public ShelfSound Tidied() =>
        this with
        {
            Title = SectionRules.OneLine(Title, DetailFields.LongestLine),
            Author = SectionRules.OneLine(Author, DetailFields.LongestLine),
            Licence = SectionRules.OneLine(Licence, DetailFields.LongestLine),
            Length = Between(Length, Shortest, Longest),
            Channels = Math.Clamp(Channels, 1, 2),
            Lufs = Between(Lufs, -70, 6),
            TruePeak = Between(TruePeak, -90, 12),
            Tempo = Tempo is { } tempo && double.IsFinite(tempo) ? Math.Clamp(tempo, LeastTempo, MostTempo) : null,
            Beats = Math.Clamp(Beats, 1, MostBeats),
            FirstBeat = Between(FirstBeat, TimeSpan.Zero, Length),
        };

    /// <summary>By so much a file may be shorter than its bars: what an encoder leaves away.</summary>
    private static readonly TimeSpan Slack = TimeSpan.FromMilliseconds(5);

    internal static double Between(double value, double least, double most) => double.IsFinite(value) ? Math.Clamp(value, least, most) : least;

    internal static TimeSpan Between(TimeSpan value, TimeSpan least, TimeSpan most) =>
        value < least ? least
        : value > most ? most
        : value;
}
