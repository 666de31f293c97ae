using Microsoft.EntityFrameworkCore;
using Wexel.Data;
using Wexel.Server.Live;

namespace Wexel.Server.Releases;

/// <summary>Looks after what is being sent: twice a second it writes how much of it is there, and tells the desks.</summary>
internal sealed class SendWatch : IAsyncDisposable
{
    private static readonly TimeSpan Tick = TimeSpan.FromMilliseconds(500);

    private readonly CancellationTokenSource _ended = new();
    private readonly Task _watching;
    private long _sent;

    /// <param name="databases">Where the release's row is.</param>
    /// <param name="news">Where desks are told.</param>
    /// <param name="clock">The clock.</param>
    /// <param name="release">The release.</param>
    /// <param name="lesson">Its lesson.</param>
    /// <param name="bytes">How much there is to send.</param>
    internal SendWatch(IDbContextFactory<WexelDb> databases, LiveNews news, TimeProvider clock, Guid release, Guid lesson, long bytes) =>
        _watching = WatchAsync(databases, news, clock, release, lesson, bytes);

    /// <summary>A stream that tells how much was read of it; one that is opened again begins anew, and takes back what it told.</summary>
    internal Func<Stream> Counted(Func<Stream> open)
    {
        var told = new Told(this);
        return () => new CountedStream(open(), told.Anew());
    }

    public async ValueTask DisposeAsync()
    {
        await _ended.CancelAsync();
        await _watching;
        _ended.Dispose();
    }

    private async Task WatchAsync(IDbContextFactory<WexelDb> databases, LiveNews news, TimeProvider clock, Guid release, Guid lesson, long bytes)
    {
        await using var db = await databases.CreateDbContextAsync(CancellationToken.None);
        using var timer = new PeriodicTimer(Tick, clock);
        var written = -1L;
        try
        {
            do
            {
                var sent = Math.Clamp(Interlocked.Read(ref _sent), 0, bytes);
                if (sent == written)
                    continue;
                written = sent;
                await db
                    .Releases.IgnoreQueryFilters()
                    .Where(r => r.Id == release)
                    .ExecuteUpdateAsync(set => set.SetProperty(r => r.SentBytes, sent).SetProperty(r => r.BytesToSend, bytes), CancellationToken.None);
                await news.LessonAsync(lesson);
            } while (await timer.WaitForNextTickAsync(_ended.Token));
        }
        catch (OperationCanceledException)
        {
            // It is sent, or not; so ends the watching.
        }
        catch (Exception failed) when (DatabaseOutage.Is(failed))
        {
            // How far it is is told no more; what was put is written down by whoever sends.
        }
    }

    private sealed class Told(SendWatch watch)
    {
        private long _of;

        internal Action<int> Anew()
        {
            Interlocked.Add(ref watch._sent, -Interlocked.Exchange(ref _of, 0));
            return read =>
            {
                Interlocked.Add(ref _of, read);
                Interlocked.Add(ref watch._sent, read);
            };
        }
    }
}
