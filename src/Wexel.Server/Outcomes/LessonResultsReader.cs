using Microsoft.EntityFrameworkCore;
using Wexel.Core.Documents;
using Wexel.Core.Learning;
using Wexel.Core.Lessons;
using Wexel.Core.Scoring;
using Wexel.Core.Surveys;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Learning;
using Wexel.Server.Shelves;

namespace Wexel.Server.Outcomes;

/// <summary>Of whom results are asked for.</summary>
/// <param name="Outlet">Those who took the lesson there last; null for everywhere.</param>
/// <param name="Group">Those who are in a group; null for everybody.</param>
internal sealed record Among(Guid? Outlet, Guid? Group);

/// <summary>What somebody did with a lesson.</summary>
internal sealed record LearnerTook(
    string Name,
    double SeenShare,
    DateTimeOffset? CompletedAt,
    DateTimeOffset SeenLastAt,
    IReadOnlyList<AnswerState> Answers,
    LessonScore Score,
    bool? Passed
);

/// <summary>Somewhere or somebody that results can be asked for alone.</summary>
/// <param name="Id">The outlet or the group.</param>
/// <param name="Name">Its name.</param>
/// <param name="Learners">How many learners of the lesson are there.</param>
internal sealed record AmongChoice(Guid Id, string Name, int Learners);

/// <summary>All that results of a lesson can be asked for alone.</summary>
/// <param name="Outlets">Where it was taken.</param>
/// <param name="Groups">The groups of which somebody took it.</param>
internal sealed record AmongChoices(IReadOnlyList<AmongChoice> Outlets, IReadOnlyList<AmongChoice> Groups);

/// <summary>Reads what came of a lesson: who watched and answered, where they left, and what they said of it.</summary>
internal sealed class LessonResultsReader(WexelDb db, LessonSaver lessons, TakenRevisions revisions)
{
    private const string Gone = "an outlet that is gone";

    /// <summary>The lesson as it is now; null where there is none.</summary>
    internal async Task<LessonDocument?> LessonAsync(Guid lesson, CancellationToken cancel) =>
        await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == lesson, cancel) is { } row ? await lessons.CurrentAsync(row, cancel) : null;

    /// <summary>Everybody who took a lesson, whoever was there last first.</summary>
    internal async Task<List<LearnerTook>> LearnersAsync(Guid lesson, Among among, CancellationToken cancel)
    {
        var rows = await (await RecordsAsync(lesson, among, cancel))
            .OrderByDescending(r => r.SeenLastAt)
            .Select(r => new
            {
                r.Name,
                r.SeenShare,
                r.CompletedAt,
                r.SeenLastAt,
                r.State,
            })
            .ToListAsync(cancel);
        return rows.ConvertAll(r =>
        {
            var state = WexelJson.Read<Answers>(r.State);
            return new LearnerTook(
                r.Name ?? "Somebody with the link",
                r.SeenShare,
                r.CompletedAt,
                r.SeenLastAt,
                state.Given ?? [],
                state.Score ?? new LessonScore(0, 0),
                state.Passed
            );
        });
    }

    /// <summary>Where they took it, and the groups that they are in.</summary>
    internal async Task<AmongChoices> ChoicesAsync(Guid lesson, CancellationToken cancel)
    {
        var places = await db
            .LearnerRecords.Where(r => r.LessonId == lesson && r.OutletId != null)
            .GroupBy(r => r.OutletId!.Value)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToListAsync(cancel);
        var names = await NamesAsync(cancel);
        var keys = (await db.LearnerRecords.Where(r => r.LessonId == lesson).Select(r => r.LearnerKey).ToListAsync(cancel)).ToHashSet();
        var groups = await db.PeopleGroups.AsNoTracking().Include(g => g.Members).OrderBy(g => g.Name).ToListAsync(cancel);
        return new AmongChoices(
            [
                .. places
                    .Select(p => new AmongChoice(p.Key, names.GetValueOrDefault(p.Key, Gone), p.Count))
                    .OrderBy(p => p.Name, StringComparer.InvariantCultureIgnoreCase),
            ],
            [.. groups.Select(g => new AmongChoice(g.Id, g.Name, g.Members.Count(m => keys.Contains(m.PersonId.ToString("N"))))).Where(g => g.Learners > 0)]
        );
    }

    /// <summary>Where learners leave a lesson as it is now, and where they watch again.</summary>
    internal async Task<LessonPulse?> PulseAsync(Guid lesson, Among among, CancellationToken cancel)
    {
        if (await db.Lessons.Where(l => l.Id == lesson).Select(l => (int?)l.Revision).FirstOrDefaultAsync(cancel) is not { } revision)
            return null;
        var rows = await (await RecordsAsync(lesson, among, cancel)).Select(r => new { r.CompletedAt, r.State }).ToListAsync(cancel);
        var learners = rows.ConvertAll(r =>
        {
            var state = WexelJson.Read<Along>(r.State);
            return new PulseLearner(state.Watched ?? [], state.Again ?? [], state.Position, r.CompletedAt is not null);
        });
        return LessonPulse.Of((await revisions.ReadAsync(lesson, revision, cancel)).Times, learners);
    }

    /// <summary>What was said of a lesson, with who said it where they were told that they are named.</summary>
    internal async Task<(bool Named, IReadOnlyList<SaidOfLesson> All)> SaidAsync(Guid lesson, Among among, CancellationToken cancel)
    {
        var names = await NamesAsync(cancel);
        var rows = await db.SurveyReplies.AsNoTracking().Where(r => r.LessonId == lesson).ToListAsync(cancel);
        var members = among.Group is null ? null : await MembersAsync(among.Group.Value, cancel);
        return (
            rows.All(r => r.Named),
            [
                .. rows.Where(r => members is null || (r.LearnerKey is { } key && members.Contains(key)))
                    .Select(r => new SaidOfLesson(
                        r.Named ? r.Name ?? "Somebody with the link" : null,
                        r.At,
                        new SurveyReply(names.GetValueOrDefault(r.OutletId, Gone), WexelJson.Read<Dictionary<string, IReadOnlyList<string>>>(r.Values))
                    )),
            ]
        );
    }

    /// <summary>The name of an outlet, as replies name it.</summary>
    internal async Task<string> OutletAsync(Guid outlet, CancellationToken cancel) => (await NamesAsync(cancel)).GetValueOrDefault(outlet, Gone);

    private async Task<IQueryable<LearnerRecord>> RecordsAsync(Guid lesson, Among among, CancellationToken cancel)
    {
        var records = db.LearnerRecords.AsNoTracking().Where(r => r.LessonId == lesson);
        if (among.Outlet is { } outlet)
            records = records.Where(r => r.OutletId == outlet);
        if (among.Group is not { } group)
            return records;
        var members = await MembersAsync(group, cancel);
        return records.Where(r => members.Contains(r.LearnerKey));
    }

    /// <summary>Who is in a group, by the keys of their records.</summary>
    private async Task<HashSet<string>> MembersAsync(Guid group, CancellationToken cancel) =>
        (await db.GroupMembers.Where(m => m.GroupId == group).Select(m => m.PersonId).ToListAsync(cancel)).Select(id => id.ToString("N")).ToHashSet();

    private Task<Dictionary<Guid, string>> NamesAsync(CancellationToken cancel) => db.Outlets.AsNoTracking().ToDictionaryAsync(o => o.Id, o => o.Name, cancel);

    /// <summary>What is read of a learner's state for who answered what; the rest is passed over.</summary>
    private sealed record Answers(
        [property: System.Text.Json.Serialization.JsonPropertyName("answers")] IReadOnlyList<AnswerState>? Given,
        LessonScore? Score,
        bool? Passed
    );

    /// <summary>What is read of it for where they were.</summary>
    private sealed record Along(IReadOnlyList<WatchedStretch>? Watched, IReadOnlyList<WatchedStretch>? Again, RecordingMoment? Position);
}

/// <summary>What somebody said of a lesson.</summary>
/// <param name="Who">Their name; null where they were promised to be anonymous.</param>
/// <param name="When">When; null likewise.</param>
/// <param name="Reply">What they said.</param>
internal sealed record SaidOfLesson(string? Who, DateTimeOffset? When, SurveyReply Reply);
