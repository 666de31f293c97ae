using Hangfire;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Encoding;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Channel;
using Wexel.Server.Kit;
using Wexel.Server.Lessons;
using Wexel.Server.Releases;
using Wexel.Server.Rendering;
using Wexel.Server.Setup;

namespace Wexel.Server.Demo;

/// <summary>Renders and releases the first demo lesson, as a trainer would; tried again until its recording is looked through.</summary>
internal sealed class DemoRelease(WexelDb db, LessonReels reels, Releaser releaser, PackageSender sender, ProgressKeeper keeper, IBackgroundJobClient jobs, IOptions<WexelOptions> options, TimeProvider clock, ILogger<DemoRelease> log)
{
    private static readonly TimeSpan Wait = TimeSpan.FromSeconds(2);

    [Queue("default")]
    public async Task RunAsync(CancellationToken cancel)
    {
        var lesson = await db.Lessons.Include(l => l.Recording).Include(l => l.Renditions).OrderBy(l => l.Position).FirstAsync(cancel);
        var document = Json.Read<LessonDocument>((await db.LessonRevisions.FirstAsync(r => r.LessonId == lesson.Id && r.Number == lesson.Revision, cancel)).Document);
        Rendition?[] renditions = [await RenditionAsync(lesson, document, Profiles.Web, cancel), await RenditionAsync(lesson, document, Profiles.Podcast720, cancel)];
        if (renditions.Any(r => r?.State is null or RenditionState.Waiting or RenditionState.Working))
        {
            jobs.Schedule<DemoRelease>(job => job.RunAsync(CancellationToken.None), Wait);
            return;
        }

        foreach (var outlet in await db.Outlets.OrderBy(o => o.Kind).ToListAsync(cancel))
            await ReleaseAsync(lesson, outlet, cancel);
        await AddPlayThroughsAsync(lesson, cancel);
    }

    /// <summary>The lesson's rendition with a profile, asked for where there is none; null while the recording is still looked through.</summary>
    private async Task<Rendition?> RenditionAsync(Lesson lesson, LessonDocument document, Profile profile, CancellationToken cancel)
    {
        if (lesson.Renditions.FirstOrDefault(r => r.ProfileId == profile.Id) is { } asked)
            return asked;
        if (RenderPlans.Of(await reels.OfAsync(document, cancel), document, profile, HouseKeeper.OnPictures(await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel))) is not { } planned)
            return null;
        var trainer = await db.Users.FirstAsync(u => u.Email == DemoSeed.TrainerAddress, cancel);
        var rendition = new Rendition { LessonId = lesson.Id, Revision = lesson.Revision, ProfileId = profile.Id, RequestedBy = trainer.Id, RequestedAt = clock.GetUtcNow(), EncodeKey = planned.EncodeKey };
        db.Renditions.Add(rendition);
        await db.SaveChangesAsync(cancel);
        jobs.Enqueue<RenderJob>(job => job.RunAsync(rendition.Id, CancellationToken.None));
        return rendition;
    }

    private async Task ReleaseAsync(Lesson lesson, Outlet outlet, CancellationToken cancel)
    {
        var (release, problem) = await releaser.ReleaseAsync(lesson.Id, outlet.Id, (outlet.Kind == OutletKind.PodcastFeed ? Profiles.Podcast720 : Profiles.Web).Id, Visibility.WithLink, cancel);
        if (release is not null && outlet.Address is not null)
            problem = await sender.SendAsync(release, outlet, Releaser.Identifier(release), cancel);
        if (problem is not null)
            log.LogWarning("The demo lesson at {Outlet}: {Problem}", outlet.Name, problem.Sentence);
    }

    /// <summary>What the player reported when people played the lesson through; <c>demo/play.mjs</c> recorded it.</summary>
    private async Task AddPlayThroughsAsync(Lesson lesson, CancellationToken cancel)
    {
        var file = Path.Combine(options.Value.Demo!, "play-throughs.json");
        if (!File.Exists(file))
            return;
        var length = Json.Read<RecordingFacts>(lesson.Recording!.Facts).Length;
        foreach (var played in Json.Read<List<PlayThrough>>(await File.ReadAllTextAsync(file, cancel)))
        {
            var person = await db.Users.FirstAsync(u => u.Email == played.Learner, cancel);
            await keeper.AddAsync(lesson.Id, person.Id.ToString("N"), person.DisplayName, length, played.Watched, played.Position, cancel);
        }
    }

    private sealed record PlayThrough(string Learner, IReadOnlyList<IReadOnlyList<long>> Watched, long Position);
}
