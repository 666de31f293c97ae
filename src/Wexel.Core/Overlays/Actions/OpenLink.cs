using System.Text.Json.Serialization;
using Wexel.Core.Keys;

namespace Wexel.Core.Overlays.Actions;

/// <summary>A page is opened in a new window, and the picture stands.</summary>
/// <param name="Address">The page's address, see <see cref="SafeLink"/>.</param>
public sealed record OpenLink(string Address) : AreaAction
{
    internal const string Name = "link";

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    public override AreaDoes Does(Func<string, TimeSpan?> sectionAt) => new(Name, Address: SafeLink.OnPage(Address));

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<string> Faults => SafeLink.Fault(Address) is { } fault ? [fault] : [];

    /// <inheritdoc/>
    public override AreaAction Tidied() => this with { Address = SafeLink.Tidied(Address) };

    /// <inheritdoc/>
    public override void Declare(KeyFields key) => key.Add("address", Address);
}
