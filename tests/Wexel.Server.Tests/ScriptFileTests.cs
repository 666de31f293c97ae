using System.IO.Compression;
using System.Text;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Wordprocessing;
using Wexel.Core.Speech;
using Wexel.Making.Transcripts;

namespace Wexel.Server.Tests;

/// <summary>Scripts as people have them: documents of word processors with headings, tables, notes and boxes; and such as are broken.</summary>
public sealed class ScriptFileTests
{
    private static string? Said(byte[] file) => ScriptFile.Read(file).Value;

    private static byte[] Odt(string body, string before = "")
    {
        using var file = new MemoryStream();
        using (var zip = new ZipArchive(file, ZipArchiveMode.Create, true))
        {
            using var content = new StreamWriter(zip.CreateEntry("content.xml").Open());
            content.Write(
                before
                    + "<office:document-content xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\""
                    + " xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\""
                    + " xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\" xmlns:draw=\"urn:oasis:names:tc:opendocument:xmlns:drawing:1.0\">"
                    + $"<office:body><office:text>{body}</office:text></office:body></office:document-content>"
            );
        }

        return file.ToArray();
    }

    /// <summary>OASIS OpenDocument 1.3, part 3: headings (text:h), paragraphs (text:p), spaces (text:s), tabs, line breaks, notes, tables.</summary>
    [Fact]
    public void An_OpenDocument_text_is_read_with_headings_and_tables_and_without_notes()
    {
        var said = Said(
            Odt(
                "<text:h>Before  you <text:span>start</text:span></text:h>"
                    + "<text:p>Take the rope<text:note><text:note-citation>1</text:note-citation>"
                    + "<text:note-body><text:p>Not said.</text:p></text:note-body></text:note> in"
                    + "<text:s/>both<text:tab/>hands.<office:annotation><text:p>Mara: really?</text:p></office:annotation></text:p><text:p/>"
                    + "<table:table><table:table-row><table:table-cell><text:p>Bow</text:p></table:table-cell>"
                    + "<table:table-cell><text:p>line &amp; spring</text:p></table:table-cell></table:table-row></table:table>"
                    + "<text:p>Look<draw:frame><draw:text-box><text:p>In a box.</text:p></draw:text-box></draw:frame> here.</text:p>"
            )
        );
        said.ShouldBe("# Before you start\n\nTake the rope in both hands.\n\nBow\n\nline & spring\n\nLook here.\n\nIn a box.\n\n");
        var script = ScriptText.Parse(said!);
        script.Headings.ShouldHaveSingleItem().Title.ShouldBe("Before you start");
        script.Words[^1].Paragraph.ShouldBe(4);
    }

    /// <summary>ECMA-376, written by Microsoft's own library.</summary>
    [Fact]
    public void A_DOCX_is_read_with_headings_and_tables()
    {
        using var file = new MemoryStream();
        using (var document = WordprocessingDocument.Create(file, WordprocessingDocumentType.Document))
        {
            Paragraph Of(string text, string? style = null) =>
                new(
                    new ParagraphProperties(style is null ? [] : [new ParagraphStyleId { Val = style }]),
                    new Run(new Text(text[..1]), new Text(text[1..])),
                    new Run(new TabChar())
                );
            document.AddMainDocumentPart().Document = new Document(
                new Body(
                    Of("Before you start", "Heading1"),
                    Of("Take the rope."),
                    Of(" "),
                    new Table(new TableRow(new TableCell(Of("Bow")), new TableCell(Of("Spring"))))
                )
            );
        }

        Said(file.ToArray()).ShouldBe("# Before you start\n\nTake the rope.\n\nBow\n\nSpring\n\n");
    }

    [Fact]
    public void What_is_broken_or_made_to_harm_gets_a_sentence()
    {
        string? Code(byte[] file) => ScriptFile.Read(file).Problem?.Code;
        Code(Encoding.UTF8.GetBytes("PK\u0003\u0004 no archive")).ShouldBe("script-broken");
        Code(Odt("<text:p>never ended")).ShouldBe("script-broken");
        Code(Odt("<text:p>&x;</text:p>", "<!DOCTYPE x [<!ENTITY x SYSTEM \"file:///etc/passwd\">]>")).ShouldBe("script-broken");
        Code(Odt("<text:p>" + new string('a', 21 * 1024 * 1024) + "</text:p>")).ShouldBe("script-broken");
        using var other = new MemoryStream();
        using (var zip = new ZipArchive(other, ZipArchiveMode.Create, true))
            zip.CreateEntry("notes.txt");
        Code(other.ToArray()).ShouldBe("script-no-text");
        Code(new byte[ScriptFile.LargestBytes + 1]).ShouldBe("script-too-large");
        Said(Encoding.Latin1.GetBytes("Größe\r\n")).ShouldBe("Größe\r\n");
    }
}
