using System.Xml;

namespace Wexel.Core.Kit;

/// <summary>Looks whether an SVG is nothing but a drawing: no scripts, nothing that is fetched from elsewhere, no entities.</summary>
public static class SvgCheck
{
    private static readonly XmlReaderSettings Safe = new()
    {
        DtdProcessing = DtdProcessing.Prohibit,
        XmlResolver = null,
        MaxCharactersInDocument = 4_000_000,
    };

    /// <summary>The most elements of a drawing that is taken, with each as often as it is drawn.</summary>
    public const int MostElements = 20_000;

    /// <summary>How deep elements may stand in each other.</summary>
    public const int Deepest = 100;

    /// <summary>The most elements that have others drawn again.</summary>
    public const int MostUses = 1_000;

    /// <summary>The most steps that filters may have altogether: each goes over the whole picture.</summary>
    public const int MostFilterSteps = 20;

    private static ReadOnlySpan<byte> ByteOrderMark => [0xEF, 0xBB, 0xBF];

    private static readonly HashSet<string> Active = new(StringComparer.OrdinalIgnoreCase)
    {
        "script",
        "foreignObject",
        "iframe",
        "object",
        "embed",
        "audio",
        "video",
        "handler",
        "listener",
    };

    /// <summary>Whether a file says that it is an SVG: its first mark opens an element or a declaration.</summary>
    /// <param name="start">The file's first bytes.</param>
    public static bool LooksLikeOne(ReadOnlySpan<byte> start)
    {
        if (start.StartsWith(ByteOrderMark))
            start = start[ByteOrderMark.Length..];
        return start.TrimStart(" \t\r\n"u8) is [(byte)'<', ..];
    }

    /// <summary>Why an SVG is not taken, in a sentence that says what to do; null when it is.</summary>
    /// <param name="svg">The file.</param>
    public static Problem? Wrong(Stream svg)
    {
        var size = new DrawingSize();
        try
        {
            using var reader = XmlReader.Create(svg, Safe);
            while (reader.Read() && reader.NodeType != XmlNodeType.Element)
            {
                if (reader.NodeType == XmlNodeType.ProcessingInstruction)
                    return Refused($"it holds a processing instruction, <?{reader.Name}?>");
            }

            if (reader.LocalName != "svg")
                return new Problem("mark-no-picture", "The file is no picture that can be read. Choose a PNG, JPEG or SVG.", "mark");
            do
            {
                if (reader.NodeType == XmlNodeType.Element && Active.Contains(reader.LocalName))
                    return Refused($"it holds <{reader.LocalName}>");
                if (reader.NodeType == XmlNodeType.Element && size.Add(reader) is { } tooMuch)
                    return tooMuch;
                if (reader.NodeType == XmlNodeType.EndElement)
                    size.End();
                if (reader.NodeType is XmlNodeType.Text or XmlNodeType.CDATA && FetchesElsewhere(reader.Value))
                    return Refused("its styles fetch something from elsewhere");
                if (reader.NodeType == XmlNodeType.ProcessingInstruction)
                    return Refused($"it holds a processing instruction, <?{reader.Name}?>");
                for (var i = 0; i < reader.AttributeCount; i++)
                {
                    reader.MoveToAttribute(i);
                    if (reader.LocalName.StartsWith("on", StringComparison.OrdinalIgnoreCase))
                        return Refused($"it holds a script, in “{reader.Name}”");
                    if (reader.LocalName is "href" or "src" && !reader.Value.TrimStart().StartsWith('#'))
                        return Refused($"it points elsewhere, in “{reader.Name}”");
                    if (FetchesElsewhere(reader.Value))
                        return Refused($"it fetches something from elsewhere, in “{reader.Name}”");
                }

                reader.MoveToElement();
            } while (reader.Read());
            return size.Drawn > MostElements ? DrawingSize.TooMuch($"more than {MostElements} elements are drawn") : null;
        }
        catch (XmlException)
        {
            return new Problem(
                "mark-svg-broken",
                "The SVG cannot be read: it is not well-formed, or it declares entities. Save it again as plain SVG, or as a PNG.",
                "mark"
            );
        }
    }

    /// <summary>Whether a style refers to anything but parts of the drawing itself.</summary>
    private static bool FetchesElsewhere(string text)
    {
        if (text.Contains("@import", StringComparison.OrdinalIgnoreCase) || text.Contains("javascript:", StringComparison.OrdinalIgnoreCase))
            return true;
        for (var at = text.IndexOf("url(", StringComparison.OrdinalIgnoreCase); at >= 0; at = text.IndexOf("url(", at + 4, StringComparison.OrdinalIgnoreCase))
        {
            if (!text.AsSpan(at + 4).TrimStart(" '\"").StartsWith("#"))
                return true;
        }

        return false;
    }

    private static Problem Refused(string why) =>
        new("mark-svg-not-plain", $"The SVG is not only a drawing: {why}. Save it as plain SVG, or as a PNG.", "mark");
}
