using System.Xml.Linq;
using CsCheck;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Lessons;
using Wexel.Core.Timing;
using Wexel.Core.Translating;

namespace Wexel.Core.Tests.Translating;

/// <summary>Files for translators. No package of the registries carries the schemas of XLIFF, so the clauses of OASIS XLIFF Version 2.1 are held against it
/// one by one; an independent reader does so too, in the tests of the desk.</summary>
public sealed class XliffTextTests
{
    private static readonly XNamespace Xliff = "urn:oasis:names:tc:xliff:document:2.0";
    private static readonly XNamespace Sizes = "urn:oasis:names:tc:xliff:sizerestriction:2.0";

    private static Cue At(int second, string id, string text) => new(new TimeRange(Ms.Of(second * 1000), Ms.Of((second * 1000) + 900)), text, Id: id);

    internal static LessonWithCues Lesson { get; } =
        LessonWithCues.Of(
            new LessonDocument("Ropes & <lines>", "First.\nSecond.", "en-GB", "hash", [], [new Section("s 1", Ms.Of(2000), "Knots")], []),
            [
                (
                    CaptionTrack.Of("t1", [At(1, "c1", "Take the\nrope."), At(3, "c2", "Pull.")], "en-GB", "a.vtt"),
                    [At(1, "c1", "Take the\nrope."), At(3, "c2", "Pull.")]
                ),
            ]
        );

    private static string Written(string to = "es-ES") => XliffText.Write(LessonTexts.File("lesson-1", Lesson, to));

    private static XliffReading Read(string text) => XliffText.Read(System.Text.Encoding.UTF8.GetBytes(text));

    /// <summary>XLIFF 2.1: the element xliff has version and srcLang, and trgLang where there are targets; file has an id; unit's id is an NMTOKEN, unique
    /// within its file; segment holds one source; state is initial without a target; xml:space is default or preserve.</summary>
    [Fact]
    public void What_is_written_keeps_the_clauses()
    {
        var root = XDocument.Parse(Written()).Root!;
        root.Name.ShouldBe(Xliff + "xliff");
        (root.Attribute("version")!.Value, root.Attribute("srcLang")!.Value, root.Attribute("trgLang")!.Value).ShouldBe(("2.1", "en-GB", "es-ES"));
        var file = root.Elements().ShouldHaveSingleItem();
        (file.Name, file.Attribute("original")!.Value).ShouldBe((Xliff + "file", "lesson-1"));
        // Elements of other namespaces come before units.
        file.Elements().First().Name.ShouldBe(Sizes + "profiles");
        var units = file.Elements(Xliff + "unit").ToList();
        units.Count.ShouldBe(5);
        units.Select(u => u.Attribute("id")!.Value).ShouldBeUnique();
        foreach (var unit in units)
        {
            System.Xml.XmlConvert.VerifyNMTOKEN(unit.Attribute("id")!.Value);
            int.Parse(unit.Attribute(Sizes + "sizeRestriction")!.Value, System.Globalization.CultureInfo.InvariantCulture).ShouldBePositive();
            var segment = unit.Elements().ShouldHaveSingleItem();
            (segment.Name, segment.Attribute("state")!.Value).ShouldBe((Xliff + "segment", "initial"));
            segment.Elements().ShouldHaveSingleItem().Name.ShouldBe(Xliff + "source");
        }

        units[0].Value.ShouldBe("Ropes & <lines>");
        units.Single(u => u.Attribute("id")!.Value.StartsWith("caption", StringComparison.Ordinal) && u.Value.StartsWith('T')).Value.ShouldBe("Take the rope.");
    }

    [Fact]
    public void What_is_written_is_read_with_every_name_and_text()
    {
        var read = Read(Written());
        (read.Lesson, read.From, read.To).ShouldBe(("lesson-1", "en-GB", "es-ES"));
        read.Problems.ShouldBeEmpty();
        read.Units.Select(u => (u.Id, u.Source, u.Target))
            .ShouldBe([
                ("title", "Ropes & <lines>", null),
                ("description", "First.\nSecond.", null),
                ("section.s 1", "Knots", null),
                ("caption.c1", "Take the rope.", null),
                ("caption.c2", "Pull.", null),
            ]);
    }

    [Fact]
    public void Any_text_comes_back() =>
        Gen.Select(Gen.String[0, 40], Gen.String[1, 20])
            .Sample(
                (text, id) =>
                {
                    var source = XmlText.Printable(text).ReplaceLineEndings("\n").Trim();
                    var filed = new FiledText(new LessonText("x." + XmlText.Printable(id), "n", source, 80), source.Length > 0 ? source : null, true);
                    var unit = Read(XliffText.Write(new TranslationFile("l", "en", "es", [filed]))).Units.ShouldHaveSingleItem();
                    (unit.Source, unit.Target ?? "").ShouldBe((source, source));
                }
            );

    /// <summary>Tools part units into segments, put codes into them, and give targets another order (XLIFF 2.1, segment, ignorable, pc, order).</summary>
    [Fact]
    public void Units_that_a_tool_parted_are_read_as_one()
    {
        const string Parted = """
            <?xml version="1.0"?>
            <xliff xmlns="urn:oasis:names:tc:xliff:document:2.0" version="2.0" srcLang="en" trgLang="de-de"><file id="f" original="l"><group id="g">
            <unit id="a"><segment><source>One. </source><target>Eins. </target></segment>
            <ignorable><source> </source></ignorable>
            <segment><source><pc id="1">Two</pc>.</source><target><pc id="1">Zwei</pc>.</target></segment></unit>
            <unit id="b"><segment><source>One</source><target order="2"> zwei</target></segment>
            <segment><source> two</source><target order="1">eins</target></segment></unit>
            <unit id="c"><segment><source>One.</source><target>Eins.</target></segment><segment><source>Two.</source></segment></unit>
            <unit id="d"><segment><source>One.</source><target/></segment></unit>
            </group></file></xliff>
            """;
        var read = Read(Parted);
        read.To.ShouldBe("de-DE");
        read.Units.Select(u => (u.Source, u.Target)).ShouldBe([("One.  Two.", "Eins.  Zwei."), ("One two", "eins zwei"), ("One.Two.", null), ("One.", null)]);
    }

    [Theory]
    [InlineData("no xml at all", "no XML from line 1")]
    [InlineData("<html/>", "no XLIFF")]
    [InlineData("<xliff version=\"1.2\" xmlns=\"urn:oasis:names:tc:xliff:document:1.2\"/>", "version 1.2")]
    [InlineData("<xliff version=\"2.1\" xmlns=\"urn:oasis:names:tc:xliff:document:2.0\"/>", "no text in")]
    [InlineData("<!DOCTYPE x [<!ENTITY e SYSTEM \"file:///etc/passwd\">]><xliff xmlns=\"urn:oasis:names:tc:xliff:document:2.0\">&e;</xliff>", "DTD")]
    public void What_is_no_such_file_gets_a_sentence(string text, string said)
    {
        var read = Read(text);
        read.Units.ShouldBeEmpty();
        read.Problems.ShouldHaveSingleItem().Sentence.ShouldContain(said);
    }

    [Fact]
    public void What_is_nested_without_end_is_refused() =>
        Read("<xliff xmlns='urn:oasis:names:tc:xliff:document:2.0'>" + string.Concat(Enumerable.Repeat("<group id='g'>", 100_000)))
            .Problems[0]
            .Sentence.ShouldContain("nested");
}
