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
using Wexel.Server.Setup;

namespace Wexel.Server.Rendering;

/// <summary>A plan with what it is made from.</summary>
/// <param name="Sections">The contents in lesson time.</param>
/// <param name="SoundKey">The key of the sound that is encoded; null without sound.</param>
internal sealed record PlannedRender(RenderPlan Plan, TimeMap Map, IReadOnlyList<Section> Sections, RecordingFacts Facts, RecordingAnalysis Analysis, string EncodeKey, string? SoundKey);

/// <summary>Plans renders of lessons as they stand.</summary>
internal sealed class RenderPlans(WexelDb db)
{
    /// <param name="recording">What the lesson is made of.</param>
    /// <param name="document">The lesson.</param>
    /// <param name="profile">The settings.</param>
    /// <param name="mark">The house's mark where the house puts it on lessons, see <see cref="Kit.HouseKeeper.OnPicturesAsync"/>.</param>
    /// <summary>The plan, or null while the recording is still being looked through.</summary>
    internal static PlannedRender? Of(Recording recording, LessonDocument document, Profile profile, MarkOnPicture? mark)
    {
        if (recording.Analysis is null)
            return null;
        var facts = Json.Read<RecordingFacts>(recording.Facts);
        var analysis = Json.Read<RecordingAnalysis>(recording.Analysis);
        var map = RenderPlanner.Map(facts, document.Cuts);
        var sections = WhatFollows.Sections(document.Sections, map);
        var plan = RenderPlanner.Plan(facts, analysis.Sides, map, sections, profile, document.HouseMark ? mark : null, document.Canvas, document.MoveIns);
        return new PlannedRender(
            plan, map, sections, facts, analysis, DerivedKey.Of(Renderer.EncodeMaker, recording.Hash, plan),
            plan.Sound is null ? null : DerivedKey.Of(SoundComposer.Maker, recording.Hash, map.Grid, map.Length, map.Kept, plan.Sound.Mix, plan.Sound.SampleRate));
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
