using Microsoft.EntityFrameworkCore;
using Npgsql;
using Wexel.Core;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Lists;

/// <summary>A list as somebody wants it.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="Visibility">Who may see it.</param>
/// <param name="Named">Who is named as those who may see it.</param>
internal sealed record ListRequest(string Name, Visibility Visibility, NamedPeople? Named = null);

/// <summary>Keeps lists across courses.</summary>
internal sealed class ListKeeper(WexelDb db, TimeProvider clock)
{
    private const int LongestName = 200;
    private const int Most = 5000;

    /// <summary>Makes or changes a list.</summary>
    /// <param name="id">Which; null for a new one.</param>
    /// <param name="request">As it is wanted.</param>
    /// <param name="person">Who wants it.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task<Result<Guid>> SaveAsync(Guid? id, ListRequest request, Guid person, CancellationToken cancel)
    {
        var name = PeopleList.OneLine(request.Name);
        if (name.Length is 0 or > LongestName)
            return new Problem("list-name", $"Give the list a name of at most {LongestName} characters.", "name");
        if (new Opening(request.Visibility).Unusable is { } unusable)
            return unusable;
        if (!(request.Named ?? NamedPeople.Nobody).Accepted().Is(out var named, out var problem))
            return problem;
        if (request.Visibility == Visibility.Named && named is { Mails.Count: 0, Groups.Count: 0 })
            return new Problem("named-nobody", "Name who may see it.", "named");
        var list = id is null
            ? new LessonList
            {
                Name = "",
                Token = Tokens.New(),
                OwnerId = person,
            }
            : await db.LessonLists.FirstOrDefaultAsync(l => l.Id == id, cancel);
        if (list is null)
            return Gone;
        if (id is null)
            db.LessonLists.Add(list);
        (list.Name, list.Visibility) = (name, request.Visibility);
        list.Named = named is { Mails.Count: 0, Groups.Count: 0 } ? null : NamedPeople.Format.Write(named);
        try
        {
            await db.SaveChangesAsync(cancel);
            return list.Id;
        }
        catch (DbUpdateException failed) when (failed.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            return new Problem("list-name-taken", $"There is a list “{name}” already. Give this one another name, or tick that one.", "name");
        }
    }

    /// <summary>The lists that a trainer works with: all but those that others keep for themselves. One whose owner left is anybody's.</summary>
    internal static IQueryable<LessonList> For(IQueryable<LessonList> lists, Guid person) =>
        lists.Where(l => l.Visibility != Visibility.OnlyMe || l.OwnerId == null || l.OwnerId == person);

    /// <summary>Puts a lesson at the end of a list, where it is not in it already.</summary>
    internal async Task<Problem?> AddAsync(Guid id, Guid lesson, Guid person, CancellationToken cancel)
    {
        if (!await db.LessonLists.AnyAsync(l => l.Id == id, cancel))
            return Gone;
        if (!await db.Lessons.AnyAsync(l => l.Id == lesson, cancel))
            return new Problem("lesson-gone", "The lesson is not there any more. Load the page again.");
        if (await db.ListedLessons.CountAsync(l => l.ListId == id, cancel) >= Most)
            return new Problem("list-full", $"A list holds at most {Most:#,0} lessons, and nobody finds anything in this one any more. Begin another.");
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO "ListedLessons" ("ListId", "LessonId", "Position", "AddedBy", "AddedAt")
            SELECT {id}, {lesson}, coalesce(max("Position"), 0) + 1, {person}, {clock.GetUtcNow()} FROM "ListedLessons" WHERE "ListId" = {id}
            ON CONFLICT DO NOTHING
            """,
            cancel
        );
        return null;
    }

    /// <summary>Puts the lessons of a list into an order; those that are not named keep theirs behind them.</summary>
    internal async Task<Problem?> OrderAsync(Guid id, IReadOnlyList<Guid> lessons, CancellationToken cancel)
    {
        if (await db.LessonLists.Include(l => l.Lessons).FirstOrDefaultAsync(l => l.Id == id, cancel) is not { } list)
            return Gone;
        var places = lessons.Distinct().Index().ToDictionary(l => l.Item, l => l.Index);
        var ordered = list.Lessons.OrderBy(l => places.GetValueOrDefault(l.LessonId, int.MaxValue)).ThenBy(l => l.Position).ToList();
        foreach (var (i, lesson) in ordered.Index())
            lesson.Position = i + 1;
        await db.SaveChangesAsync(cancel);
        return null;
    }

    private static Problem Gone { get; } = new("list-gone", "The list is not there any more. Load the page again.");

    /// <summary>Who may see a list.</summary>
    internal static Shown Shown(LessonList list) => ShownReleases.From(new Opening(list.Visibility), list.OwnerId, list.Named);

    /// <summary>Who may see each lesson in some lists, in their order: where it stands in several channels, by the widest of them.</summary>
    internal async Task<ILookup<Guid, (ListedLesson Lesson, Shown? Shown)>> InAsync(IReadOnlyCollection<Guid> lists, CancellationToken cancel)
    {
        var entries = await db
            .ListedLessons.AsNoTracking()
            .Include(l => l.Lesson)
            .Where(l => lists.Contains(l.ListId) && l.Lesson != null)
            .OrderBy(l => l.Position)
            .ToListAsync(cancel);
        var lessons = entries.Select(e => e.LessonId).Distinct().ToList();
        var releases = (
            await db
                .Releases.AsNoTracking()
                .Where(r => lessons.Contains(r.LessonId) && r.Outlet!.Kind == ChannelKind.Channel)
                .Select(r => new
                {
                    r.LessonId,
                    Opening = new Opening(r.Visibility, r.OpensAt, r.EndsAt),
                    r.Lesson!.OwnerId,
                    r.Named,
                })
                .ToListAsync(cancel)
        ).ToLookup(r => r.LessonId, r => ShownReleases.From(r.Opening, r.OwnerId, r.Named));
        return entries.ToLookup(e => e.ListId, e => (e, Widest(releases[e.LessonId])));
    }

    private static Shown? Widest(IEnumerable<Shown> all) =>
        all.OrderBy(s => Seeing.IsListed(s.Opening.Visibility) ? (int)s.Opening.Visibility : -1).LastOrDefault();
}
