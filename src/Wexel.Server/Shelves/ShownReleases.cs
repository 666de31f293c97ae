using Wexel.Core.People;
using Wexel.Data.Model;

namespace Wexel.Server.Shelves;

/// <summary>Releases, as far as it matters to who may see them.</summary>
internal static class ShownReleases
{
    /// <summary>Who may see a release that is read with its lesson.</summary>
    internal static Shown Shown(this Release release) => From(release.Opening(), release.Lesson!.OwnerId, release.Named);

    /// <summary>Who may see a release by what is kept of it.</summary>
    internal static Shown From(Opening opening, Guid? owner, string? named) => new(opening, owner, NamedPeople.Read(named));

    /// <summary>Who may see what stands there, from when and until when.</summary>
    internal static Opening Opening(this Release release) => new(release.Visibility, release.OpensAt, release.EndsAt);
}
