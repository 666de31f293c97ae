using System.Text.Json.Serialization;
using Wexel.Core.Keys;
using Wexel.Core.Scoring;

namespace Wexel.Core.Questions.Kinds;

/// <summary>Several of several.</summary>
/// <param name="Options">What can be chosen.</param>
/// <param name="Shuffle">Whether each learner gets them in another order.</param>
/// <param name="InPart">Whether what is right counts in part: each right one its part, each wrong one takes as much away.</param>
public sealed record ChooseSeveral(IReadOnlyList<Option> Options, bool Shuffle = false, bool InPart = false) : Interaction
{
    internal const string Name = "several";

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string InWords => "several of several";

    /// <inheritdoc/>
    [JsonIgnore]
    public override AnswerKey Key
    {
        get
        {
            var right = Options.Where(o => o.Right).Select(o => o.Id).ToList();
            var part = 1.0 / Math.Max(1, right.Count);
            var mapping =
                InPart || Options.Any(o => o.PerCent is not null)
                    ? new Mapping(
                        [
                            .. Options.Select(o => new MapEntry(
                                o.Id,
                                o.PerCent is { } own ? own / 100.0
                                    : o.Right ? part
                                    : -part
                            )),
                        ],
                        Lower: 0,
                        Upper: Math.Min(1, Options.Where(o => o.Right).Sum(o => o.PerCent is { } own ? own / 100.0 : part))
                    )
                    : null;
            return new AnswerKey([new ResponseDeclaration(Cardinality.Multiple, BaseType.Identifier, right, mapping)], Replies: Kinds.Options.Replies(Options));
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
    public override void Declare(KeyFields key) => key.Each("options", Options, Kinds.Options.Declare).Add("shuffle", Shuffle).Add("in-part", InPart);

    /// <summary>Each that was chosen.</summary>
    public override IEnumerable<(string Words, bool Right)> Taken(IReadOnlyList<string> answer) =>
        answer.Distinct().Select(id => (Said([id]), Options.Any(o => o.Id == id && o.Right)));

    /// <inheritdoc/>
    public override string Said(IReadOnlyList<string> answer) => Kinds.Options.Said(Options, answer);
}
