using System.Text;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.Extensions.Options;
using Wexel.Data.Model;
using Wexel.Server.Mailing;
using Wexel.Server.Setup;

namespace Wexel.Server.SignIn;

/// <summary>Passwords that are chosen by a link in a mail: where one was forgotten, and where somebody is new.</summary>
internal sealed class NewPasswords(UserManager<Person> people, Mailer mailer, IOptions<WexelOptions> options)
{
    /// <summary>How long such a link is good.</summary>
    internal static readonly TimeSpan GoodFor = TimeSpan.FromDays(3);

    /// <summary>Sends a link to whoever has an account, and nothing to others.</summary>
    public async Task SendAsync(string mail, CancellationToken cancel)
    {
        if (await people.FindByEmailAsync(mail) is not { DisabledAt: null, IsGuest: false } person)
            return;
        var text =
            $"Somebody wants to choose a new password for your account at {options.Value.House}:\n{await LinkAsync(person)}\n\n"
            + $"The link is good once, for {GoodFor.TotalDays:0} days. If it was not you, nothing needs to be done: your password stays.\n";
        await mailer.SendAsync(person.Email!, $"A new password for {options.Value.House}", text, cancel);
    }

    /// <summary>Tells somebody who is new that they have an account.</summary>
    public async Task InviteAsync(Guid id, CancellationToken cancel)
    {
        if (await people.FindByIdAsync(id.ToString()) is not { DisabledAt: null } person)
            return;
        var text =
            $"{person.DisplayName}, you have an account at {options.Value.House}. Choose a password here:\n{await LinkAsync(person)}\n\n"
            + $"The link is good once, for {GoodFor.TotalDays:0} days; after that, say at {new Uri(options.Value.PublicAddress, "sign-in")} that you have "
            + "forgotten your password, and another one comes.\n";
        await mailer.SendAsync(person.Email!, $"Your account at {options.Value.House}", text, cancel);
    }

    /// <summary>Takes a new password.</summary>
    /// <returns>Why not; null where it is taken.</returns>
    internal async Task<IdentityResult> TakeAsync(Guid id, string token, string password)
    {
        if (await people.FindByIdAsync(id.ToString()) is not { DisabledAt: null } person || Decoded(token) is not { } plain)
            return IdentityResult.Failed(people.ErrorDescriber.InvalidToken());
        return await people.ResetPasswordAsync(person, plain, password);
    }

    private async Task<Uri> LinkAsync(Person person)
    {
        var token = WebEncoders.Base64UrlEncode(Encoding.UTF8.GetBytes(await people.GeneratePasswordResetTokenAsync(person)));
        // Behind the number sign it is sent to nobody, and stands in no log.
        return new Uri(options.Value.PublicAddress, $"new-password#{person.Id:D}.{token}");
    }

    private static string? Decoded(string token)
    {
        try
        {
            return Encoding.UTF8.GetString(WebEncoders.Base64UrlDecode(token));
        }
        catch (FormatException)
        {
            return null;
        }
    }
}
