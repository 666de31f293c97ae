using System.Text.Json.Serialization;
using Wexel.Core.Keys;
using Wexel.Core.Scoring;

namespace Wexel.Core.Questions.Kinds;

/// <summary>One of several. Where several are right, each is enough.</summary>
/// <param name="Options">What can be chosen.</param>
/// <param name="Shuffle">Whether each learner gets them in another order.</param>
public sealed record ChooseOne(IReadOnlyList<Option> Options, bool Shuffle = false) : Interaction
{
    internal const string Name = "one";

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string InWords => "one of several";

    /// <inheritdoc/>
    [JsonIgnore]
    public override AnswerKey Key
    {
        get
        {
            var right = Options.Where(o => o.Right).Select(o => o.Id).Take(1).ToList();
            var plain = Options.Count(o => o.Right) <= 1 && Options.All(o => o.PerCent is null);
            var mapping = plain ? null : new Mapping([.. Options.Select(o => new MapEntry(o.Id, (o.PerCent ?? (o.Right ? 100 : 0)) / 100.0))]);
            return new AnswerKey([new ResponseDeclaration(Cardinality.Single, BaseType.Identifier, right, mapping)], Replies: Kinds.Options.Replies(Options));
        }
    }

    /// <inheritdoc/>
    public override AskedForm Form(string seed) => new(Name, Kinds.Options.Asked(Options), Shuffle: Shuffle);

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<string> Faults => Kinds.Options.Faults(Options, SameTwice(Options.Select(o => o.Text), "answers"));

    /// <inheritdoc/>
    public override Interaction Tidied() => this with { Options = Kinds.Options.Tidy(Options ?? [], Line, Reply) };

    /// <inheritdoc/>
    public override void Declare(KeyFields key) => key.Each("options", Options, Kinds.Options.Declare).Add("shuffle", Shuffle);

    /// <inheritdoc/>
    public override string Said(IReadOnlyList<string> answer) => Kinds.Options.Said(Options, answer);

    /// <inheritdoc/>
    [JsonIgnore]
    public override string RightInWords => string.Join(" or ", Options.Where(o => o.Right).Select(o => o.Text));
}
