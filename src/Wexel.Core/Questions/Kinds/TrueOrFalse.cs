using System.Text.Json.Serialization;
using Wexel.Core.Keys;
using Wexel.Core.Scoring;

namespace Wexel.Core.Questions.Kinds;

/// <summary>A statement that is true or false.</summary>
/// <param name="True">Whether it is true; null while nobody said.</param>
/// <param name="ReplyToTrue">What is said to whoever took it for true; null for nothing.</param>
/// <param name="ReplyToFalse">What is said to whoever took it for false; null for nothing.</param>
public sealed record TrueOrFalse(
    bool? True,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? ReplyToTrue = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? ReplyToFalse = null
) : Interaction
{
    internal const string Name = "truth";

    private const string Yes = "true";
    private const string No = "false";

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string InWords => "true or false";

    /// <inheritdoc/>
    [JsonIgnore]
    public override AnswerKey Key =>
        new(
            [new ResponseDeclaration(Cardinality.Single, BaseType.Identifier, True is { } right ? [right ? Yes : No] : [])],
            Replies: [.. new[] { (Yes, ReplyToTrue), (No, ReplyToFalse) }.Where(r => r.Item2 is not null).Select(r => new Reply(r.Item1, r.Item2!))]
        );

    /// <inheritdoc/>
    public override AskedForm Form(string seed) => new(Name, [new AskedOption(Yes, "True"), new AskedOption(No, "False")]);

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<string> Faults => True is null ? ["Nobody said whether it is true. Choose."] : [];

    /// <inheritdoc/>
    public override Interaction Tidied() => this with { ReplyToTrue = Reply(ReplyToTrue), ReplyToFalse = Reply(ReplyToFalse) };

    /// <inheritdoc/>
    public override void Declare(KeyFields key) =>
        key.Add(
                "true",
                True switch
                {
                    true => "yes",
                    false => "no",
                    _ => null,
                }
            )
            .Add("to-true", ReplyToTrue)
            .Add("to-false", ReplyToFalse);

    /// <inheritdoc/>
    public override string Said(IReadOnlyList<string> answer) =>
        string.Join(
            ", ",
            answer.Select(a =>
                a == Yes ? "True"
                : a == No ? "False"
                : a
            )
        );
}
