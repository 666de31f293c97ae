using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Wordprocessing;
using Wexel.Core.Captions;
using Wexel.Core.Timing;

namespace Wexel.Making.Transcripts;

/// <summary>A transcript as a document of a word processor (Office Open XML, ECMA-376, WordprocessingML).</summary>
public static class TranscriptDocument
{
    /// <summary>The media type of its files.</summary>
    public const string MediaType = "application/vnd.openxmlformats-officedocument.wordprocessingml.document";

    private const string Title = "Title";
    private const string Heading = "Heading1";

    /// <summary>Writes it.</summary>
    /// <param name="title">The lesson's title.</param>
    /// <param name="language">The text's, as a BCP 47 tag.</param>
    /// <param name="parts">What is said.</param>
    /// <returns>The file's bytes.</returns>
    public static byte[] Write(string title, string language, IReadOnlyList<TranscriptPart> parts)
    {
        using var bytes = new MemoryStream();
        using (var file = WordprocessingDocument.Create(bytes, WordprocessingDocumentType.Document))
        {
            file.PackageProperties.Title = title;
            file.PackageProperties.Language = language;
            var main = file.AddMainDocumentPart();
            main.AddNewPart<StyleDefinitionsPart>().Styles = Styles(language);
            var body = new Body(Paragraph(title, Title));
            foreach (var part in parts)
            {
                if (part.Title is { } heading)
                    body.AppendChild(Paragraph($"{TimeCode.Brief(part.At)}  {heading}", Heading));
                foreach (var paragraph in part.Paragraphs)
                    body.AppendChild(Paragraph(paragraph.Text, null));
            }

            main.Document = new Document(body);
        }

        return bytes.ToArray();
    }

    private static Paragraph Paragraph(string text, string? style)
    {
        var run = new Run(new Text(Allowed(text)) { Space = SpaceProcessingModeValues.Preserve });
        return style is null ? new Paragraph(run) : new Paragraph(new ParagraphProperties(new ParagraphStyleId { Val = style }), run);
    }

    /// <summary>Without characters that XML does not have.</summary>
    private static string Allowed(string text) => string.Concat(text.Where(c => System.Xml.XmlConvert.IsXmlChar(c) || char.IsSurrogate(c)));

    private static Styles Styles(string language) =>
        new(
            new DocDefaults(
                new RunPropertiesDefault(new RunPropertiesBaseStyle(new FontSize { Val = "22" }, new Languages { Val = language })),
                new ParagraphPropertiesDefault(
                    new ParagraphPropertiesBaseStyle(
                        new SpacingBetweenLines
                        {
                            After = "160",
                            Line = "276",
                            LineRule = LineSpacingRuleValues.Auto,
                        }
                    )
                )
            ),
            Style(Title, "Title", "40"),
            Style(Heading, "heading 1", "28")
        );

    private static Style Style(string id, string name, string size) =>
        new(
            new StyleName { Val = name },
            new StyleParagraphProperties(new KeepNext(), new SpacingBetweenLines { Before = "240", After = "120" }),
            new StyleRunProperties(new Bold(), new FontSize { Val = size })
        )
        {
            Type = StyleValues.Paragraph,
            StyleId = id,
        };
}
