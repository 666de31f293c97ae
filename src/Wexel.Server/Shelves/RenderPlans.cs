using Microsoft.EntityFrameworkCore;
using Wexel.Core.Kit;
using Wexel.Core.Lessons;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Lessons;

namespace Wexel.Server.Shelves;

/// <summary>Plans renders of lessons as they stand.</summary>
internal sealed class RenderPlans(WexelDb db, LessonSaver saver, LessonReels reels, CaptionStore captions)
{
    /// <summary>Everything that a lesson is rendered from.</summary>
    internal async Task<LessonToMake> LessonAsync(LessonDocument document, CancellationToken cancel) => (await LessonsAsync([document], cancel))[0];

    /// <summary>Everything that lessons are rendered from, in their order.</summary>
    internal async Task<IReadOnlyList<LessonToMake>> LessonsAsync(IReadOnlyList<LessonDocument> documents, CancellationToken cancel)
    {
        var house = await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel);
        var (mark, said) = (HouseShelf.OnPictures(house), DetailShelf.Said(house));
        var found = await reels.ReadAllAsync(documents, cancel);
        var lessons = new List<LessonToMake>(documents.Count);
        foreach (var (document, reel) in documents.Zip(found))
            lessons.Add(new LessonToMake(await captions.ReadAsync(document, cancel), reel.ToMake, document.HouseMark ? mark : null, said));
        return lessons;
    }

    /// <summary>Everything that a lesson is rendered from as it stands; null where there is no such lesson.</summary>
    internal async Task<LessonToMake?> LessonAsync(Guid id, CancellationToken cancel) =>
        await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel) is { } lesson
            ? await LessonAsync((await saver.CurrentAsync(lesson, cancel))!, cancel)
            : null;

    /// <summary>How fast this machine was with its last renditions, against what was expected of them; 1 where nothing is known.</summary>
    /// <param name="sampled">Whether what was expected came from samples.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task<double> SlownessAsync(bool sampled, CancellationToken cancel)
    {
        var last = await db
            .Renditions.AsNoTracking()
            .Where(r => r.State == RenditionState.Done && r.EstimateSampled == sampled && r.StartedAt != null && r.EndedAt != null && r.Progress > 0)
            .OrderByDescending(r => r.EndedAt)
            .Take(9)
            .Select(r => new
            {
                r.StartedAt,
                r.EndedAt,
                r.EstimatedTime,
            })
            .ToListAsync(cancel);
        // What was made in one pass took its time together.
        var ratios = last.Where(r => r.EstimatedTime > TimeSpan.Zero)
            .GroupBy(r => r.StartedAt!.Value)
            .Select(pass => (pass.Max(r => r.EndedAt!.Value) - pass.Key) / TimeSpan.FromTicks(pass.Sum(r => r.EstimatedTime.Ticks)))
            .Order()
            .ToList();
        return ratios.Count == 0 ? 1 : Math.Clamp(ratios[ratios.Count / 2], 0.05, 20);
    }
}
