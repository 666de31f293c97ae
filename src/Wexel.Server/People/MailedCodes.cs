using System.Globalization;
using System.Security.Cryptography;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Mailing;
using Wexel.Server.Setup;

namespace Wexel.Server.People;

/// <summary>
/// Codes that are sent by mail to people who are named and have no account: with one they sign in as a guest, who sees what they are named at and
/// nothing that is for the house. A code is good once, for a while, and for a few tries.
/// </summary>
internal sealed class MailedCodes(
    WexelDb db,
    UserManager<Person> people,
    IPasswordHasher<Person> hasher,
    Mailer mailer,
    IOptions<WexelOptions> options,
    TimeProvider clock
)
{
    private const int MostTries = 5;

    private static readonly TimeSpan GoodFor = TimeSpan.FromMinutes(15);

    // What is hashed is no password of anybody.
    private static readonly Person Nobody = new() { DisplayName = "" };

    /// <summary>Sends a code, run as a job: one that could not go out is tried again, with another code. Who is not named gets nothing; who has an
    /// account is told to use it.</summary>
    public async Task SendAsync(string mail, CancellationToken cancel)
    {
        var house = options.Value.House;
        if (await people.FindByEmailAsync(mail) is { IsGuest: false } known)
        {
            if (known.DisabledAt is null)
                await mailer.SendAsync(
                    mail,
                    $"Signing in at {house}",
                    $"Somebody asked for a code for this address. You have an account at {house}: sign in with your password at "
                        + $"{new Uri(options.Value.PublicAddress, "sign-in")}\n\nIf it was not you, nothing needs to be done.\n",
                    cancel
                );
            return;
        }

        if (!await IsNamedAsync(mail, cancel))
            return;
        var code = RandomNumberGenerator.GetInt32(1_000_000).ToString("D6", CultureInfo.InvariantCulture);
        var key = Key(mail);
        await using var replacing = await db.Database.BeginTransactionAsync(cancel);
        await db.MailedCodes.Where(c => c.Mail == key).ExecuteDeleteAsync(cancel);
        db.MailedCodes.Add(
            new MailedCode
            {
                Mail = key,
                Hash = hasher.HashPassword(Nobody, code),
                ExpiresAt = clock.GetUtcNow() + GoodFor,
            }
        );
        await db.SaveChangesAsync(cancel);
        await replacing.CommitAsync(cancel);
        await mailer.SendAsync(
            mail,
            $"{code} is your code for {house}",
            $"Type this code where you asked for it: {code}\n\nIt is good once, for {GoodFor.TotalMinutes:0} minutes. If you did not ask for it, nothing "
                + "needs to be done: without it nobody sees anything.\n",
            cancel
        );
    }

    /// <summary>Takes a code.</summary>
    /// <returns>Whose it is; null where it is wrong, used, over, or tried too often.</returns>
    internal async Task<Person?> TakeAsync(string mail, string code, CancellationToken cancel)
    {
        var (key, now) = (Key(mail), clock.GetUtcNow());
        // Each try is counted before it is looked at, whoever tries at the same moment.
        var tried = db.MailedCodes.Where(c => c.Mail == key && c.ExpiresAt > now && c.Tries < MostTries);
        if (await tried.ExecuteUpdateAsync(set => set.SetProperty(c => c.Tries, c => c.Tries + 1), cancel) == 0)
            return null;
        var kept = await db.MailedCodes.AsNoTracking().FirstOrDefaultAsync(c => c.Mail == key, cancel);
        if (kept is null || hasher.VerifyHashedPassword(Nobody, kept.Hash, code.Trim()) == PasswordVerificationResult.Failed)
            return null;
        if (await db.MailedCodes.Where(c => c.Id == kept.Id).ExecuteDeleteAsync(cancel) == 0)
            return null;
        var person = await people.FindByEmailAsync(mail) ?? await AddAsync(mail);
        return person is { IsGuest: true, DisabledAt: null } ? person : null;
    }

    private async Task<Person?> AddAsync(string mail)
    {
        var guest = new Person
        {
            UserName = mail.Trim(),
            Email = mail.Trim(),
            EmailConfirmed = true,
            DisplayName = mail.Trim().Split('@')[0],
            IsGuest = true,
        };
        return (await people.CreateAsync(guest)).Succeeded ? guest : null;
    }

    private async Task<bool> IsNamedAsync(string mail, CancellationToken cancel) =>
        (await db.Releases.Where(r => r.Named != null && r.Visibility == Visibility.Named).Select(r => r.Named).ToListAsync(cancel)).Exists(named =>
            NamedPeople.Read(named).Mails.Contains(mail.Trim(), StringComparer.OrdinalIgnoreCase)
        );

    private static string Key(string mail) => mail.Trim().ToUpperInvariant();
}
