using Hangfire;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Core.Lessons;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Estimates;
using Wexel.Server.Live;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Rendering;

/// <summary>What of a wish could not be taken into the queue, and why.</summary>
internal sealed record RefusedRender(Guid LessonId, string LessonTitle, string ProfileTitle, Problem Problem);

/// <summary>What became of a wish.</summary>
internal sealed record AskedRenders(IReadOnlyList<Rendition> Renditions, IReadOnlyList<RefusedRender> Refused);

/// <summary>The queue of renditions. Their rows are the truth; a background job only says that there may be something to do.</summary>
internal sealed class RenderQueue(
    WexelDb db,
    LessonSaver saver,
    RenderPlans plans,
    RenditionEstimates estimates,
    DiskRoom room,
    LiveNews news,
    IBackgroundJobClient jobs,
    MachineShare share,
    TimeProvider clock
)
{
    /// <summary>Takes several lessons with several profiles into the queue, as one batch. What waits or is worked on already is not taken twice.</summary>
    /// <param name="lessons">The lessons.</param>
    /// <param name="profiles">The profiles.</param>
    /// <param name="person">Who asks.</param>
    /// <param name="tells">Whether a mail tells when all of it is made.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task<AskedRenders> AskAsync(
        IReadOnlyList<Lesson> lessons,
        IReadOnlyList<Profile> profiles,
        Guid person,
        bool tells,
        CancellationToken cancel
    )
    {
        var now = clock.GetUtcNow();
        var batch = new RenderBatch
        {
            RequestedBy = person,
            RequestedAt = now,
            ToldAt = tells ? null : now,
        };
        var place = await db.Renditions.MaxAsync(r => (double?)r.Place, cancel) ?? 0;
        var (renditions, refused, bytes) = (new List<Rendition>(), new List<RefusedRender>(), 0L);
        foreach (var lesson in lessons)
        {
            var document = (await saver.CurrentAsync(lesson, cancel))!;
            var renderable = await plans.LessonAsync(document, cancel);
            foreach (var profile in profiles)
            {
                var (planned, problem) = LessonRules.NotReady(document) is { } notReady ? notReady : renderable.Wanted(profile);
                if (planned is null)
                {
                    refused.Add(new RefusedRender(lesson.Id, document.Title, profile.Title, problem!));
                    continue;
                }

                var estimate = await estimates.EstimateAsync(planned, cancel);
                // What is encoded and the finished copy lie on the disk together, and an estimate can be low.
                bytes += (long)estimate.Size.Most * 2;
                if (room.Lacks(bytes, "the rendition") is { } full)
                {
                    refused.Add(new RefusedRender(lesson.Id, document.Title, profile.Title, full));
                    continue;
                }

                var same = await db
                    .Renditions.Include(r => r.Lesson)
                    .FirstOrDefaultAsync(
                        r =>
                            r.LessonId == lesson.Id
                            && r.ProfileId == profile.Id
                            && r.EncodeKey == planned.Keys.Encodes
                            && (r.State == RenditionState.Waiting || r.State == RenditionState.Working),
                        cancel
                    );
                if (same is null)
                {
                    db.Renditions.Add(
                        same = new Rendition
                        {
                            LessonId = lesson.Id,
                            Lesson = lesson,
                            Revision = lesson.Revision,
                            ProfileId = profile.Id,
                            Profile = Profile.Format.Write(profile),
                            BatchId = batch.Id,
                            Batch = batch,
                            RequestedAt = now,
                            Place = ++place,
                            EncodeKey = planned.Keys.Encodes,
                            Length = planned.Plan.Length,
                            EstimatedBytes = estimate.Bytes,
                            EstimatedTime = estimate.Time,
                            EstimateSampled = estimate.Sampled,
                        }
                    );
                }

                renditions.Add(same);
            }
        }

        await db.SaveChangesAsync(cancel);
        foreach (var rendition in renditions.Where(r => r.BatchId == batch.Id))
        {
            CallWorker();
            await news.RenditionAsync(new RenditionNews(rendition.Id, rendition.LessonId, rendition.State, 0, null));
        }

        return new AskedRenders(renditions, refused);
    }

    /// <summary>Takes the next that waits, with as many others of the same lesson as go into the same pass; empty when nothing waits.</summary>
    internal async Task<IReadOnlyList<Guid>> TakeNextAsync(CancellationToken cancel)
    {
        while (await db.Renditions.AsNoTracking().Where(r => r.State == RenditionState.Waiting).OrderBy(r => r.Place).FirstOrDefaultAsync(cancel) is { } next)
        {
            var now = clock.GetUtcNow();
            if (!await TakeAsync(next.Id, now, cancel))
                continue;
            var taken = new List<Guid> { next.Id };
            List<Rendition> others = next.Alone
                ? []
                : await db
                    .Renditions.AsNoTracking()
                    .Where(r => r.State == RenditionState.Waiting && r.LessonId == next.LessonId && r.Revision == next.Revision && !r.Alone)
                    .OrderBy(r => r.Place)
                    .ToListAsync(cancel);
            foreach (var other in others.Take(share.Together(others.Prepend(next).Select(r => Profile.Format.Read(r.Profile).MostPictures())) - 1))
            {
                if (await TakeAsync(other.Id, now, cancel))
                    taken.Add(other.Id);
            }

            return taken;
        }

        return [];
    }

    /// <summary>Tells a worker that something may wait.</summary>
    internal void CallWorker() => jobs.Enqueue<RenderJob>(job => job.RunAsync(CancellationToken.None));

    /// <summary>Only one worker can turn "waiting" into "working". What is made in one pass starts at one time.</summary>
    private async Task<bool> TakeAsync(Guid id, DateTimeOffset now, CancellationToken cancel) =>
        await db
            .Renditions.Where(r => r.Id == id && r.State == RenditionState.Waiting)
            .ExecuteUpdateAsync(
                set =>
                    set.SetProperty(r => r.State, RenditionState.Working)
                        .SetProperty(r => r.StartedAt, now)
                        .SetProperty(r => r.SignOfLifeAt, now)
                        .SetProperty(r => r.Attempts, r => r.Attempts + 1),
                cancel
            ) == 1;
}
