using System.Globalization;
using System.Text;
using System.Xml;
using System.Xml.Linq;
using Wexel.Core.Contents;

namespace Wexel.Core.Packages;

/// <summary>A lesson in a manifest.</summary>
/// <param name="Title">Its title.</param>
/// <param name="Page">The page that is launched.</param>
/// <param name="Files">All files that are its own, the page among them.</param>
/// <param name="Metadata">What is said about it, see <see cref="Scorm12Metadata"/>.</param>
public sealed record Scorm12Item(string Title, string Page, IReadOnlyList<string> Files, XElement Metadata);

/// <summary>Writes <c>imsmanifest.xml</c> after the SCORM 1.2 Content Aggregation Model, section 2.3.</summary>
public static class Scorm12Manifest
{
    /// <summary>The manifest's name; it stands at the package's top.</summary>
    public const string FileName = "imsmanifest.xml";

    /// <summary>The schemas that the manifest names, which stand beside it.</summary>
    public static readonly IReadOnlyList<string> SchemaFiles = ["adlcp_rootv1p2.xsd", "ims_xml.xsd", "imscp_rootv1p1p2.xsd", Scorm12Metadata.SchemaFile];

    /// <summary>The most characters of a title (imscp_rootv1p1p2.xsd, titleType).</summary>
    public const int LongestTitle = 200;

    private const string Shared = "PLAYER";
    private static readonly XNamespace Cp = "http://www.imsproject.org/xsd/imscp_rootv1p1p2";
    private static readonly XNamespace Adlcp = "http://www.adlnet.org/xsd/adlcp_rootv1p2";
    private static readonly XNamespace Xsi = "http://www.w3.org/2001/XMLSchema-instance";

    /// <summary>The manifest as a text.</summary>
    /// <param name="identifier">The package's name; characters that an XML name may not have are replaced.</param>
    /// <param name="title">The organization's title.</param>
    /// <param name="items">The items in order.</param>
    /// <param name="sharedFiles">Files that every item needs.</param>
    public static string Write(string identifier, string title, IReadOnlyList<Scorm12Item> items, IReadOnlyList<string> sharedFiles)
    {
        var manifest = new XElement(
            Cp + "manifest",
            new XAttribute("identifier", Name(identifier)),
            new XAttribute("version", "1.1"),
            new XAttribute(XNamespace.Xmlns + "adlcp", Adlcp),
            new XAttribute(XNamespace.Xmlns + "xsi", Xsi),
            new XAttribute(XNamespace.Xmlns + "imsmd", Scorm12Metadata.Namespace),
            new XAttribute(
                Xsi + "schemaLocation",
                $"{Cp} imscp_rootv1p1p2.xsd {Scorm12Metadata.Namespace} {Scorm12Metadata.SchemaFile} {Adlcp} adlcp_rootv1p2.xsd"
            ),
            new XElement(Cp + "metadata", new XElement(Cp + "schema", "ADL SCORM"), new XElement(Cp + "schemaversion", "1.2")),
            new XElement(
                Cp + "organizations",
                new XAttribute("default", "COURSE"),
                new XElement(Cp + "organization", new XAttribute("identifier", "COURSE"), Title(title), items.Select(Item))
            ),
            new XElement(
                Cp + "resources",
                items.Select(Resource),
                new XElement(
                    Cp + "resource",
                    new XAttribute("identifier", Shared),
                    new XAttribute("type", "webcontent"),
                    new XAttribute(Adlcp + "scormtype", "asset"),
                    sharedFiles.Select(File)
                )
            )
        );
        var text = new StringBuilder();
        using (
            var writer = XmlWriter.Create(
                text,
                new XmlWriterSettings
                {
                    Indent = true,
                    OmitXmlDeclaration = true,
                    NewLineChars = "\n",
                }
            )
        )
            manifest.WriteTo(writer);
        return $"<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n{text}\n";
    }

    private static XElement Item(Scorm12Item item, int index) =>
        new(
            Cp + "item",
            new XAttribute("identifier", Numbered("ITEM", index)),
            new XAttribute("identifierref", Numbered("LESSON", index)),
            new XAttribute("isvisible", "true"),
            Title(item.Title)
        );

    private static XElement Resource(Scorm12Item item, int index) =>
        new(
            Cp + "resource",
            new XAttribute("identifier", Numbered("LESSON", index)),
            new XAttribute("type", "webcontent"),
            new XAttribute(Adlcp + "scormtype", "sco"),
            new XAttribute("href", Address(item.Page)),
            new XElement(Cp + "metadata", item.Metadata),
            item.Files.Select(File),
            new XElement(Cp + "dependency", new XAttribute("identifierref", Shared))
        );

    private static XElement File(string path) => new(Cp + "file", new XAttribute("href", Address(path)));

    private static string Numbered(string kind, int index) => string.Create(CultureInfo.InvariantCulture, $"{kind}-{index + 1}");

    private static string Address(string path) => string.Join('/', path.Split('/').Select(Uri.EscapeDataString));

    private static XElement Title(string title) => new(Cp + "title", SectionRules.Shortened(XmlText.Printable(title).Trim(), LongestTitle));

    private static string Name(string identifier) =>
        "W-" + string.Concat(identifier.Select(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '_' or '.' ? c : '-'));
}
