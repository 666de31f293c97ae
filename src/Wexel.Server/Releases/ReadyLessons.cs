using Wexel.Core;
using Wexel.Core.Details;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Lessons;
using Wexel.Core.Packages;
using Wexel.Data.Model;
using Wexel.Making.Lessons;
using Wexel.Making.Releasing;
using Wexel.Making.Rendering;
using Wexel.Making.Storage;
using Wexel.Server.Rendering;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>Lessons as they stand, planned with a profile, and what keeps them from an outlet.</summary>
internal sealed class ReadyLessons(LessonSaver saver, RenderPlans plans, RenditionMaker maker, CheckOverrides checks, Packer packer)
{
    /// <summary>A lesson as it stands, planned with a profile; or what is missing.</summary>
    internal async Task<Result<PlannedRendition>> PlannedAsync(Lesson lesson, Profile profile, CancellationToken cancel)
    {
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        if (LessonRules.NotReady(document) is { } notReady)
            return notReady;
        return (await plans.LessonAsync(document, cancel)).With(profile) is { } planned
            ? planned
            : new Problem("render-first", $"The lesson is not rendered with “{profile.Title}” as it stands now. Render it, then release.", "profileId");
    }

    /// <summary>What of a finished file keeps it from an outlet, or null; it is finished and checked where it was not.</summary>
    internal async Task<Problem?> BlockedAsync(KnownOutlet outlet, PlannedRendition planned, CancellationToken cancel)
    {
        await maker.FinishAsync(planned, cancel);
        var finished = await maker.CheckAsync(planned, cancel);
        IReadOnlyList<CheckedFact> facts = [.. finished.Check, .. outlet.Limits.Check(finished.Bytes, planned.Plan.Length)];
        return await checks.BlockedAsync(planned.Keys.Encodes, planned.Lesson.Document.Title, facts, cancel);
    }

    /// <summary>What a finished lesson is in a package.</summary>
    /// <param name="lessonId">The lesson.</param>
    /// <param name="planned">The rendition in it.</param>
    /// <param name="said">What is said about the lesson where the package goes.</param>
    /// <param name="cancel">Stops it.</param>
    internal Task<LessonSources> PackedAsync(Guid lessonId, PlannedRendition planned, DetailSet said, CancellationToken cancel) =>
        packer.SourcesAsync(LearnerPage.Compose(lessonId.ToString("N"), planned, said), planned, cancel);
}
