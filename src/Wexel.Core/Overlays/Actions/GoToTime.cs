using System.Text.Json.Serialization;
using Wexel.Core.Keys;

namespace Wexel.Core.Overlays.Actions;

/// <summary>The lesson goes on at another time.</summary>
/// <param name="To">Where, in recording time; what is cut there becomes the next that is kept.</param>
public sealed record GoToTime(TimeSpan To) : AreaAction
{
    internal const string Name = "time";

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    public override AreaDoes Does(Func<string, TimeSpan?> sectionAt) => new(Name, To);

    /// <inheritdoc/>
    public override AreaAction Tidied() => To < TimeSpan.Zero ? this with { To = TimeSpan.Zero } : this;

    /// <inheritdoc/>
    public override AreaAction Moved(Func<TimeSpan, TimeSpan> to) => this with { To = to(To) };

    /// <inheritdoc/>
    public override void Declare(KeyFields key) => key.Add("to", To);
}
