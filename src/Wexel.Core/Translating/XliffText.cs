using System.Globalization;
using System.Text;
using System.Xml;
using System.Xml.Linq;
using Wexel.Core.Captions;

namespace Wexel.Core.Translating;

/// <summary>One text of an XLIFF file.</summary>
/// <param name="Id">Its unit’s name.</param>
/// <param name="Source">What it said when the file was made.</param>
/// <param name="Target">The translation; null where none was written.</param>
public sealed record XliffUnit(string Id, string Source, string? Target);

/// <summary>What was read from an XLIFF file.</summary>
/// <param name="Lesson">What names the lesson that it was made of; empty where it does not say.</param>
/// <param name="From">The language that was translated.</param>
/// <param name="To">The language of the translation; null where it does not say.</param>
/// <param name="Units">Its texts, in order; a name may stand there twice.</param>
/// <param name="Problems">Why nothing could be read.</param>
public sealed record XliffReading(string Lesson, string From, string? To, IReadOnlyList<XliffUnit> Units, IReadOnlyList<Problem> Problems);

/// <summary>Files for translators: OASIS XLIFF Version 2.1, with its size and length restriction module.</summary>
public static class XliffText
{
    /// <summary>The ending of its files.</summary>
    public const string Ending = ".xlf";

    /// <summary>Its media type (XLIFF 2.1, appendix A).</summary>
    public const string MediaType = "application/xliff+xml";

    /// <summary>The largest file that is read, in bytes.</summary>
    public const int LargestBytes = 16 * 1024 * 1024;

    private static readonly XNamespace Xliff = "urn:oasis:names:tc:xliff:document:2.0";
    private static readonly XNamespace Sizes = "urn:oasis:names:tc:xliff:sizerestriction:2.0";

    private const int MostDepth = 200;

    /// <summary>Prints a file: a unit a text, each with its limit in characters (general profile <c>xliff:codepoints</c>).</summary>
    /// <param name="file">What is to be translated.</param>
    public static string Write(TranslationFile file)
    {
        var document = new XDocument(
            new XElement(
                Xliff + "xliff",
                new XAttribute(XNamespace.Xmlns + "slr", Sizes.NamespaceName),
                new XAttribute("version", "2.1"),
                new XAttribute("srcLang", file.From),
                new XAttribute("trgLang", file.To),
                new XElement(
                    Xliff + "file",
                    new XAttribute("id", "lesson"),
                    new XAttribute("original", file.Lesson),
                    new XElement(Sizes + "profiles", new XAttribute("generalProfile", "xliff:codepoints")),
                    file.Texts.Select(Unit)
                )
            )
        );
        var text = new StringBuilder();
        using (
            var writer = XmlWriter.Create(
                text,
                new XmlWriterSettings
                {
                    OmitXmlDeclaration = true,
                    Indent = true,
                    NewLineChars = "\n",
                }
            )
        )
            document.Save(writer);
        return "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n" + text + "\n";
    }

    private static XElement Unit(FiledText filed)
    {
        // The attribute state: initial is not translated, translated is, reviewed somebody has looked at.
        var state =
            filed.Translation is null ? "initial"
            : filed.IsSure ? "reviewed"
            : "translated";
        return new XElement(
            Xliff + "unit",
            new XAttribute("id", XmlConvert.EncodeNmToken(filed.Text.Id)),
            new XAttribute("name", filed.Text.Name),
            new XAttribute(Sizes + "sizeRestriction", filed.Text.Most.ToString(CultureInfo.InvariantCulture)),
            new XElement(
                Xliff + "segment",
                new XAttribute("state", state),
                Words("source", filed.Text.Source),
                filed.Translation is { } target ? Words("target", target) : null
            )
        );
    }

    private static XElement Words(string name, string text) => new(Xliff + name, new XAttribute(XNamespace.Xml + "space", "preserve"), XmlText.Printable(text));

    /// <summary>Reads a file, also one of 2.0, and one in which a tool parted units into several segments.</summary>
    /// <param name="bytes">The file.</param>
    public static XliffReading Read(byte[] bytes)
    {
        if (bytes.Length > LargestBytes)
            return Refused("xliff-too-large", "The file is larger than 16 MB, so it is none of a lesson.");
        if (PlainText.Decode(bytes) is not { } text)
            return Refused("xliff-no-text", "The file is no text; choose the XLIFF file that came back from the translator.");
        XDocument document;
        try
        {
            using (var first = Open(text))
                while (first.Read())
                    if (first.Depth > MostDepth)
                        return Refused("xliff-no-xml", $"The XLIFF file cannot be read: its elements are nested {MostDepth} deep.");
            using var reader = Open(text);
            document = XDocument.Load(reader, LoadOptions.PreserveWhitespace);
        }
        catch (XmlException wrong)
        {
            return Refused("xliff-no-xml", $"The XLIFF file cannot be read: it is no XML from line {wrong.LineNumber} on, or brings rules of its own (a DTD).");
        }

        if (document.Root is not { Name.LocalName: "xliff" } root)
            return Refused("xliff-other", "The file is XML, but no XLIFF.");
        if (root.Name.Namespace != Xliff)
            return Refused("xliff-version", $"The XLIFF file is of version {root.Attribute("version")?.Value ?? "unknown"}; save it as XLIFF 2.0 or 2.1.");
        var units = root.Descendants(Xliff + "unit").Select(Read).OfType<XliffUnit>().ToList();
        var to = root.Attribute("trgLang")?.Value;
        return new XliffReading(
            root.Elements(Xliff + "file").Select(f => f.Attribute("original")?.Value).FirstOrDefault(o => o is not null) ?? "",
            root.Attribute("srcLang")?.Value ?? "",
            to is null ? null : LanguageTag.Parse(to),
            units,
            units.Count > 0 ? [] : [new Problem("xliff-empty", "There is no text in the XLIFF file.")]
        );
    }

    /// <summary>Its segments, and what stands between them (ignorable), in order; none is translated as long as one of them is not.</summary>
    private static XliffUnit? Read(XElement unit)
    {
        var parts = unit.Elements().Where(e => e.Name == Xliff + "segment" || e.Name == Xliff + "ignorable").ToList();
        if (unit.Attribute("id")?.Value is not { } id || parts.Count == 0)
            return null;
        var source = string.Concat(parts.Select(p => Words(p.Element(Xliff + "source"))));
        var whole = parts.TrueForAll(p => p.Name != Xliff + "segment" || Words(p.Element(Xliff + "target")).Trim().Length > 0);
        // The attribute order: a target may stand elsewhere among the segments than its source.
        var targets = parts
            .Index()
            .OrderBy(p =>
                int.TryParse(p.Item.Element(Xliff + "target")?.Attribute("order")?.Value, CultureInfo.InvariantCulture, out var order) ? order : p.Index + 1
            );
        var target = string.Concat(targets.Select(p => Words(p.Item.Element(Xliff + "target") ?? p.Item.Element(Xliff + "source"))));
        return new XliffUnit(XmlConvert.DecodeName(id), source.Trim(), whole ? target.Trim() : null);
    }

    /// <summary>The words of a text with whatever inline codes a tool put in.</summary>
    private static string Words(XElement? text) => text is null ? "" : string.Concat(text.DescendantNodes().OfType<XText>().Select(words => words.Value));

    private static XmlReader Open(string text) =>
        XmlReader.Create(
            new StringReader(text.TrimStart('\uFEFF', ' ', '\t', '\r', '\n')),
            new XmlReaderSettings
            {
                DtdProcessing = DtdProcessing.Prohibit,
                XmlResolver = null,
                MaxCharactersInDocument = LargestBytes,
            }
        );

    private static XliffReading Refused(string code, string sentence) => new("", "", null, [], [new Problem(code, sentence)]);
}
