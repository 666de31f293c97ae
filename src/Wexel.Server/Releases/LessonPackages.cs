using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>Brings packages of lessons to where their outlets are.</summary>
internal sealed class LessonPackages(WexelDb db, PackageDeliverer deliverer, FileNamer names) : IReleaseDeliverer
{
    /// <inheritdoc/>
    public bool Serves(KnownOutlet outlet) => outlet.Row.DeliverTo is not null;

    /// <inheritdoc/>
    public Task<Result<bool>> IsThereAsync(ReleaseWay way, CancellationToken cancel) =>
        Task.FromResult<Result<bool>>(way.Release is { SentKey: { } sent } release && sent == release.PackageKey && release.PackedFrom == way.Wanted.Key);

    /// <inheritdoc/>
    public async Task<StepCame> DeliverAsync(ReleaseWay way, CancellationToken cancel) =>
        new(await deliverer.DeliverAsync(way.Release, way.Outlet, await NameThereAsync(way, cancel), cancel));

    /// <inheritdoc/>
    public Task<Problem?> TakeBackAsync(Release release, KnownOutlet outlet, CancellationToken cancel) => deliverer.TakeBackAsync(release, outlet, cancel);

    /// <summary>The name of what is put at the outlet: one that was put there keeps the name that it has.</summary>
    private async Task<string> NameThereAsync(ReleaseWay way, CancellationToken cancel)
    {
        if (!way.Outlet.Kind.IsNamedAfterLesson)
            return ReleaseSteps.Identifier(way.Release);
        if (PackageDeliverer.FolderThere(way.Release) is { } now)
            return now;
        var others = await db
            .Releases.IgnoreQueryFilters()
            .AsNoTracking()
            .Where(r => r.OutletId == way.Release.OutletId && r.There != null && r.Id != way.Release.Id)
            .ToListAsync(cancel);
        var name = await names.NameAsync(way.Lesson, null, cancel);
        return deliverer.Unused(way.Outlet, name, [.. others.Select(PackageDeliverer.FolderThere).OfType<string>()]);
    }
}
