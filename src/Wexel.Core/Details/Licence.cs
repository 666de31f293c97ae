namespace Wexel.Core.Details;

/// <summary>A licence that can be chosen for a lesson.</summary>
/// <param name="Id">Its identifier: of the SPDX licence list, or one that begins with <c>LicenseRef-</c> (SPDX 2.3, clause 10.1).</param>
/// <param name="Name">What it is called.</param>
/// <param name="Terms">Where its terms stand; null for one that needs none.</param>
public sealed record Licence(string Id, string Name, Uri? Terms = null);

/// <summary>The licences that can be chosen: none at all, and the Creative Commons family by its identifiers in the SPDX licence list.</summary>
public static class Licences
{
    /// <summary>Nobody else may do anything with it.</summary>
    public const string AllRightsReserved = "LicenseRef-AllRightsReserved";

    /// <summary>In the order of lists: what gives least first, and then by what it asks.</summary>
    public static IReadOnlyList<Licence> All { get; } =
    [
        new(AllRightsReserved, "All rights reserved"),
        CreativeCommons("by", "Attribution"),
        CreativeCommons("by-sa", "Attribution, share alike"),
        CreativeCommons("by-nd", "Attribution, no derivatives"),
        CreativeCommons("by-nc", "Attribution, not commercial"),
        CreativeCommons("by-nc-sa", "Attribution, not commercial, share alike"),
        CreativeCommons("by-nc-nd", "Attribution, not commercial, no derivatives"),
        new("CC0-1.0", "CC0 1.0, no rights reserved", new Uri("https://creativecommons.org/publicdomain/zero/1.0/")),
    ];

    /// <summary>A licence by its identifier, small and capital letters alike (SPDX 2.3, annex D.2); null where a text is none of them, and so one's
    /// own words.</summary>
    public static Licence? Find(string text) => All.FirstOrDefault(l => string.Equals(l.Id, text.Trim(), StringComparison.OrdinalIgnoreCase));

    /// <summary>A licence as it is said to people: with the address of its terms where it has one; null where nobody said.</summary>
    public static string? InWords(string? licence) =>
        licence is null ? null
        : Find(licence) is not { } known ? licence
        : known.Terms is { } terms ? $"{known.Name} ({terms.AbsoluteUri})"
        : known.Name;

    private static Licence CreativeCommons(string elements, string name) =>
        new(
            $"CC-{elements.ToUpperInvariant()}-4.0",
            $"CC {elements.ToUpperInvariant()} 4.0, {name}",
            new Uri($"https://creativecommons.org/licenses/{elements}/4.0/")
        );
}
