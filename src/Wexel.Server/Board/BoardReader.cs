using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Outlets;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Releases;
using Wexel.Server.Shelves;

namespace Wexel.Server.Board;

/// <summary>Reads what stands of all lessons at all outlets, with a number of queries that does not grow.</summary>
internal sealed class BoardReader(WexelDb db, StandingReader reader)
{
    internal async Task<BoardView> ReadAsync(CancellationToken cancel)
    {
        var standing = await reader.ReadAsync(cancel);
        var ways = await WaysAsync(standing.ProfileIds, cancel);
        var lessons = await db
            .Lessons.OrderBy(l => l.Course!.Position)
            .ThenBy(l => l.CourseId)
            .ThenBy(l => l.Position)
            .Select(l => new
            {
                l.Id,
                Course = l.Course!.Title,
                l.Position,
                l.Title,
                l.ContentKey,
                l.WantsMark,
                l.Said,
            })
            .ToListAsync(cancel);
        return new BoardView(
            [.. standing.Outlets.Select(o => new BoardOutlet(o.Row.Id, o.Row.Name, o.Kind.Name, o.Kind.AsksWho))],
            [
                .. lessons.Select(l => new BoardRow(
                    l.Id,
                    l.Course,
                    l.Position,
                    l.Title,
                    DetailShelf.Read(l.Said).ShortTitle,
                    [.. standing.Outlets.Select(o => Cell(o, new LessonHere(l.ContentKey, l.WantsMark, l.Said), l.Id))]
                )),
            ]
        );

        CellView? Cell(KnownOutlet outlet, LessonHere lesson, Guid id)
        {
            if (!ways.TryGetValue(new BoardCell(id, outlet.Row.Id), out var way))
                return null;
            var there = way.Stands;
            var isBehind = there is not null && standing.IsBehind(outlet, there, lesson);
            var phase = ReleasePhases.Shown(way.Phase, isBehind);
            return new CellView(
                phase,
                phase is ReleasePhase.Live or ReleasePhase.Behind ? there?.ReleasedAt ?? way.Since : way.Since,
                outlet.Kind.AsksWho && there is not null ? way.Visibility : null,
                way.Progress,
                way.Problem is { } problem ? WexelJson.Read<Problem>(problem).Sentence : null,
                way.TakesDown
            );
        }
    }

    /// <param name="Stands">What stands there; null where nothing does yet.</param>
    private sealed record Way(
        ReleasePhase Phase,
        DateTimeOffset Since,
        Visibility Visibility,
        double? Progress,
        string? Problem,
        bool TakesDown,
        Stands? Stands
    );

    /// <summary>How far each release is, also those that stand nowhere.</summary>
    private async Task<Dictionary<BoardCell, Way>> WaysAsync(IReadOnlyList<string> profiles, CancellationToken cancel) =>
        (
            await db
                .Releases.IgnoreQueryFilters()
                .Where(r => r.MadeFrom != "" || r.BatchId != null || r.WantsDown)
                .Select(r => new
                {
                    Stands = new Stands(
                        r.LessonId,
                        r.OutletId,
                        r.MadeFrom,
                        r.ProfileId,
                        profiles.Contains(r.ProfileId) ? null : r.Profile,
                        r.ReleasedAt,
                        r.Details
                    ),
                    r.Phase,
                    r.PhaseAt,
                    r.Visibility,
                    Problem = r.Phase == ReleasePhase.Failed ? r.Problem : null,
                    r.WantsDown,
                    r.SentBytes,
                    r.BytesToSend,
                    Rendered = r.Phase == ReleasePhase.Rendering
                        ? db
                            .Renditions.Where(m => m.LessonId == r.LessonId && m.ProfileId == r.WantedProfileId && m.State == RenditionState.Working)
                            .Select(m => (double?)m.Progress)
                            .FirstOrDefault()
                        : null,
                })
                .ToListAsync(cancel)
        ).ToDictionary(
            r => new BoardCell(r.Stands.LessonId, r.Stands.OutletId),
            r => new Way(
                r.Phase,
                r.PhaseAt,
                r.Visibility,
                r.Rendered ?? (r is { Phase: ReleasePhase.Sending, BytesToSend: > 0 and var all } ? (double)r.SentBytes / all : null),
                r.Problem,
                r.WantsDown,
                r.Stands.MadeFrom.Length > 0 ? r.Stands : null
            )
        );
}
