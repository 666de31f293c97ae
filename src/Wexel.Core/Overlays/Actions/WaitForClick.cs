using System.Text.Json.Serialization;
using Wexel.Core.Keys;

namespace Wexel.Core.Overlays.Actions;

/// <summary>The picture stands where the area's stretch begins, and goes on when it is clicked.</summary>
/// <param name="Says">What is said to whoever clicks elsewhere; empty for nothing of one's own.</param>
public sealed record WaitForClick(string Says) : AreaAction
{
    internal const string Name = "wait";

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    public override AreaDoes Does(Func<string, TimeSpan?> sectionAt) => new(Name, Says: Says.Length > 0 ? Says : null);

    /// <inheritdoc/>
    public override AreaAction Tidied() => this with { Says = PlainText.Within(Says, Note.LongestText) };

    /// <inheritdoc/>
    public override void Declare(KeyFields key) => key.Add("says", Says);
}
