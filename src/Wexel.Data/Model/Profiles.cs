namespace Wexel.Data.Model;

/// <summary>A profile of the house's own, beside those that ship with Wexel.</summary>
public sealed class OwnProfile
{
    /// <summary>Its name for programs.</summary>
    public required string Id { get; init; }

    /// <summary>The <see cref="Core.Encoding.Profile"/> as JSON.</summary>
    public required string Document { get; set; }

    public required string ChangedBy { get; set; }
    public DateTimeOffset ChangedAt { get; set; }
}
