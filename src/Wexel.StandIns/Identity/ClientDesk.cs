using System.Collections.Concurrent;

namespace Wexel.StandIns.Identity;

/// <summary>An application that lets people sign in here.</summary>
/// <param name="Id">What it is called in requests.</param>
/// <param name="Secret">What it shows that it is the one.</param>
/// <param name="Back">Where people are sent back to.</param>
/// <param name="SignedOut">Where they are sent when they have signed out; empty for nowhere.</param>
/// <param name="BackChannel">Where it is told that somebody has signed out (OpenID Connect Back-Channel Logout 1.0); empty where it is not.</param>
internal sealed record Client(string Id, string Secret, string Back, string SignedOut, string BackChannel);

/// <summary>The applications that are known, and in which of them each session was used.</summary>
internal sealed class ClientDesk
{
    private readonly ConcurrentDictionary<string, Client> _all = new();
    private readonly ConcurrentDictionary<(string Session, string Client), bool> _used = new();

    public ClientDesk(IConfiguration configuration)
    {
        foreach (var client in configuration.GetSection("StandIns:Clients").Get<List<Client>>() ?? [])
            _all[client.Id] = client;
    }

    internal IEnumerable<Client> All => _all.Values.OrderBy(c => c.Id, StringComparer.Ordinal);

    internal Client? Find(string? id) => id is not null && _all.TryGetValue(id, out var client) ? client : null;

    internal void Add(Client client) => _all[client.Id] = client;

    internal void Used(string session, string client) => _used[(session, client)] = true;

    /// <summary>The applications in which a session was used, which is over after this.</summary>
    internal IReadOnlyList<Client> End(string session)
    {
        var used = _used.Keys.Where(k => k.Session == session).ToList();
        used.ForEach(k => _used.TryRemove(k, out _));
        return [.. used.Select(k => Find(k.Client)).OfType<Client>()];
    }
}
