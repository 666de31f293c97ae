using System.Text.Json.Serialization;
using Wexel.Core.Keys;

namespace Wexel.Core.Overlays.Actions;

/// <summary>The picture stands, and a text is shown beside the area until it is closed.</summary>
/// <param name="Says">The text.</param>
public sealed record ShowText(string Says) : AreaAction
{
    internal const string Name = "text";

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    public override AreaDoes Does(Func<string, TimeSpan?> sectionAt) => new(Name, Says: Says);

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<string> Faults => Says.Length == 0 ? ["It shows nothing. Write what it says."] : [];

    /// <inheritdoc/>
    public override AreaAction Tidied() => this with { Says = PlainText.Within(Says, Note.LongestText) };

    /// <inheritdoc/>
    public override void Declare(KeyFields key) => key.Add("says", Says);
}
