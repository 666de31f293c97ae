using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Encoding;
using Wexel.Core.Kit;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;

namespace Wexel.Making.Lessons;

/// <summary>A lesson with everything that it is made from.</summary>
/// <param name="Document">The lesson.</param>
/// <param name="Found">Its recordings.</param>
/// <param name="Mark">The house's mark where it stands on this lesson.</param>
/// <param name="Cues">Its captions, in recording time.</param>
public sealed record LessonToMake(LessonDocument Document, LessonReel Found, MarkOnPicture? Mark, IReadOnlyList<Cue> Cues)
{
    private TimeMap Map => Found.Reel.Map(Document.Cuts);

    /// <summary>The plan with a profile, or null while a recording is still being looked through.</summary>
    public PlannedRendition? With(Profile profile)
    {
        if (!Found.IsReady)
            return null;
        var map = Map;
        var look = Look(map);
        return new PlannedRendition(RenderPlanner.Plan(Found.Reel, map, profile, look), this, map, look.Sections ?? [], look.Cues ?? []);
    }

    /// <summary>The plan with a profile, or why nothing can be made with it.</summary>
    public Result<PlannedRendition> Wanted(Profile profile)
    {
        if (Check(profile).FirstOrDefault(f => f.IsFault) is { } fault)
            return new Problem(fault.Code, fault.Sentence, "profileId");
        return With(profile) is { } planned ? planned : new Problem("recording-not-looked-through", "The recording is still being looked through. Try again in a moment.");
    }

    /// <summary>What does not hold for a profile with this lesson; nothing while a recording is still being looked through.</summary>
    public IReadOnlyList<ProfileFinding> Check(Profile profile)
    {
        if (!Found.IsReady || Map is { Frames: 0 })
            return [];
        var map = Map;
        return new ProfileForLesson(Found.Reel, map, Look(map), plan => RenderEstimator.PictureBytes(plan.Picture!, plan.Length, Found.Reel, Found.ChangedShare)).Of(profile);
    }

    private LessonLook Look(TimeMap map) => new(
        WhatFollows.Sections(Document.Sections, map), Mark, Document.Canvas, Document.MoveIns, Found.Frames(Document.Frames), WhatFollows.Cues(Cues, map));
}
