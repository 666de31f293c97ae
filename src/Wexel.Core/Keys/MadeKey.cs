using System.Security.Cryptography;

namespace Wexel.Core.Keys;

/// <summary>The key of something that Wexel makes: the hash of its maker and of every field that is declared to make a difference to it.</summary>
public static class MadeKey
{
    /// <summary>SHA-256 in lower-case hexadecimal.</summary>
    /// <param name="maker">The maker's name and version, of <see cref="Makers"/>.</param>
    /// <param name="declare">Writes what it is made from: hashes of what goes in, and parameters.</param>
    public static string Hash(string maker, Action<KeyFields> declare)
    {
        var fields = new KeyFields();
        fields.Add("maker", maker);
        declare(fields);
        return Convert.ToHexStringLower(SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(fields.ToString())));
    }
}
