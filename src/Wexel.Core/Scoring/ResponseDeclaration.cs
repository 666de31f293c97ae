using System.Diagnostics.CodeAnalysis;
using System.Text.Json.Serialization;

namespace Wexel.Core.Scoring;

/// <summary>How many values a response has (1EdTech QTI 2.2, section 7.1, cardinality).</summary>
[SuppressMessage("Naming", "CA1720", Justification = "They are QTI's words.")]
public enum Cardinality
{
    /// <summary>One.</summary>
    Single,

    /// <summary>Any number, in no order.</summary>
    Multiple,

    /// <summary>Any number, in their order.</summary>
    Ordered,
}

/// <summary>What the values of a response are (1EdTech QTI 2.2, section 7.1, baseType); those that questions here need.</summary>
[SuppressMessage("Naming", "CA1720", Justification = "They are QTI's words.")]
public enum BaseType
{
    /// <summary>The name of something that can be chosen.</summary>
    Identifier,

    /// <summary>A text that is typed.</summary>
    String,

    /// <summary>A number.</summary>
    Float,

    /// <summary>A place on a picture: two whole numbers with a space between, across and down.</summary>
    Point,

    /// <summary>Two names with a space between, in no order.</summary>
    Pair,

    /// <summary>Two names with a space between, from one to the other.</summary>
    DirectedPair,
}

/// <summary>
/// What a response may be, what is right of it and what counts how much: QTI's <c>responseDeclaration</c>. A value is a text, as QTI writes it.
/// </summary>
/// <param name="Cardinality">How many values it has.</param>
/// <param name="BaseType">What they are.</param>
/// <param name="Correct">The right response; in the right order where order counts.</param>
/// <param name="Mapping">What single values count; null where only all of the right response counts.</param>
/// <param name="Areas">What places count; null where the response is no place.</param>
/// <param name="Places">Whether each value counts that stands in its right place of the order, and not only all of them together. QTI has no template for
/// that; where it is written as QTI, it is done by a mapping over places.</param>
public sealed record ResponseDeclaration(
    Cardinality Cardinality,
    BaseType BaseType,
    IReadOnlyList<string> Correct,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] Mapping? Mapping = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] AreaMapping? Areas = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool Places = false
)
{
    /// <summary>The most that a response can come to; 0 or less where nothing is right.</summary>
    [JsonIgnore]
    public double Most =>
        (Areas, Mapping) switch
        {
            ({ } areas, _) => areas.Bounded(Best(areas.Entries.Select(e => e.Value))),
            (_, { } mapping) => mapping.Bounded(Best(mapping.Entries.Select(e => e.Value))),
            _ => 1,
        };

    private double Best(IEnumerable<double> values) => Cardinality == Cardinality.Single ? values.DefaultIfEmpty(0).Max() : values.Where(v => v > 0).Sum();
}

/// <summary>What values count (QTI's <c>mapping</c>).</summary>
/// <param name="Entries">Values and what each counts.</param>
/// <param name="Default">What a value counts that is not among them.</param>
/// <param name="Lower">The least that all of them come to; null for no bound.</param>
/// <param name="Upper">The most that all of them come to; null for no bound.</param>
public sealed record Mapping(IReadOnlyList<MapEntry> Entries, double Default = 0, double? Lower = null, double? Upper = null)
{
    /// <summary>A sum within the bounds.</summary>
    public double Bounded(double sum) => Math.Max(Lower ?? double.MinValue, Math.Min(Upper ?? double.MaxValue, sum));
}

/// <summary>What a value counts.</summary>
/// <param name="Key">The value.</param>
/// <param name="Value">What it counts.</param>
/// <param name="CaseSensitive">Whether a text must have the same capitals.</param>
public sealed record MapEntry(string Key, double Value, bool CaseSensitive = true);

/// <summary>What places on a picture count (QTI's <c>areaMapping</c>).</summary>
/// <param name="Entries">Areas, those before others where they lie over each other.</param>
/// <param name="Default">What a place counts that lies in none of them.</param>
/// <param name="Lower">The least that all of them come to; null for no bound.</param>
/// <param name="Upper">The most that all of them come to; null for no bound.</param>
public sealed record AreaMapping(IReadOnlyList<AreaEntry> Entries, double Default = 0, double? Lower = null, double? Upper = null)
{
    /// <summary>A sum within the bounds.</summary>
    public double Bounded(double sum) => Math.Max(Lower ?? double.MinValue, Math.Min(Upper ?? double.MaxValue, sum));
}

/// <summary>What an area counts.</summary>
/// <param name="Shape">The area.</param>
/// <param name="Value">What a place in it counts.</param>
public sealed record AreaEntry(Shape Shape, double Value);
