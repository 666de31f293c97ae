using System.Globalization;
using System.Xml;
using System.Xml.Linq;
using Wexel.Core.Questions.Kinds;
using Wexel.Core.Questions.Lists;
using Wexel.Core.Scoring;

namespace Wexel.Core.Questions.Qti;

/// <summary>
/// Reads QTI items of 2.1, 2.2 and 3.0: what they ask, what is right, and what counts how much. What cannot be asked here is named, and the rest taken.
/// Nothing is fetched: entities and document types are refused, scripts are passed over, and media elsewhere stay there.
/// </summary>
public static class QtiReader
{
    private const long MostCharacters = 20_000_000;

    /// <summary>The interactions of QTI that questions here have.</summary>
    private static readonly HashSet<string> Known =
    [
        "choiceInteraction",
        "orderInteraction",
        "matchInteraction",
        "associateInteraction",
        "textEntryInteraction",
        "inlineChoiceInteraction",
    ];

    /// <summary>Reads the items of one or more documents.</summary>
    /// <param name="documents">Each with the name of its file; what holds no item is passed over.</param>
    public static QuestionList Read(IEnumerable<(string Name, string Xml)> documents)
    {
        var reading = new QuestionList.Reading();
        foreach (var (name, xml) in documents)
        {
            if (Parsed(xml, out var why) is not { } root)
            {
                reading.Named(name, why!);
                continue;
            }

            var items = root.Name.LocalName is "assessmentItem" ? [root] : root.Descendants("assessmentItem").ToList();
            foreach (var item in items)
                One(item, items.Count == 1 ? name : $"{name}, item {item.Attribute("identifier")?.Value}", reading);
        }

        if (reading.Questions.Count == 0 && reading.Problems.Count == 0)
            reading.Named("The file", "There is no QTI item in it.");
        return new QuestionList("QTI", reading.Questions, reading.Problems);
    }

    private static XElement? Parsed(string xml, out string? why)
    {
        why = null;
        try
        {
            using var reader = XmlReader.Create(
                new StringReader(xml),
                new XmlReaderSettings
                {
                    DtdProcessing = DtdProcessing.Prohibit,
                    XmlResolver = null,
                    MaxCharactersInDocument = MostCharacters,
                }
            );
            return QtiNames.Plain(XElement.Load(reader));
        }
        catch (XmlException failed)
        {
            why = failed.Message.Contains("DTD", StringComparison.Ordinal)
                ? "It has a document type or entities of its own, which are not read. Save it without them."
                : $"It is no well-formed XML at line {failed.LineNumber}.";
            return null;
        }
    }

    private static void One(XElement item, string name, QuestionList.Reading reading)
    {
        var body = item.Element("itemBody");
        var asked = body?.Descendants().Where(e => e.Name.LocalName.EndsWith("Interaction", StringComparison.Ordinal)).ToList() ?? [];
        var unknown = asked.Select(e => e.Name.LocalName).FirstOrDefault(n => !Known.Contains(n));
        if (body is null || asked.Count == 0)
        {
            reading.Named(name, "It asks nothing; it was left out.");
            return;
        }

        if (unknown is not null)
        {
            reading.Named(name, $"Its {unknown} cannot be asked here; it was left out.");
            return;
        }

        if (body.Descendants().Any(e => e.Name.LocalName is "img" or "object" or "audio" or "video"))
            reading.Named(name, "It has a picture or sound, which was left out; the question itself was taken.");
        var declarations = item.Elements("responseDeclaration").ToDictionary(d => d.Attribute("identifier")?.Value ?? "", d => d);
        var first = asked[0];
        var all = asked.All(a => a.Name.LocalName is "textEntryInteraction" or "inlineChoiceInteraction");
        var text = TextOf(body, asked, all && asked.Count > 1 ? null : "_____");
        var declared = declarations.GetValueOrDefault(first.Attribute("responseIdentifier")?.Value ?? "");
        var processing = item.Element("responseProcessing");
        var asks = (first.Name.LocalName, asked.Count) switch
        {
            ("choiceInteraction", 1) => Choice(first, declared, processing),
            ("orderInteraction", 1) => new PutInOrder(
                [.. Ordered(first.Elements("simpleChoice").Select(c => new Item(Id(c), Words(c))), Correct(declared))],
                InPart: processing?.Descendants("index").Any() == true
            ),
            ("matchInteraction", 1) => Match(first, declared, processing),
            ("textEntryInteraction", 1) => Typed(first, declared, processing, body),
            _ when all => Gaps(body, asked, declarations, processing),
            _ => (Interaction?)null,
        };
        if (asks is null)
        {
            reading.Named(
                name,
                asked.Count > 1
                    ? "It asks several things of different kinds at once; it was left out."
                    : $"Its {first.Name.LocalName} cannot be asked here; it was left out."
            );
            return;
        }

        if (asks is NumberTyped { Rule.Unit: { } unit } && text.EndsWith("\n" + unit, StringComparison.Ordinal))
            text = text[..^(unit.Length + 1)];
        var said = item.Elements("modalFeedback").ToLookup(f => f.Attribute("identifier")?.Value ?? "", Words);
        reading.Add(name, asks is FillGaps ? "" : text, WithReplies(asks, said), said["RIGHT"].FirstOrDefault() ?? "", said["WRONG"].FirstOrDefault() ?? "");
    }

    private static Interaction WithReplies(Interaction asks, ILookup<string, string> said)
    {
        IReadOnlyList<Option> Said(IReadOnlyList<Option> options) =>
            [.. options.Select(o => said[o.Id].FirstOrDefault() is { Length: > 0 } reply ? o with { Reply = reply } : o)];
        return asks switch
        {
            ChooseOne one => one with { Options = Said(one.Options) },
            ChooseSeveral several => several with { Options = Said(several.Options) },
            TrueOrFalse truth => truth with { ReplyToTrue = said["true"].FirstOrDefault(), ReplyToFalse = said["false"].FirstOrDefault() },
            _ => asks,
        };
    }

    private static Interaction Choice(XElement interaction, XElement? declared, XElement? processing)
    {
        var right = Correct(declared).ToHashSet();
        var mapping = MapsOf(declared, processing);
        var most = mapping?.Values.DefaultIfEmpty(0).Max() ?? 0;
        var one = declared?.Attribute("cardinality")?.Value == "single";
        var total = one ? most : NumberOf(declared?.Element("mapping")?.Attribute("upperBound")?.Value) ?? mapping?.Values.Where(v => v > 0).Sum() ?? 0;
        var options = interaction
            .Elements("simpleChoice")
            .Select(c =>
            {
                var (id, counts) = (Id(c), mapping is null || total <= 0 ? (int?)null : (int)Math.Round(100 * mapping.GetValueOrDefault(Id(c)) / total));
                var isRight =
                    mapping is null ? right.Contains(id)
                    : one ? counts == 100
                    : counts > 0;
                return new Option(id, Words(c), isRight, counts is null || (one && counts is 0 or 100) ? null : counts);
            })
            .ToList();
        if (one && options is [{ Id: "true" }, { Id: "false" }] && right.Count == 1)
            return new TrueOrFalse(right.Contains("true"));
        var shuffle = interaction.Attribute("shuffle")?.Value == "true";
        return one ? new ChooseOne(options, shuffle)
            : InPart(options) ? new ChooseSeveral([.. options.Select(o => o with { PerCent = null })], shuffle, true)
            : new ChooseSeveral(options, shuffle);
    }

    /// <summary>Whether options count as several in part do by themselves: each right one the same, each wrong one as much less.</summary>
    private static bool InPart(List<Option> options)
    {
        var part = 100.0 / Math.Max(1, options.Count(o => o.Right));
        return options.Exists(o => o.PerCent is not null) && options.TrueForAll(o => o.PerCent is { } p && Math.Abs(p - (o.Right ? part : -part)) <= 1);
    }

    private static MatchPairs Match(XElement interaction, XElement? declared, XElement? processing)
    {
        var sets = interaction.Elements("simpleMatchSet").Select(s => s.Elements("simpleAssociableChoice").ToDictionary(Id, Words)).ToList();
        var (left, right) = sets is [var a, var b] ? (a, b) : ([], []);
        var pairs = Correct(declared)
            .Select(value => value.Split(' '))
            .Where(p => p.Length == 2 && left.ContainsKey(p[0]) && right.ContainsKey(p[1]))
            .DistinctBy(p => p[0])
            .ToList();
        // One on the right may belong to several.
        return new MatchPairs(
            [.. pairs.Select((p, i) => new MatchPair(p[0], left[p[0]], pairs.Take(i).Any(o => o[1] == p[1]) ? $"{p[1]}-{i}" : p[1], right[p[1]]))],
            [.. right.Where(r => pairs.All(p => p[1] != r.Key)).Select(r => new Item(r.Key, r.Value))],
            InPart: MapsOf(declared, processing) is not null
        );
    }

    private static Interaction Typed(XElement interaction, XElement? declared, XElement? processing, XElement body)
    {
        if (declared?.Attribute("baseType")?.Value is "float" or "integer")
        {
            var equal = processing?.Descendants("equal").FirstOrDefault();
            var tolerance = equal?.Attribute("tolerance")?.Value.Split(' ')[0];
            var unit = interaction.Parent == body ? null : interaction.NodesAfterSelf().OfType<XText>().FirstOrDefault()?.Value.Trim();
            return new NumberTyped(
                NumberOf(Correct(declared).FirstOrDefault()),
                new NumberRule(
                    NumberOf(tolerance) ?? 0,
                    equal?.Attribute("toleranceMode")?.Value == "relative",
                    unit is { Length: > 0 and <= 20 } ? unit : null
                )
            );
        }

        return new ShortText(Accepted(declared), new TextRule(Capitals: IsCaseSensitive(declared), Slips: false));
    }

    private static IReadOnlyList<Accepted> Accepted(XElement? declared)
    {
        var mapping = declared
            ?.Element("mapping")
            ?.Elements("mapEntry")
            .Select(e => (Key: e.Attribute("mapKey")?.Value ?? "", Value: NumberOf(e.Attribute("mappedValue")?.Value) ?? 0))
            .ToList();
        if (mapping is not { Count: > 0 })
            return [.. Correct(declared).Select(text => new Accepted(text))];
        var most = mapping.Max(e => e.Value);
        return [.. mapping.Select(e => new Accepted(e.Key, most > 0 ? (int)Math.Round(100 * Math.Max(0, e.Value) / most) : 0))];
    }

    private static bool IsCaseSensitive(XElement? declared) =>
        declared?.Element("mapping")?.Elements("mapEntry").All(e => e.Attribute("caseSensitive")?.Value != "false") ?? false;

    private static FillGaps Gaps(XElement body, List<XElement> asked, Dictionary<string, XElement> declarations, XElement? processing)
    {
        var words = new List<string>();
        var place = new Dictionary<XElement, string>();
        foreach (var gap in asked)
        {
            var declared = declarations.GetValueOrDefault(gap.Attribute("responseIdentifier")?.Value ?? "");
            var choices = gap.Elements("inlineChoice").ToDictionary(Id, Words);
            var accepted = Accepted(declared).Where(a => a.PerCent == 100).Select(a => choices.GetValueOrDefault(a.Text, a.Text)).ToList();
            place[gap] =
                $"[[{string.Join('|', accepted.Select(a => a.Replace("[", "(", StringComparison.Ordinal).Replace("]", ")", StringComparison.Ordinal)))}]]";
            words.AddRange(choices.Values.Except(accepted));
        }

        var chosen = asked.All(a => a.Name.LocalName == "inlineChoiceInteraction");
        var whole = processing?.Elements("responseCondition").Elements("responseIf").Elements("gte").Elements("sum").Any() == true;
        return new FillGaps(TextOf(body, asked, null, place), new TextRule(Slips: false), chosen ? [.. words.Distinct()] : null, InPart: !whole);
    }

    /// <summary>What stands in an item besides its interactions; each of these as a mark, or as what is given for it.</summary>
    private static string TextOf(XElement body, List<XElement> asked, string? mark, Dictionary<XElement, string>? marks = null)
    {
        var text = new System.Text.StringBuilder();
        Add(body);
        var inline = asked is [{ Name.LocalName: "textEntryInteraction" } one] && !IsLast(one, body);
        var plain = text.ToString().Replace("\uE000", inline ? mark : "", StringComparison.Ordinal);
        return string.Join(
            '\n',
            plain.Split('\n').Select(line => string.Join(' ', line.Split(' ', StringSplitOptions.RemoveEmptyEntries))).Where(line => line.Length > 0)
        );

        void Add(XElement element)
        {
            foreach (var node in element.Nodes())
            {
                if (node is XText words)
                    text.Append(words.Value.ReplaceLineEndings(" ").Replace('\t', ' '));
                else if (node is XElement child && asked.Contains(child))
                    Asked(child);
                else if (node is XElement { Name.LocalName: not ("script" or "style" or "rubricBlock" or "feedbackBlock" or "feedbackInline") } other)
                {
                    var breaks = other.Name.LocalName is "p" or "div" or "br" or "li" or "blockquote" or "h1" or "h2" or "h3" or "tr";
                    Add(other);
                    text.Append(breaks ? "\n" : "");
                }
            }
        }

        void Asked(XElement interaction)
        {
            text.Append(marks?[interaction] ?? "\uE000");
            if (interaction.Element("prompt") is not { } prompt)
                return;
            text.Append('\n');
            Add(prompt);
            text.Append('\n');
        }
    }

    /// <summary>Whether nothing but a unit stands behind a field.</summary>
    private static bool IsLast(XElement interaction, XElement body) =>
        body.Value.TrimEnd() is var whole
        && interaction.NodesAfterSelf().OfType<XText>().Select(t => t.Value.Trim()).FirstOrDefault("") is var after
        && after.Length <= 20
        && whole.EndsWith(after, StringComparison.Ordinal);

    private static string Words(XElement element) =>
        string.Join(
            ' ',
            string.Concat(
                    element
                        .DescendantNodes()
                        .OfType<XText>()
                        .Where(t => t.Ancestors().TakeWhile(a => a != element).All(a => a.Name.LocalName is not ("script" or "style" or "feedbackInline")))
                        .Select(t => t.Value)
                )
                .Split([' ', '\n', '\r', '\t'], StringSplitOptions.RemoveEmptyEntries)
        );

    private static string Id(XElement element) => element.Attribute("identifier")?.Value ?? "";

    private static List<string> Correct(XElement? declared) =>
        declared?.Element("correctResponse")?.Elements("value").Select(v => v.Value.Trim()).ToList() ?? [];

    private static IEnumerable<Item> Ordered(IEnumerable<Item> items, List<string> correct)
    {
        var known = items.DistinctBy(i => i.Id).ToDictionary(i => i.Id);
        return correct.Where(known.ContainsKey).Select(id => known[id]);
    }

    /// <summary>What values count, where the processing goes by that.</summary>
    private static Dictionary<string, double>? MapsOf(XElement? declared, XElement? processing)
    {
        var maps =
            processing?.Attribute("template")?.Value.Contains("map_response", StringComparison.Ordinal) == true
            || processing?.Descendants("mapResponse").Any() == true;
        return maps && declared?.Element("mapping") is { } mapping
            ? mapping
                .Elements("mapEntry")
                .DistinctBy(e => e.Attribute("mapKey")?.Value)
                .ToDictionary(e => e.Attribute("mapKey")?.Value ?? "", e => NumberOf(e.Attribute("mappedValue")?.Value) ?? 0)
            : null;
    }

    private static double? NumberOf(string? text) =>
        double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) && double.IsFinite(number) ? number : null;
}
