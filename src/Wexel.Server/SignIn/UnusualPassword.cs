using CliWrap;
using CliWrap.Buffered;
using Microsoft.AspNetCore.Identity;
using Wexel.Data.Model;

namespace Wexel.Server.SignIn;

/// <summary>
/// Passwords that are not among the first that somebody who tries would try: no words and no patterns, as Debian's cracklib knows them, and nothing of
/// the person's own name and address.
/// </summary>
internal sealed class UnusualPassword : IPasswordValidator<Person>
{
    /// <summary>The fewest characters of a password (OWASP ASVS 5.0, 6.2.1: at least 8).</summary>
    internal const int Shortest = 10;

    /// <summary>The most: longer ones cost the server time (OWASP ASVS 5.0, 6.2.9: at least 64 are permitted).</summary>
    private const int Longest = 200;

    private const int ShortestPart = 3;

    public async Task<IdentityResult> ValidateAsync(UserManager<Person> manager, Person user, string? password)
    {
        if (password is null)
            return IdentityResult.Success;
        if (password.Length > Longest)
            return Refused($"A password has at most {Longest} characters.");
        if (password.Any(char.IsControl))
            return Refused("A password has no line breaks or other signs that cannot be typed.");
        if (
            user
                .DisplayName.Split(' ')
                .Concat((user.Email ?? "").Split('@', '.'))
                .Any(part => part.Length >= ShortestPart && password.Contains(part, StringComparison.OrdinalIgnoreCase))
        )
            return Refused("A password that has your name or address in it is easy to guess. Take another.");
        // It says "PASSWORD: OK", or what is wrong with it.
        var said = await Cli.Wrap("cracklib-check").WithStandardInputPipe(PipeSource.FromString(password + "\n")).ExecuteBufferedAsync();
        return said.StandardOutput.TrimEnd().EndsWith(": OK", StringComparison.Ordinal)
            ? IdentityResult.Success
            : Refused("That password is easy to guess. Take a longer one, such as three or four words that have nothing to do with each other.");
    }

    private static IdentityResult Refused(string sentence) => IdentityResult.Failed(new IdentityError { Code = "PasswordEasy", Description = sentence });
}
