namespace Wexel.Core.Contents;

/// <summary>One entry of a lesson's table of contents.</summary>
/// <param name="Id">A name that stays when it is moved or renamed.</param>
/// <param name="At">Where it starts, in recording time.</param>
/// <param name="Title">Its title, plain text.</param>
/// <param name="Nested">Whether it stands one level under the section before it.</param>
public sealed record Section(string Id, TimeSpan At, string Title, bool Nested = false);

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

    /// <summary>A text on one line: control characters become spaces, runs of space one space.</summary>
    public static string OneLine(string text)
    {
        var plain = new string([.. text.Select(c => char.IsControl(c) ? ' ' : c)]);
        var joined = string.Join(' ', plain.Split(' ', StringSplitOptions.RemoveEmptyEntries));
        return joined.Length <= LongestTitle ? joined : joined[..LongestTitle];
    }
}
