using Wexel.Core.Details;

namespace Wexel.Core.Packages;

/// <summary>What a learner's page says about a lesson besides its title and its description.</summary>
/// <param name="ShortTitle">The title where lists have little room; null where the title stands there.</param>
/// <param name="Tags">Words by which it is found.</param>
/// <param name="Category">The subject that it belongs to; null where nobody said.</param>
/// <param name="Licence">What others may do with it; null where nobody said.</param>
/// <param name="Permission">By whose permission there is material of others in it; null where there is none.</param>
/// <param name="Author">Who made it; null where nobody said.</param>
/// <param name="FromAge">From which age it is meant to be seen, in years; null where nobody said.</param>
/// <param name="ForChildren">Whether it is made for children; null where nobody said.</param>
/// <param name="MayDownload">Whether the page offers its video.</param>
/// <param name="MayEmbed">Whether it may stand on other sites.</param>
/// <param name="MayWrite">Whether learners may write to the author, where a way to do so is said.</param>
/// <param name="MayNote">Whether learners may leave notes at moments of it, where a server takes them.</param>
public sealed record PlayerDetails(
    string? ShortTitle,
    IReadOnlyList<string> Tags,
    string? Category,
    PlayerLicence? Licence,
    string? Permission,
    Author? Author,
    int? FromAge,
    bool? ForChildren,
    bool MayDownload,
    bool MayEmbed,
    bool MayWrite,
    bool MayNote
)
{
    /// <summary>Nothing is said. It may be embedded, since whoever may see it may see it there too, and it is not offered.</summary>
    public static PlayerDetails None { get; } = Of(DetailSet.None);

    /// <summary>What a page says, of what is said.</summary>
    /// <param name="said">What holds for the lesson at its outlet.</param>
    public static PlayerDetails Of(DetailSet said) =>
        new(
            said.ShortTitle,
            said.Tags ?? [],
            said.Category,
            said.Licence is { } licence ? PlayerLicence.Of(licence) : null,
            said.ThirdParty is { Used: true, Permission: var permission } ? permission : null,
            said.Author,
            said.FromAge,
            said.ForChildren,
            said.MayDownload ?? false,
            said.MayEmbed ?? true,
            said.MayWrite ?? true,
            said.MayNote ?? true
        );
}

/// <summary>What others may do with a lesson.</summary>
/// <param name="Name">As people read it.</param>
/// <param name="Id">Its SPDX identifier; null for one's own words.</param>
/// <param name="Terms">Where its terms stand; null where nowhere.</param>
public sealed record PlayerLicence(string Name, string? Id = null, string? Terms = null)
{
    /// <summary>A licence as a set of details has it.</summary>
    public static PlayerLicence Of(string licence) =>
        Licences.Find(licence) is { } known ? new PlayerLicence(known.Name, known.Id, known.Terms?.AbsoluteUri) : new PlayerLicence(licence);
}
