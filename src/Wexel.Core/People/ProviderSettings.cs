namespace Wexel.Core.People;

/// <summary>A group of the house that people are in as long as the provider says something of them.</summary>
/// <param name="Value">What the provider says; upper and lower case differ.</param>
/// <param name="Group">The group of the house.</param>
public sealed record GroupMapping(string Value, Guid Group);

/// <summary>An identity provider by which people sign in (OpenID Connect Core 1.0), as an administrator sets it up.</summary>
/// <param name="Name">What stands on the button.</param>
/// <param name="Address">Its issuer, an absolute address; what it can do is read below it (OpenID Connect Discovery 1.0, section 4).</param>
/// <param name="Client">What Wexel is called there (<c>client_id</c>).</param>
/// <param name="Scopes">What is asked for besides <c>openid</c>, <c>profile</c> and <c>email</c>, with blanks between.</param>
/// <param name="GroupClaim">The claim that says in which groups somebody is; empty where none does.</param>
/// <param name="Groups">Which of what it says means which group.</param>
/// <param name="OwnsAddresses">Whether the mail addresses that it says are given out by the organisation, and so are somebody's though it does not say that
/// they are verified.</param>
public sealed record ProviderSettings(
    string Name,
    string Address,
    string Client,
    string Scopes,
    string GroupClaim,
    IReadOnlyList<GroupMapping> Groups,
    bool OwnsAddresses
)
{
    private const int Longest = 200;
    private const int MostGroups = 200;

    /// <summary>The same without blanks around, or what cannot be used.</summary>
    /// <param name="mayBePlain">Whether the address may be without TLS, as one on this machine may.</param>
    public Result<ProviderSettings> Accepted(Func<Uri, bool> mayBePlain)
    {
        var told = this with
        {
            Name = PeopleList.OneLine(Name),
            Address = Address.Trim(),
            Client = Client.Trim(),
            Scopes = PeopleList.OneLine(Scopes),
            GroupClaim = GroupClaim.Trim(),
            Groups = [.. Groups.Select(g => g with { Value = g.Value.Trim() }).Distinct()],
        };
        return told.Unusable(mayBePlain) is { } problem ? problem : told;
    }

    private Problem? Unusable(Func<Uri, bool> mayBePlain) =>
        Name.Length is 0 or > Longest ? new Problem("provider-name", $"Give it a name of at most {Longest} characters; it stands on the button.", "name")
        : !Uri.TryCreate(Address, UriKind.Absolute, out var issuer)
        || issuer.Scheme is not ("https" or "http")
        || issuer.Query.Length + issuer.Fragment.Length > 0
            ? new Problem("provider-address", "Write the provider’s issuer as a whole address, such as https://sign-in.example/.", "address")
        : issuer.Scheme != Uri.UriSchemeHttps && !mayBePlain(issuer)
            ? new Problem("provider-address-plain", "People’s sign-in may only go over TLS: write an address that begins with https.", "address")
        : Client.Length is 0 or > Longest
            ? new Problem("provider-client", "Write what Wexel is called there (the client’s ID); whoever looks after the provider knows it.", "client")
        : Groups.FirstOrDefault(g => g.Value.Length is 0 or > Longest) is not null
            ? new Problem("provider-group-value", "Write what the provider says of the people of each group, or take the line out.", "groups")
        : Groups.Count > MostGroups ? new Problem("provider-groups", $"At most {MostGroups} groups can be mapped.", "groups")
        : Groups.Count > 0 && GroupClaim.Length == 0
            ? new Problem("provider-group-claim", "Name the claim in which the provider says the groups, such as groups.", "groupClaim")
        : null;
}
