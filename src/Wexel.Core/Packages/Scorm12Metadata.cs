using System.Globalization;
using System.Text;
using System.Xml;
using System.Xml.Linq;
using Wexel.Core.Details;

namespace Wexel.Core.Packages;

/// <summary>
/// What a manifest says about a lesson: IEEE 1484.12.1 learning object metadata in the binding that SCORM 1.2 takes, IMS Learning Resource
/// Meta-data 1.2.1 (Content Aggregation Model, section 2.2).
/// </summary>
public static class Scorm12Metadata
{
    /// <summary>The namespace of the binding.</summary>
    public static readonly XNamespace Namespace = "http://www.imsglobal.org/xsd/imsmd_rootv1p2p1";

    /// <summary>The schema of the binding, which stands beside the manifest.</summary>
    public const string SchemaFile = "imsmd_rootv1p2p1.xsd";

    /// <summary>The most characters of a keyword (section 2.2, general.keyword).</summary>
    private const int LongestKeyword = 1000;

    /// <summary>The metadata of a lesson.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="identifier">A name that stays the same whenever the package is made again.</param>
    /// <param name="page">The page that is launched.</param>
    /// <param name="mediaType">What its video is.</param>
    public static XElement Describe(PlayerLesson lesson, string identifier, string page, string mediaType)
    {
        var details = lesson.Details;
        var length = XmlConvert.ToString(TimeSpan.FromSeconds(Math.Round(lesson.Length.TotalSeconds)));
        return new XElement(
            Namespace + "lom",
            Part(
                "general",
                Strings("title", lesson.Title),
                new XElement(Namespace + "catalogentry", Plain("catalog", "Wexel"), Strings("entry", identifier)),
                Plain("language", lesson.Language),
                Strings("description", lesson.Description.Length > 0 ? lesson.Description : lesson.Title),
                details.Tags.Select(t => Strings("keyword", t.Length <= LongestKeyword ? t : t[..LongestKeyword]))
            ),
            Part(
                "lifecycle",
                Term("status", "Final"),
                details.Author is { } author
                    ? new XElement(
                        Namespace + "contribute",
                        Term("role", "Author"),
                        new XElement(Namespace + "centity", new XElement(Namespace + "vcard", Card(author)))
                    )
                    : null
            ),
            Part(
                "technical",
                Plain("format", mediaType),
                new XElement(Namespace + "location", new XAttribute("type", "URI"), page),
                new XElement(Namespace + "duration", new XElement(Namespace + "datetime", length))
            ),
            Part(
                "educational",
                Term("learningresourcetype", "Lecture"),
                details.FromAge is { } age ? Strings("typicalagerange", string.Create(CultureInfo.InvariantCulture, $"{age}-")) : null,
                new XElement(Namespace + "typicallearningtime", new XElement(Namespace + "datetime", length))
            ),
            details.Licence is { } licence
                ? Part(
                    "rights",
                    Term("cost", "no"),
                    Term("copyrightandotherrestrictions", licence.Id == "CC0-1.0" ? "no" : "yes"),
                    Strings("description", licence.Terms is { } terms ? $"{licence.Name} ({terms})" : licence.Name)
                )
                : null,
            details.Category is { } category
                ? Part("classification", Term("purpose", "Discipline"), Strings("description", category), Strings("keyword", category))
                : null
        );

        XElement Strings(string name, string text) =>
            new(Namespace + name, new XElement(Namespace + "langstring", new XAttribute(XNamespace.Xml + "lang", lesson.Language), XmlText.Printable(text)));
    }

    private static XElement Part(string name, params object?[] parts) => new(Namespace + name, parts);

    private static XElement Plain(string name, string text) => new(Namespace + name, XmlText.Printable(text));

    /// <summary>A word of the vocabulary that the standard gives; in it, words are of no language.</summary>
    private static XElement Term(string name, string word) =>
        new(Namespace + name, new XElement(Namespace + "source", Neutral("LOMv1.0")), new XElement(Namespace + "value", Neutral(word)));

    private static XElement Neutral(string word) => new(Namespace + "langstring", new XAttribute(XNamespace.Xml + "lang", "x-none"), word);

    /// <summary>A person as a vCard 3.0 (RFC 2426, sections 3.1.1, 3.1.2, 3.3.2 and 3.6.8).</summary>
    private static string Card(Author author)
    {
        var card = new StringBuilder("BEGIN:VCARD\r\nVERSION:3.0\r\n");
        card.Append(CultureInfo.InvariantCulture, $"N:{Escaped(author.Name)}\r\nFN:{Escaped(author.Name)}\r\n");
        if (author.Contact is { } contact)
            card.Append(
                CultureInfo.InvariantCulture,
                $"{(contact.StartsWith("http", StringComparison.OrdinalIgnoreCase) ? "URL" : "EMAIL;TYPE=internet")}:{Escaped(contact)}\r\n"
            );
        return XmlText.Printable(card.Append("END:VCARD").ToString());
    }

    /// <summary>Section 4: backslash, comma and semicolon are written with a backslash before them.</summary>
    private static string Escaped(string text) =>
        text.Replace("\\", "\\\\", StringComparison.Ordinal).Replace(",", "\\,", StringComparison.Ordinal).Replace(";", "\\;", StringComparison.Ordinal);
}
