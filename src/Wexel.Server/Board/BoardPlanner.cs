using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Estimates;
using Wexel.Server.Releases;
using Wexel.Server.Shelves;

namespace Wexel.Server.Board;

/// <summary>Plans what is to be done in cells of the board, and does it.</summary>
internal sealed class BoardPlanner(WexelDb db, StandingReader standings, ReleaseSteps steps, EstimateReader estimates, ReleaseWishes wishes, Releaser releaser)
{
    /// <summary>What is to be done, what it comes to, and what will not be done.</summary>
    internal async Task<BoardPlanView> PlanAsync(BoardRequest request, CancellationToken cancel)
    {
        var asked = await ReadAsync(request, cancel);
        var (wanted, refused) = (new List<CellWanted>(), new List<BoardRefusal>());
        var lessons = new List<LessonDocument>();
        var (files, seen) = (new HashSet<string>(), new HashSet<string>());
        var cells = ImmutableDictionary.CreateBuilder<BoardCell, CellActual>();
        foreach (var one in asked)
        {
            if (Refusal(request, one) is { } sentence)
            {
                refused.Add(one.Refused(sentence));
                continue;
            }

            var visibility = request.Visibility ?? one.Release?.Visibility ?? Visibility.SignedIn;
            var stands = one.Release is { MadeFrom.Length: > 0 };
            if (request.Action != BoardAction.Release || !one.HasWork(request))
            {
                // Nothing is made for it: what stands there stands for itself.
                var there = stands || one.HasWork(request) ? one.Release!.MadeFrom : null;
                cells[one.Cell] = new CellActual(one.Release is not null, there, there, there, one.Seen(visibility));
                if (there is not null)
                    (_, _) = (files.Add(there), seen.Add(there));
                wanted.Add(
                    new CellWanted(
                        one.Cell,
                        request.Action == BoardAction.TakeDown ? null : new ReleaseWanted(there!, [], there!, [], Packs: false, Delivers: false),
                        visibility
                    )
                );
                continue;
            }

            var aim = ReleaseAim.Of(new ReleaseWish(one.Cell.LessonId, one.Cell.OutletId, null, request.Visibility), one.Release, one.Outlet);
            if (!(await steps.FindAsync(aim, cancel)).Is(out var way, out var problem))
            {
                refused.Add(one.Refused(problem.Sentence));
                continue;
            }

            lessons.Add(way.Planned.Lesson.Document);
            var actual = steps.Actual(way);
            files.UnionWith(actual.Files);
            seen.UnionWith(actual.Checked);
            cells[one.Cell] = new CellActual(one.Release is not null, actual.PackedFrom, actual.Published, actual.Delivered, one.Seen(aim.Visibility));
            var (bytes, time) = (0L, TimeSpan.Zero);
            foreach (var file in way.Files)
            {
                var cost = await estimates.EstimateAsync(file.Planned, cancel);
                (bytes, time) = (bytes + cost.Bytes, time + cost.Time);
            }

            wanted.Add(new CellWanted(one.Cell, way.Wanted, aim.Visibility, bytes, time));
        }

        var plan = BoardPlan.Between(wanted, new BoardActual([.. files], [.. seen], cells.ToImmutable()));
        var byCell = asked.ToDictionary(a => a.Cell);
        return new BoardPlanView(
            plan.Totals,
            [
                .. plan
                    .Lines.Where(l => !l.IsNothing)
                    .Select(l => new BoardLineView(
                        l.Wanted.Cell,
                        byCell[l.Wanted.Cell].Lesson.Title,
                        byCell[l.Wanted.Cell].Outlet.Row.Name,
                        l.Steps,
                        l.Opens,
                        l.TakesDown,
                        l.Before.HasAddress && !l.TakesDown,
                        l.Steps.Contains(ReleaseStep.Deliver) ? l.Wanted.Bytes : 0,
                        l.Steps.Contains(ReleaseStep.Encode) ? l.Wanted.Time : TimeSpan.Zero
                    )),
            ],
            refused,
            [
                .. plan
                    .Lines.Where(l => l.Steps.Contains(ReleaseStep.Publish))
                    .Select(l => byCell[l.Wanted.Cell].Outlet)
                    .DistinctBy(o => o.Row.Id)
                    .Select(o => (o.Row.Name, Sentence: Carried.Sentence(Carried.For(o.Kind.Carries, lessons))))
                    .Where(o => o.Sentence.Length > 0)
                    .Select(o => new OutletLoss(o.Name, o.Sentence)),
            ]
        );
    }

    /// <summary>Does it: what is released goes on in the background, and one mail tells of all of it.</summary>
    internal async Task<BoardApplied> ApplyAsync(BoardRequest request, Guid person, CancellationToken cancel)
    {
        var asked = await ReadAsync(request, cancel);
        var refused = new List<BoardRefusal>();
        var left = new List<Asked>();
        foreach (var one in asked)
        {
            if (Refusal(request, one) is { } sentence)
                refused.Add(one.Refused(sentence));
            else if (one.HasWork(request))
                left.Add(one);
        }

        if (request.Action == BoardAction.Release)
        {
            if (left.Count > 0)
                await wishes.WantAsync(
                    [.. left.Select(l => new ReleaseWish(l.Cell.LessonId, l.Cell.OutletId, null, request.Visibility, l.Release?.OpensAt, l.Release?.EndsAt))],
                    person,
                    tells: true,
                    cancel
                );
            return new BoardApplied(left.Count, refused);
        }

        if (request.Action == BoardAction.TakeDown)
        {
            await releaser.TakeDownAsync([.. left.Select(l => l.Release!)], cancel);
            return new BoardApplied(left.Count, refused);
        }

        var done = 0;
        foreach (var one in left)
        {
            if (await releaser.OpenAsync(one.Release!, one.Release!.Opening() with { Visibility = request.Visibility!.Value }, null, cancel) is { } problem)
                refused.Add(one.Refused(problem.Sentence));
            else
                done++;
        }

        return new BoardApplied(done, refused);
    }

    /// <summary>Why nothing can be done in a cell, or null.</summary>
    private static string? Refusal(BoardRequest request, Asked one) =>
        request.Action switch
        {
            BoardAction.Open when !one.Outlet.Kind.AsksWho => $"Who may see it is not asked there: {one.Outlet.Kind.SeenBy}.",
            BoardAction.Open when one.Release is not { MadeFrom.Length: > 0 } => "Nothing stands there yet.",
            BoardAction.Open => one.Unanswered(request.Visibility!.Value)?.Sentence,
            _ => null,
        };

    private async Task<IReadOnlyList<Asked>> ReadAsync(BoardRequest request, CancellationToken cancel)
    {
        var standing = await standings.ReadAsync(cancel);
        var cells = request.Cells.Distinct().ToList();
        var (lessonIds, outlets) = (cells.Select(c => c.LessonId).ToHashSet(), standing.Outlets.ToDictionary(o => o.Row.Id));
        var lessons = await db.Lessons.Where(l => lessonIds.Contains(l.Id)).ToDictionaryAsync(l => l.Id, cancel);
        var releases = (
            await db.Releases.IgnoreQueryFilters().Include(r => r.Outlet).Where(r => lessonIds.Contains(r.LessonId)).ToListAsync(cancel)
        ).ToDictionary(r => new BoardCell(r.LessonId, r.OutletId));
        // What was removed meanwhile has no cell any more.
        return
        [
            .. cells
                .Where(c => lessons.ContainsKey(c.LessonId) && outlets.ContainsKey(c.OutletId))
                .OrderBy(c => lessons[c.LessonId].CourseId)
                .ThenBy(c => lessons[c.LessonId].Position)
                .Select(c =>
                {
                    var (lesson, outlet, release) = (lessons[c.LessonId], outlets[c.OutletId], releases.GetValueOrDefault(c));
                    var isBehind = release is { MadeFrom.Length: > 0 } && standing.IsBehind(outlet, release.Stands(), lesson.Here());
                    return new Asked(c, lesson, outlet, release, isBehind, standing);
                }),
        ];
    }

    /// <summary>A cell in which something is to be done.</summary>
    private sealed record Asked(BoardCell Cell, Lesson Lesson, KnownOutlet Outlet, Release? Release, bool IsBehind, Standing Standing)
    {
        /// <summary>What must be answered before somebody else may see what stands there.</summary>
        internal Problem? Unanswered(Visibility visibility) => Releaser.Unanswered(Release!, Lesson, Outlet, visibility, Standing);

        /// <summary>Whether there is anything to do, as far as that is seen without planning the lesson.</summary>
        internal bool HasWork(BoardRequest request) =>
            request.Action switch
            {
                BoardAction.TakeDown => Release is { Phase: not ReleasePhase.TakenDown } && !(Release.WantsDown && ReleasePhases.IsUnderWay(Release.Phase)),
                BoardAction.Open => Release is { MadeFrom.Length: > 0 } && Release.Visibility != request.Visibility,
                _ => Release is not { MadeFrom.Length: > 0, Phase: ReleasePhase.Live }
                    || IsBehind
                    || (Outlet.Kind.AsksWho && request.Visibility is { } wanted && wanted != Release.Visibility),
            };

        /// <summary>Who may see it; where that is not asked, whoever is wanted to.</summary>
        internal Visibility Seen(Visibility wanted) => Outlet.Kind.AsksWho && Release is not null ? Release.Visibility : wanted;

        internal BoardRefusal Refused(string sentence) => new(Cell, Lesson.Title, Outlet.Row.Name, sentence);
    }
}
