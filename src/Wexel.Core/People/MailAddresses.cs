using System.Net.Mail;

namespace Wexel.Core.People;

/// <summary>Mail addresses as people write them.</summary>
public static class MailAddresses
{
    /// <summary>The longest address (RFC 5321, section 4.5.3.1.3), in characters.</summary>
    public const int Longest = 254;

    /// <summary>Whether a text is an address (RFC 5321, section 4.1.2, and RFC 6531 for letters of any writing), and not a display name with one.</summary>
    public static bool IsOne(string text) => text.Length <= Longest && MailAddress.TryCreate(text, out var mail) && mail.Address == text;
}
