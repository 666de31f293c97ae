namespace Wexel.Core.Overlays;

/// <summary>Addresses that a lesson may lead its learners to: pages and mail alone, never what a browser would run.</summary>
public static class SafeLink
{
    /// <summary>The longest that one may be, in characters.</summary>
    public const int Longest = 2000;

    /// <summary>Why an address cannot be led to, in a sentence that says what to do; null where it can.</summary>
    public static string? Fault(string address) =>
        address.Length == 0 ? "It leads nowhere. Give the address of a page, such as https://desk.brackwater.example."
        : Uri.TryCreate(address, UriKind.Absolute, out var to) && to.Scheme is "http" or "https" && to.Host.Length > 0 || IsMail(address) ? null
        : $"“{Problem.Shown(address)}” cannot be opened. Give a whole address, with https://, http:// or mailto: at its front.";

    /// <summary>The address as a page may have it; null for none, and for one that must not be led to, whatever kept it from being noticed.</summary>
    public static string? OnPage(string address) => address.Length > 0 && Fault(address) is null ? address : null;

    /// <summary>As it is kept: without what no address has, and within its limit.</summary>
    public static string Tidied(string? address)
    {
        var tidy = string.Concat((address ?? "").Where(c => !char.IsControl(c))).Trim();
        return tidy.Length <= Longest ? tidy : tidy[..Longest];
    }

    private static bool IsMail(string address) =>
        Uri.TryCreate(address, UriKind.Absolute, out var to) && to.Scheme == Uri.UriSchemeMailto && address.Contains('@', StringComparison.Ordinal);
}
