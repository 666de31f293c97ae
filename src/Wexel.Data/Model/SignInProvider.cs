namespace Wexel.Data.Model;

/// <summary>An identity provider by which people sign in.</summary>
public sealed class SignInProvider
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required string Name { get; set; }

    /// <summary>Its issuer.</summary>
    public required string Address { get; set; }

    /// <summary>What Wexel is called there.</summary>
    public required string Client { get; set; }

    /// <summary>What Wexel shows there, protected; null where it shows nothing.</summary>
    public string? Secret { get; set; }

    public required string Scopes { get; set; }
    public required string GroupClaim { get; set; }
    public bool OwnsAddresses { get; set; }

    /// <summary>How often it was changed: what is remembered of it is remembered under this number.</summary>
    public int Version { get; set; }

    public List<ProviderGroup> Groups { get; } = [];
}

/// <summary>Which of a provider's groups is which of the house's.</summary>
public sealed class ProviderGroup
{
    public Guid ProviderId { get; init; }
    public required string Value { get; init; }
    public Guid GroupId { get; init; }
}
