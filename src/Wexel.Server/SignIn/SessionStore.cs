using System.Security.Claims;
using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.EntityFrameworkCore;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Remembering;

namespace Wexel.Server.SignIn;

/// <summary>
/// Keeps in the database who is signed in where: a cookie holds nothing but a key. It ends when somebody signs out, when a password changes, when a
/// person is disabled, when they end it from elsewhere, and by itself.
/// </summary>
internal sealed class SessionStore(IDbContextFactory<WexelDb> databases, IHttpContextAccessor http, Changes changes, TimeProvider clock) : ITicketStore
{
    /// <summary>The claim in which a session says which one it is.</summary>
    internal const string Claim = "wexel:session";

    /// <summary>The claims in which a session says by which provider it was begun, and what the provider calls it.</summary>
    internal const string Provider = "wexel:provider",
        ProviderSession = "wexel:provider-session";

    private const string Table = "SignedIn";
    private const int LongestBrowser = 300;

    /// <summary>After this somebody must sign in again, however often they come.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromDays(90);

    private readonly Remembered<byte[]> _known = new(changes, clock, Table, "AspNetUsers");

    /// <summary>How often at most it is written down that somebody is still there.</summary>
    private static readonly TimeSpan NotedEvery = TimeSpan.FromMinutes(5);

    public async Task<string> StoreAsync(AuthenticationTicket ticket)
    {
        var key = Convert.ToBase64String(RandomNumberGenerator.GetBytes(32));
        var now = clock.GetUtcNow();
        var browser = http.HttpContext?.Request.Headers.UserAgent.ToString();
        var session = new SignedIn
        {
            PersonId = ticket.Principal.Id(),
            KeyHash = Hash(key),
            Ticket = [],
            Since = now,
            SeenAt = now,
            ExpiresAt = ticket.Properties.ExpiresUtc ?? now.AddDays(1),
            Address = http.HttpContext?.Connection.RemoteIpAddress?.ToString(),
            Browser =
                string.IsNullOrEmpty(browser) ? null
                : browser.Length <= LongestBrowser ? browser
                : browser[..LongestBrowser],
            ProviderId = Guid.TryParse(ticket.Principal.FindFirstValue(Provider), out var provider) ? provider : null,
            ProviderSession = ticket.Principal.FindFirstValue(ProviderSession),
        };
        ((ClaimsIdentity)ticket.Principal.Identity!).AddClaim(new Claim(Claim, session.Id.ToString()));
        session.Ticket = TicketSerializer.Default.Serialize(ticket);
        await using var db = await databases.CreateDbContextAsync();
        db.SignedIn.Add(session);
        await db.SaveChangesAsync();
        return key;
    }

    public async Task RenewAsync(string key, AuthenticationTicket ticket)
    {
        await using var db = await databases.CreateDbContextAsync();
        var (hash, bytes, expires) = (Hash(key), TicketSerializer.Default.Serialize(ticket), ticket.Properties.ExpiresUtc ?? clock.GetUtcNow().AddDays(1));
        await db.SignedIn.Where(s => s.KeyHash == hash).ExecuteUpdateAsync(set => set.SetProperty(s => s.Ticket, bytes).SetProperty(s => s.ExpiresAt, expires));
        changes.Changed(Table);
    }

    public async Task<AuthenticationTicket?> RetrieveAsync(string key)
    {
        var hash = Hash(key);
        return await _known.FindAsync(hash, _ => ReadAsync(hash), CancellationToken.None) is { } ticket ? TicketSerializer.Default.Deserialize(ticket) : null;
    }

    public async Task RemoveAsync(string key)
    {
        await using var db = await databases.CreateDbContextAsync();
        var hash = Hash(key);
        await db.SignedIn.Where(s => s.KeyHash == hash).ExecuteDeleteAsync();
        changes.Changed(Table);
    }

    private async Task<byte[]?> ReadAsync(string hash)
    {
        await using var db = await databases.CreateDbContextAsync();
        var now = clock.GetUtcNow();
        var session = await db
            .SignedIn.AsNoTracking()
            .Where(s => s.KeyHash == hash && s.ExpiresAt > now && s.Since > now - Longest && db.Users.Any(p => p.Id == s.PersonId && p.DisabledAt == null))
            .Select(s => new { s.Ticket, s.SeenAt })
            .FirstOrDefaultAsync();
        if (session?.SeenAt < now - NotedEvery)
            await db.SignedIn.Where(s => s.KeyHash == hash).ExecuteUpdateAsync(set => set.SetProperty(s => s.SeenAt, now));
        return session?.Ticket;
    }

    /// <summary>Whether one was begun lately.</summary>
    internal async Task<bool> IsFreshAsync(Guid? session, TimeSpan within)
    {
        await using var db = await databases.CreateDbContextAsync();
        var since = clock.GetUtcNow() - within;
        return await db.SignedIn.AnyAsync(s => s.Id == session && s.Since > since);
    }

    /// <summary>Ends one of a person's.</summary>
    /// <returns>Whether there was one.</returns>
    internal async Task<bool> EndAsync(Guid person, Guid session)
    {
        await using var db = await databases.CreateDbContextAsync();
        var ended = await db.SignedIn.Where(s => s.Id == session && s.PersonId == person).ExecuteDeleteAsync();
        changes.Changed(Table);
        return ended > 0;
    }

    /// <summary>Ends all that a person has, but perhaps one.</summary>
    internal async Task EndAllAsync(Guid person, Guid? butNot)
    {
        await using var db = await databases.CreateDbContextAsync();
        await db.SignedIn.Where(s => s.PersonId == person && s.Id != butNot).ExecuteDeleteAsync();
        changes.Changed(Table);
    }

    /// <summary>Ends what a provider says is over: one session, or all of somebody's.</summary>
    /// <param name="provider">The provider.</param>
    /// <param name="session">What it calls the session; null for all.</param>
    /// <param name="person">Whose; null where the provider does not say.</param>
    /// <returns>How many there were.</returns>
    internal async Task<int> EndProvidedAsync(Guid provider, string? session, Guid? person)
    {
        await using var db = await databases.CreateDbContextAsync();
        var ended = await db
            .SignedIn.Where(s =>
                s.ProviderId == provider && (session == null ? s.PersonId == person : s.ProviderSession == session && (person == null || s.PersonId == person))
            )
            .ExecuteDeleteAsync();
        changes.Changed(Table);
        return ended;
    }

    /// <summary>Some were ended with what they belonged to.</summary>
    internal void Forget() => changes.Changed(Table);

    private static string Hash(string key) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(key)));
}
