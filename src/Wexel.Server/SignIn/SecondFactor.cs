using Microsoft.AspNetCore.Identity;
using Wexel.Data.Model;

namespace Wexel.Server.SignIn;

/// <summary>Codes that an authenticator app shows (TOTP, RFC 6238: 30 seconds, six digits, HMAC-SHA-1), and codes to recover with where it is lost.</summary>
internal sealed class SecondFactor(UserManager<Person> people, TimeProvider clock)
{
    private const int RecoveryCodes = 10;
    private const int StepSeconds = 30;

    /// <summary>How many steps before and after now a code may be of, since clocks differ; as the framework takes them.</summary>
    private const int Steps = 2;

    /// <summary>A new key for an app, in Base32; the second factor is not on until a code of it was shown.</summary>
    internal async Task<string> BeginAsync(Person person)
    {
        await people.ResetAuthenticatorKeyAsync(person);
        return (await people.GetAuthenticatorKeyAsync(person))!;
    }

    /// <summary>The address that apps read from a picture (Key URI format, as apps take it).</summary>
    internal static string Uri(string house, Person person, string key) =>
        $"otpauth://totp/{System.Uri.EscapeDataString($"{house}:{person.Email}")}?secret={key}"
        + $"&issuer={System.Uri.EscapeDataString(house)}&digits=6&period={StepSeconds}";

    /// <summary>Switches it on.</summary>
    /// <returns>Codes to recover with, each good for once; null where the code is wrong.</returns>
    internal async Task<IReadOnlyList<string>?> ConfirmAsync(Person person, string code)
    {
        if (!await TakeCodeAsync(person, code))
            return null;
        await people.SetTwoFactorEnabledAsync(person, true);
        return [.. (await people.GenerateNewTwoFactorRecoveryCodesAsync(person, RecoveryCodes))!];
    }

    internal async Task EndAsync(Person person)
    {
        await people.SetTwoFactorEnabledAsync(person, false);
        await people.ResetAuthenticatorKeyAsync(person);
    }

    /// <summary>Whether a code is right: of the app, and then never again, or to recover with, and then used up.</summary>
    internal async Task<bool> TakeAsync(Person person, string code) =>
        await TakeCodeAsync(person, code) || (await people.RedeemTwoFactorRecoveryCodeAsync(person, code.Trim())).Succeeded;

    private async Task<bool> TakeCodeAsync(Person person, string code)
    {
        code = code.Replace(" ", "", StringComparison.Ordinal).Trim();
        if (!await people.VerifyTwoFactorTokenAsync(person, TokenOptions.DefaultAuthenticatorProvider, code))
            return false;
        // Which step it is of is not said: the same code is not taken again while it could still be right.
        var step = clock.GetUtcNow().ToUnixTimeSeconds() / StepSeconds;
        if (person.LastCodeStep is { } last && step <= last + (2 * Steps) && person.LastCodeHash == Hash(code))
            return false;
        (person.LastCodeStep, person.LastCodeHash) = (step, Hash(code));
        await people.UpdateAsync(person);
        return true;
    }

    private static string Hash(string code) => Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(code)));
}
