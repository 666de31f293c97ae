using Hangfire;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Documents;
using Wexel.Core.Outlets;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.Packages;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Learning;
using Wexel.Server.Releases;
using Wexel.Server.Setup;

namespace Wexel.Server.Demo;

/// <summary>Renders and releases a demo lesson, as a trainer would; tried again until its recording is looked through.</summary>
internal sealed class DemoRelease(
    WexelDb db,
    ReleaseWishes wishes,
    LearningLog learning,
    Surveys surveys,
    OpenedPages opened,
    TimeProvider clock,
    IBackgroundJobClient jobs,
    IOptions<WexelOptions> options,
    ILogger<DemoRelease> log
)
{
    private static readonly TimeSpan Wait = TimeSpan.FromSeconds(2);

    /// <param name="lessonId">The lesson.</param>
    /// <param name="wanted">Where it is to go, and who may see it there.</param>
    /// <param name="cancel">Stops it.</param>
    [Queue("soon")]
    public async Task RunAsync(Guid lessonId, ReleaseWish[] wanted, CancellationToken cancel)
    {
        var outlets = Array.ConvertAll(wanted, w => w.OutletId);
        var lesson = await db.Lessons.Include(l => l.Recording).FirstAsync(l => l.Id == lessonId, cancel);
        var releases = await db.Releases.IgnoreQueryFilters().Where(r => r.LessonId == lessonId && outlets.Contains(r.OutletId)).ToListAsync(cancel);
        if (releases.Count < outlets.Length && lesson.Recording is { Analysis: not null, AnalysisSoFar: null })
        {
            var trainer = await db.Users.FirstAsync(u => u.Email == DemoSeed.TrainerAddress, cancel);
            await wishes.WantAsync(wanted, trainer.Id, tells: false, cancel);
        }

        if (releases.Count < outlets.Length || releases.Any(r => ReleasePhases.IsUnderWay(r.Phase)))
        {
            jobs.Schedule<DemoRelease>(job => job.RunAsync(lessonId, wanted, CancellationToken.None), Wait);
            return;
        }

        foreach (var failed in releases.Where(r => r.Problem is not null))
            log.LogWarning("The demo lesson at outlet {Outlet}: {Problem}", failed.OutletId, failed.Problem);
        await AddPlayThroughsAsync(lesson, cancel);
    }

    /// <summary>What the player reported when people played the lesson through; <c>demo/play.mjs</c> recorded it.</summary>
    private async Task AddPlayThroughsAsync(Lesson lesson, CancellationToken cancel)
    {
        var file = Path.Combine(options.Value.Demo!, "play-throughs.json");
        if (!File.Exists(file))
            return;
        var release = await db.Releases.AsNoTracking().Where(r => r.LessonId == lesson.Id && r.Outlet!.Kind == ChannelKind.Channel).FirstOrDefaultAsync(cancel);
        if (release is null)
            return;
        var taken = new Taken(release.LessonId, release.OutletId, release.Id, release.Revision);
        var page = PlayerLesson.Format.Read(release.Player);
        var length = WexelJson.Read<RecordingFacts>(lesson.Recording!.Facts).Length;
        foreach (var played in WexelJson.Read<List<PlayThrough>>(await File.ReadAllTextAsync(file, cancel)).Where(p => p.Lesson == lesson.Title))
        {
            var person = await db.Users.FirstAsync(u => u.Email == played.Learner, cancel);
            // They had the page open for as long as the lesson is.
            var report = new WatchedReport(
                null,
                [.. played.Watched.Select(r => new TimeRange(TimeSpan.FromMilliseconds(r[0]), TimeSpan.FromMilliseconds(r[1])))],
                TimeSpan.FromMilliseconds(played.Position),
                opened.At(clock.GetUtcNow() - length),
                [.. (played.Again ?? []).Select(r => new TimeRange(TimeSpan.FromMilliseconds(r[0]), TimeSpan.FromMilliseconds(r[1])))]
            );
            var learner = new Learner(person.Id.ToString("N"), person.DisplayName, "");
            await learning.AddAsync(taken, learner, report, cancel);
            foreach (var given in played.Answers ?? [])
            {
                if (page.Questions.FirstOrDefault(q => q.Id == given.Question) is { } question)
                    await learning.AnswerAsync(taken, learner, new AnswerGiven(Guid.NewGuid(), question, given.Answer, null), cancel);
            }

            if (played.Said is { } said && page.Survey is { } survey)
                await surveys.TakeAsync(taken, learner, survey, said, cancel);
        }
    }

    private sealed record PlayThrough(
        string Lesson,
        string Learner,
        IReadOnlyList<IReadOnlyList<long>> Watched,
        long Position,
        IReadOnlyList<IReadOnlyList<long>>? Again,
        IReadOnlyList<AnswerPlayed>? Answers,
        IReadOnlyDictionary<string, IReadOnlyList<string>>? Said
    );

    private sealed record AnswerPlayed(string Question, IReadOnlyList<string> Answer);
}
