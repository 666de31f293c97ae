using System.Collections.Concurrent;
using System.Globalization;
using System.Net;
using System.Net.Http.Headers;

namespace Wexel.StandIns.Listening;

/// <summary>A feed that somebody subscribed to, with what was asked of its server.</summary>
internal sealed class Subscription(int number, Uri address)
{
    internal int Number => number;
    internal Uri Address => address;
    internal EntityTagHeaderValue? Tag { get; set; }
    internal DateTimeOffset? Modified { get; set; }
    internal Show? Show { get; set; }
    internal ConcurrentQueue<string> Asked { get; } = new();
}

/// <summary>The app's subscriptions: fetched, refreshed only when they changed, and downloaded in pieces.</summary>
internal sealed class Subscriptions(IHttpClientFactory clients, string data)
{
    internal const string Client = "podcasts";
    private const long Piece = 256 * 1024;

    private readonly ConcurrentDictionary<int, Subscription> _all = new();
    private readonly string _folder = Directory.CreateDirectory(Path.Combine(data, "listening")).FullName;
    private int _last;

    internal IEnumerable<Subscription> All => _all.Values.OrderBy(s => s.Number);

    internal Subscription? Find(int number) => _all.GetValueOrDefault(number);

    internal async Task<Subscription> AddAsync(Uri address, CancellationToken cancel)
    {
        if (_all.Values.FirstOrDefault(s => s.Address == address) is not { } subscription)
        {
            subscription = new Subscription(Interlocked.Increment(ref _last), address);
            _all[subscription.Number] = subscription;
        }

        await RefreshAsync(subscription, cancel);
        return subscription;
    }

    /// <summary>Asks whether the feed changed (RFC 9110, section 13.1) and reads it if so.</summary>
    internal async Task RefreshAsync(Subscription subscription, CancellationToken cancel)
    {
        using var ask = new HttpRequestMessage(HttpMethod.Get, subscription.Address);
        if (subscription.Tag is { } tag)
            ask.Headers.IfNoneMatch.Add(tag);
        ask.Headers.IfModifiedSince = subscription.Modified;
        try
        {
            using var answer = await clients.CreateClient(Client).SendAsync(ask, cancel);
            subscription.Asked.Enqueue(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"GET {subscription.Address.AbsolutePath}"
                        + $"{(ask.Headers.IfNoneMatch.Count == 0 && ask.Headers.IfModifiedSince is null ? "" : " if it changed")}: "
                        + $"{(int)answer.StatusCode} {answer.ReasonPhrase}"
                )
            );
            if (answer.StatusCode == HttpStatusCode.NotModified)
                return;
            if (!answer.IsSuccessStatusCode)
            {
                subscription.Show ??= new Show("(not there)", "", "", null, null, false, [], [$"The server answered {(int)answer.StatusCode}."]);
                return;
            }

            (subscription.Tag, subscription.Modified) = (answer.Headers.ETag, answer.Content.Headers.LastModified);
            subscription.Show = Show.Read(await answer.Content.ReadAsByteArrayAsync(cancel));
        }
        catch (HttpRequestException failed)
        {
            subscription.Asked.Enqueue($"GET {subscription.Address.AbsolutePath}: {failed.Message}");
            subscription.Show ??= new Show("(not reached)", "", "", null, null, false, [], [failed.Message]);
        }
    }

    /// <summary>Where an episode lies once it was downloaded.</summary>
    internal string Kept(Subscription subscription, int episode) =>
        Path.Combine(_folder, string.Create(CultureInfo.InvariantCulture, $"{subscription.Number}-{episode}"));

    /// <summary>Downloads an episode piece by piece (RFC 9110, section 14); what came before is not asked for again.</summary>
    internal async Task DownloadAsync(Subscription subscription, int episode, CancellationToken cancel)
    {
        var wanted = subscription.Show!.Episodes[episode];
        await using var file = new FileStream(Kept(subscription, episode), FileMode.OpenOrCreate, FileAccess.Write);
        while (file.Length < wanted.Bytes)
        {
            file.Position = file.Length;
            using var ask = new HttpRequestMessage(HttpMethod.Get, wanted.Media)
            {
                Headers = { Range = new RangeHeaderValue(file.Length, Math.Min(wanted.Bytes, file.Length + Piece) - 1) },
            };
            using var answer = await clients.CreateClient(Client).SendAsync(ask, HttpCompletionOption.ResponseHeadersRead, cancel);
            subscription.Asked.Enqueue(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"GET {new Uri(wanted.Media).AbsolutePath} {ask.Headers.Range}: {(int)answer.StatusCode}, {answer.Content.Headers.ContentType}"
                )
            );
            if (answer.StatusCode != HttpStatusCode.PartialContent)
                return;
            await answer.Content.CopyToAsync(file, cancel);
        }
    }

    /// <summary>A small text that belongs to an episode, or null.</summary>
    internal async Task<string?> TextAsync(string? address, CancellationToken cancel)
    {
        if (address is null)
            return null;
        using var answer = await clients.CreateClient(Client).GetAsync(address, cancel);
        return answer.IsSuccessStatusCode ? await answer.Content.ReadAsStringAsync(cancel) : null;
    }
}
