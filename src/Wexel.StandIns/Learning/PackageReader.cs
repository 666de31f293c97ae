using System.Xml;
using System.Xml.Linq;

namespace Wexel.StandIns.Learning;

/// <summary>An item that can be launched.</summary>
internal sealed record Item(string Id, string Title, string Page);

/// <summary>What a package says of itself.</summary>
internal sealed record Package(string Title, IReadOnlyList<Item> Items);

/// <summary>Reads a SCORM 1.2 package (Content Aggregation Model, section 2.3) and says why when it cannot be taken.</summary>
internal static class PackageReader
{
    private const string Manifest = "imsmanifest.xml";
    private const int DeepestManifest = 4_000_000;
    private static readonly XNamespace Cp = "http://www.imsproject.org/xsd/imscp_rootv1p1p2";
    private static readonly XNamespace Adlcp = "http://www.adlnet.org/xsd/adlcp_rootv1p2";

    /// <exception cref="RefusedException">The package breaks a rule; the message says which.</exception>
    internal static Package Read(string folder)
    {
        var root = Load(folder);
        if (root.Name != Cp + "manifest")
            throw new RefusedException($"{Manifest} does not begin with a manifest of IMS Content Packaging 1.1.2.");
        var version = root.Element(Cp + "metadata")?.Element(Cp + "schemaversion")?.Value.Trim();
        if (version != "1.2")
            throw new RefusedException($"The manifest is of schema version “{version ?? "none"}”; this system takes SCORM 1.2.");
        var resources = (root.Element(Cp + "resources")?.Elements(Cp + "resource") ?? []).ToDictionary(r => Required(r, "identifier"), StringComparer.Ordinal);
        foreach (var resource in resources.Values)
        {
            foreach (var file in resource.Elements(Cp + "file").Select(f => Required(f, "href")).Append(resource.Attribute("href")?.Value).OfType<string>())
                FileIn(folder, file);
        }

        var organizations = root.Element(Cp + "organizations")?.Elements(Cp + "organization").ToList() ?? [];
        var chosen = root.Element(Cp + "organizations")?.Attribute("default")?.Value;
        var organization = organizations.FirstOrDefault(o => o.Attribute("identifier")?.Value == chosen)
            ?? organizations.FirstOrDefault()
            ?? throw new RefusedException("The manifest has no organization.");
        var items = organization.Descendants(Cp + "item").Where(i => i.Attribute("identifierref") is not null).Select(i => ItemOf(i, resources)).ToList();
        return items.Count > 0 ? new Package(TitleOf(organization), items) : throw new RefusedException("The organization has no item that can be launched.");
    }

    private static XElement Load(string folder)
    {
        var path = Path.Combine(folder, Manifest);
        if (!File.Exists(path))
            throw new RefusedException($"There is no {Manifest} at the top of the package.");
        try
        {
            // No document type: what it could declare or fetch is of no use here.
            using var reader = XmlReader.Create(
                path,
                new XmlReaderSettings
                {
                    DtdProcessing = DtdProcessing.Prohibit,
                    XmlResolver = null,
                    MaxCharactersInDocument = DeepestManifest,
                }
            );
            return XElement.Load(reader);
        }
        catch (XmlException broken)
        {
            throw new RefusedException($"{Manifest} cannot be read: {broken.Message}");
        }
    }

    private static Item ItemOf(XElement item, Dictionary<string, XElement> resources)
    {
        var reference = item.Attribute("identifierref")!.Value;
        if (!resources.TryGetValue(reference, out var resource))
            throw new RefusedException($"An item refers to the resource “{reference}”, which is not there.");
        if (resource.Attribute(Adlcp + "scormtype")?.Value is not ("sco" or "asset"))
            throw new RefusedException($"The resource “{reference}” says neither sco nor asset.");
        return new Item(Required(item, "identifier"), TitleOf(item), Required(resource, "href"));
    }

    private static void FileIn(string folder, string href)
    {
        var path = Uri.UnescapeDataString(href.Split('?', '#')[0]);
        if (Archive.Find(folder, path) is null)
            throw new RefusedException($"The manifest names “{path}”, which is not in the package.");
    }

    private static string TitleOf(XElement element) => element.Element(Cp + "title")?.Value.Trim() is { Length: > 0 } title ? title : "Without a title";

    private static string Required(XElement element, string attribute) =>
        element.Attribute(attribute)?.Value is { Length: > 0 } value
            ? value
            : throw new RefusedException($"A {element.Name.LocalName} in the manifest has no {attribute}.");
}
