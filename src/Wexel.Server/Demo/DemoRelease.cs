using Hangfire;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Documents;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.People;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Learning;
using Wexel.Server.Releases;
using Wexel.Server.Rendering;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Demo;

/// <summary>Renders and releases a demo lesson, as a trainer would; tried again until its recording is looked through.</summary>
internal sealed class DemoRelease(
    WexelDb db,
    RenderQueue queue,
    Releaser releaser,
    OutletShelf places,
    LearningLog learning,
    OpenedPages opened,
    TimeProvider clock,
    IBackgroundJobClient jobs,
    IOptions<WexelOptions> options,
    ILogger<DemoRelease> log
)
{
    private static readonly TimeSpan Wait = TimeSpan.FromSeconds(2);

    /// <param name="lessonId">The lesson.</param>
    /// <param name="outlets">The demo's own outlets; somebody may have added others since.</param>
    /// <param name="cancel">Stops it.</param>
    [Queue("soon")]
    public async Task RunAsync(Guid lessonId, Guid[] outlets, CancellationToken cancel)
    {
        var lesson = await db.Lessons.Include(l => l.Recording).Include(l => l.Renditions).FirstAsync(l => l.Id == lessonId, cancel);
        if (lesson.Renditions.Count == 0)
        {
            var trainer = await db.Users.FirstAsync(u => u.Email == DemoSeed.TrainerAddress, cancel);
            await queue.AskAsync([lesson], [Core.Encoding.Profiles.Web, Core.Encoding.Profiles.Podcast720], trainer.Id, cancel);
        }

        if (lesson.Renditions.Count == 0 || lesson.Renditions.Any(r => r.State is RenditionState.Waiting or RenditionState.Working))
        {
            jobs.Schedule<DemoRelease>(job => job.RunAsync(lessonId, outlets, CancellationToken.None), Wait);
            return;
        }

        foreach (var outlet in await db.Outlets.Where(o => outlets.Contains(o.Id)).OrderBy(o => o.Kind).ToListAsync(cancel))
            await ReleaseAsync(lesson, outlet, cancel);
        await AddPlayThroughsAsync(lesson, cancel);
    }

    private async Task ReleaseAsync(Lesson lesson, Outlet outlet, CancellationToken cancel)
    {
        var usual = places.Known(outlet).Terms.Usual.Id;
        if (
            (await releaser.ReleaseAsync(new ReleaseAim(lesson.Id, outlet.Id, usual, Visibility.WithLink), cancel)).Is(out var release, out var problem)
            && outlet.DeliverTo is not null
        )
            problem = await releaser.DeliverAsync(release, cancel);
        if (problem is not null)
            log.LogWarning("The demo lesson at {Outlet}: {Problem}", outlet.Name, problem.Sentence);
    }

    /// <summary>What the player reported when people played the lesson through; <c>demo/play.mjs</c> recorded it.</summary>
    private async Task AddPlayThroughsAsync(Lesson lesson, CancellationToken cancel)
    {
        var file = Path.Combine(options.Value.Demo!, "play-throughs.json");
        if (!File.Exists(file))
            return;
        var taken = await db
            .Releases.Where(r => r.LessonId == lesson.Id && r.Outlet!.Kind == ChannelKind.Channel)
            .Select(r => new Taken(r.LessonId, r.OutletId, r.Id, r.Revision))
            .FirstOrDefaultAsync(cancel);
        if (taken is null)
            return;
        var length = WexelJson.Read<RecordingFacts>(lesson.Recording!.Facts).Length;
        foreach (var played in WexelJson.Read<List<PlayThrough>>(await File.ReadAllTextAsync(file, cancel)).Where(p => p.Lesson == lesson.Title))
        {
            var person = await db.Users.FirstAsync(u => u.Email == played.Learner, cancel);
            // They had the page open for as long as the lesson is.
            var report = new WatchedReport(
                null,
                [.. played.Watched.Select(r => new TimeRange(TimeSpan.FromMilliseconds(r[0]), TimeSpan.FromMilliseconds(r[1])))],
                TimeSpan.FromMilliseconds(played.Position),
                opened.At(clock.GetUtcNow() - length)
            );
            await learning.AddAsync(taken, new Learner(person.Id.ToString("N"), person.DisplayName, ""), report, cancel);
        }
    }

    private sealed record PlayThrough(string Lesson, string Learner, IReadOnlyList<IReadOnlyList<long>> Watched, long Position);
}
