using System.Text;
using System.Text.RegularExpressions;
using Wexel.Core.Timing;

namespace Wexel.Core.Contents;

/// <summary>A description with contents below it, taken apart.</summary>
/// <param name="Description">What stands above the contents.</param>
/// <param name="Lines">The contents, in whole seconds.</param>
public sealed record DescribedLesson(string Description, IReadOnlyList<ContentsLine> Lines);

/// <summary>What somebody did at the other side to one entry of the contents.</summary>
public enum ContentsEdit
{
    /// <summary>It is another title at the same second.</summary>
    Renamed,

    /// <summary>It is the same title at another second.</summary>
    Moved,

    /// <summary>It was not there before.</summary>
    Added,

    /// <summary>It is not there any more.</summary>
    Removed,
}

/// <summary>One entry that is not as it was.</summary>
/// <param name="Edit">What was done.</param>
/// <param name="Was">As it was; null where it is new.</param>
/// <param name="Is">As it is; null where it is gone.</param>
public sealed record ContentsChange(ContentsEdit Edit, Section? Was, ContentsLine? Is);

/// <summary>
/// Contents for places that only play video: lines of time and title below the description. Such places make links of them where the list begins at
/// 0:00 (common practice, no source), and know whole seconds alone.
/// </summary>
public static partial class DescribedContents
{
    /// <summary>What stands above the list, so that lines of the description itself are never taken for it.</summary>
    public const string Heading = "Contents:";

    /// <summary>What stands at 0:00 where no section does.</summary>
    private const char NoSection = '…';

    /// <summary>Prints a description with the contents below it.</summary>
    /// <param name="description">The description; what is empty at its end is not kept.</param>
    /// <param name="sections">The contents in lesson time, in order of time.</param>
    public static string Write(string description, IReadOnlyList<Section> sections)
    {
        var above = Plain(description);
        // Without contents the heading is needed only where the description would be taken for one that has some.
        if (sections.Count == 0 && Read(above).Description == above)
            return above;
        var text = new StringBuilder(above);
        if (above.Length > 0)
            text.Append("\n\n");
        text.Append(Heading);
        if (sections.Count > 0 && WholeSeconds(sections[0].At) > TimeSpan.Zero)
            text.Append("\n0:00 ").Append(NoSection);
        foreach (var section in sections)
            text.Append('\n').Append(section.Nested ? "    " : "").Append(TimeCode.Brief(section.At)).Append(' ').Append(section.Title);
        return text.ToString();
    }

    /// <summary>Takes apart what <see cref="Write"/> printed, also where somebody edited it since.</summary>
    /// <param name="text">The text, as the other side has it.</param>
    public static DescribedLesson Read(string text)
    {
        var lines = Plain(text).Split('\n');
        var heading = Array.FindLastIndex(lines, l => l.TrimEnd() == Heading);
        if (heading < 0)
            return new DescribedLesson(string.Join('\n', lines), []);
        var read = lines[(heading + 1)..].Where(l => l.Trim().Length > 0).Select(Line).ToList();
        // A heading over something else is part of the description.
        if (read.Any(l => l is null))
            return new DescribedLesson(string.Join('\n', lines), []);
        var contents = read.Select(l => l!).Where(l => l != new ContentsLine(TimeSpan.Zero, NoSection.ToString(), Nested: false));
        return new DescribedLesson(string.Join('\n', lines[..heading]).TrimEnd(), [.. contents]);
    }

    /// <summary>What was done to contents by hand, entry by entry; nothing where they are as they were printed.</summary>
    /// <param name="before">The contents as they were printed.</param>
    /// <param name="now">The contents as they were read.</param>
    public static IReadOnlyList<ContentsChange> Changes(IReadOnlyList<Section> before, IReadOnlyList<ContentsLine> now)
    {
        var (was, lines, changes) = (before.ToList(), now.ToList(), new List<ContentsChange>());
        Pair((s, l) => WholeSeconds(s.At) == l.At && s.Title == l.Title, null);
        Pair((s, l) => WholeSeconds(s.At) == l.At, ContentsEdit.Renamed);
        Pair((s, l) => s.Title == l.Title, ContentsEdit.Moved);
        changes.AddRange(was.Select(s => new ContentsChange(ContentsEdit.Removed, s, null)));
        changes.AddRange(lines.Select(l => new ContentsChange(ContentsEdit.Added, null, l)));
        return [.. changes.OrderBy(c => c.Is?.At ?? c.Was!.At)];

        void Pair(Func<Section, ContentsLine, bool> same, ContentsEdit? edit)
        {
            foreach (var section in was.ToList())
            {
                if (lines.Find(l => same(section, l)) is not { } line)
                    continue;
                was.Remove(section);
                lines.Remove(line);
                if (edit is { } made)
                    changes.Add(new ContentsChange(made, section, line));
            }
        }
    }

    private static ContentsLine? Line(string line) =>
        Pattern().Match(line.TrimEnd()) is { Success: true } match && TimeCode.Parse(match.Groups["t"].Value) is { } at
            ? new ContentsLine(at, SectionRules.OneLine(match.Groups["title"].Value), match.Groups["in"].Value.Length > 0)
            : null;

    private static string Plain(string text) => text.ReplaceLineEndings("\n").TrimEnd();

    private static TimeSpan WholeSeconds(TimeSpan at) => TimeSpan.FromSeconds(Math.Floor(at.TotalSeconds));

    [GeneratedRegex(@"^(?<in>\s*)(?<t>(?:\d+:)?\d+:\d\d)\s+(?<title>\S.*)$", RegexOptions.NonBacktracking)]
    private static partial Regex Pattern();
}
