using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Kit;
using Wexel.Core.Encoding;
using Wexel.Core.Lessons;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Media.Rendering;
using Wexel.Server.Lessons;
using Wexel.Server.Setup;

namespace Wexel.Server.Rendering;

/// <summary>A plan with what it is made from.</summary>
/// <param name="Sections">The contents in lesson time.</param>
/// <param name="SoundKey">The key of the sound that is encoded; null without sound.</param>
internal sealed record PlannedRender(RenderPlan Plan, Reel Reel, TimeMap Map, IReadOnlyList<Section> Sections, RecordingAnalysis Analysis, string EncodeKey, string? SoundKey);

/// <summary>Plans renders of lessons as they stand.</summary>
internal sealed class RenderPlans(WexelDb db)
{
    /// <param name="found">What the lesson is made of.</param>
    /// <param name="document">The lesson.</param>
    /// <param name="profile">The settings.</param>
    /// <param name="mark">The house's mark where the house puts it on lessons, see <see cref="Kit.HouseKeeper.OnPicturesAsync"/>.</param>
    /// <summary>The plan, or null while a recording is still being looked through.</summary>
    internal static PlannedRender? Of(LessonReel found, LessonDocument document, Profile profile, MarkOnPicture? mark)
    {
        if (!found.LookedThrough)
            return null;
        var (reel, analysis) = (found.Reel, found.Analysis!);
        var map = reel.Map(document.Cuts);
        var sections = WhatFollows.Sections(document.Sections, map);
        var plan = RenderPlanner.Plan(reel, map, sections, profile, document.HouseMark ? mark : null, document.Canvas, document.MoveIns, found.Frames(document.Frames));
        return new PlannedRender(
            plan, reel, map, sections, analysis, DerivedKey.Of(Renderer.EncodeMaker, found.Hashes, plan),
            plan.Sound is null ? null : DerivedKey.Of(SoundComposer.Maker, found.Hashes, map.Grid, map.Length, map.Kept, plan.Sound.Mixes, plan.Sound.Channels, plan.Sound.SampleRate));
    }

    /// <summary>How fast this machine was with its last renditions, against what was expected; 1 where nothing is known.</summary>
    internal async Task<double> SlownessAsync(CancellationToken cancel)
    {
        var last = await db.Renditions.AsNoTracking()
            .Where(r => r.State == RenditionState.Done && r.StartedAt != null && r.EndedAt != null && r.Progress > 0)
            .OrderByDescending(r => r.EndedAt).Take(9).Select(r => new { r.StartedAt, r.EndedAt, r.EstimatedTime }).ToListAsync(cancel);
        var ratios = last.Where(r => r.EstimatedTime > TimeSpan.Zero).Select(r => (r.EndedAt!.Value - r.StartedAt!.Value) / r.EstimatedTime).Order().ToList();
        return ratios.Count == 0 ? 1 : Math.Clamp(ratios[ratios.Count / 2], 0.05, 20);
    }
}
