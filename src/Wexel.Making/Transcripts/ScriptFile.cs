using System.IO.Compression;
using System.Text;
using System.Xml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Wordprocessing;
using Wexel.Core;

namespace Wexel.Making.Transcripts;

/// <summary>Reads what a trainer wrote down to be said: plain text, Markdown, DOCX (ECMA-376), ODT (OASIS OpenDocument 1.3).</summary>
public static class ScriptFile
{
    /// <summary>The largest file, in bytes.</summary>
    public const int LargestBytes = 20 * 1024 * 1024;

    /// <summary>The most characters that a packed document may unpack to.</summary>
    private const int MostCharacters = 20 * 1024 * 1024;

    private const string OdfOffice = "urn:oasis:names:tc:opendocument:xmlns:office:1.0";
    private const string OdfText = "urn:oasis:names:tc:opendocument:xmlns:text:1.0";

    /// <summary>Its text; headings begin with #, paragraphs are parted by empty lines, and cells of tables are paragraphs.</summary>
    /// <param name="bytes">The file.</param>
    public static Result<string> Read(byte[] bytes)
    {
        if (bytes.Length > LargestBytes)
            return new Problem("script-too-large", "The file is larger than 20 MB; take its pictures out, or save it as text.");
        if (bytes is not [(byte)'P', (byte)'K', ..])
            return PlainText.Decode(bytes) is { } plain
                ? plain
                : new Problem("script-no-text", "The file is no text; choose a text, Markdown, DOCX or ODT file.");
        try
        {
            using var packed = new ZipArchive(new MemoryStream(bytes));
            return packed.GetEntry("word/document.xml") is not null ? Docx(bytes)
                : packed.GetEntry("content.xml") is { } content ? Odt(content)
                : new Problem("script-no-text", "The file holds no text; choose a text, Markdown, DOCX or ODT file.");
        }
        catch (Exception broken) when (broken is InvalidDataException or XmlException or OpenXmlPackageException or FileFormatException)
        {
            return new Problem("script-broken", "The document cannot be read; save it again, or save it as text.");
        }
    }

    private static Result<string> Docx(byte[] bytes)
    {
        using var file = WordprocessingDocument.Open(new MemoryStream(bytes), false, new OpenSettings { MaxCharactersInPart = MostCharacters });
        var text = new StringBuilder();
        foreach (var paragraph in file.MainDocumentPart?.Document?.Body?.Descendants<Paragraph>() ?? [])
        {
            var style = paragraph.ParagraphProperties?.ParagraphStyleId?.Val?.Value;
            var isHeading = style is not null && (style.StartsWith("Heading", StringComparison.OrdinalIgnoreCase) || style == "Title");
            var line = string.Concat(
                paragraph
                    .Descendants()
                    .Select(e =>
                        e is Text t ? t.Text
                        : e is TabChar or Break ? " "
                        : ""
                    )
            );
            Add(text, line, isHeading);
        }

        return text.ToString();
    }

    private static Result<string> Odt(ZipArchiveEntry content)
    {
        using var stream = content.Open();
        using var reader = XmlReader.Create(
            stream,
            new XmlReaderSettings
            {
                DtdProcessing = DtdProcessing.Prohibit,
                XmlResolver = null,
                MaxCharactersInDocument = MostCharacters,
            }
        );
        // What stands in a paragraph as a paragraph of its own, such as a box with text, comes after it; notes and remarks are not spoken.
        var (text, open) = (new StringBuilder(), new Stack<(bool IsHeading, StringBuilder Line)>());
        var inner = new StringBuilder();
        reader.Read();
        while (!reader.EOF)
        {
            if (reader.NodeType == XmlNodeType.Element && IsUnspoken(reader))
            {
                reader.Skip();
                continue;
            }

            var isBlock = reader.NamespaceURI == OdfText && reader.LocalName is "p" or "h";
            if (reader.NodeType == XmlNodeType.Element && isBlock && !reader.IsEmptyElement)
            {
                open.Push((reader.LocalName == "h", new StringBuilder()));
            }
            else if (reader.NodeType == XmlNodeType.EndElement && isBlock)
            {
                var (isHeading, line) = open.Pop();
                Add(open.Count > 0 ? inner : text, line.ToString(), isHeading);
                if (open.Count == 0)
                {
                    text.Append(inner);
                    inner.Clear();
                }
            }
            else if (open.Count > 0 && reader.NodeType is XmlNodeType.Text or XmlNodeType.SignificantWhitespace or XmlNodeType.Whitespace)
            {
                open.Peek().Line.Append(reader.Value);
            }
            else if (
                open.Count > 0
                && reader.NodeType == XmlNodeType.Element
                && reader.NamespaceURI == OdfText
                && reader.LocalName is "s" or "tab" or "line-break"
            )
            {
                open.Peek().Line.Append(' ');
            }

            reader.Read();
        }

        return text.ToString();
    }

    private static bool IsUnspoken(XmlReader reader) =>
        (reader.NamespaceURI == OdfText && reader.LocalName is "note" or "tracked-changes")
        || (reader.NamespaceURI == OdfOffice && reader.LocalName == "annotation");

    private static void Add(StringBuilder text, string line, bool isHeading)
    {
        var plain = string.Join(' ', line.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        if (plain.Length > 0)
            text.Append(isHeading ? "# " : "").Append(plain).Append("\n\n");
    }
}
