using Hangfire;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Feeds;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets.PodcastFeeds;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Delivering.Http;
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
/// <param name="Released">Rendered and released at each of the demo's outlets.</param>
internal sealed record DemoLesson(
    string Course,
    string File,
    string Title,
    string Length,
    string Description,
    string? Contents,
    string? Captions,
    bool Released = false,
    DetailSet? Details = null
);

/// <summary>
/// Loads the demo world into an empty database: people, outlets, and the recordings through the same door as everybody's. It may be killed at any
/// line: what it left is
/// loaded at the next start, and nothing twice.
/// </summary>
internal sealed class DemoSeed(
    WexelDb db,
    UserManager<Person> people,
    Receiver receiver,
    LessonSaver saver,
    CaptionStore captionStore,
    FeedKeeper feeds,
    OutletKeeper outletKeeper,
    HouseKeeper house,
    FileStore store,
    DetailKeeper details,
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
        await AddPersonAsync("Mara Tarn", TrainerAddress, Roles.Trainer);
        await AddPersonAsync("Mara Tarn", TrainerAddress, Roles.Administrator);
        await AddPersonAsync("Joss Reed", LearnerAddress, null);
        await AddPersonAsync("Ana Quill", "ana.quill@brackwater.example", null);
        await AddPersonAsync("Tam Brook", "tam.brook@brackwater.example", null);
        await AddPersonAsync("Nell Howe", "nell.howe@brackwater.example", null);
        await AddOutletAsync("channel", new OutletRequest("Staff channel"), cancel);
        await AddOutletAsync("webServer", new OutletRequest("intranet.example"), cancel);
        var practice = options.Value.PracticeLearningSystem?.AbsoluteUri;
        await AddOutletAsync("learningSystem", new OutletRequest("Harbour School", null, practice is null ? null : PutDelivery.Put, practice), cancel);
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

        var outlets = await db.Outlets.Select(o => o.Id).ToArrayAsync(cancel);
        // What learners may see comes first, the shortest of it before the others, so that there is soon something to look at.
        foreach (var demo in lessons.OrderByDescending(l => l.Released).ThenBy(l => TimeCode.Parse(l.Length)))
        {
            var lesson = await AddLessonAsync(Path.Combine(folder, "recordings"), demo, cancel);
            var (course, place) = (courses.First(c => c.Title == demo.Course).Id, lessons.Where(l => l.Course == demo.Course).ToList().IndexOf(demo) + 1);
            await db
                .Lessons.Where(l => l.Id == lesson)
                .ExecuteUpdateAsync(set => set.SetProperty(l => l.CourseId, course).SetProperty(l => l.Position, place), cancel);
            if (demo.Released)
                jobs.Enqueue<DemoRelease>(job => job.RunAsync(lesson, outlets, CancellationToken.None));
        }

        File.Delete(Unfinished);
    }

    private async Task AddOutletAsync(string kind, OutletRequest request, CancellationToken cancel)
    {
        if (!await db.Outlets.AnyAsync(o => o.Kind == kind, cancel) && !(await outletKeeper.AddAsync(kind, request, cancel)).Is(out _, out var problem))
            throw new InvalidOperationException(problem.Sentence);
    }

    private async Task AddPersonAsync(string name, string address, string? role)
    {
        if (await people.FindByEmailAsync(address) is not { } person)
        {
            person = new Person
            {
                DisplayName = name,
                UserName = address,
                Email = address,
                EmailConfirmed = true,
            };
            var made = await people.CreateAsync(person, Password);
            if (!made.Succeeded)
                throw new InvalidOperationException(string.Join(' ', made.Errors.Select(e => e.Description)));
        }

        if (role is not null && !await people.IsInRoleAsync(person, role))
            await people.AddToRoleAsync(person, role);
    }

    private async Task<Guid> AddLessonAsync(string folder, DemoLesson demo, CancellationToken cancel)
    {
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
                details: demo.Details
            ),
            null,
            "Mara Tarn",
            cancel
        );
        return done.LessonId;
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
