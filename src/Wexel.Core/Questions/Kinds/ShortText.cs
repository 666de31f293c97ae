using System.Text.Json.Serialization;
using Wexel.Core.Keys;
using Wexel.Core.Scoring;

namespace Wexel.Core.Questions.Kinds;

/// <summary>A text that is accepted.</summary>
/// <param name="Text">The text.</param>
/// <param name="PerCent">How much of the points it counts, 0 to 100.</param>
/// <param name="Reply">What is said to whoever typed it; null for nothing.</param>
public sealed record Accepted(string Text, int PerCent = 100, [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Reply = null);

/// <summary>A short text that is typed.</summary>
/// <param name="Accepted">What is accepted.</param>
/// <param name="Rule">How closely it must be so.</param>
public sealed record ShortText(IReadOnlyList<Accepted> Accepted, TextRule? Rule = null) : Interaction
{
    internal const string Name = "text";

    /// <summary>How closely it must be so.</summary>
    public TextRule Rule { get; init; } = Rule ?? new TextRule();

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string InWords => "short text";

    /// <inheritdoc/>
    [JsonIgnore]
    public override AnswerKey Key =>
        new(
            [
                new ResponseDeclaration(
                    Cardinality.Single,
                    BaseType.String,
                    [.. Accepted.Where(a => a.PerCent == 100).Take(1).Select(a => a.Text)],
                    new Mapping([.. Accepted.Select(a => new MapEntry(a.Text, a.PerCent / 100.0))])
                ),
            ],
            Rule,
            Replies: [.. Accepted.Where(a => a.Reply is not null).Select(a => new Reply(a.Text, a.Reply!))]
        );

    /// <inheritdoc/>
    public override AskedForm Form(string seed) => new(Name);

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<string> Faults
    {
        get
        {
            if (!Accepted.Any(a => a is { PerCent: 100, Text.Length: > 0 }))
                yield return "No answer is right. Write one that counts all of the points.";
            foreach (var sentence in SameTwice(Accepted.Select(a => Rule.Plain(a.Text)), "accepted answers", StringComparer.Ordinal))
                yield return sentence;
        }
    }

    /// <inheritdoc/>
    public override Interaction Tidied() =>
        this with
        {
            Accepted =
            [
                .. (Accepted ?? [])
                    .OfType<Accepted>()
                    .Take(MostOptions)
                    .Select(a => a with { Text = Line(a.Text), PerCent = Math.Clamp(a.PerCent, 0, 100), Reply = Reply(a.Reply) })
                    .Where(a => a.Text.Length > 0),
            ],
        };

    /// <inheritdoc/>
    public override void Declare(KeyFields key) =>
        key.Each("accepted", Accepted, (k, a) => k.Add("text", a.Text).Add("per-cent", (long?)a.PerCent).Add("reply", a.Reply))
            .Add("capitals", Rule.Capitals)
            .Add("spaces", Rule.Spaces)
            .Add("slips", Rule.Slips);

    /// <inheritdoc/>
    [JsonIgnore]
    public override string RightInWords => string.Join(" or ", Accepted.Where(a => a.PerCent == 100).Select(a => a.Text));
}
