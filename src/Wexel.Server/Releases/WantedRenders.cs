using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Lessons;
using Wexel.Server.Rendering;

namespace Wexel.Server.Releases;

/// <summary>Has encoded what a release waits for.</summary>
internal sealed class WantedRenders(WexelDb db, RenderQueue queue)
{
    /// <summary>Has a lesson's picture and sound encoded, unless that is under way.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="planned">The lesson, planned with the profile.</param>
    /// <param name="profile">The profile.</param>
    /// <param name="person">Who wants it.</param>
    /// <param name="since">Since when: what failed or was stopped before that is tried again.</param>
    /// <param name="others">Finds with which profiles it is wanted besides: its recordings are read once for all of them.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Why it will not be encoded; null where it is waited for.</returns>
    internal async Task<Problem?> AskAsync(
        Lesson lesson,
        PlannedRendition planned,
        Profile profile,
        Guid person,
        DateTimeOffset since,
        Func<Task<IReadOnlyList<Profile>>> others,
        CancellationToken cancel
    )
    {
        var last = await db
            .Renditions.Where(r => r.LessonId == lesson.Id && r.ProfileId == profile.Id && r.EncodeKey == planned.Keys.Encodes)
            .OrderByDescending(r => r.RequestedAt)
            .FirstOrDefaultAsync(cancel);
        switch (last)
        {
            case { State: RenditionState.Waiting or RenditionState.Working or RenditionState.Held }:
                return null;
            case { State: RenditionState.Failed } when last.EndedAt >= since:
                return new Problem("release-not-rendered", $"It could not be rendered with “{profile.Title}”: {last.Said} {last.Advice}".Trim());
            case { State: RenditionState.Cancelled } when last.EndedAt >= since:
                return new Problem("release-stopped", $"Somebody stopped the render with “{profile.Title}”. Try again when it is wanted.");
        }

        var answer = await queue.AskAsync([lesson], [profile, .. await others()], person, tells: false, cancel);
        return answer.Refused.FirstOrDefault(r => r.ProfileTitle == profile.Title)?.Problem;
    }
}
