using System.Text.Json.Serialization;
using Wexel.Core.Keys;
using Wexel.Core.Scoring;

namespace Wexel.Core.Questions.Kinds;

/// <summary>Two things that belong together.</summary>
/// <param name="Id">What names the left one.</param>
/// <param name="Text">What the left one says.</param>
/// <param name="With">What names the right one.</param>
/// <param name="WithText">What the right one says.</param>
public sealed record MatchPair(string Id, string Text, string With, string WithText);

/// <summary>Pairs that are matched.</summary>
/// <param name="Pairs">What belongs together.</param>
/// <param name="Others">What stands on the right side too, and belongs to nothing.</param>
/// <param name="InPart">Whether each pair counts its part.</param>
public sealed record MatchPairs(IReadOnlyList<MatchPair> Pairs, IReadOnlyList<Item>? Others = null, bool InPart = false) : Interaction
{
    internal const string Name = "match";

    /// <summary>What stands on the right side too, and belongs to nothing.</summary>
    public IReadOnlyList<Item> Others { get; init; } = Others ?? [];

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string InWords => "match pairs";

    /// <inheritdoc/>
    [JsonIgnore]
    public override AnswerKey Key
    {
        get
        {
            // What says the same on the right is the same, whichever of them is taken.
            IReadOnlyList<string> right = [.. Pairs.Select(p => $"{p.Id} {FirstSaying(p.WithText)}")];
            var mapping = InPart ? new Mapping([.. right.Select(r => new MapEntry(r, 1.0 / right.Count))], Lower: 0, Upper: 1) : null;
            return new AnswerKey([new ResponseDeclaration(Cardinality.Multiple, BaseType.DirectedPair, right, mapping)]);
        }
    }

    /// <inheritdoc/>
    public override AskedForm Form(string seed) =>
        new(
            Name,
            [.. Pairs.Select(p => new AskedOption(p.Id, p.Text))],
            [
                .. Mixed(
                    Pairs.Select(p => new AskedOption(p.With, p.WithText)).Concat(Others.Select(o => new AskedOption(o.Id, o.Text))).DistinctBy(o => o.Text),
                    seed,
                    o => o.Id
                ),
            ]
        );

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<string> Faults
    {
        get
        {
            if (Pairs.Count(p => p is { Text.Length: > 0, WithText.Length: > 0 }) < 2)
                yield return "It needs two pairs or more. Add one.";
            else if (Pairs.Any(p => p.Text.Length == 0 || p.WithText.Length == 0))
                yield return "A pair has only one side. Write the other, or take it out.";
            foreach (var sentence in SameTwice(Pairs.Select(p => p.Text), "pairs"))
                yield return sentence;
            if (Others.Any(o => Pairs.Any(p => p.WithText == o.Text)))
                yield return "What belongs to nothing says the same as one of a pair. Change it.";
        }
    }

    /// <inheritdoc/>
    public override Interaction Tidied()
    {
        var pairs = (Pairs ?? []).OfType<MatchPair>().Take(MostOptions).ToList();
        var others = Others.OfType<Item>().Take(MostOptions).Where(o => Line(o.Text).Length > 0).ToList();
        var left = Options.Ids([.. pairs.Select(p => p.Id)]);
        var right = Options.Ids([.. pairs.Select(p => p.With), .. others.Select(o => o.Id)]);
        return this with
        {
            Pairs = [.. pairs.Select((p, i) => new MatchPair(left[i], Line(p.Text), right[i], Line(p.WithText)))],
            Others = [.. others.Select((o, i) => new Item(right[pairs.Count + i], Line(o.Text)))],
        };
    }

    /// <inheritdoc/>
    public override void Declare(KeyFields key) =>
        key.Each("pairs", Pairs, (k, p) => k.Add("id", p.Id).Add("text", p.Text).Add("with", p.With).Add("with-text", p.WithText))
            .Each("others", Others, (k, o) => k.Add("id", o.Id).Add("text", o.Text))
            .Add("in-part", InPart);

    /// <inheritdoc/>
    public override string Said(IReadOnlyList<string> answer) =>
        string.Join(
            "; ",
            answer.Select(pair =>
                pair.Split(' ') is [var left, var right] ? $"{Pairs.FirstOrDefault(p => p.Id == left)?.Text ?? left} – {RightText(right) ?? right}" : pair
            )
        );

    private string? RightText(string id) => Pairs.FirstOrDefault(p => p.With == id)?.WithText ?? Others.FirstOrDefault(o => o.Id == id)?.Text;

    private string FirstSaying(string text) => Pairs.First(p => p.WithText == text).With;
}
