using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Contents;

/// <summary>One entry of a lesson's table of contents.</summary>
/// <param name="Id">A name that stays when it is moved or renamed.</param>
/// <param name="At">Where it starts, in recording time.</param>
/// <param name="Title">Its title, plain text.</param>
/// <param name="Nested">Whether it stands one level under the section before it.</param>
public sealed record Section(string Id, TimeSpan At, string Title, bool Nested = false) : IPlaced<Section>
{
    /// <inheritdoc cref="SectionKind"/>
    public static PlacedKind<Section> Kind { get; } = new SectionKind();

    TimeRange IPlaced.Span => new(At, At);
}

/// <summary>The rules that a table of contents keeps.</summary>
public static class SectionRules
{
    /// <summary>The longest title, in characters.</summary>
    public const int LongestTitle = 300;

    /// <summary>In order of time, the first never nested, titles on one line and trimmed, starts within the recording.</summary>
    public static IReadOnlyList<Section> Tidy(IEnumerable<Section> sections, TimeSpan length)
    {
        var ordered = sections
            .Select(s => s with { At = s.At < TimeSpan.Zero ? TimeSpan.Zero : s.At, Title = OneLine(s.Title) })
            .Where(s => s.At < length)
            .OrderBy(s => s.At)
            .ToList();
        if (ordered is [{ Nested: true } first, ..])
            ordered[0] = first with { Nested = false };
        return ordered;
    }

    /// <summary>A text on one line: control characters become spaces, runs of space one space; of what is longer than a title may be, what <see
    /// cref="Shortened"/> leaves.</summary>
    public static string OneLine(string text) => OneLine(text, LongestTitle);

    /// <inheritdoc cref="OneLine(string)"/>
    /// <param name="text">The text.</param>
    /// <param name="most">The most characters; 2 or more.</param>
    public static string OneLine(string text, int most)
    {
        var plain = new string([.. text.Select(c => char.IsControl(c) ? ' ' : c)]);
        return Shortened(string.Join(' ', plain.Split(' ', StringSplitOptions.RemoveEmptyEntries)), most);
    }

    /// <summary>A title of at most so many characters: whole words, and an ellipsis where something is gone. A word that is longer than half of it is
    /// parted.</summary>
    /// <param name="title">The title, on one line.</param>
    /// <param name="most">The most characters; 2 or more.</param>
    public static string Shortened(string title, int most)
    {
        if (title.Length <= most)
            return title;
        var end = title.LastIndexOf(' ', most - 1);
        if (end < most / 2)
            end = char.IsLowSurrogate(title[most - 1]) ? most - 2 : most - 1;
        return title[..end].TrimEnd(' ', ',', ';', ':', '-', '–', '—') + "…";
    }
}
