using Microsoft.EntityFrameworkCore;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Live;

namespace Wexel.Server.Rendering;

/// <summary>
/// Looks after renditions while they are made: twice a second it writes how far they are, tells the desks, and sees whether somebody
/// stopped them, or whether the encoder has not moved for long.
/// </summary>
internal sealed class RenderWatch : IProgress<TimeSpan>, IAsyncDisposable
{
    private static readonly TimeSpan Tick = TimeSpan.FromMilliseconds(500);

    private readonly IDbContextFactory<WexelDb> _databases;
    private readonly LiveNews _news;
    private readonly TimeProvider _clock;
    private readonly IReadOnlyList<(Guid Id, Guid Lesson)> _renditions;
    private readonly TimeSpan _hangsAfter;
    private readonly TimeSpan _lostAfter;
    private readonly CancellationTokenSource _stop;
    private readonly CancellationTokenSource _ended = new();
    private readonly DateTimeOffset _began;
    private readonly Task _watching;
    private long _reached;
    private long _movedAt;
    private bool _encoding;

    /// <param name="databases">Where the rows are.</param>
    /// <param name="news">Where desks are told.</param>
    /// <param name="clock">The clock.</param>
    /// <param name="renditions">What is made.</param>
    /// <param name="hangsAfter">An encoder that reports nothing for so long hangs.</param>
    /// <param name="lostAfter">What is silent for so long is taken over by another worker.</param>
    /// <param name="shutdown">The server goes down.</param>
    internal RenderWatch(
        IDbContextFactory<WexelDb> databases,
        LiveNews news,
        TimeProvider clock,
        IReadOnlyList<Rendition> renditions,
        TimeSpan hangsAfter,
        TimeSpan lostAfter,
        CancellationToken shutdown
    )
    {
        (_databases, _news, _clock, _hangsAfter, _lostAfter, _renditions) = (
            databases,
            news,
            clock,
            hangsAfter,
            lostAfter,
            [.. renditions.Select(r => (r.Id, r.LessonId))]
        );
        _stop = CancellationTokenSource.CreateLinkedTokenSource(shutdown);
        _began = clock.GetUtcNow();
        _watching = WatchAsync();
    }

    /// <summary>Cancelled when all of them were stopped, when the encoder hangs, and when the server goes down.</summary>
    internal CancellationToken Stop => _stop.Token;

    /// <summary>Whether the encoder was ended since it hung.</summary>
    internal bool Hangs { get; private set; }

    /// <summary>How long what is made is.</summary>
    internal TimeSpan Length { get; set; } = TimeSpan.MaxValue;

    /// <summary>Whether an encoder is at work, which reports.</summary>
    internal void Encoding(bool now)
    {
        Interlocked.Exchange(ref _movedAt, _clock.GetTimestamp());
        Volatile.Write(ref _encoding, now);
    }

    public void Report(TimeSpan value)
    {
        Interlocked.Exchange(ref _reached, value.Ticks);
        Interlocked.Exchange(ref _movedAt, _clock.GetTimestamp());
    }

    internal async Task EndAsync()
    {
        await _ended.CancelAsync();
        await _watching;
    }

    public async ValueTask DisposeAsync()
    {
        await EndAsync();
        _stop.Dispose();
        _ended.Dispose();
    }

    private async Task WatchAsync()
    {
        await using var db = await _databases.CreateDbContextAsync(CancellationToken.None);
        using var timer = new PeriodicTimer(Tick, _clock);
        var (ids, lessons) = (_renditions.Select(r => r.Id).ToList(), _renditions.Select(r => r.Lesson).Distinct().ToList());
        var told = _clock.GetUtcNow();
        try
        {
            while (await timer.WaitForNextTickAsync(_ended.Token))
            {
                var now = _clock.GetUtcNow();
                var share = Math.Clamp((double)Interlocked.Read(ref _reached) / Length.Ticks, 0, 1);
                int alive;
                try
                {
                    alive = await db
                        .Renditions.Where(r => ids.Contains(r.Id) && r.State == RenditionState.Working)
                        .ExecuteUpdateAsync(set => set.SetProperty(r => r.Progress, share).SetProperty(r => r.SignOfLifeAt, now), _ended.Token);
                    told = now;
                }
                catch (Exception failed) when (DatabaseOutage.Is(failed))
                {
                    // A database that restarts is back soon. Before another worker may take this over, it must be let go of here.
                    alive = now - told < _lostAfter / 2 ? 1 : 0;
                }

                Hangs |= Volatile.Read(ref _encoding) && _clock.GetElapsedTime(Interlocked.Read(ref _movedAt)) > _hangsAfter;
                if (alive == 0 || Hangs)
                {
                    await _stop.CancelAsync();
                    return;
                }

                var left = share < 0.02 ? (double?)null : (now - _began).TotalSeconds * (1 - share) / share;
                await _news.ProgressAsync(new ProgressNews(ids, lessons, share, left));
            }
        }
        catch (OperationCanceledException)
        {
            // The render has ended; so does the watching.
        }
    }
}
