using System.Globalization;
using System.Text;
using Wexel.Core.Captions;
using Wexel.Core.Timing;

namespace Wexel.Core.Contents;

/// <summary>Contents as a WebVTT file of chapters (W3C WebVTT, "WebVTT file using chapter title text").</summary>
public static class WebVttChapters
{
    /// <summary>Prints chapters one behind the other, as players for the web take them.</summary>
    /// <param name="chapters">In order.</param>
    public static string Write(IReadOnlyList<Chapter> chapters) => Write(chapters.Select(c => (c.Span, c.Title)));

    /// <summary>Prints sections so that nothing is lost: one that is set in stands inside the one that it is under ("WebVTT file using only nested
    /// cues").</summary>
    /// <param name="sections">In order of time.</param>
    /// <param name="length">The lesson's length.</param>
    public static string WriteNested(IReadOnlyList<Section> sections, TimeSpan length) =>
        Write(
            sections.Select(
                (s, i) =>
                    (
                        new TimeRange(s.At, sections.Skip(i + 1).Where(o => s.Nested || !o.Nested).Select(o => (TimeSpan?)o.At).FirstOrDefault() ?? length),
                        s.Title
                    )
            )
        );

    /// <summary>Reads chapters; one that ends inside another is under it.</summary>
    /// <param name="text">A whole file.</param>
    public static ContentsReading Read(string text)
    {
        var (cues, problems) = WebVttText.Read(text);
        var lines = new List<ContentsLine>();
        TimeRange? open = null;
        foreach (var cue in cues.OrderBy(c => c.Span.Start).ThenByDescending(c => c.Span.End))
        {
            var nested = open is { } over && cue.Span.Start >= over.Start && cue.Span.End <= over.End && cue.Span != over;
            if (!nested)
                open = cue.Span;
            lines.Add(new ContentsLine(cue.Span.Start, SectionRules.OneLine(cue.Text), nested));
        }

        return new ContentsReading([.. lines.Take(ContentsText.MostSections)], problems);
    }

    private static string Write(IEnumerable<(TimeRange Span, string Title)> chapters)
    {
        var text = new StringBuilder("WEBVTT\n");
        foreach (var (index, (span, title)) in chapters.Index())
        {
            text.Append(CultureInfo.InvariantCulture, $"\n{index + 1}\n{TimeCode.Full(span.Start)} --> {TimeCode.Full(span.End)}\n");
            text.Append(WebVttText.Escape(title)).Append('\n');
        }

        return text.ToString();
    }
}
