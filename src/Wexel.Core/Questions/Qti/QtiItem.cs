using System.Globalization;
using System.Xml.Linq;
using Wexel.Core.Questions.Kinds;
using Wexel.Core.Scoring;

namespace Wexel.Core.Questions.Qti;

/// <summary>Writes a question as a QTI item: declarations, body and processing as it is judged here.</summary>
internal static class QtiItem
{
    private const string Response = "RESPONSE";

    /// <summary>Whether a question can be written: what is clicked on a picture needs that picture.</summary>
    internal static bool CanBe(Question question, QtiPictures pictures) => !question.Asks.IsOnPicture || pictures.Clicked is not null;

    /// <summary>The item, with the names of QTI 2.2 and in no namespace.</summary>
    /// <param name="question">The question; what is clicked as shares of the picture that goes along.</param>
    /// <param name="pictures">Its pictures.</param>
    /// <param name="version">Where its templates lie, and how a picture that is clicked is written.</param>
    internal static XElement Write(Question question, QtiPictures pictures, QtiVersion version)
    {
        var key = question.Asks.Key;
        var several = key.Responses.Count > 1;
        var names = key.Responses.Select((_, i) => several ? $"{Response}{i + 1}" : Response).ToList();
        return new XElement(
            "assessmentItem",
            new XAttribute("identifier", Identifier(question.Id)),
            new XAttribute("title", question.Text.Length > 0 ? Problem.Shown(question.Text.ReplaceLineEndings(" ")) : question.Asks.InWords),
            new XAttribute("adaptive", "false"),
            new XAttribute("timeDependent", "false"),
            key.Responses.Select((r, i) => Declaration(InPixels(ByName(r, question), pictures.Clicked), names[i], key)),
            new XElement(
                "outcomeDeclaration",
                new XAttribute("identifier", "SCORE"),
                new XAttribute("cardinality", "single"),
                new XAttribute("baseType", "float")
            ),
            Feedback(question).Any()
                ? new XElement(
                    "outcomeDeclaration",
                    new XAttribute("identifier", "FEEDBACK"),
                    new XAttribute("cardinality", "multiple"),
                    new XAttribute("baseType", "identifier")
                )
                : null,
            new XElement(
                "itemBody",
                pictures.Shown is { } shown ? new XElement("p", Image(shown)) : null,
                Body(question, names, pictures.Clicked is { } clicked ? Clickable(clicked, version) : null)
            ),
            Processing(question, names, version),
            Feedback(question)
                .Select(f => new XElement(
                    "modalFeedback",
                    new XAttribute("outcomeIdentifier", "FEEDBACK"),
                    new XAttribute("identifier", f.Identifier),
                    new XAttribute("showHide", "show"),
                    new XElement("p", f.Text)
                ))
        );
    }

    /// <summary>A name as XML and QTI take it (an NCName).</summary>
    internal static string Identifier(string id) =>
        char.IsAsciiLetter(id.Length > 0 ? id[0] : '0') && id.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '_')
            ? id
            : "q-" + string.Concat(id.Where(char.IsAsciiLetterOrDigit));

    private static XElement Declaration(ResponseDeclaration response, string name, AnswerKey key) =>
        new(
            "responseDeclaration",
            new XAttribute("identifier", name),
            new XAttribute("cardinality", response.Cardinality.ToString().ToLowerInvariant()),
            new XAttribute("baseType", char.ToLowerInvariant(response.BaseType.ToString()[0]) + response.BaseType.ToString()[1..]),
            new XElement("correctResponse", response.Correct.Select(value => new XElement("value", value))),
            response.Mapping is { } mapping
                ? new XElement(
                    "mapping",
                    mapping.Lower is { } lower ? new XAttribute("lowerBound", Number(lower)) : null,
                    mapping.Upper is { } upper ? new XAttribute("upperBound", Number(upper)) : null,
                    new XAttribute("defaultValue", Number(mapping.Default)),
                    mapping.Entries.Select(e => new XElement(
                        "mapEntry",
                        new XAttribute("mapKey", e.Key),
                        new XAttribute("mappedValue", Number(e.Value)),
                        response.BaseType == BaseType.String ? new XAttribute("caseSensitive", key.Text?.Capitals == true ? "true" : "false") : null
                    ))
                )
                : null,
            response.Areas is { } areas
                ? new XElement(
                    "areaMapping",
                    new XAttribute("defaultValue", Number(areas.Default)),
                    areas.Entries.Select(e => new XElement(
                        "areaMapEntry",
                        new XAttribute("shape", QtiShapes.Name(e.Shape)),
                        new XAttribute("coords", QtiShapes.Coords(e.Shape)),
                        new XAttribute("mappedValue", Number(e.Value))
                    ))
                )
                : null
        );

    /// <summary>Places as QTI has them, in pixels of the picture.</summary>
    private static ResponseDeclaration InPixels(ResponseDeclaration response, QtiPicture? on)
    {
        if (response.Areas is not { } areas || on is null)
            return response;
        return response with
        {
            Correct = [.. response.Correct.Select(Place.Read).OfType<Place>().Select(On).Select(p => $"{Number(p.X)} {Number(p.Y)}")],
            Areas = areas with { Entries = [.. areas.Entries.Select(e => e with { Shape = e.Shape.Moved(e.Shape.Kind == ShapeKind.Ellipse ? On : Within) })] },
        };

        // Corners that learners do not see lie on the edge; an ellipse would be another for that.
        Place Within(Place place)
        {
            var (x, y) = (On(place).X, On(place).Y);
            return new Place(Math.Clamp(x, 0, on.Width), Math.Clamp(y, 0, on.Height));
        }

        Place On(Place place) => new(Math.Round(place.X * on.Width / Place.Steps), Math.Round(place.Y * on.Height / Place.Steps));
    }

    /// <summary>A picture; items lie in a folder of the package.</summary>
    private static XElement Image(string path, params XAttribute[] size) => new("img", new XAttribute("src", "../" + path), new XAttribute("alt", ""), size);

    /// <summary>A picture on which places are clicked: QTI 2.2 has an object in <c>selectPointInteraction</c>, 3.0 an img.</summary>
    private static XElement Clickable(QtiPicture picture, QtiVersion version)
    {
        XAttribute[] size = [new("width", picture.Width), new("height", picture.Height)];
        return version == QtiVersion.V30
            ? Image(picture.Path, size)
            : new XElement("object", new XAttribute("type", "image/jpeg"), new XAttribute("data", "../" + picture.Path), size);
    }

    /// <summary>Words that are chosen for gaps are named in QTI, and not written out.</summary>
    private static ResponseDeclaration ByName(ResponseDeclaration response, Question question)
    {
        if (question.Asks is not FillGaps { Words: not null } gaps)
            return response;
        var words = gaps.Form(question.Id).Targets!.Select((w, n) => (w.Text, Name: $"w{n + 1}")).ToDictionary();
        return response with
        {
            BaseType = BaseType.Identifier,
            Correct = [.. response.Correct.Select(value => words[value])],
            Mapping = new Mapping([.. response.Mapping!.Entries.Where(e => words.ContainsKey(e.Key)).Select(e => e with { Key = words[e.Key] })]),
        };
    }

    private static IEnumerable<XElement> Body(Question question, List<string> names, XElement? clicked)
    {
        var prompt = question.Text.Length > 0 ? new XElement("prompt", Lines(question.Text)) : null;
        XElement[] asked = question.Text.Length > 0 ? [new XElement("p", Lines(question.Text))] : [];
        XAttribute response = new("responseIdentifier", Response);
        return question.Asks switch
        {
            ChooseOne one => [Choices(one.Options.Select(o => (o.Id, o.Text)), one.Shuffle, 1)],
            ChooseSeveral several => [Choices(several.Options.Select(o => (o.Id, o.Text)), several.Shuffle, 0)],
            TrueOrFalse => [Choices([("true", "True"), ("false", "False")], false, 1)],
            ShortText => [.. asked, new XElement("p", new XElement("textEntryInteraction", response))],
            NumberTyped number =>
            [
                .. asked,
                new XElement("p", new XElement("textEntryInteraction", response), number.Rule.Unit is { } unit ? $" {unit}" : null),
            ],
            PutInOrder order =>
            [
                new XElement(
                    "orderInteraction",
                    response,
                    new XAttribute("shuffle", "true"),
                    prompt,
                    order.Form(question.Id).Options!.Select(o => new XElement("simpleChoice", new XAttribute("identifier", o.Id), o.Text))
                ),
            ],
            MatchPairs match =>
            [
                new XElement(
                    "matchInteraction",
                    response,
                    new XAttribute("shuffle", "true"),
                    new XAttribute("maxAssociations", match.Pairs.Count),
                    prompt,
                    new XElement("simpleMatchSet", match.Pairs.Select(p => Associable(p.Id, p.Text, 1))),
                    new XElement("simpleMatchSet", match.Form(question.Id).Targets!.Select(t => Associable(t.Id, t.Text, match.Pairs.Count)))
                ),
            ],
            FillGaps gaps => [.. asked, new XElement("p", Gaps(gaps, question.Id, names))],
            ClickPlace => [new XElement("selectPointInteraction", response, new XAttribute("maxChoices", 1), prompt, clicked)],
            _ => throw new ArgumentException("It is no kind of question.", nameof(question)),
        };

        XElement Choices(IEnumerable<(string Id, string Text)> options, bool shuffle, int most) =>
            new(
                "choiceInteraction",
                response,
                new XAttribute("shuffle", shuffle ? "true" : "false"),
                new XAttribute("maxChoices", most),
                prompt,
                options.Select(o => new XElement("simpleChoice", new XAttribute("identifier", o.Id), o.Text))
            );
    }

    private static XElement Associable(string id, string text, int most) =>
        new("simpleAssociableChoice", new XAttribute("identifier", id), new XAttribute("matchMax", most), text);

    private static IEnumerable<object> Gaps(FillGaps gaps, string seed, List<string> names)
    {
        var form = gaps.Form(seed);
        for (var i = 0; i < form.Parts!.Count; i++)
        {
            yield return form.Parts[i];
            if (i >= names.Count)
                continue;
            yield return form.Targets is { } words
                ? new XElement(
                    "inlineChoiceInteraction",
                    new XAttribute("responseIdentifier", names[i]),
                    new XAttribute("shuffle", "false"),
                    words.Select((w, n) => new XElement("inlineChoice", new XAttribute("identifier", $"w{n + 1}"), w.Text))
                )
                : new XElement("textEntryInteraction", new XAttribute("responseIdentifier", names[i]));
        }
    }

    /// <summary>What is said: to single answers by their names, to a right one and to any other.</summary>
    private static IEnumerable<(string Identifier, string Text)> Feedback(Question question)
    {
        foreach (var reply in question.Asks.Key.Replies.Where(r => question.Asks is ChooseOne or ChooseSeveral or TrueOrFalse && Options.IsId(r.To)))
            yield return (reply.To, reply.Says);
        if (question.Right.Length > 0)
            yield return ("RIGHT", question.Right);
        if (question.Wrong.Length > 0)
            yield return ("WRONG", question.Wrong);
    }

    /// <summary>One of the standard templates where it says all; else the same written out, with tolerance, parts of gaps, and what is said.</summary>
    private static XElement Processing(Question question, List<string> names, QtiVersion version)
    {
        var key = question.Asks.Key;
        var plain = key.Responses is [var single] && key.Number is null or { Within: 0 } && !Feedback(question).Any() && !single.Places;
        if (plain)
            return new XElement(
                "responseProcessing",
                new XAttribute(
                    "template",
                    QtiNames.Template(
                        version,
                        key.Responses[0].Areas is not null ? "map_response_point"
                            : key.Responses[0].Mapping is not null ? "map_response"
                            : "match_correct"
                    )
                )
            );
        var own = question.Asks is ChooseOne or TrueOrFalse or ChooseSeveral && key.Replies.Count > 0;
        return new XElement("responseProcessing", Score(key, names), Feedback(question).Any() ? Says() : null);

        XElement Says() =>
            new(
                "responseCondition",
                new XElement("responseIf", new XElement("gte", Variable("SCORE"), Float(1)), Set("FEEDBACK", Said("RIGHT"))),
                new XElement("responseElse", Set("FEEDBACK", Said("WRONG")))
            );
        XElement Said(string which) =>
            new("multiple", new XElement("baseValue", new XAttribute("baseType", "identifier"), which), own ? Variable(Response) : null);
    }

    /// <summary>What sets the score to the share of the points, 0 to 1.</summary>
    private static IEnumerable<XElement> Score(AnswerKey key, List<string> names)
    {
        var response = key.Responses[0];
        var correct = new XElement("correct", new XAttribute("identifier", Response));
        if (key.Responses.Count > 1)
        {
            var sum = new XElement("sum", names.Select(n => new XElement("mapResponse", new XAttribute("identifier", n))));
            yield return key.AllOrNothing ? Whole(new XElement("gte", sum, Float(names.Count))) : Set("SCORE", new XElement("divide", sum, Float(names.Count)));
        }
        else if (response.Places)
        {
            yield return Set("SCORE", Float(0));
            for (var n = 1; n <= response.Correct.Count; n++)
                yield return If(
                    new XElement("match", Nth(n, Variable(Response)), Nth(n, correct)),
                    Set("SCORE", new XElement("sum", Variable("SCORE"), Float(1.0 / response.Correct.Count)))
                );
        }
        else if (response.Areas is not null)
            yield return Set("SCORE", new XElement("mapResponsePoint", new XAttribute("identifier", Response)));
        else if (response.Mapping is not null)
        {
            var mapped = new XElement("mapResponse", new XAttribute("identifier", Response));
            yield return Set("SCORE", response.Most is var most and > 0 and not 1 ? new XElement("divide", mapped, Float(most)) : mapped);
        }
        else
        {
            var rule = key.Number;
            var right = rule is { Within: > 0 }
                ? new XElement(
                    "equal",
                    new XAttribute("toleranceMode", rule.PerCent ? "relative" : "absolute"),
                    new XAttribute("tolerance", Number(rule.Within)),
                    Variable(Response),
                    correct
                )
                : new XElement("match", Variable(Response), correct);
            yield return Whole(right);
        }
    }

    /// <summary>All of the points where something holds, none where not.</summary>
    private static XElement Whole(XElement holds) =>
        new("responseCondition", new XElement("responseIf", holds, Set("SCORE", Float(1))), new XElement("responseElse", Set("SCORE", Float(0))));

    private static XElement If(XElement condition, XElement then) => new("responseCondition", new XElement("responseIf", condition, then));

    private static XElement Nth(int n, XElement container) => new("index", new XAttribute("n", n), container);

    private static XElement Set(string outcome, XElement value) => new("setOutcomeValue", new XAttribute("identifier", outcome), value);

    private static XElement Variable(string name) => new("variable", new XAttribute("identifier", name));

    private static XElement Float(double value) => new("baseValue", new XAttribute("baseType", "float"), Number(value));

    private static string Number(double value) => value.ToString("R", CultureInfo.InvariantCulture);

    private static IEnumerable<object> Lines(string text) =>
        text.Split('\n').SelectMany((line, i) => i == 0 ? new object[] { line } : [new XElement("br"), line]);
}
