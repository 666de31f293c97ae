using Microsoft.EntityFrameworkCore;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.Shelves;

/// <summary>Finds releases, also those that are only on their way and stand nowhere yet.</summary>
internal sealed class ReleaseShelf(WexelDb db)
{
    /// <summary>A lesson at an outlet; where there is none, one that is on its way, which the caller saves. Its address is given here, for good.</summary>
    internal async Task<Release> FindOrAddAsync(Guid lessonId, Guid outletId, CancellationToken cancel)
    {
        var release = await db.Releases.IgnoreQueryFilters().FirstOrDefaultAsync(r => r.LessonId == lessonId && r.OutletId == outletId, cancel);
        if (release is null)
            db.Releases.Add(
                release = new Release
                {
                    LessonId = lessonId,
                    OutletId = outletId,
                    Token = Tokens.New(),
                    ProfileId = "",
                    Profile = "{}",
                    FileKey = "",
                    Player = "{}",
                    MadeFrom = "",
                }
            );
        return release;
    }
}
