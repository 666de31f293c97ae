using System.Globalization;
using Hangfire;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Encoding;
using Wexel.Core.Lessons;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Data.Storage;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;
using Wexel.Server.Kit;
using Wexel.Server.Lessons;
using Wexel.Server.Live;
using Wexel.Server.Mailing;
using Wexel.Server.Setup;

namespace Wexel.Server.Rendering;

/// <summary>Renders one rendition. It may die at any line and be run again; whoever comes second finds nothing to do.</summary>
internal sealed class RenderJob(IDbContextFactory<WexelDb> databases, FileStore store, Finisher finisher, LiveNews news, IBackgroundJobClient jobs, IOptions<WexelOptions> options, TimeProvider clock, ILogger<RenderJob> log)
{
    internal const string EncodeName = "encode.mp4";
    private const string SoundName = "sound.flac";

    private static readonly TimeSpan Tick = TimeSpan.FromMilliseconds(500);

    [AutomaticRetry(Attempts = 0)]
    [Queue("render")]
    public async Task RunAsync(Guid id, CancellationToken shutdown)
    {
        await using var db = await databases.CreateDbContextAsync(shutdown);
        var now = clock.GetUtcNow();
        // Only one worker can turn "waiting" into "working".
        var taken = await db.Renditions.Where(r => r.Id == id && r.State == RenditionState.Waiting)
            .ExecuteUpdateAsync(set => set.SetProperty(r => r.State, RenditionState.Working).SetProperty(r => r.StartedAt, now).SetProperty(r => r.SignOfLifeAt, now), shutdown);
        if (taken == 0)
            return;
        var rendition = await db.Renditions.Include(r => r.Lesson).FirstAsync(r => r.Id == id, shutdown);
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(shutdown);
        var reached = new Reached();
        var watching = WatchAsync(rendition, reached, stop);
        try
        {
            await MakeAsync(rendition, db, reached, stop.Token);
            rendition.State = RenditionState.Done;
            rendition.Progress = 1;
        }
        catch (OperationCanceledException) when (!shutdown.IsCancellationRequested)
        {
            rendition.State = RenditionState.Cancelled;
        }
        catch (OperationCanceledException)
        {
            // The server goes down: wait for the next one, from the start.
            rendition.State = RenditionState.Waiting;
            rendition.Progress = 0;
        }
        catch (ToolFailedException failed)
        {
            (rendition.State, rendition.Said, rendition.Advice) = (RenditionState.Failed, failed.Said, failed.Advice);
        }
        catch (IOException failed)
        {
            (rendition.State, rendition.Said, rendition.Advice) = (RenditionState.Failed, failed.Message, "Look whether the server's disk is full, then try again.");
        }

        await stop.CancelAsync();
        await watching;
        rendition.EndedAt = clock.GetUtcNow();
        await db.SaveChangesAsync(CancellationToken.None);
        await news.RenditionAsync(new RenditionNews(id, rendition.LessonId, rendition.State, rendition.Progress, null));
        log.LogInformation("Rendition {Id} of lesson {Lesson}: {State}", id, rendition.LessonId, rendition.State);
        if (rendition.State is RenditionState.Done or RenditionState.Failed)
            await TellAsync(db, rendition);
        if (rendition.State == RenditionState.Waiting)
            jobs.Enqueue<RenderJob>(job => job.RunAsync(id, CancellationToken.None));
    }

    private async Task MakeAsync(Rendition rendition, WexelDb db, Reached reached, CancellationToken cancel)
    {
        var saved = await db.LessonRevisions.FirstAsync(r => r.LessonId == rendition.LessonId && r.Number == rendition.Revision, cancel);
        var document = Json.Read<LessonDocument>(saved.Document);
        var mark = HouseKeeper.OnPictures(await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel));
        var found = await new LessonReels(db).OfAsync(document, cancel);
        var planned = RenderPlans.Of(found, document, Profiles.Find(rendition.ProfileId)!, mark)!;
        // The house may have changed its mark since this was asked for.
        rendition.EncodeKey = planned.EncodeKey;
        reached.Length = planned.Plan.Length;
        var encode = store.Derived(rendition.EncodeKey, EncodeName);
        if (!File.Exists(encode))
        {
            var recordings = found.Hashes.Select(store.Recording).ToList();
            var sound = planned.SoundKey is null ? null : await LessonSound.MakeAsync(planned.Plan.Sound!, planned.Reel, planned.Map, recordings, store.Derived(planned.SoundKey, SoundName), cancel);
            using var orphan = new OrphanMark(store, rendition.Id.ToString("N"));
            await Renderer.EncodeAsync(planned.Plan, new EncodeInputs(recordings, sound, planned.Plan.Picture.Mark is { } put ? store.Derived(put.Key, HouseKeeper.MarkFile) : null), encode, reached, orphan.Note, cancel);
        }

        var finished = await finisher.FinishAsync(rendition.EncodeKey, planned.Plan, document.Title, planned.Sections, cancel);
        (rendition.FileKey, rendition.Bytes, rendition.Check, rendition.Codecs) = (finished.FileKey, finished.Bytes, Json.Write(finished.Check), finished.Codecs);
    }

    /// <summary>Twice a second: writes how far it is, tells the desks, and sees whether somebody cancelled.</summary>
    private async Task WatchAsync(Rendition rendition, Reached reached, CancellationTokenSource stop)
    {
        await using var db = await databases.CreateDbContextAsync(CancellationToken.None);
        using var timer = new PeriodicTimer(Tick, clock);
        var began = clock.GetUtcNow();
        try
        {
            while (await timer.WaitForNextTickAsync(stop.Token))
            {
                var now = clock.GetUtcNow();
                var share = reached.Share;
                var alive = await db.Renditions.Where(r => r.Id == rendition.Id && r.State == RenditionState.Working)
                    .ExecuteUpdateAsync(set => set.SetProperty(r => r.Progress, share).SetProperty(r => r.SignOfLifeAt, now), stop.Token);
                if (alive == 0)
                {
                    await stop.CancelAsync();
                    return;
                }

                var left = share < 0.02 ? (double?)null : (now - began).TotalSeconds * (1 - share) / share;
                await news.RenditionAsync(new RenditionNews(rendition.Id, rendition.LessonId, RenditionState.Working, share, left));
            }
        }
        catch (OperationCanceledException)
        {
            // The render has ended; so does the watching.
        }
    }

    private async Task TellAsync(WexelDb db, Rendition rendition)
    {
        var person = await db.Users.FirstAsync(u => u.Id == rendition.RequestedBy);
        var profile = Profiles.Find(rendition.ProfileId)!.Title;
        var title = rendition.Lesson!.Title;
        var page = new Uri(options.Value.PublicAddress, $"lessons/{rendition.LessonId}/deliver");
        var (subject, text) = rendition.State == RenditionState.Done
            ? ($"Ready: {title}", $"“{title}” is rendered ({profile}), {(rendition.Bytes / 1e6).ToString("0.0", CultureInfo.InvariantCulture)} MB, in {TimeCode.Brief(rendition.EndedAt!.Value - rendition.StartedAt!.Value)}.\n\nCheck it and release it: {page}\n")
            : ($"Not rendered: {title}", $"“{title}” could not be rendered ({profile}).\n\n{rendition.Advice}\n\nThe encoder said:\n{rendition.Said}\n\n{page}\n");
        jobs.Enqueue<Mailer>(mailer => mailer.SendAsync(person.Email!, subject, text, CancellationToken.None));
    }

    /// <summary>The time in the output that the encoder has reached; written by it, read by the watcher.</summary>
    private sealed class Reached : IProgress<TimeSpan>
    {
        private long _ticks;

        public TimeSpan Length { get; set; } = TimeSpan.MaxValue;

        public double Share => Math.Clamp((double)Interlocked.Read(ref _ticks) / Length.Ticks, 0, 1);

        public void Report(TimeSpan value) => Interlocked.Exchange(ref _ticks, value.Ticks);
    }
}
