using System.Xml;
using System.Xml.Linq;
using System.Xml.Schema;
using Wexel.Core.Details;
using Wexel.Core.Keys;
using Wexel.Core.Packages;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Packages;

/// <summary>
/// The rules of the SCORM 1.2 Content Aggregation Model, each with its section; the section numbers are from memory. The schemas are
/// the published ones (imscp_rootv1p1p2.xsd of IMS, adlcp_rootv1p2.xsd of ADL).
/// </summary>
public class Scorm12Tests
{
    private static readonly XNamespace Cp = "http://www.imsproject.org/xsd/imscp_rootv1p1p2";
    private static readonly XNamespace Adlcp = "http://www.adlnet.org/xsd/adlcp_rootv1p2";

    private static readonly IReadOnlyList<PackageFile> One = Plan("Fares");
    private static readonly IReadOnlyList<PackageFile> Course = Plan("Opening", "Selling", "Closing");

    private static IReadOnlyList<PackageFile> Plan(params string[] titles) =>
        Scorm12Package.Plan(
            new Scorm12Sources(
                "course-1",
                titles.Length == 1 ? titles[0] : "Ticket desk",
                [
                    .. titles.Select(t => new LessonSources(
                        new PlayerLesson("k", t, "", "en", Ms.Of(60_000), 1280, 720, "", null, [new("a", Ms.Of(0), "Start")], []),
                        new KeyedFile("/v.mp4", "v"),
                        new LessonPoster(new KeyedFile("/p.jpg", "p"), new PictureSize(1280, 720))
                    )),
                ],
                [
                    ("wexel-player.js", new KeyedFile("/a.js", "a")),
                    ("wexel-player.css", new KeyedFile("/a.css", "c")),
                    ("fonts/a b.woff2", new KeyedFile("/a.woff2", "f")),
                ]
            )
        );

    private static string TextOf(IReadOnlyList<PackageFile> files, string path) => ((PackageContent.Text)files.Single(f => f.Path == path).Content).Value;

    private static XElement ManifestOf(IReadOnlyList<PackageFile> files) => XElement.Parse(TextOf(files, "imsmanifest.xml"));

    public static TheoryData<string> Packages => ["one", "course"];

    private static IReadOnlyList<PackageFile> Package(string which) => which == "one" ? One : Course;

    [Theory, MemberData(nameof(Packages))]
    public void The_manifest_stands_at_the_top_under_its_name_2_3_2(string which) => Package(which)[0].Path.ShouldBe("imsmanifest.xml");

    [Theory, MemberData(nameof(Packages))]
    public void The_control_files_that_it_names_stand_beside_it_2_3_2(string which)
    {
        XNamespace xsi = "http://www.w3.org/2001/XMLSchema-instance";
        var named = ManifestOf(Package(which)).Attribute(xsi + "schemaLocation")!.Value.Split(' ').Where((_, i) => i % 2 == 1).ToList();
        named.ShouldBe(["imscp_rootv1p1p2.xsd", "imsmd_rootv1p2p1.xsd", "adlcp_rootv1p2.xsd"]);
        named.Append("ims_xml.xsd").ShouldBeSubsetOf(Package(which).Select(f => f.Path));
    }

    [Theory, MemberData(nameof(Packages))]
    public void It_stands_up_to_the_published_schemas(string which) => Faults(TextOf(Package(which), "imsmanifest.xml")).ShouldBeEmpty();

    [Fact]
    public void The_check_against_the_schemas_finds_faults() =>
        Faults(TextOf(One, "imsmanifest.xml").Replace("scormtype=\"sco\"", "scormtype=\"film\"", StringComparison.Ordinal)).ShouldNotBeEmpty();

    [Theory, MemberData(nameof(Packages))]
    public void It_says_ADL_SCORM_1_2_in_its_metadata_2_3_3(string which)
    {
        var metadata = ManifestOf(Package(which)).Element(Cp + "metadata")!;
        metadata.Element(Cp + "schema")!.Value.ShouldBe("ADL SCORM");
        metadata.Element(Cp + "schemaversion")!.Value.ShouldBe("1.2");
    }

    [Theory, MemberData(nameof(Packages))]
    public void The_default_organization_is_there_and_has_a_title_2_3_4(string which)
    {
        var organizations = ManifestOf(Package(which)).Element(Cp + "organizations")!;
        var organization = organizations
            .Elements(Cp + "organization")
            .Single(o => o.Attribute("identifier")!.Value == organizations.Attribute("default")!.Value);
        organization.Element(Cp + "title")!.Value.ShouldBe(which == "one" ? "Fares" : "Ticket desk");
    }

    [Fact]
    public void A_courses_items_are_its_lessons_in_order_2_3_4() =>
        ManifestOf(Course).Descendants(Cp + "item").Select(i => i.Element(Cp + "title")!.Value).ShouldBe(["Opening", "Selling", "Closing"]);

    [Theory, MemberData(nameof(Packages))]
    public void Every_item_refers_to_a_sco_whose_page_is_one_of_its_files_2_3_5(string which)
    {
        var manifest = ManifestOf(Package(which));
        var resources = manifest.Descendants(Cp + "resource").ToDictionary(r => r.Attribute("identifier")!.Value);
        foreach (var item in manifest.Descendants(Cp + "item"))
        {
            var resource = resources[item.Attribute("identifierref")!.Value];
            resource.Attribute("type")!.Value.ShouldBe("webcontent");
            resource.Attribute(Adlcp + "scormtype")!.Value.ShouldBe("sco");
            resource.Elements(Cp + "file").Select(f => f.Attribute("href")!.Value).ShouldContain(resource.Attribute("href")!.Value);
            resource.Elements(Cp + "dependency").ShouldAllBe(d => resources.ContainsKey(d.Attribute("identifierref")!.Value));
        }
    }

    [Theory, MemberData(nameof(Packages))]
    public void Every_file_is_listed_and_every_listed_file_is_there_2_3_5(string which)
    {
        var listed = ManifestOf(Package(which)).Descendants(Cp + "file").Select(f => Uri.UnescapeDataString(f.Attribute("href")!.Value)).ToList();
        listed.ShouldBeUnique();
        listed.Order().ShouldBe(Package(which).Select(f => f.Path).Except(["imsmanifest.xml", .. Scorm12Manifest.SchemaFiles]).Order());
    }

    [Theory, MemberData(nameof(Packages))]
    public void Identifiers_are_XML_names_and_stand_once(string which)
    {
        var all = ManifestOf(Package(which)).DescendantsAndSelf().Select(e => e.Attribute("identifier")?.Value).OfType<string>().ToList();
        all.ShouldBeUnique();
        all.ShouldAllBe(id => XmlConvert.VerifyNCName(id) == id);
    }

    [Theory]
    [InlineData("a ]]> b <c> & \"d\" 'e'", "a ]]> b <c> & \"d\" 'e'")]
    [InlineData("bell\u0007 and\u0000 nul\uFFFE", "bell  and  nul")]
    [InlineData("שלום, العربية", "שלום, العربية")]
    [InlineData("🚢 on deck", "🚢 on deck")]
    public void Any_title_can_be_written(string title, string read)
    {
        var manifest = ManifestOf(Plan(title));
        manifest.Descendants(Cp + "item").Single().Element(Cp + "title")!.Value.ShouldBe(read);
        Faults(TextOf(Plan(title), "imsmanifest.xml")).ShouldBeEmpty();
    }

    [Fact]
    public void A_title_longer_than_the_schema_allows_is_shortened_there_and_whole_on_the_page()
    {
        var title = string.Concat(Enumerable.Repeat("🚢x", 100));
        var files = Plan(title);
        var written = ManifestOf(files).Descendants(Cp + "item").Single().Element(Cp + "title")!.Value;
        written.Length.ShouldBeLessThanOrEqualTo(200);
        written.ShouldEndWith("…");
        written.EnumerateRunes().ShouldAllBe(r => r != System.Text.Rune.ReplacementChar);
        TextOf(files, "index.html").ShouldContain(System.Net.WebUtility.HtmlEncode(title));
    }

    [Fact]
    public void The_pages_know_their_runtime_and_find_the_player()
    {
        TextOf(One, "index.html").ShouldContain("\"runtime\":\"scorm12\"");
        TextOf(One, "index.html").ShouldContain("src=\"player/wexel-player.js\"");
        TextOf(Course, "lesson-02/index.html").ShouldContain("src=\"../player/wexel-player.js\"");
        Course.Count(f => f.Path.EndsWith("wexel-player.js", StringComparison.Ordinal)).ShouldBe(1);
        Course.Where(f => f.Path.EndsWith(".mp4", StringComparison.Ordinal)).ShouldAllBe(f => ((PackageContent.Copy)f.Content).AlreadyCompressed);
    }

    private static readonly DetailSet Said = new(
        Tags: ["fares", "a; b, c"],
        Category: "Ticket desk",
        FromAge: 16,
        Licence: "CC-BY-SA-4.0",
        Author: new Author("Tarn, Mara; \\ training", "training@brackwater.example")
    );

    private static XElement Lom(DetailSet said, string title = "Fares") =>
        Scorm12Metadata.Describe(
            new PlayerLesson("k", title, "", "en-GB", Ms.Of(3_723_400), 1280, 720, "", null, [], [], Details: PlayerDetails.Of(said)),
            "lesson-1",
            "index.html",
            "video/mp4"
        );

    /// <summary>Against imsmd_rootv1p2p1.xsd of IMS, the binding of IEEE LOM that SCORM 1.2 takes.</summary>
    [Theory]
    [InlineData(true, "Fares")]
    [InlineData(false, "bell\u0007 <b> & ]]>")]
    public void What_is_said_stands_up_to_the_published_schema_of_learning_object_metadata_2_2(bool all, string title)
    {
        var manifest = ManifestOf(One);
        var metadata = manifest.Descendants(Cp + "resource").First().Element(Cp + "metadata")!;
        metadata.ReplaceAll(Lom(all ? Said : DetailSet.None, title));
        Faults(manifest.ToString()).ShouldBeEmpty();
        metadata.Descendants(Scorm12Metadata.Namespace + "language").First().Value = "";
        metadata.Descendants(Scorm12Metadata.Namespace + "general").First().Add(new XElement(Scorm12Metadata.Namespace + "title"));
        Faults(manifest.ToString()).ShouldNotBeEmpty();
    }

    [Fact]
    public void Metadata_says_what_the_details_say_2_2()
    {
        var lom = Lom(Said);
        IEnumerable<string> Texts(string name) => lom.Descendants(Scorm12Metadata.Namespace + name).Select(e => e.Value);
        Texts("title").ShouldBe(["Fares"]);
        // A lesson without a description is described by its title: the element is mandatory.
        lom.Element(Scorm12Metadata.Namespace + "general")!.Element(Scorm12Metadata.Namespace + "description")!.Value.ShouldBe("Fares");
        lom.Element(Scorm12Metadata.Namespace + "general")!.Elements(Scorm12Metadata.Namespace + "keyword").Select(k => k.Value).ShouldBe(["fares", "a; b, c"]);
        Texts("datetime").ShouldBe(["PT1H2M3S", "PT1H2M3S"]);
        Texts("typicalagerange").ShouldBe(["16-"]);
        Texts("copyrightandotherrestrictions").ShouldBe(["LOMv1.0yes"]);
        lom.Element(Scorm12Metadata.Namespace + "rights")!.Value.ShouldContain("https://creativecommons.org/licenses/by-sa/4.0/");
        // RFC 2426, section 4: a name with a comma, a semicolon and a backslash is one value.
        Texts("vcard").Single().ShouldContain(@"FN:Tarn\, Mara\; \\ training");
        Texts("vcard").Single().ShouldContain("EMAIL;TYPE=internet:training@brackwater.example");
    }

    [Theory]
    [InlineData("CC0-1.0", "no")]
    [InlineData("CC-BY-4.0", "yes")]
    [InlineData("For our crews.", "yes")]
    public void What_is_given_away_has_no_restriction(string licence, string restricted) =>
        Lom(new DetailSet(Licence: licence))
            .Descendants(Scorm12Metadata.Namespace + "copyrightandotherrestrictions")
            .Single()
            .Element(Scorm12Metadata.Namespace + "value")!
            .Value.ShouldBe(restricted);

    [Fact]
    public void Every_lesson_of_a_course_has_metadata_under_a_name_of_its_own() =>
        ManifestOf(Course).Descendants(Scorm12Metadata.Namespace + "entry").Select(e => e.Value).ShouldBe(["course-1-01", "course-1-02", "course-1-03"]);

    [Fact]
    public void A_package_without_a_lesson_is_nobodys_package() => Should.Throw<ArgumentException>(() => Plan());

    private static List<string> Faults(string manifest)
    {
        var schemas = new XmlSchemaSet { XmlResolver = null };
        foreach (var name in Scorm12Manifest.SchemaFiles)
        {
            // The published ims_xml.xsd makes XML's own namespace its default one, which strict parsers do not take.
            var schema = TextOf(One, name).Replace(" xmlns=\"http://www.w3.org/XML/1998/namespace\"", "", StringComparison.Ordinal);
            // The published imsmd_rootv1p2p1.xsd takes its own elements where others may stand as well, which strict parsers call ambiguous.
            if (name == Scorm12Metadata.SchemaFile)
                schema = schema.Replace("namespace=\"##any\"", "namespace=\"##other\"", StringComparison.Ordinal);
            using var reader = XmlReader.Create(new StringReader(schema), new XmlReaderSettings { DtdProcessing = DtdProcessing.Ignore, XmlResolver = null });
            schemas.Add(XmlSchema.Read(reader, null)!);
        }

        var found = new List<string>();
        XDocument.Parse(manifest).Validate(schemas, (_, fault) => found.Add(fault.Message));
        return found;
    }
}
