using System.Globalization;
using System.Text.Json.Serialization;
using Wexel.Core.Keys;
using Wexel.Core.Scoring;

namespace Wexel.Core.Questions.Kinds;

/// <summary>A number that is typed.</summary>
/// <param name="Value">The right one; null while nobody gave one.</param>
/// <param name="Rule">How near it must be, and its unit.</param>
public sealed record NumberTyped(double? Value, NumberRule? Rule = null) : Interaction
{
    internal const string Name = "number";

    /// <summary>The largest number that is asked for; beyond it, doubles are no longer exact.</summary>
    public const double Largest = 1e15;

    private const int LongestUnit = 20;

    /// <summary>How near it must be, and its unit.</summary>
    public NumberRule Rule { get; init; } = Rule ?? new NumberRule();

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string InWords => "number";

    /// <inheritdoc/>
    [JsonIgnore]
    public override AnswerKey Key =>
        new([new ResponseDeclaration(Cardinality.Single, BaseType.Float, Value is { } right ? [Written(right)] : [])], Number: Rule);

    /// <inheritdoc/>
    public override AskedForm Form(string seed) => new(Name, Unit: Rule.Unit);

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<string> Faults => Value is null ? ["It has no right number. Write it."] : [];

    /// <inheritdoc/>
    public override Interaction Tidied() =>
        this with
        {
            Value = Value is { } v && double.IsFinite(v) ? Math.Clamp(v, -Largest, Largest) : null,
            Rule = Rule with
            {
                Within = double.IsFinite(Rule.Within) ? Math.Clamp(Rule.Within, 0, Largest) : 0,
                Unit = Line(Rule.Unit) is { Length: > 0 } unit ? unit[..Math.Min(unit.Length, LongestUnit)] : null,
            },
        };

    /// <inheritdoc/>
    public override void Declare(KeyFields key) =>
        key.Add("value", Value).Add("within", Rule.Within == 0 ? null : Rule.Within).Add("per-cent", Rule.PerCent).Add("unit", Rule.Unit);

    /// <inheritdoc/>
    public override string Said(IReadOnlyList<string> answer) =>
        string.Join(", ", answer) is { Length: > 0 } said && Rule.Unit is { } unit && !said.EndsWith(unit, StringComparison.OrdinalIgnoreCase)
            ? $"{said} {unit}"
            : string.Join(", ", answer);

    private static string Written(double number) => number.ToString("R", CultureInfo.InvariantCulture);
}
