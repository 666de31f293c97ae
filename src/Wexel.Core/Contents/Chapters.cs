using System.Globalization;
using System.Text;
using Wexel.Core.Timing;

namespace Wexel.Core.Contents;

/// <summary>A section with the end that follows from the next one, as chapter formats want it.</summary>
/// <param name="Span">Where it starts and ends, in lesson time.</param>
/// <param name="Title">Its title.</param>
public sealed record Chapter(TimeRange Span, string Title);

/// <summary>A table of contents as chapters that cover the lesson without a gap.</summary>
public static class Chapters
{
    /// <summary>
    /// One chapter a section, each ending where the next starts and the last at the end. Sections that start within the same
    /// millisecond as the next have no length and are left out. Nesting is not carried: chapter formats are flat.
    /// </summary>
    public static IReadOnlyList<Chapter> FromSections(IReadOnlyList<Section> sections, TimeSpan length)
    {
        var starts = sections.Where(s => s.At < length).OrderBy(s => s.At).ToList();
        return
        [
            .. starts
                .Select((s, i) => new Chapter(new TimeRange(s.At, i + 1 < starts.Count ? starts[i + 1].At : length), s.Title))
                .Where(c => c.Span.Length >= TimeSpan.FromMilliseconds(1)),
        ];
    }
}
