using Microsoft.EntityFrameworkCore;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Releases;

/// <summary>
/// Looks after what is being sent: twice a second it writes how much of it is there, tells the desks, and sees whether something else was said of
/// the release meanwhile.
/// </summary>
internal sealed class SendWatch : IAsyncDisposable, IProgress<long>
{
    private static readonly TimeSpan Tick = TimeSpan.FromMilliseconds(500);

    private readonly CancellationTokenSource _ended = new();
    private readonly CancellationTokenSource _stopped = new();
    private readonly Task _watching;
    private long _sent;

    private SendWatch(Func<SendWatch, Task> watch) => _watching = watch(this);

    /// <summary>Begins to look after what is sent.</summary>
    /// <param name="databases">Where the release's row is.</param>
    /// <param name="tell">Tells desks.</param>
    /// <param name="clock">The clock.</param>
    /// <param name="release">The release, as it was when sending began.</param>
    /// <param name="bytes">How much there is to send.</param>
    internal static SendWatch Begin<T>(IDbContextFactory<WexelDb> databases, Func<Task> tell, TimeProvider clock, T release, long bytes)
        where T : PackagedRelease
    {
        var (id, said) = (release.Id, release.SaidNumber);
        return new SendWatch(watch =>
            watch.WatchAsync(databases, db => db.Set<T>().IgnoreQueryFilters().Where(r => r.Id == id && r.SaidNumber == said), tell, clock, bytes)
        );
    }

    /// <summary>Cancelled once something else was said of the release.</summary>
    internal CancellationToken Stopped => _stopped.Token;

    /// <summary>Told by whoever knows it how much is there.</summary>
    public void Report(long value) => Interlocked.Exchange(ref _sent, value);

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
        _stopped.Dispose();
    }

    private async Task WatchAsync<T>(
        IDbContextFactory<WexelDb> databases,
        Func<WexelDb, IQueryable<T>> asItWas,
        Func<Task> tell,
        TimeProvider clock,
        long bytes
    )
        where T : PackagedRelease
    {
        await using var db = await databases.CreateDbContextAsync(CancellationToken.None);
        using var timer = new PeriodicTimer(Tick, clock);
        var written = -1L;
        try
        {
            do
            {
                var sent = Math.Clamp(Interlocked.Read(ref _sent), 0, bytes);
                var rows = await asItWas(db)
                    .ExecuteUpdateAsync(set => set.SetProperty(r => r.SentBytes, sent).SetProperty(r => r.BytesToSend, bytes), CancellationToken.None);
                if (rows == 0)
                {
                    await _stopped.CancelAsync();
                    return;
                }

                if (sent != written)
                    await tell();
                written = sent;
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
