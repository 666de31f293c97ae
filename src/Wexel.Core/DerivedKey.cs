using System.Security.Cryptography;
using System.Text.Json;
using Wexel.Core.Documents;

namespace Wexel.Core;

/// <summary>The key of a file that Wexel makes: the hash of everything that it is made from.</summary>
public static class DerivedKey
{
    /// <summary>SHA-256 in lower-case hexadecimal over the maker's name and version and what it was given.</summary>
    /// <param name="maker">The maker's name, with a version that is raised when its output changes, such as <c>encode/1</c>.</param>
    /// <param name="parts">Hashes of inputs and parameters, in a fixed order; each is written as JSON.</param>
    public static string Of(string maker, params ReadOnlySpan<object?> parts)
    {
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        hash.AppendData(JsonSerializer.SerializeToUtf8Bytes(maker));
        foreach (var part in parts)
            hash.AppendData(JsonSerializer.SerializeToUtf8Bytes(part, WexelJson.Options));
        return Convert.ToHexStringLower(hash.GetHashAndReset());
    }
}
