using System.Text.Json.Serialization;
using Wexel.Core.Contents;
using Wexel.Core.Keys;

namespace Wexel.Core.Surveys.Kinds;

/// <summary>One of some options, or several.</summary>
/// <param name="Id">A name inside the survey that stays.</param>
/// <param name="Text">What is asked.</param>
/// <param name="Options">What can be chosen, in order.</param>
/// <param name="Several">Whether several may be.</param>
public sealed record Choice(string Id, string Text, IReadOnlyList<SurveyOption> Options, bool Several = false) : SurveyItem(Id, Text)
{
    internal const string Name = "choice";

    /// <summary>The most options.</summary>
    public const int MostOptions = 20;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<string> Faults =>
        [
            .. base.Faults,
            .. Options.Count(o => o.Text.Length > 0) < 2 ? ["There is nothing to choose from. Write two options or more."] : Array.Empty<string>(),
            .. Options.Where(o => o.Text.Length > 0).GroupBy(o => o.Text).Any(g => g.Count() > 1)
                ? ["Two options are the same. Change one."]
                : Array.Empty<string>(),
        ];

    /// <inheritdoc/>
    public override SurveyItem Tidied() =>
        (Choice)base.Tidied() with
        {
            Options =
            [
                .. (Options ?? [])
                    .Where(o => o is { Id.Length: > 0 and <= Survey.LongestId })
                    .DistinctBy(o => o.Id)
                    .Take(MostOptions)
                    .Select(o => o with { Text = SectionRules.OneLine(o.Text ?? "", LongestText) }),
            ],
        };

    /// <inheritdoc/>
    public override void Declare(KeyFields key)
    {
        base.Declare(key);
        key.Add("several", Several).Each("options", Options, (k, o) => k.Add("id", o.Id).Add("text", o.Text));
    }

    /// <inheritdoc/>
    public override IReadOnlyList<string> Taken(IReadOnlyList<string> values) =>
        values.Count > 1 && !Several ? [] : [.. Options.Select(o => o.Id).Where(values.Contains)];

    /// <inheritdoc/>
    public override string Said(IReadOnlyList<string> values) => string.Join("; ", Options.Where(o => values.Contains(o.Id)).Select(o => o.Text));

    /// <inheritdoc/>
    public override SurveyItemResult Result(IReadOnlyList<IReadOnlyList<string>> replies) =>
        new(Id, Kind, Text, replies.Count, [.. Options.Select(o => new SurveyCount(o.Text, replies.Count(r => r.Contains(o.Id))))], null, []);

    /// <inheritdoc/>
    public bool Equals(Choice? other) => other is not null && base.Equals(other) && Several == other.Several && Options.SequenceEqual(other.Options);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(base.GetHashCode(), Options.Count);
}

/// <summary>What can be chosen.</summary>
/// <param name="Id">A name inside the item that stays.</param>
/// <param name="Text">What it says.</param>
public sealed record SurveyOption(string Id, string Text);
