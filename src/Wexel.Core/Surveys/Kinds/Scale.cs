using System.Globalization;
using System.Text.Json.Serialization;
using Wexel.Core.Contents;
using Wexel.Core.Keys;

namespace Wexel.Core.Surveys.Kinds;

/// <summary>How much somebody agrees: one of some steps between two ends.</summary>
/// <param name="Id">A name inside the survey that stays.</param>
/// <param name="Text">What is asked.</param>
/// <param name="Steps">How many steps, <see cref="Fewest"/> to <see cref="Most"/>.</param>
/// <param name="Low">What the lowest step means.</param>
/// <param name="High">What the highest step means.</param>
public sealed record Scale(string Id, string Text, int Steps, string Low, string High) : SurveyItem(Id, Text)
{
    internal const string Name = "scale";

    /// <summary>The fewest steps.</summary>
    public const int Fewest = 2;

    /// <summary>The most steps: as many as an answer has digits of one hand more than nobody can tell apart (0 to 10 is usual at the most).</summary>
    public const int Most = 11;

    private const int LongestEnd = 100;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<string> Faults =>
        [.. base.Faults, .. Low.Length == 0 || High.Length == 0 ? ["Say what the lowest and the highest step mean."] : Array.Empty<string>()];

    /// <inheritdoc/>
    public override SurveyItem Tidied() =>
        (Scale)base.Tidied() with
        {
            Steps = Math.Clamp(Steps, Fewest, Most),
            Low = SectionRules.OneLine(Low ?? "", LongestEnd),
            High = SectionRules.OneLine(High ?? "", LongestEnd),
        };

    /// <inheritdoc/>
    public override void Declare(KeyFields key)
    {
        base.Declare(key);
        key.Add("steps", (long?)Steps).Add("low", Low).Add("high", High);
    }

    /// <inheritdoc/>
    public override IReadOnlyList<string> Taken(IReadOnlyList<string> values) => values is [var value] && Step(value) is { } step ? [Written(step)] : [];

    /// <inheritdoc/>
    public override string Said(IReadOnlyList<string> values) => string.Concat(values);

    /// <inheritdoc/>
    public override SurveyItemResult Result(IReadOnlyList<IReadOnlyList<string>> replies)
    {
        var steps = replies.Select(r => Step(r[0])).OfType<int>().ToList();
        return new SurveyItemResult(
            Id,
            Kind,
            Text,
            steps.Count,
            [.. Enumerable.Range(1, Steps).Select(step => new SurveyCount(InWords(step), steps.Count(s => s == step)))],
            steps.Count > 0 ? steps.Average() : null,
            []
        );
    }

    private string InWords(int step) =>
        step == 1 ? $"{Written(step)} {Low}"
        : step == Steps ? $"{Written(step)} {High}"
        : Written(step);

    private int? Step(string value) =>
        int.TryParse(value, NumberStyles.None, CultureInfo.InvariantCulture, out var step) && step >= 1 && step <= Steps ? step : null;

    private static string Written(int step) => step.ToString(CultureInfo.InvariantCulture);
}
