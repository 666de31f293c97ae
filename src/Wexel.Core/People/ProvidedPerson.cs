namespace Wexel.Core.People;

/// <summary>An account that stands already under what a provider says.</summary>
/// <param name="IsDisabled">Whether it can sign in no more.</param>
/// <param name="IsBound">Whether whoever it is has signed in by this provider before.</param>
/// <param name="IsBoundElsewise">Whether somebody else of this provider signs in to it.</param>
public sealed record AccountThere(bool IsDisabled, bool IsBound, bool IsBoundElsewise = false);

/// <summary>Somebody as a provider says that they are (OpenID Connect Core 1.0, section 5.1).</summary>
/// <param name="Subject">Who it is to the provider, for good (<c>sub</c>).</param>
/// <param name="Mail">The mail address; null where none is said.</param>
/// <param name="MailIsVerified">Whether the provider says that the address is theirs.</param>
/// <param name="Name">The name; null where none is said.</param>
/// <param name="Groups">What it says of groups.</param>
public sealed record ProvidedPerson(string Subject, string? Mail, bool MailIsVerified, string? Name, IReadOnlyList<string> Groups)
{
    /// <summary>What somebody is called who is new here.</summary>
    public string CalledHere => PeopleList.OneLine(Name ?? "") is { Length: > 0 and <= PeopleList.LongestName } name ? name : (Mail ?? Subject).Split('@')[0];

    /// <summary>Why they may not come in; null where they may. An account that is there already is given only to whom its address surely belongs: otherwise
    /// whoever writes somebody's address at a provider would be them here.</summary>
    /// <param name="provider">The provider.</param>
    /// <param name="there">The account that stands under it; null where there is none and one is made.</param>
    public Problem? Refused(ProviderSettings provider, AccountThere? there) =>
        there is { IsDisabled: true } ? new Problem("provider-disabled", "Your account here was closed. Ask whoever looks after Wexel in your organisation.")
        : there is { IsBound: true } ? null
        : Mail is null || !MailAddresses.IsOne(Mail)
            ? new Problem(
                "provider-no-mail",
                $"{provider.Name} did not say your mail address, and without one Wexel does not know who you are. Whoever looks after it can have it said "
                    + "(the scope email)."
            )
        : there is { IsBoundElsewise: true }
            ? new Problem("provider-another", $"Somebody else of {provider.Name} signs in to the account of {Mail}. Ask whoever looks after Wexel.")
        : !MailIsVerified && !provider.OwnsAddresses
            ? new Problem("provider-unverified", $"{provider.Name} does not say that {Mail} is surely yours. Confirm the address there, then sign in again.")
        : null;

    /// <summary>Which groups they join, and which they leave: those that are mapped follow what the provider says, and others stay.</summary>
    /// <param name="provider">The provider.</param>
    /// <param name="now">The groups that they are in now.</param>
    public (IReadOnlyList<Guid> Joins, IReadOnlyList<Guid> Leaves) GroupsBy(ProviderSettings provider, IReadOnlyCollection<Guid> now)
    {
        var wanted = provider.Groups.Where(g => Groups.Contains(g.Value, StringComparer.Ordinal)).Select(g => g.Group).ToHashSet();
        var mapped = provider.Groups.Select(g => g.Group).ToHashSet();
        return ([.. wanted.Except(now)], [.. now.Where(g => mapped.Contains(g) && !wanted.Contains(g))]);
    }
}
