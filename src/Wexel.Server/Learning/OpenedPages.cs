using Microsoft.AspNetCore.DataProtection;

namespace Wexel.Server.Learning;

/// <summary>When a learner's page was opened, in a form that only this server can have given out.</summary>
internal sealed class OpenedPages(IDataProtectionProvider protection, TimeProvider clock)
{
    private readonly IDataProtector _protector = protection.CreateProtector("wexel", "opened");

    internal string Now() => At(clock.GetUtcNow());

    internal string At(DateTimeOffset time) => _protector.Protect(time.ToUnixTimeMilliseconds().ToString(System.Globalization.CultureInfo.InvariantCulture));

    /// <summary>The time; null for what this server has not given out.</summary>
    internal DateTimeOffset? Read(string? opened)
    {
        try
        {
            return opened is { Length: > 0 }
                ? DateTimeOffset.FromUnixTimeMilliseconds(long.Parse(_protector.Unprotect(opened), System.Globalization.CultureInfo.InvariantCulture))
                : null;
        }
        catch (System.Security.Cryptography.CryptographicException)
        {
            return null;
        }
    }
}
