using System.Text.Json.Serialization;
using Wexel.Core.Keys;
using Wexel.Core.Scoring;

namespace Wexel.Core.Questions.Kinds;

/// <summary>Something that has a place in an order.</summary>
/// <param name="Id">A name inside the question that stays.</param>
/// <param name="Text">What it says.</param>
public sealed record Item(string Id, string Text);

/// <summary>Things that are put in order.</summary>
/// <param name="Items">In the right order.</param>
/// <param name="InPart">Whether what stands where it belongs counts its part.</param>
public sealed record PutInOrder(IReadOnlyList<Item> Items, bool InPart = false) : Interaction
{
    internal const string Name = "order";

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string InWords => "put in order";

    /// <inheritdoc/>
    [JsonIgnore]
    public override AnswerKey Key => new([new ResponseDeclaration(Cardinality.Ordered, BaseType.Identifier, [.. Items.Select(i => i.Id)], Places: InPart)]);

    /// <inheritdoc/>
    public override AskedForm Form(string seed) => new(Name, [.. AwayFromRight(seed).Select(i => new AskedOption(i.Id, i.Text))]);

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<string> Faults
    {
        get
        {
            if (Items.Count(i => i.Text.Length > 0) < 2)
                yield return "It needs two lines or more to put in order. Add one.";
            else if (Items.Any(i => i.Text.Length == 0))
                yield return "A line says nothing. Write it, or take it out.";
            foreach (var sentence in SameTwice(Items.Select(i => i.Text), "lines"))
                yield return sentence;
        }
    }

    /// <inheritdoc/>
    public override Interaction Tidied()
    {
        var given = (Items ?? []).OfType<Item>().Take(MostOptions).ToList();
        var ids = Options.Ids([.. given.Select(i => i.Id)]);
        return this with { Items = [.. given.Select((item, i) => new Item(ids[i], Line(item.Text)))] };
    }

    /// <inheritdoc/>
    public override void Declare(KeyFields key) => key.Each("items", Items, (k, i) => k.Add("id", i.Id).Add("text", i.Text)).Add("in-part", InPart);

    /// <inheritdoc/>
    public override string Said(IReadOnlyList<string> answer) => string.Join(" → ", answer.Select(id => Items.FirstOrDefault(i => i.Id == id)?.Text ?? id));

    /// <summary>Mixed, and never as it is right.</summary>
    private List<Item> AwayFromRight(string seed)
    {
        var mixed = Mixed(Items, seed, i => i.Id).ToList();
        return Items.Count > 1 && mixed.SequenceEqual(Items) ? [.. mixed.Skip(1), mixed[0]] : mixed;
    }
}
