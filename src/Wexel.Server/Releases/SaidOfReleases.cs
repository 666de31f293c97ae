using Microsoft.EntityFrameworkCore;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Releases;

/// <summary>Notes what people say of releases, beside the worker who has them.</summary>
internal static class SaidOfReleases
{
    /// <summary>What is said by wanting something there, or nothing any more.</summary>
    internal static readonly IReadOnlyList<string> Wanting =
    [
        nameof(PackagedRelease.Phase),
        nameof(PackagedRelease.WantsDown),
        nameof(PackagedRelease.WantedProfileId),
        nameof(PackagedRelease.Problem),
        nameof(PackagedRelease.SentBytes),
        nameof(PackagedRelease.BytesToSend),
    ];

    /// <summary>What is said of who may see it.</summary>
    internal static readonly IReadOnlyList<string> Opening =
    [
        nameof(Release.Visibility),
        nameof(Release.WantedVisibility),
        nameof(Release.OpensAt),
        nameof(Release.EndsAt),
        nameof(Release.Named),
    ];

    /// <summary>
    /// Notes that somebody said something. All of it is written, also what was so already when it was read: its worker may have written
    /// something else meanwhile, and what people say goes before that.
    /// </summary>
    /// <param name="db">Where it is written.</param>
    /// <param name="release">The release, as it is wanted.</param>
    /// <param name="what">The columns that were said.</param>
    internal static void Say(this WexelDb db, PackagedRelease release, IReadOnlyList<string> what)
    {
        release.SaidAnew();
        var entry = db.Entry(release);
        if (entry.State != EntityState.Modified)
            return;
        foreach (var column in what)
            entry.Property(column).IsModified = true;
    }
}
