using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using System.Xml;
using System.Xml.Linq;
using Wexel.Core.Timing;

namespace Wexel.Core.Captions;

/// <summary>
/// Reads captions as TTML (W3C TTML2, sections 8.2 to 8.4 and 12; IMSC 1.1 text profile). Times may be clock times, offsets, frames or ticks;
/// what stands inside what has a time counts from there. Bold, italics, underlines, line breaks and whether it stands at the top are kept. No
/// external entity is read.
/// </summary>
public static partial class TtmlReader
{
    private static readonly XNamespace Tt = "http://www.w3.org/ns/ttml";
    private static readonly XNamespace Parameter = "http://www.w3.org/ns/ttml#parameter";
    private static readonly XNamespace Styling = "http://www.w3.org/ns/ttml#styling";

    private const int MostDepth = 200;
    private const int UsualFrames = 30;

    /// <summary>Reads a text.</summary>
    public static CaptionReading Read(string text)
    {
        text = text.TrimStart('\uFEFF', ' ', '\t', '\r', '\n');
        XDocument document;
        try
        {
            // What is nested without end would end the process that goes through it.
            using (var first = Open(text))
                while (first.Read())
                    if (first.Depth > MostDepth)
                        return Refused("captions-no-xml", $"The TTML file cannot be read: its elements are nested {MostDepth} deep.", Line(first));
            using var reader = Open(text);
            document = XDocument.Load(reader, LoadOptions.PreserveWhitespace | LoadOptions.SetLineInfo);
        }
        catch (XmlException wrong)
        {
            var what = wrong.Message.Contains("DTD", StringComparison.Ordinal)
                ? "it brings rules of its own (a DTD), which are not read; take them out"
                : $"it is no XML from line {wrong.LineNumber} on";
            return Refused("captions-no-xml", $"The TTML file cannot be read: {what}.", $"line {wrong.LineNumber}");
        }

        if (document.Root is not { Name.LocalName: "tt" } root || root.Name.Namespace != Tt)
            return Refused("captions-not-ttml", "The file is XML, but no TTML: its outermost element is not “tt” of TTML’s namespace.", "line 1");
        var reading = new Reading(root);
        if (root.Element(Tt + "body") is { } body)
            reading.Take(body, new TimeRange(TimeSpan.Zero, TimeSpan.MaxValue), Look.Plain, false);
        return new CaptionReading([.. reading.Cues.OrderBy(c => c.Span.Start)], reading.Problems.All);
    }

    private static XmlReader Open(string text) =>
        XmlReader.Create(
            new StringReader(text),
            new XmlReaderSettings
            {
                DtdProcessing = DtdProcessing.Prohibit,
                XmlResolver = null,
                MaxCharactersInDocument = CaptionFile.LargestBytes,
            }
        );

    private static string Line(XmlReader reader) => $"line {((IXmlLineInfo)reader).LineNumber}";

    private static CaptionReading Refused(string code, string sentence, string place) => new([], [new Problem(code, sentence, place)]);

    private readonly record struct Look(bool Bold, bool Italic, bool Underlined)
    {
        internal static Look Plain => default;

        internal Look With(XElement element) =>
            new(
                Value(element, "fontWeight") is { } weight ? weight == "bold" : Bold,
                Value(element, "fontStyle") is { } style ? style is "italic" or "oblique" : Italic,
                Value(element, "textDecoration") is { } decoration
                    ? decoration.Contains("underline", StringComparison.Ordinal) && !decoration.Contains("noUnderline", StringComparison.Ordinal)
                    : Underlined
            );
    }

    private static string? Value(XElement element, string name) => element.Attribute(Styling + name)?.Value;

    /// <summary>Goes over a document's body.</summary>
    private sealed class Reading(XElement root)
    {
        private readonly Dictionary<string, XElement> _styles = Named(root, "style");
        private readonly Dictionary<string, XElement> _regions = Named(root, "region");
        private readonly decimal _frames = Frames(root);
        private readonly decimal _ticks = Ticks(root);

        internal List<Cue> Cues { get; } = [];

        internal CaptionProblems Problems { get; } = new();

        /// <summary>Takes an element with all that is in it.</summary>
        /// <param name="element">It may have times of its own.</param>
        /// <param name="within">The time of what it stands in.</param>
        /// <param name="look">How what it stands in looks.</param>
        /// <param name="atTop">Whether that stands at the top.</param>
        internal void Take(XElement element, TimeRange within, Look look, bool atTop)
        {
            if (Cues.Count >= CaptionFile.MostCues)
                return;
            if (Span(element, within) is not { } span)
                return;
            atTop = Region(element)?.Attribute(Styling + "displayAlign")?.Value is { } align ? align == "before" : atTop;
            look = Styled(element, look);
            if (element.Name == Tt + "p")
            {
                // Spans with times of their own are captions of their own.
                if (
                    element
                        .Descendants(Tt + "span")
                        .Any(s => s.Attribute("begin") is not null || s.Attribute("end") is not null || s.Attribute("dur") is not null)
                )
                    foreach (var part in element.Elements(Tt + "span"))
                        TakeText(part, Span(part, span), Styled(part, look), atTop);
                else
                    TakeText(element, span, look, atTop);
                return;
            }

            var isSequence = element.Attribute("timeContainer")?.Value == "seq";
            var from = span.Start;
            foreach (var child in element.Elements().Where(c => c.Name.Namespace == Tt && c.Name.LocalName is "div" or "p"))
            {
                var room = isSequence ? span with { Start = from } : span;
                Take(child, room, look, atTop);
                if (isSequence && Cues.Count > 0)
                    from = Cues[^1].Span.End;
            }
        }

        private void TakeText(XElement element, TimeRange? given, Look look, bool atTop)
        {
            if (given is not { } span)
                return;
            var (text, markup) = (new StringBuilder(), new StringBuilder());
            Write(
                element,
                look,
                element.AncestorsAndSelf().Select(e => e.Attribute(XNamespace.Xml + "space")?.Value).FirstOrDefault(v => v is not null) == "preserve",
                text,
                markup
            );
            var plain = Tidy(text.ToString());
            if (plain.Length == 0)
                return;
            if (plain.Length > CaptionFile.LongestCue)
                Add("captions-too-long", element, "the caption has more than 10,000 characters");
            else if (span.End == TimeSpan.MaxValue)
                Add("captions-no-end", element, "the caption has no end");
            else if (span.End <= span.Start)
                Add("captions-backward", element, "the caption ends before it starts");
            else
            {
                var marked = Tidy(markup.ToString());
                Cues.Add(new Cue(span, plain, marked.Contains('<', StringComparison.Ordinal) ? marked : null, atTop));
            }
        }

        private void Write(XElement element, Look look, bool keepsSpace, StringBuilder text, StringBuilder markup)
        {
            foreach (var node in element.Nodes())
            {
                if (node is XText { Value: var words })
                {
                    var plain = keepsSpace ? words : Space().Replace(words, " ");
                    text.Append(plain);
                    var tags = $"{(look.Bold ? "b" : "")}{(look.Italic ? "i" : "")}{(look.Underlined ? "u" : "")}";
                    if (string.IsNullOrWhiteSpace(plain))
                        tags = "";
                    markup
                        .Append(string.Concat(tags.Select(t => $"<{t}>")))
                        .Append(WebVttText.Escape(plain))
                        .Append(string.Concat(tags.Reverse().Select(t => $"</{t}>")));
                }
                else if (node is XElement { Name: var name } child && name == Tt + "br")
                {
                    text.Append('\n');
                    markup.Append('\n');
                }
                else if (node is XElement { Name.LocalName: "span" } span)
                {
                    Write(span, Styled(span, look), keepsSpace, text, markup);
                }
            }
        }

        /// <summary>When an element is shown; null where its times cannot be read.</summary>
        private TimeRange? Span(XElement element, TimeRange within)
        {
            if (!Reads(element, "begin", out var begin) || !Reads(element, "end", out var end) || !Reads(element, "dur", out var duration))
                return null;
            var from = within.Start + (begin ?? TimeSpan.Zero);
            var to = within.End;
            if (end is { } ends && within.Start + ends < to)
                to = within.Start + ends;
            if (duration is { } lasts && from + lasts < to)
                to = from + lasts;
            return new TimeRange(from, to);
        }

        /// <summary>Reads a time (TTML2, section 12.3.1); one that is none is said.</summary>
        /// <returns>False for one that is none.</returns>
        private bool Reads(XElement element, string name, out TimeSpan? time)
        {
            time = null;
            if (element.Attribute(name)?.Value.Trim() is not { } written)
                return true;
            time = Time(written);
            if (time is null)
                Add("captions-bad-time", element, $"“{Problem.Shown(written)}” is no time");
            return time is not null;
        }

        private TimeSpan? Time(string written)
        {
            if (Clock().Match(written) is { Success: true } clock)
            {
                var frames = clock.Groups["frames"] is { Success: true, Value: var f } ? decimal.Parse(f, CultureInfo.InvariantCulture) / _frames : 0;
                var seconds = decimal.Parse(clock.Groups["s"].Value, CultureInfo.InvariantCulture) + frames;
                return Seconds(
                    (
                        (
                            (decimal.Parse(clock.Groups["h"].Value, CultureInfo.InvariantCulture) * 60)
                            + decimal.Parse(clock.Groups["m"].Value, CultureInfo.InvariantCulture)
                        ) * 60
                    ) + seconds
                );
            }

            if (Offset().Match(written) is { Success: true } offset)
            {
                var number = decimal.Parse(offset.Groups["n"].Value, CultureInfo.InvariantCulture);
                return Seconds(
                    offset.Groups["unit"].Value switch
                    {
                        "h" => number * 3600,
                        "m" => number * 60,
                        "s" => number,
                        "ms" => number / 1000,
                        "f" => number / _frames,
                        _ => number / _ticks,
                    }
                );
            }

            return null;
        }

        private static TimeSpan Seconds(decimal seconds) => TimeSpan.FromMilliseconds((double)Math.Round(Math.Min(seconds, 36_000_000) * 1000));

        private void Add(string code, XElement element, string what)
        {
            var line = ((IXmlLineInfo)element).LineNumber;
            Problems.Add(new Problem(code, $"Line {line}: {what}; it was left out.", $"line {line}"));
        }

        private XElement? Region(XElement element) => element.Attribute("region")?.Value is { } id ? _regions.GetValueOrDefault(id) : null;

        private Look Styled(XElement element, Look look)
        {
            foreach (var id in (element.Attribute("style")?.Value ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries))
                if (_styles.GetValueOrDefault(id) is { } style)
                    look = look.With(style);
            return look.With(element);
        }

        private static Dictionary<string, XElement> Named(XElement root, string name) =>
            root.Descendants(Tt + name)
                .Select(e => (Id: e.Attribute(XNamespace.Xml + "id")?.Value, Element: e))
                .Where(e => e.Id is not null)
                .DistinctBy(e => e.Id)
                .ToDictionary(e => e.Id!, e => e.Element);

        /// <summary>Frames a second, with their multiplier (TTML2, sections 7.2.4 and 7.2.5).</summary>
        private static decimal Frames(XElement root)
        {
            var frames = Number(root, "frameRate", UsualFrames);
            var parts = (root.Attribute(Parameter + "frameRateMultiplier")?.Value ?? "1 1").Split(' ', StringSplitOptions.RemoveEmptyEntries);
            return parts is [var over, var under] && Positive(over) is { } a && Positive(under) is { } b ? frames * a / b : frames;
        }

        /// <summary>Ticks a second (TTML2, section 7.2.11).</summary>
        private static decimal Ticks(XElement root) =>
            root.Attribute(Parameter + "tickRate") is not null ? Number(root, "tickRate", 1)
            : root.Attribute(Parameter + "frameRate") is not null ? Frames(root)
            : 1;

        private static decimal Number(XElement root, string name, decimal usual) => Positive(root.Attribute(Parameter + name)?.Value) ?? usual;

        private static decimal? Positive(string? text) =>
            decimal.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number is > 0 and < 1_000_000_000 ? number : null;

        private static string Tidy(string text) => string.Join('\n', text.Split('\n').Select(l => l.Trim()).Where(l => l.Length > 0));
    }

    [GeneratedRegex(@"^(?<h>\d{2,4}):(?<m>[0-5]\d):(?<s>\d{2}(\.\d{1,9})?)(:(?<frames>\d{2,3})(\.\d{1,4})?)?$", RegexOptions.NonBacktracking)]
    private static partial Regex Clock();

    [GeneratedRegex(@"^(?<n>\d{1,12}(\.\d{1,9})?)(?<unit>h|ms|m|s|f|t)$", RegexOptions.NonBacktracking)]
    private static partial Regex Offset();

    [GeneratedRegex(@"[ \t\r\n]+", RegexOptions.NonBacktracking)]
    private static partial Regex Space();
}
