using Microsoft.EntityFrameworkCore;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Lists;

namespace Wexel.Server.Channel;

/// <summary>A list across courses with all that somebody may see of it.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="Token">What stands in its address.</param>
/// <param name="Lessons">Its lessons, in its order; each stands at its place in it.</param>
internal sealed record LearnersList(string Name, string Token, IReadOnlyList<ChannelLesson> Lessons);

/// <summary>Finds the lists that somebody may see. A lesson is in one only for those who find it in a channel.</summary>
internal sealed class LearnersLists(WexelDb db, ListKeeper keeper, TimeProvider clock)
{
    /// <summary>The lists in which somebody finds something.</summary>
    /// <param name="viewer">Who.</param>
    /// <param name="channels">All channels with what they may see in them.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task<IReadOnlyList<LearnersList>> AllAsync(Viewer viewer, IReadOnlyList<ListedChannel> channels, CancellationToken cancel)
    {
        var lists = await db.LessonLists.AsNoTracking().OrderBy(l => l.Name).ToListAsync(cancel);
        var now = clock.GetUtcNow();
        var seen = lists.FindAll(l => Seeing.May(ListKeeper.Shown(l), viewer, SeenIn.List, now));
        return [.. (await WithLessonsAsync(seen, channels, cancel)).Where(l => l.Lessons.Count > 0)];
    }

    /// <summary>One list; null where there is none.</summary>
    internal async Task<LessonList?> FindAsync(string token, CancellationToken cancel) =>
        await db.LessonLists.AsNoTracking().FirstOrDefaultAsync(l => l.Token == token, cancel);

    /// <summary>Whether somebody may see a list.</summary>
    internal bool May(LessonList list, Viewer viewer) => Seeing.May(ListKeeper.Shown(list), viewer, SeenIn.Address, clock.GetUtcNow());

    internal async Task<LearnersList> WithLessonsAsync(LessonList list, IReadOnlyList<ListedChannel> channels, CancellationToken cancel) =>
        (await WithLessonsAsync([list], channels, cancel))[0];

    private async Task<List<LearnersList>> WithLessonsAsync(List<LessonList> lists, IReadOnlyList<ListedChannel> channels, CancellationToken cancel)
    {
        var found = new Dictionary<Guid, ChannelLesson>();
        foreach (var lesson in channels.SelectMany(c => c.Lessons))
            found.TryAdd(lesson.Lesson, lesson);
        var entries = await keeper.InAsync(lists.ConvertAll(l => l.Id), cancel);
        return lists.ConvertAll(l => new LearnersList(
            l.Name,
            l.Token,
            [
                .. entries[l.Id]
                    .Select(e => found.GetValueOrDefault(e.Lesson.LessonId))
                    .OfType<ChannelLesson>()
                    .Select((lesson, i) => lesson with { Position = i + 1 }),
            ]
        ));
    }
}
