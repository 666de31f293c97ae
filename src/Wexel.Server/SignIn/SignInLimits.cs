using System.Globalization;
using System.Threading.RateLimiting;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Server.Setup;

namespace Wexel.Server.SignIn;

/// <summary>
/// How often somebody may sign in wrongly. An address has so many tries; so has an account, whoever tries. A browser in which the account was signed in
/// before has tries of its own, so that strangers who use up an account's do not lock out whose it is (OWASP, Authentication Cheat Sheet and Device
/// Cookies). Who signs in rightly uses up none; many do so from one address each morning.
/// </summary>
internal sealed class SignInLimits : IDisposable
{
    private const string Cookie = "wexel-device";

    /// <summary>How many may try an account at once: what fails counts only afterwards.</summary>
    private const int AtOnce = 4;

    private static readonly TimeSpan KnownFor = TimeSpan.FromDays(400);

    private readonly PartitionedRateLimiter<string> _addresses;
    private readonly PartitionedRateLimiter<string> _accounts;
    private readonly PartitionedRateLimiter<string> _atOnce = PartitionedRateLimiter.Create<string, string>(who =>
        RateLimitPartition.GetConcurrencyLimiter(who, _ => new ConcurrencyLimiterOptions { PermitLimit = AtOnce, QueueLimit = 10 * AtOnce })
    );
    private readonly ITimeLimitedDataProtector _devices;
    private readonly TimeSpan _backAfter;

    public SignInLimits(IOptions<WexelOptions> options, IDataProtectionProvider protection)
    {
        var limits = options.Value;
        _backAfter = limits.SignInsBackAfter;
        _addresses = Limiter(limits.SignInsAnAddress, limits.SignInsBackAfter);
        _accounts = Limiter(limits.SignInsAnAccount, limits.SignInsBackAfter);
        _devices = protection.CreateProtector("wexel", "device").ToTimeLimitedDataProtector();
    }

    /// <summary>Begins a try; it ends when what is given back is disposed of.</summary>
    /// <param name="http">The request.</param>
    /// <param name="account">The address of the account.</param>
    internal async Task<SignInTry> BeginAsync(HttpContext http, string account)
    {
        account = account.Trim().ToUpperInvariant();
        var (address, who) = (http.Connection.RemoteIpAddress?.ToString() ?? "", IsKnown(http, account) ? $"known {http.Request.Cookies[Cookie]}" : account);
        var turn = await _atOnce.AcquireAsync(who, 1, http.RequestAborted);
        return new SignInTry(turn, turn.IsAcquired ? Wait(_addresses, address) ?? Wait(_accounts, who) : _backAfter, () =>
        {
            _addresses.AttemptAcquire(address).Dispose();
            _accounts.AttemptAcquire(who).Dispose();
        });
    }

    /// <summary>Has the browser know that the account was signed in here.</summary>
    internal void Remember(HttpContext http, string account) =>
        http.Response.Cookies.Append(
            Cookie,
            _devices.Protect($"{Guid.NewGuid():N} {account.Trim().ToUpperInvariant()}", KnownFor),
            new CookieOptions
            {
                HttpOnly = true,
                SameSite = SameSiteMode.Strict,
                Secure = http.Request.IsHttps,
                MaxAge = KnownFor,
                IsEssential = true,
                Path = "/api",
            }
        );

    public void Dispose()
    {
        _addresses.Dispose();
        _accounts.Dispose();
        _atOnce.Dispose();
    }

    private bool IsKnown(HttpContext http, string account)
    {
        if (http.Request.Cookies[Cookie] is not { Length: > 0 } cookie)
            return false;
        try
        {
            return _devices.Unprotect(cookie).Split(' ', 2) is [_, var known] && known == account;
        }
        catch (System.Security.Cryptography.CryptographicException)
        {
            return false;
        }
    }

    /// <summary>How long to wait where there is no try left; null where there is one.</summary>
    private TimeSpan? Wait(PartitionedRateLimiter<string> limiter, string who) =>
        limiter.GetStatistics(who) is { CurrentAvailablePermits: < 1 } ? _backAfter : null;

    private static PartitionedRateLimiter<string> Limiter(int tries, TimeSpan backAfter) =>
        PartitionedRateLimiter.Create<string, string>(who => RateLimitPartition.GetTokenBucketLimiter(who, _ => new TokenBucketRateLimiterOptions
            {
                TokenLimit = tries,
                TokensPerPeriod = 1,
                ReplenishmentPeriod = backAfter,
                QueueLimit = 0,
                AutoReplenishment = true,
            }));
}

/// <summary>A try to sign in, or to show that one knows one's password.</summary>
/// <param name="turn">What is given back at its end.</param>
/// <param name="wait">How long to wait first; null where it may be made.</param>
/// <param name="failed">Counts it.</param>
internal sealed class SignInTry(RateLimitLease turn, TimeSpan? wait, Action failed) : IDisposable
{
    internal TimeSpan? Wait => wait;

    /// <summary>It was wrong.</summary>
    internal void Failed() => failed();

    /// <summary>What is said where it may not be made yet (429 with the time to wait, RFC 6585, section 4).</summary>
    /// <param name="http">The request.</param>
    /// <param name="code">The problem's code.</param>
    /// <param name="field">The field that it stands at.</param>
    /// <param name="besides">What else can be done, behind a semicolon; empty for nothing.</param>
    internal ProblemHttpResult TooOften(HttpContext http, string code, string field, string besides = "")
    {
        var seconds = Math.Ceiling((wait ?? TimeSpan.Zero).TotalSeconds);
        http.Response.Headers.RetryAfter = seconds.ToString(CultureInfo.InvariantCulture);
        return Problems.Answer(
            new Problem(code, $"There were too many tries. Wait {seconds:0} seconds, then try again{besides}.", field),
            StatusCodes.Status429TooManyRequests
        );
    }

    public void Dispose() => turn.Dispose();
}
