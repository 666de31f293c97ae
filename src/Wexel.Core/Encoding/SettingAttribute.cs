namespace Wexel.Core.Encoding;

/// <summary>What a person must know of a setting: it stands in the schema, and the desk shows it beside the field.</summary>
/// <param name="title">Its name in the trade's terms.</param>
/// <param name="usual">What is usual.</param>
/// <param name="cost">What more or less of it costs.</param>
[AttributeUsage(AttributeTargets.Property)]
public sealed class SettingAttribute(string title, string usual, string cost) : Attribute
{
    /// <summary>Its name in the trade's terms.</summary>
    public string Title { get; } = title;

    /// <summary>Its unit; empty where it has none.</summary>
    public string Unit { get; init; } = "";

    /// <summary>What is usual.</summary>
    public string Usual { get; } = usual;

    /// <summary>What more or less of it costs.</summary>
    public string Cost { get; } = cost;

    /// <summary>The least value.</summary>
    public double Least { get; init; } = double.NegativeInfinity;

    /// <summary>The greatest value.</summary>
    public double Most { get; init; } = double.PositiveInfinity;
}
