using System.Globalization;
using System.Text;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Timing;

namespace Wexel.Core.Packages;

/// <summary>Chapters as a file beside the video.</summary>
public static class ChaptersText
{
    /// <summary>A WebVTT file of chapters (W3C WebVTT, "WebVTT file using chapter title text").</summary>
    public static string Write(IReadOnlyList<Chapter> chapters)
    {
        var text = new StringBuilder("WEBVTT\n");
        foreach (var (chapter, index) in chapters.Select((c, i) => (c, i)))
        {
            text.Append(CultureInfo.InvariantCulture, $"\n{index + 1}\n{TimeCode.Full(chapter.Span.Start)} --> {TimeCode.Full(chapter.Span.End)}\n");
            text.Append(WebVttText.Escape(chapter.Title)).Append('\n');
        }

        return text.ToString();
    }
}
