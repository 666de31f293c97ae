using Hangfire;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Cameras;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Feeds;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets.PodcastFeeds;
using Wexel.Core.Outlets.VideoServices;
using Wexel.Core.People;
using Wexel.Core.Scoring;
using Wexel.Core.Surveys;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Delivering.Http;
using Wexel.Delivering.VideoServices;
using Wexel.Making.Storage;
using Wexel.Server.Details;
using Wexel.Server.Feeds;
using Wexel.Server.Kit;
using Wexel.Server.Outlets;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.Uploads;

namespace Wexel.Server.Demo;

/// <summary>What <c>demo/lessons.json</c> says of one lesson.</summary>
/// <param name="Course">Its course; the first that is named is where others come in too.</param>
/// <param name="File">Its recording, in <c>demo/recordings</c>.</param>
/// <param name="Title">Its title.</param>
/// <param name="Length">How long it is, in minutes and seconds.</param>
/// <param name="Description">Its description.</param>
/// <param name="Contents">The file of its contents, if it has any.</param>
/// <param name="Captions">The file of its captions, if it has any.</param>
/// <param name="Marks">The file of what is asked in it, lies over its picture and under its voice, beside <c>lessons.json</c>; null for nothing.</param>
/// <param name="Released">Rendered and released at each of the demo's outlets.</param>
/// <param name="Details">What else is said of it.</param>
/// <param name="Camera">The camera over it; null for none.</param>
/// <param name="Opening">Who may see it in its channels; null for everybody. It stands there also where it is released nowhere else.</param>
internal sealed record DemoLesson(
    string Course,
    string File,
    string Title,
    string Length,
    string Description,
    string? Contents,
    string? Captions,
    string? Marks = null,
    bool Released = false,
    DetailSet? Details = null,
    DemoOpening? Opening = null,
    DemoCamera? Camera = null
);

/// <summary>A camera over a lesson of the demo.</summary>
/// <param name="File">Its recording, in <c>demo/recordings</c>.</param>
/// <param name="Earlier">How much earlier it started than the screen.</param>
/// <param name="Look">How it stands on the picture.</param>
/// <param name="Stretches">Where it is shown otherwise.</param>
internal sealed record DemoCamera(string File, TimeSpan Earlier, CameraLook Look, IReadOnlyList<CameraStretch> Stretches);

/// <summary>What is asked in one lesson of the demo, and what lies over its picture and under its voice.</summary>
/// <param name="Survey">What learners are asked about it.</param>
/// <param name="Goal">By what it is done.</param>
internal sealed record DemoMarks(Survey? Survey = null, LessonGoal? Goal = null) : PlacedThings;

/// <param name="Visibility">Who may see it.</param>
/// <param name="Groups">The groups that are named.</param>
/// <param name="InHours">In how many hours it opens; null for at once.</param>
internal sealed record DemoOpening(Visibility Visibility, IReadOnlyList<string>? Groups = null, int? InHours = null);

/// <summary>
/// Loads the demo world into an empty database: people, outlets, and the recordings through the same door as everybody's. It may be killed at any
/// line: what it left is
/// loaded at the next start, and nothing twice.
/// </summary>
internal sealed class DemoSeed(
    WexelDb db,
    Receiver receiver,
    LessonSaver saver,
    CaptionStore captionStore,
    FeedKeeper feeds,
    OutletKeeper outletKeeper,
    AllVideoServices services,
    HouseKeeper house,
    FileStore store,
    DetailKeeper details,
    DemoCrew crew,
    DemoChannels channels,
    IOptions<WexelOptions> options,
    IBackgroundJobClient jobs
)
{
    internal const string TrainerAddress = "mara.tarn@brackwater.example";
    internal const string LearnerAddress = "joss.reed@brackwater.example";
    internal const string Password = "Ferry-2026";

    /// <summary>Stands in the store while the demo is being loaded.</summary>
    private string Unfinished => Path.Combine(store.Root, "demo-unfinished");

    /// <summary>Whether there is a demo, and nobody has begun without it, or its loading was broken off.</summary>
    internal async Task<bool> IsWantedAsync(CancellationToken cancel) =>
        options.Value.Demo is not null && (File.Exists(Unfinished) || !await db.Users.AnyAsync(cancel));

    internal async Task RunAsync(CancellationToken cancel)
    {
        var folder = options.Value.Demo!;
        await File.WriteAllTextAsync(Unfinished, folder, cancel);
        await crew.AddAsync(Password, cancel);
        await channels.AddAsync(folder, cancel);
        await AddOutletAsync("webServer", new OutletRequest("intranet.example"), cancel);
        var practice = options.Value.PracticeLearningSystem?.AbsoluteUri;
        await AddOutletAsync("learningSystem", new OutletRequest("Harbour School", null, practice is null ? null : PutDelivery.Put, practice), cancel);
        if (services.Usual is { } service)
            await AddOutletAsync(VideoServiceKind.VideoService, new OutletRequest(service.Name), cancel);
        var lessons = WexelJson.Read<List<DemoLesson>>(await File.ReadAllTextAsync(Path.Combine(folder, "lessons.json"), cancel));
        // Courses are in the order of their numbers, which say when they were made, in milliseconds.
        var courses = await db.Courses.ToListAsync(cancel);
        foreach (var (i, title) in lessons.Select(l => l.Course).Distinct().Index().Where(c => courses.All(known => known.Title != c.Item)))
        {
            courses.Add(new Course { Id = Guid.CreateVersion7(DateTimeOffset.UtcNow.AddMilliseconds(i)), Title = title });
            db.Courses.Add(courses[^1]);
        }

        await db.SaveChangesAsync(cancel);
        var mark = Path.Combine(folder, "mark.png");
        if (File.Exists(mark))
        {
            await using var picture = File.OpenRead(mark);
            if (await house.TakeMarkAsync(picture, cancel) is { } problem)
                throw new InvalidOperationException(problem.Sentence);
        }

        var said = Path.Combine(folder, "house.json");
        if (File.Exists(said) && await details.SaveHouseAsync(WexelJson.Read<DetailSet>(await File.ReadAllTextAsync(said, cancel)), cancel) is { } unusable)
            throw new InvalidOperationException(unusable.Sentence);

        if (!await db.Outlets.AnyAsync(o => o.Kind == PodcastFeedKind.Feed, cancel))
        {
            await feeds.AddAsync(
                new FeedSettings(
                    "Ticket desk on the way",
                    "The lessons of the ticket desk, for the crew bus and the crossing.",
                    "Brackwater Ferries, staff training",
                    TrainerAddress,
                    "Education",
                    "How To",
                    "en-GB",
                    false,
                    null,
                    FeedMedia.Video,
                    FeedOrder.Serial,
                    true
                ),
                cancel
            );
        }

        // What learners may see comes first, the shortest of it before the others, so that there is soon something to look at.
        foreach (var demo in lessons.OrderByDescending(l => l.Released).ThenBy(l => TimeCode.Parse(l.Length)))
        {
            var lesson = await AddLessonAsync(folder, demo, cancel);
            var (course, place) = (courses.First(c => c.Title == demo.Course).Id, lessons.Where(l => l.Course == demo.Course).ToList().IndexOf(demo) + 1);
            await db
                .Lessons.Where(l => l.Id == lesson)
                .ExecuteUpdateAsync(set => set.SetProperty(l => l.CourseId, course).SetProperty(l => l.Position, place), cancel);
            if (await channels.WishesAsync(folder, demo, lesson, cancel) is { Length: > 0 } wishes)
                jobs.Enqueue<DemoRelease>(job => job.RunAsync(lesson, wishes, CancellationToken.None));
        }

        await channels.AddListsAsync(folder, cancel);

        File.Delete(Unfinished);
    }

    private async Task AddOutletAsync(string kind, OutletRequest request, CancellationToken cancel)
    {
        if (!await db.Outlets.AnyAsync(o => o.Kind == kind, cancel) && !(await outletKeeper.AddAsync(kind, request, cancel)).Is(out _, out var problem))
            throw new InvalidOperationException(problem.Sentence);
    }

    private async Task<Guid> AddLessonAsync(string demos, DemoLesson demo, CancellationToken cancel)
    {
        var folder = Path.Combine(demos, "recordings");
        await using var file = File.OpenRead(Path.Combine(folder, demo.File));
        var (done, problem) = await receiver.TakeAsync(file, file.Length, demo.File, Guid.Empty, "Mara Tarn", cancel);
        if (done is null)
            throw new InvalidOperationException(problem!.Sentence);
        var sections = demo.Contents is null
            ? []
            : ContentsText
                .Read(await File.ReadAllTextAsync(Path.Combine(folder, demo.Contents), cancel))
                .Lines.Select((line, i) => new Section($"s{i + 1}", line.At, line.Title, line.Nested))
                .ToList();
        var captions = demo.Captions is null ? null : await CaptionsAsync(Path.Combine(folder, demo.Captions), cancel);
        var marks = demo.Marks is null ? new DemoMarks() : WexelJson.Read<DemoMarks>(await File.ReadAllTextAsync(Path.Combine(demos, demo.Marks), cancel));
        // One that was saved before stays as it is.
        await saver.SaveAsync(
            done.LessonId,
            1,
            new LessonDocument(
                demo.Title,
                demo.Description,
                options.Value.Language,
                done.Hash,
                [],
                sections,
                captions is null ? [] : [captions],
                details: demo.Details,
                goal: marks.Goal,
                survey: marks.Survey
            )
            {
                Questions = marks.Questions,
                Areas = marks.Areas,
                Notes = marks.Notes,
                Sounds = marks.Sounds,
                Cameras = demo.Camera is { } over
                    ? [new CameraTake(done.Hash, await CameraAsync(folder, over, done.LessonId, cancel), new(-over.Earlier, 0))]
                    : [],
                CameraLook = demo.Camera?.Look,
                CameraStretches = demo.Camera?.Stretches ?? [],
            },
            null,
            "Mara Tarn",
            cancel
        );
        return done.LessonId;
    }

    private async Task<string> CameraAsync(string folder, DemoCamera camera, Guid lesson, CancellationToken cancel)
    {
        await using var file = File.OpenRead(Path.Combine(folder, camera.File));
        var (done, problem) = await receiver.TakeAsync(file, file.Length, camera.File, Guid.Empty, "Mara Tarn", cancel, lesson);
        return done?.Hash ?? throw new InvalidOperationException(problem!.Sentence);
    }

    private async Task<CaptionTrack> CaptionsAsync(string path, CancellationToken cancel)
    {
        return await captionStore.AddAsync(
            CaptionFile.Read(await File.ReadAllBytesAsync(path, cancel)).Cues,
            options.Value.Language,
            Path.GetFileName(path),
            cancel
        );
    }
}
