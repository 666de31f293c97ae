using System.Xml.Linq;
using Wexel.Core.Timing;

namespace Wexel.Core.Captions;

/// <summary>Prints captions as TTML of the IMSC 1.1 text profile (W3C IMSC 1.1, section 6; TTML2): two regions, one at the bottom and one at the top.</summary>
public static class TtmlWriter
{
    /// <summary>The profile's name (IMSC 1.1, section 6.1).</summary>
    public const string Profile = "http://www.w3.org/ns/ttml/profile/imsc1.1/text";

    private static readonly XNamespace Tt = "http://www.w3.org/ns/ttml";
    private static readonly XNamespace Parameter = "http://www.w3.org/ns/ttml#parameter";
    private static readonly XNamespace Styling = "http://www.w3.org/ns/ttml#styling";

    /// <summary>Prints them.</summary>
    /// <param name="cues">In order of time.</param>
    /// <param name="language">Theirs, as a BCP 47 tag.</param>
    public static string Write(IReadOnlyList<Cue> cues, string language)
    {
        var root = new XElement(
            Tt + "tt",
            new XAttribute(XNamespace.Xmlns + "ttp", Parameter.NamespaceName),
            new XAttribute(XNamespace.Xmlns + "tts", Styling.NamespaceName),
            new XAttribute(XNamespace.Xml + "lang", language),
            new XAttribute(XNamespace.Xml + "space", "preserve"),
            new XAttribute(Parameter + "contentProfiles", Profile),
            new XAttribute(Parameter + "timeBase", "media"),
            new XElement(Tt + "head", new XElement(Tt + "layout", Region("bottom", "10% 70%", "after"), Region("top", "10% 10%", "before"))),
            new XElement(Tt + "body", new XElement(Tt + "div", cues.Select(Paragraph)))
        );
        return "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n" + root.ToString(SaveOptions.DisableFormatting) + "\n";
    }

    private static XElement Region(string id, string origin, string align) =>
        new(
            Tt + "region",
            new XAttribute(XNamespace.Xml + "id", id),
            new XAttribute(Styling + "origin", origin),
            new XAttribute(Styling + "extent", "80% 20%"),
            new XAttribute(Styling + "displayAlign", align),
            new XAttribute(Styling + "textAlign", "center"),
            new XAttribute(Styling + "color", "#FFFFFF"),
            new XAttribute(Styling + "backgroundColor", "#1D2129E6")
        );

    private static XElement Paragraph(Cue cue, int index) =>
        new(
            Tt + "p",
            new XAttribute(XNamespace.Xml + "id", $"c{index + 1}"),
            new XAttribute("region", cue.AtTop ? "top" : "bottom"),
            new XAttribute("begin", TimeCode.Full(cue.Span.Start)),
            new XAttribute("end", TimeCode.Full(cue.Span.End)),
            Inside(cue)
        );

    private static IEnumerable<object> Inside(Cue cue)
    {
        foreach (var (text, tags) in CueMarkup.Runs(cue.Markup ?? WebVttText.Escape(cue.Text)))
        {
            var lines = text.Split('\n').SelectMany((line, i) => i == 0 ? [line] : new object[] { new XElement(Tt + "br"), line }).Where(p => p is not "");
            var styles = tags.Select(tag =>
                tag switch
                {
                    'b' => new XAttribute(Styling + "fontWeight", "bold"),
                    'i' => new XAttribute(Styling + "fontStyle", "italic"),
                    _ => new XAttribute(Styling + "textDecoration", "underline"),
                }
            );
            if (tags.Count == 0)
                foreach (var part in lines)
                    yield return part;
            else
                yield return new XElement(Tt + "span", styles, lines);
        }
    }
}
