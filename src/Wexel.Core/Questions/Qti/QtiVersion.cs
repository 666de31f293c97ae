using System.Text;
using System.Xml.Linq;

namespace Wexel.Core.Questions.Qti;

/// <summary>The versions of 1EdTech Question and Test Interoperability that are written.</summary>
public enum QtiVersion
{
    /// <summary>2.2.</summary>
    V22,

    /// <summary>3.0.</summary>
    V30,
}

/// <summary>
/// What differs between the versions. What both say is the same; 3.0 writes its own elements as <c>qti-</c> and all names in lower case with hyphens (QTI 3.0
/// Best Practices and Implementation Guide, section 2, what is new), while HTML stays as it is.
/// </summary>
internal static class QtiNames
{
    internal const string Prefix = "qti-";

    private static readonly HashSet<string> Html =
    [
        "p",
        "div",
        "span",
        "br",
        "b",
        "i",
        "em",
        "strong",
        "sub",
        "sup",
        "ul",
        "ol",
        "li",
        "img",
        "object",
        "a",
        "table",
        "tbody",
        "thead",
        "tr",
        "td",
        "th",
        "pre",
        "code",
        "blockquote",
        "h1",
        "h2",
        "h3",
        "h4",
        "h5",
        "h6",
        "hr",
        "q",
        "cite",
        "small",
        "figure",
        "figcaption",
        "audio",
        "video",
        "source",
        "script",
        "style",
    ];

    internal static XNamespace Space(QtiVersion version) =>
        version == QtiVersion.V22 ? "http://www.imsglobal.org/xsd/imsqti_v2p2" : "http://www.imsglobal.org/xsd/imsqtiasi_v3p0";

    internal static string Schema(QtiVersion version) =>
        version == QtiVersion.V22
            ? "http://www.imsglobal.org/xsd/qti/qtiv2p2/imsqti_v2p2.xsd"
            : "https://purl.imsglobal.org/spec/qti/v3p0/schema/xsd/imsqti_asiv3p0_v1p0.xsd";

    /// <summary>Where a standard template of response processing lies.</summary>
    internal static string Template(QtiVersion version, string name) =>
        version == QtiVersion.V22
            ? $"http://www.imsglobal.org/question/qti_v2p2/rptemplates/{name}"
            : $"https://purl.imsglobal.org/spec/qti/v3p0/rptemplates/{name}.xml";

    /// <summary>A tree with the names of 2.2 as one of a version, in its namespace.</summary>
    internal static XElement As(XElement tree, QtiVersion version)
    {
        var space = Space(version);
        return new XElement(
            space + (version == QtiVersion.V22 || Html.Contains(tree.Name.LocalName) ? tree.Name.LocalName : Prefix + Hyphened(tree.Name.LocalName)),
            tree.Attributes().Select(a => new XAttribute(version == QtiVersion.V22 ? a.Name.LocalName : Hyphened(a.Name.LocalName), a.Value)),
            tree.Nodes().Select(n => n is XElement child ? As(child, version) : n)
        );
    }

    /// <summary>A tree of either version with the names of 2.2, in no namespace.</summary>
    internal static XElement Plain(XElement tree) =>
        new(
            tree.Name.LocalName.StartsWith(Prefix, StringComparison.Ordinal) ? Joined(tree.Name.LocalName[Prefix.Length..]) : tree.Name.LocalName,
            tree.Attributes()
                .Where(a => !a.IsNamespaceDeclaration && a.Name.NamespaceName.Length == 0)
                .Select(a => new XAttribute(Joined(a.Name.LocalName), a.Value)),
            tree.Nodes().Select(n => n is XElement child ? Plain(child) : n)
        );

    private static string Hyphened(string name)
    {
        var text = new StringBuilder();
        foreach (var c in name)
            text.Append(char.IsUpper(c) ? "-" + char.ToLowerInvariant(c) : c.ToString());
        return text.ToString();
    }

    private static string Joined(string name) =>
        string.Concat(name.Split('-').Select((part, i) => i == 0 || part.Length == 0 ? part : char.ToUpperInvariant(part[0]) + part[1..]));
}
