using Microsoft.EntityFrameworkCore;
using Wexel.Core.Details;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Learning;
using Wexel.Server.Shelves;

namespace Wexel.Server.Channel;

/// <summary>A channel with all that somebody may see in it.</summary>
/// <param name="Id">Which.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Address">Its short address.</param>
/// <param name="Settings">What is said of it.</param>
/// <param name="Owners">The names of those who look after it.</param>
/// <param name="Lessons">Its lessons, in teaching order.</param>
internal sealed record ListedChannel(
    Guid Id,
    string Name,
    string Address,
    ChannelSettings Settings,
    IReadOnlyList<string> Owners,
    IReadOnlyList<ChannelLesson> Lessons
);

/// <summary>Finds what is listed for somebody.</summary>
internal sealed class ChannelLists(WexelDb db, LearningLog learning, KnownOpenings openings, TimeProvider clock)
{
    private const int LongestAbout = 160;

    /// <summary>All channels in which there is something that somebody may see, by their names.</summary>
    internal async Task<IReadOnlyList<ListedChannel>> AllAsync(Viewer viewer, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        var channels = await db.Outlets.AsNoTracking().Where(o => o.Kind == ChannelKind.Channel).ToListAsync(cancel);
        var rows = await db
            .Releases.Where(r => r.Outlet!.Kind == ChannelKind.Channel && r.Visibility != Visibility.WithLink)
            .OrderBy(r => r.Lesson!.Course!.Position)
            .ThenBy(r => r.Lesson!.CourseId)
            .ThenBy(r => r.Lesson!.Position)
            .Select(r => new Row(
                r.Id,
                r.OutletId,
                r.Token,
                r.Visibility,
                r.OpensAt,
                r.EndsAt,
                r.Named,
                r.Lesson!.OwnerId,
                r.LessonId,
                r.Lesson.CourseId,
                r.Lesson.Course!.Title,
                r.Lesson.Position,
                r.Lesson.Title,
                r.Lesson.Length,
                r.Lesson.Said,
                r.Details,
                r.PosterKey != null,
                r.FirstReleasedAt,
                r.Revision
            ))
            .ToListAsync(cancel);
        var shown = rows.Where(r =>
                Seeing.May(ShownReleases.From(new Opening(r.Visibility, r.OpensAt, r.EndsAt), r.OwnerId, r.Named), viewer, SeenIn.List, now)
            )
            .ToList();
        var learners = await db
            .LearnerRecords.GroupBy(l => l.LessonId)
            .Select(g => new { Lesson = g.Key, Count = g.Count() })
            .ToDictionaryAsync(g => g.Lesson, g => g.Count, cancel);
        var seen = viewer.Person is { } person
            ? await learning.OfLearnerAsync(
                person.ToString("N"),
                [.. shown.DistinctBy(r => r.LessonId).Select(r => new Taken(r.LessonId, r.OutletId, r.Id, r.Revision))],
                cancel
            )
            : new Dictionary<Guid, LessonSeen>();
        var owners = channels.SelectMany(c => ChannelCare.Settings(c).Owners ?? []).ToHashSet();
        var names = await db.Users.Where(p => owners.Contains(p.Id) && p.DisabledAt == null).ToDictionaryAsync(p => p.Id, p => p.DisplayName, cancel);
        return
        [
            .. channels
                .Select(c => new ListedChannel(
                    c.Id,
                    c.Name,
                    ChannelCare.Address(c),
                    ChannelCare.Settings(c),
                    [.. (ChannelCare.Settings(c).Owners ?? []).Select(o => names.GetValueOrDefault(o)).OfType<string>()],
                    [.. shown.Where(r => r.OutletId == c.Id).Select(r => Lesson(r, learners.GetValueOrDefault(r.LessonId), seen.GetValueOrDefault(r.LessonId)))]
                ))
                .Where(c => c.Lessons.Count > 0)
                .OrderBy(c => c.Name, StringComparer.OrdinalIgnoreCase),
        ];
    }

    /// <summary>The same channels without their lessons, for a page that only leads to them.</summary>
    internal async Task<IReadOnlyList<ListedChannel>> NamedAsync(Viewer viewer, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        var shown = (await openings.AllAsync(cancel)).Where(o => Seeing.May(o.Shown, viewer, SeenIn.List, now)).Select(o => o.Channel).ToHashSet();
        var channels = await db.Outlets.AsNoTracking().Where(o => shown.Contains(o.Id)).ToListAsync(cancel);
        return
        [
            .. channels
                .Select(c => new ListedChannel(c.Id, c.Name, ChannelCare.Address(c), ChannelCare.Settings(c), [], []))
                .OrderBy(c => c.Name, StringComparer.OrdinalIgnoreCase),
        ];
    }

    private static ChannelLesson Lesson(Row row, int learners, LessonSeen? seen)
    {
        var said = DetailLayers.Merged(DetailShelf.Read(row.Said), DetailShelf.Read(row.SaidThere));
        return new ChannelLesson(
            row.Token,
            row.LessonId,
            row.CourseId,
            row.Course,
            row.Position,
            said.ShortTitle ?? said.Title ?? row.Title,
            FirstLine(said.Description ?? ""),
            said.Language,
            said.Tags ?? [],
            row.Length,
            row.HasPicture,
            row.FirstReleasedAt ?? default,
            learners,
            seen
        );
    }

    private static string FirstLine(string text)
    {
        var line = text.Split('\n', 2)[0].Trim();
        return line.Length <= LongestAbout ? line : line[..line.LastIndexOf(' ', LongestAbout)] + "…";
    }

    private sealed record Row(
        Guid Id,
        Guid OutletId,
        string Token,
        Visibility Visibility,
        DateTimeOffset? OpensAt,
        DateTimeOffset? EndsAt,
        string? Named,
        Guid? OwnerId,
        Guid LessonId,
        Guid CourseId,
        string Course,
        int Position,
        string Title,
        TimeSpan Length,
        string Said,
        string? SaidThere,
        bool HasPicture,
        DateTimeOffset? FirstReleasedAt,
        int Revision
    );
}
