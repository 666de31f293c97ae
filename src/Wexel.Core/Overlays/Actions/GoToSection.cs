using System.Text.Json.Serialization;
using Wexel.Core.Keys;

namespace Wexel.Core.Overlays.Actions;

/// <summary>The lesson goes on where a section begins, wherever that is by then.</summary>
/// <param name="To">The section's name; empty while nobody chose one.</param>
public sealed record GoToSection(string To) : AreaAction
{
    internal const string Name = "section";

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    public override AreaDoes Does(Func<string, TimeSpan?> sectionAt) => new(GoToTime.Name, sectionAt(To));

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<string> Faults => To.Length == 0 ? ["It leads to no section. Choose one."] : [];

    /// <inheritdoc/>
    [JsonIgnore]
    public override string? Section => To.Length == 0 ? null : To;

    /// <inheritdoc/>
    public override AreaAction Tidied() => this with { To = To ?? "" };

    /// <inheritdoc/>
    public override void Declare(KeyFields key) => key.Add("to", To);
}
