using System.Text.Json.Serialization;
using System.Text.RegularExpressions;
using Wexel.Core.Keys;
using Wexel.Core.Scoring;

namespace Wexel.Core.Questions.Kinds;

/// <summary>A text with gaps that are filled.</summary>
/// <param name="Text">The text; a gap stands in it as what is right between double brackets, with others that are accepted behind bars:
/// <c>A trailer up to [[8|eight]] m goes to lane [[B]].</c></param>
/// <param name="Rule">How closely what is typed must be so.</param>
/// <param name="Words">Words that are wrong and offered with the right ones, to be chosen and not typed; null where gaps are typed.</param>
/// <param name="InPart">Whether each gap counts its part.</param>
public sealed partial record FillGaps(string Text, TextRule? Rule = null, IReadOnlyList<string>? Words = null, bool InPart = true) : Interaction
{
    internal const string Name = "gaps";

    /// <summary>The longest text, in characters.</summary>
    public const int LongestText = 2000;

    /// <summary>How closely what is typed must be so.</summary>
    public TextRule Rule { get; init; } = Rule ?? new TextRule();

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string InWords => "fill the gaps";

    /// <summary>What is accepted in each gap, the right one first.</summary>
    [JsonIgnore]
    public IReadOnlyList<IReadOnlyList<string>> Gaps =>
        [
            .. Gap()
                .Matches(Text)
                .Select(m => (IReadOnlyList<string>)[.. m.Groups[1].Value.Split('|', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)]),
        ];

    /// <inheritdoc/>
    [JsonIgnore]
    public override AnswerKey Key
    {
        get
        {
            IReadOnlyList<ResponseDeclaration> each =
            [
                .. Gaps.Select(g => new ResponseDeclaration(
                    Cardinality.Single,
                    BaseType.String,
                    [.. g.Take(1)],
                    new Mapping([.. g.Select(text => new MapEntry(text, 1))])
                )),
            ];
            return new AnswerKey(each, Rule, AllOrNothing: !InPart);
        }
    }

    /// <inheritdoc/>
    public override AskedForm Form(string seed) =>
        new(
            Name,
            Targets: Words is null
                ? null
                :
                [
                    .. Mixed(Gaps.Select(g => g[0]).Concat(Words).Distinct(StringComparer.Ordinal), seed, word => word)
                        .Select(word => new AskedOption(word, word)),
                ],
            Parts: Gap().Split(Text) is var parts ? [.. parts.Where((_, i) => i % 2 == 0)] : []
        );

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<string> Faults
    {
        get
        {
            if (Gaps.Count == 0)
                yield return "It has no gap. Put what is to be filled in between double brackets, such as [[lane B]].";
            if (Gaps.Any(g => g.Count == 0))
                yield return "A gap has no right answer. Write it between its double brackets.";
            if (Gaps.Count > MostOptions)
                yield return $"It has {Gaps.Count} gaps; {MostOptions} is the most. Ask two questions.";
        }
    }

    /// <inheritdoc/>
    public override Interaction Tidied() =>
        this with
        {
            Text = Contents.SectionRules.OneLine(Text ?? "", LongestText),
            Words = Words is null ? null : [.. Words.Select(Line).Where(w => w.Length > 0).Distinct().Take(MostOptions)],
        };

    /// <inheritdoc/>
    public override void Declare(KeyFields key) =>
        key.Add("text", Text)
            .Add("capitals", Rule.Capitals)
            .Add("spaces", Rule.Spaces)
            .Add("slips", Rule.Slips)
            .Add("chosen", Words is not null)
            .Each("words", Words)
            .Add("in-part", InPart);

    /// <inheritdoc/>
    public override string Said(IReadOnlyList<string> answer) => string.Join(" · ", answer.Select(a => a.Length > 0 ? a : "nothing"));

    [GeneratedRegex(@"\[\[([^\[\]]*)\]\]")]
    private static partial Regex Gap();
}
