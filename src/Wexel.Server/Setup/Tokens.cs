using System.Security.Cryptography;

namespace Wexel.Server.Setup;

/// <summary>What stands in addresses that cannot be guessed.</summary>
internal static class Tokens
{
    internal static string New() => Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(12));
}
