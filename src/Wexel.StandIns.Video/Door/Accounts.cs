using System.Text.Json;

namespace Wexel.StandIns.Video.Door;

/// <summary>A channel of an account.</summary>
internal sealed record Channel(string Id, string Name);

/// <summary>An account with Skerry.</summary>
/// <param name="Id">Its name.</param>
/// <param name="Name">What it is called on pages.</param>
/// <param name="Mail">Where Skerry writes to.</param>
/// <param name="Channels">Its channels.</param>
/// <param name="IsNew">Whether it is new: then a video may be 10 minutes long.</param>
internal sealed record Account(string Id, string Name, string Mail, IReadOnlyList<Channel> Channels, bool IsNew)
{
    internal static readonly IReadOnlyList<Account> All =
    [
        new("ticket-desk", "Ticket desk", "desk@brackwater.example", [new("desk-lessons", "Desk lessons"), new("desk-news", "Desk news")], IsNew: false),
        new("deck-crew", "Deck crew", "deck@brackwater.example", [new("deck-drills", "Deck drills")], IsNew: true),
    ];

    /// <summary>The longest video; null for any.</summary>
    internal TimeSpan? Longest => IsNew ? TimeSpan.FromMinutes(10) : null;

    internal static Account? Find(string? id) => All.FirstOrDefault(a => a.Id == id);

    internal static Account? Of(string channel) => All.FirstOrDefault(a => a.Channels.Any(c => c.Id == channel));
}

/// <summary>What accounts have allowed to programs, on disk.</summary>
internal sealed class Accounts(string data)
{
    internal sealed record Allowed(string Grant, string Account, string Client, DateTimeOffset At);

    private readonly string _file = Path.Combine(data, "allowed.json");
    private readonly Lock _lock = new();

    internal IReadOnlyList<Allowed> All
    {
        get
        {
            lock (_lock)
                return File.Exists(_file) ? JsonSerializer.Deserialize<List<Allowed>>(File.ReadAllText(_file))! : [];
        }
    }

    internal bool Stands(string grant) => All.Any(a => a.Grant == grant);

    internal string Allow(string account, string client)
    {
        var grant = Guid.NewGuid().ToString("N");
        Write([.. All, new Allowed(grant, account, client, DateTimeOffset.UtcNow)]);
        return grant;
    }

    internal void Withdraw(string grant) => Write([.. All.Where(a => a.Grant != grant)]);

    private void Write(List<Allowed> all)
    {
        lock (_lock)
        {
            File.WriteAllText(_file + ".new", JsonSerializer.Serialize(all));
            File.Move(_file + ".new", _file, overwrite: true);
        }
    }
}
