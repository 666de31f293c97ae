using Microsoft.EntityFrameworkCore;
using Wexel.Core.Encoding;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Server.Learning;
using Wexel.Server.Remembering;
using Wexel.Server.Shelves;

namespace Wexel.Server.Channel;

/// <summary>What must be known of a release when somebody asks for a part of its file: who may have it, and where it lies.</summary>
/// <param name="Taken">What learners take.</param>
/// <param name="Shown">Who may see it, from when and until when.</param>
/// <param name="Container">What the file is.</param>
/// <param name="FileKey">The file's key.</param>
/// <param name="DownloadKey">The key of another file that learners download; null for none.</param>
/// <param name="DownloadContainer">What that file is.</param>
/// <param name="PosterKey">The poster's key; null for none.</param>
internal sealed record KnownRelease(
    Taken Taken,
    Shown Shown,
    Container Container,
    string FileKey,
    string? DownloadKey,
    Container? DownloadContainer,
    string? PosterKey
);

/// <summary>Finds releases in the channel, remembered for some seconds: a player asks for its file's parts many times a minute.</summary>
internal sealed class KnownReleases(IDbContextFactory<WexelDb> databases, Changes changes, TimeProvider clock)
{
    private readonly Remembered<KnownRelease> _known = new(changes, clock, "Releases", "Outlets", "Lessons");

    /// <summary>The release that a token stands for; null where there is none, or none that is in the channel.</summary>
    internal ValueTask<KnownRelease?> FindAsync(string token, CancellationToken cancel) =>
        token.All(char.IsAsciiLetterOrDigit) ? new(FindKnownAsync(token, cancel)) : new((KnownRelease?)null);

    private Task<KnownRelease?> FindKnownAsync(string token, CancellationToken cancel) => _known.FindAsync(token, stop => ReadAsync(token, stop), cancel);

    private async Task<KnownRelease?> ReadAsync(string token, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var found = db
            .Releases.Where(r => r.Token == token && r.Outlet!.Kind == ChannelKind.Channel)
            .Select(r => new
            {
                Taken = new Taken(r.LessonId, r.OutletId, r.Id, r.Revision),
                Opening = new Opening(r.Visibility, r.OpensAt, r.EndsAt),
                r.Lesson!.OwnerId,
                r.Named,
                r.Container,
                r.FileKey,
                r.DownloadKey,
                r.DownloadContainer,
                r.PosterKey,
            });
        return await found.FirstOrDefaultAsync(cancel) is { } r
            ? new KnownRelease(
                r.Taken,
                ShownReleases.From(r.Opening, r.OwnerId, r.Named),
                r.Container,
                r.FileKey,
                r.DownloadKey,
                r.DownloadContainer,
                r.PosterKey
            )
            : null;
    }
}
