using System.Globalization;
using System.Xml.Linq;

namespace Wexel.Core.Questions.Qti;

/// <summary>A lesson's questions as a QTI package: an item each, a test that asks them in order, and the manifest (IMS Content Packaging 1.1 and
/// 1.2).</summary>
public static class QtiPackage
{
    /// <summary>The folder of its pictures, with a slash at its end.</summary>
    public const string PictureFolder = "pictures/";

    private const string TestFile = "test.xml";

    /// <summary>All files of the package but pictures, the manifest first.</summary>
    /// <param name="id">What names the lesson.</param>
    /// <param name="title">Its title.</param>
    /// <param name="questions">What it asks; what cannot be asked yet is left out, and what is clicked on a picture where that is not given.</param>
    /// <param name="version">The version that is written.</param>
    /// <param name="pictures">The pictures of each question; null where none has one.</param>
    public static IReadOnlyList<(string Path, string Text)> Write(
        string id,
        string title,
        IReadOnlyList<Question> questions,
        QtiVersion version,
        Func<Question, QtiPictures>? pictures = null
    )
    {
        pictures ??= _ => QtiPictures.None;
        IReadOnlyList<Question> written = [.. questions.Where(q => QtiItem.CanBe(q, pictures(q)) && q.Faults.Count == 0)];
        return
        [
            ("imsmanifest.xml", Text(Manifest(id, written, version, pictures))),
            (TestFile, Text(Whole(Test(id, title, written), version))),
            .. written.Select(q => (PathOf(q), Text(Whole(QtiItem.Write(q, pictures(q), version), version)))),
        ];
    }

    private static string PathOf(Question question) => $"items/{QtiItem.Identifier(question.Id)}.xml";

    private static XElement Test(string id, string title, IReadOnlyList<Question> questions) =>
        new(
            "assessmentTest",
            new XAttribute("identifier", QtiItem.Identifier("t" + id)),
            new XAttribute("title", title),
            new XElement(
                "testPart",
                new XAttribute("identifier", "part"),
                new XAttribute("navigationMode", "linear"),
                new XAttribute("submissionMode", "individual"),
                new XElement(
                    "assessmentSection",
                    new XAttribute("identifier", "section"),
                    new XAttribute("title", title),
                    new XAttribute("visible", "true"),
                    questions.Select(q => new XElement(
                        "assessmentItemRef",
                        new XAttribute("identifier", QtiItem.Identifier(q.Id)),
                        new XAttribute("href", PathOf(q)),
                        new XElement("itemSessionControl", new XAttribute("maxAttempts", q.Tries), new XAttribute("allowSkipping", q.Must ? "false" : "true")),
                        new XElement(
                            "weight",
                            new XAttribute("identifier", "POINTS"),
                            new XAttribute("value", q.Points.ToString("R", CultureInfo.InvariantCulture))
                        )
                    ))
                )
            )
        );

    private static XElement Whole(XElement tree, QtiVersion version)
    {
        XNamespace instance = "http://www.w3.org/2001/XMLSchema-instance";
        var whole = QtiNames.As(tree, version);
        whole.Add(
            new XAttribute(XNamespace.Xmlns + "xsi", instance),
            new XAttribute(instance + "schemaLocation", $"{QtiNames.Space(version)} {QtiNames.Schema(version)}")
        );
        return whole;
    }

    private static XElement Manifest(string id, IReadOnlyList<Question> questions, QtiVersion version, Func<Question, QtiPictures> pictures)
    {
        var (number, part) = version == QtiVersion.V22 ? ("2.2", "xmlv2p2") : ("3.0.0", "xmlv3p0");
        XNamespace cp = version == QtiVersion.V22 ? "http://www.imsglobal.org/xsd/imscp_v1p1" : "http://www.imsglobal.org/xsd/qti/qtiv3p0/imscp_v1p1";
        XElement Resource(string name, string type, string path, IEnumerable<string> needs, IEnumerable<string> shown) =>
            new(
                cp + "resource",
                new XAttribute("identifier", name),
                new XAttribute("type", type),
                new XAttribute("href", path),
                shown.Prepend(path).Select(file => new XElement(cp + "file", new XAttribute("href", file))),
                needs.Select(n => new XElement(cp + "dependency", new XAttribute("identifierref", n)))
            );
        return new XElement(
            cp + "manifest",
            new XAttribute("identifier", QtiItem.Identifier("m" + id)),
            new XElement(
                cp + "metadata",
                new XElement(cp + "schema", version == QtiVersion.V22 ? "QTIv2.2 Package" : "QTI Package"),
                new XElement(cp + "schemaversion", number == "2.2" ? "1.0.0" : number)
            ),
            new XElement(cp + "organizations"),
            new XElement(
                cp + "resources",
                Resource("TEST", $"imsqti_test_{part}", TestFile, questions.Select(q => "R" + QtiItem.Identifier(q.Id)), []),
                questions.Select(q => Resource("R" + QtiItem.Identifier(q.Id), $"imsqti_item_{part}", PathOf(q), [], pictures(q).Files))
            )
        );
    }

    private static string Text(XElement root) => new XDeclaration("1.0", "utf-8", null) + "\n" + Printable(root) + "\n";

    /// <summary>What XML has no way to write becomes a space.</summary>
    private static XElement Printable(XElement root)
    {
        foreach (var text in root.DescendantNodesAndSelf().OfType<XText>())
            text.Value = XmlText.Printable(text.Value);
        foreach (var attribute in root.DescendantsAndSelf().SelectMany(e => e.Attributes()).Where(a => !a.IsNamespaceDeclaration))
            attribute.Value = XmlText.Printable(attribute.Value);
        return root;
    }
}
