using System.Text;

namespace Wexel.Core.Outlets.Channels;

/// <summary>The short address of a channel, behind <c>/c/</c>: small letters of the Latin alphabet, digits and hyphens.</summary>
public static class ChannelAddress
{
    private const int Longest = 60;

    /// <summary>An address made of a channel's name: whatever is no letter from a to z and no digit becomes a hyphen.</summary>
    /// <returns>The address; empty where nothing of the name can stand in one.</returns>
    public static string From(string name)
    {
        var text = new StringBuilder();
        foreach (var letter in name.ToLowerInvariant())
        {
            if (char.IsAsciiLetterOrDigit(letter))
                text.Append(letter);
            else if (text.Length > 0 && text[^1] != '-')
                text.Append('-');
            if (text.Length == Longest)
                break;
        }

        return text.ToString().Trim('-');
    }

    /// <summary>Why an address that somebody entered cannot be used, or null.</summary>
    public static Problem? Unusable(string address) =>
        From(address) == address && address.Length > 0
            ? null
            : new Problem(
                "channel-address",
                $"A short address has 1 to {Longest} small letters from a to z, digits and hyphens between them, as in ticket-desk.",
                "address"
            );
}
