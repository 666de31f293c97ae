using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.Outlets.VideoServices;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Server.Lists;
using Wexel.Server.Outlets;
using Wexel.Server.Releases;

namespace Wexel.Server.Demo;

/// <summary>What <c>demo/channels.json</c> says.</summary>
/// <param name="Channels">The channels.</param>
/// <param name="Lists">The lists across courses.</param>
internal sealed record DemoPages(IReadOnlyList<DemoChannel> Channels, IReadOnlyList<DemoList> Lists)
{
    /// <summary>One channel for all, where nothing is said.</summary>
    internal static DemoPages Usual { get; } = new([new DemoChannel("Staff channel", "", "", "", null, null, [])], []);
}

/// <param name="Courses">The courses whose lessons it has; null for all.</param>
/// <param name="Lessons">The lessons that it has besides.</param>
/// <param name="Owners">The mail addresses of those who look after it.</param>
/// <param name="TellFollowers">Whether those who follow it are told of what is new.</param>
internal sealed record DemoChannel(
    string Name,
    string Address,
    string Colour,
    string About,
    IReadOnlyList<string>? Courses,
    IReadOnlyList<string>? Lessons,
    IReadOnlyList<string> Owners,
    bool TellFollowers = false
)
{
    internal bool Has(DemoLesson lesson) => Courses is null || Courses.Contains(lesson.Course) || Lessons?.Contains(lesson.Title) == true;
}

internal sealed record DemoList(string Name, Visibility Visibility, IReadOnlyList<string> Lessons);

/// <summary>The demo's channels and lists, and where each lesson goes.</summary>
internal sealed class DemoChannels(WexelDb db, OutletKeeper outlets, ListKeeper lists, TimeProvider clock)
{
    internal async Task AddAsync(string folder, CancellationToken cancel)
    {
        foreach (var channel in (await ReadAsync(folder, cancel)).Channels)
        {
            if (await db.Outlets.AnyAsync(o => o.Kind == ChannelKind.Channel && o.Name == channel.Name, cancel))
                continue;
            var owners = await db.Users.Where(p => channel.Owners.Contains(p.Email!)).Select(p => p.Id).ToListAsync(cancel);
            var settings = new JsonObject
            {
                ["about"] = channel.About,
                ["address"] = channel.Address,
                ["owners"] = new JsonArray([.. owners.Select(o => JsonValue.Create(o))]),
            };
            if (channel.Colour.Length > 0)
                settings["colour"] = channel.Colour;
            if (!(await outlets.AddAsync(ChannelKind.Channel, new OutletRequest(channel.Name, settings), cancel)).Is(out var made, out var problem))
                throw new InvalidOperationException(problem.Sentence);
            if (channel.TellFollowers)
                made.Details = DetailSet.Format.Write(new DetailSet(TellFollowers: true));
            await db.SaveChangesAsync(cancel);
        }
    }

    /// <summary>Where a lesson is to go, and who may see it there.</summary>
    internal async Task<ReleaseWish[]> WishesAsync(string folder, DemoLesson demo, Guid lesson, CancellationToken cancel)
    {
        var names = (await ReadAsync(folder, cancel)).Channels.Where(c => c.Has(demo)).Select(c => c.Name).ToHashSet();
        // Nobody has let it act for an account at a video service yet.
        var places = await db
            .Outlets.Where(o => o.Kind != VideoServiceKind.VideoService)
            .Select(o => new
            {
                o.Id,
                o.Kind,
                o.Name,
            })
            .ToListAsync(cancel);
        var groups = demo.Opening?.Groups ?? [];
        var named = new NamedPeople([], await db.PeopleGroups.Where(g => groups.Contains(g.Name)).Select(g => g.Id).ToListAsync(cancel));
        var opens = demo.Opening?.InHours is { } hours ? clock.GetUtcNow().AddHours(hours) : (DateTimeOffset?)null;
        return
        [
            .. places
                .Where(o => o.Kind == ChannelKind.Channel ? names.Contains(o.Name) && (demo.Released || demo.Opening is not null) : demo.Released)
                .Select(o =>
                    o.Kind == ChannelKind.Channel && demo.Opening is { } opening
                        ? new ReleaseWish(lesson, o.Id, null, opening.Visibility, opens, null, named)
                        : new ReleaseWish(lesson, o.Id, null, Visibility.Everybody)
                ),
        ];
    }

    internal async Task AddListsAsync(string folder, CancellationToken cancel)
    {
        var trainer = await db.Users.Where(p => p.Email == DemoSeed.TrainerAddress).Select(p => p.Id).FirstAsync(cancel);
        foreach (var list in (await ReadAsync(folder, cancel)).Lists)
        {
            if (await db.LessonLists.AnyAsync(l => l.Name == list.Name, cancel))
                continue;
            if (!(await lists.SaveAsync(null, new ListRequest(list.Name, list.Visibility), trainer, cancel)).Is(out var id, out var problem))
                throw new InvalidOperationException(problem.Sentence);
            foreach (var title in list.Lessons)
                await lists.AddAsync(id, await db.Lessons.Where(l => l.Title == title).Select(l => l.Id).FirstAsync(cancel), trainer, cancel);
        }
    }

    private static async Task<DemoPages> ReadAsync(string folder, CancellationToken cancel)
    {
        var file = Path.Combine(folder, "channels.json");
        return File.Exists(file) ? WexelJson.Read<DemoPages>(await File.ReadAllTextAsync(file, cancel)) : DemoPages.Usual;
    }
}
