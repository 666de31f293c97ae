using System.IO.Compression;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Naming;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Delivering;
using Wexel.Making.Storage;
using Wexel.Media.Packaging;
using Wexel.Server.Live;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>Puts packages where their outlets are, and takes them away again. What was put is written down file by file.</summary>
internal sealed class PackageDeliverer(
    WexelDb db,
    IDbContextFactory<WexelDb> databases,
    FileStore store,
    Deliveries deliveries,
    LiveNews news,
    TimeProvider clock
)
{
    /// <summary>What a package is over HTTP.</summary>
    private const string Zip = "application/zip";

    /// <summary>Puts a release's package there and notes where the place put it.</summary>
    /// <returns>What stood in the way, or null.</returns>
    internal async Task<Problem?> DeliverAsync(PackagedRelease release, KnownOutlet outlet, string identifier, CancellationToken cancel)
    {
        if (outlet.Row.DeliverTo is null)
            return new Problem("outlet-without-address", $"“{outlet.Row.Name}” has no address for packages. Download the package and import it there.");
        if (release.PackageKey is not { } key || !store.Has(key, MadeNames.Package))
            return new Problem("package-missing", "There is no package yet. Make it, then send it.");
        using var zip = ZipFile.OpenRead(store.Derived(key, MadeNames.Package));
        var files = outlet.Kind.DeliversFiles
            ? Unpacked(release, zip, identifier)
            : [Whole(key, outlet.Row.DeliverBy == "folder" ? identifier + ".zip" : identifier)];
        if ((await PutAsync(release, outlet, files, cancel)).Is(out var delivered, out var problem) && !delivered.Stopped)
            (release.SentKey, release.SentAt, release.SentTo) = (
                key,
                clock.GetUtcNow(),
                delivered.Page ?? outlet.Terms.PageAt(identifier, Linked(release))?.AbsoluteUri ?? release.SentTo
            );
        await NoteAsync();
        return problem;
    }

    /// <summary>Writes down what was put, whatever was said of the release meanwhile: it stands there.</summary>
    private async Task NoteAsync()
    {
        while (true)
        {
            try
            {
                await db.SaveChangesAsync(CancellationToken.None);
                return;
            }
            catch (DbUpdateConcurrencyException said)
            {
                foreach (var entry in said.Entries)
                {
                    // A release that is gone altogether takes its notes with it.
                    if (await entry.GetDatabaseValuesAsync() is not { } now)
                        throw;
                    var number = entry.Property(nameof(Release.SaidNumber));
                    (number.OriginalValue, number.CurrentValue) = (now[nameof(Release.SaidNumber)], now[nameof(Release.SaidNumber)]);
                }
            }
        }
    }

    /// <summary>A package as one file: who puts it again under its name replaces it.</summary>
    private ParcelFile Whole(string key, string path) => new(new DeliveredFile(path, key), () => File.OpenRead(store.Derived(key, MadeNames.Package)), Zip);

    /// <summary>What is in a package, each file by itself in a folder of the package's name.</summary>
    private static List<ParcelFile> Unpacked(PackagedRelease release, ZipArchive zip, string identifier) =>
        [
            .. Files(release)
                .Select(f => new ParcelFile(new DeliveredFile($"{identifier}/{PackageFile.InFolder(f.Path)}", f.Key), () => zip.GetEntry(f.Path)!.Open())),
        ];

    private static string? Linked(PackagedRelease release) =>
        Files(release).FirstOrDefault(f => f.IsThePageToLink) is { } page ? PackageFile.InFolder(page.Path) : null;

    /// <summary>The folder that was put at the outlet; null where none was.</summary>
    internal static string? FolderThere(PackagedRelease release) => There(release).Keys.FirstOrDefault()?.Split('/')[0];

    /// <summary>A name for a folder at an outlet that none has there, whoever put it there.</summary>
    /// <param name="outlet">The outlet.</param>
    /// <param name="name">The name that is wanted.</param>
    /// <param name="others">The names of what others of its releases have there.</param>
    internal string Unused(KnownOutlet outlet, string name, IReadOnlyList<string> others) =>
        new DistinctNames([.. others, .. deliveries.Find(outlet.Row.DeliverBy)?.Names(outlet.Row.DeliverTo!) ?? []]).Take(name);

    private static IReadOnlyList<WrittenFile> Files(PackagedRelease release) => WexelJson.Read<IReadOnlyList<WrittenFile>>(release.PackageFiles!);

    /// <summary>Takes away what was put there, where the kind of outlet lets it.</summary>
    internal async Task<Problem?> TakeBackAsync(PackagedRelease release, KnownOutlet outlet, CancellationToken cancel)
    {
        if (!outlet.Kind.TakesBack || outlet.Row.DeliverTo is null || There(release).Count == 0)
            return null;
        (await PutAsync(release, outlet, [], cancel)).Is(out _, out var problem);
        // What went is written down, so that going on begins there.
        await NoteAsync();
        return problem;
    }

    /// <summary>What came of putting files somewhere.</summary>
    /// <param name="Page">The page that the place named.</param>
    /// <param name="Stopped">Whether it was left off, since something else was said of the release meanwhile.</param>
    private sealed record Came(string? Page, bool Stopped);

    private async Task<Result<Came>> PutAsync(PackagedRelease release, KnownOutlet outlet, IReadOnlyList<ParcelFile> files, CancellationToken cancel)
    {
        if (deliveries.Find(outlet.Row.DeliverBy) is not { } delivery)
            return new Problem("delivery-unknown", $"“{outlet.Row.Name}” is reached in a way that this Wexel does not know. Choose another in the Kit.");
        var there = new Noted(There(release));
        var plan = DeliveryPlan.Of([.. files.Select(f => f.File)], there.Now);
        List<ParcelFile> put = [.. files.Where(f => plan.Put.Contains(f.File))];
        var bytes = BytesOf(release, outlet, put.Select(f => f.File.Key).ToHashSet());
        await using var watch = release switch
        {
            Release lesson => SendWatch.Begin(databases, () => TellAsync(release), clock, lesson, bytes),
            CourseRelease course => SendWatch.Begin(databases, () => TellAsync(release), clock, course, bytes),
            _ => throw new InvalidOperationException("Only lessons and courses are sent."),
        };
        var parcel = new Parcel(
            outlet.Row.Name,
            [.. put.Select(f => f with { Open = watch.Counted(f.Open) })],
            plan.Remove,
            release is Release one ? stop => ProcessingAsync(one, stop) : null
        );
        try
        {
            using var stop = CancellationTokenSource.CreateLinkedTokenSource(cancel, watch.Stopped);
            await using var waiting = await databases.CreateDbContextAsync(stop.Token);
            await using var turn = await OutletTurn.WaitAsync(outlet, waiting, stop.Token);
            return (await delivery.DeliverAsync(parcel, outlet.Row.DeliverTo!, there, stop.Token)).Is(out var delivered, out var problem)
                ? new Came(delivered.Page, Stopped: false)
                : problem;
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested && watch.Stopped.IsCancellationRequested)
        {
            return new Came(null, Stopped: true);
        }
        finally
        {
            release.There = WexelJson.Write(there.Now);
        }
    }

    private Task TellAsync(PackagedRelease release) =>
        release is Release lesson ? news.LessonAsync(lesson.LessonId) : news.CourseAsync(((CourseRelease)release).CourseId);

    /// <summary>Notes that the place has it and makes it ready, unless something else was said of the release meanwhile.</summary>
    private async Task ProcessingAsync(Release release, CancellationToken cancel)
    {
        await using var own = await databases.CreateDbContextAsync(cancel);
        await own
            .Releases.IgnoreQueryFilters()
            .Where(r => r.Id == release.Id && r.SaidNumber == release.SaidNumber)
            .ExecuteUpdateAsync(set => set.SetProperty(r => r.Phase, ReleasePhase.ProcessingThere).SetProperty(r => r.PhaseAt, clock.GetUtcNow()), cancel);
        await news.LessonAsync(release.LessonId);
    }

    private static long BytesOf(PackagedRelease release, KnownOutlet outlet, HashSet<string> keys) =>
        keys.Count == 0 ? 0
        : outlet.Kind.DeliversFiles ? Files(release).Where(f => keys.Contains(f.Key)).Sum(f => f.Bytes)
        : release.PackageBytes;

    private static Dictionary<string, string> There(PackagedRelease release) =>
        release.There is { } there ? WexelJson.Read<Dictionary<string, string>>(there) : [];

    /// <summary>What stands at an outlet, told file by file.</summary>
    private sealed class Noted(Dictionary<string, string> there) : IProgress<DeliveryStep>
    {
        internal Dictionary<string, string> Now => there;

        public void Report(DeliveryStep value)
        {
            if (value.Key is { } key)
                there[value.Path] = key;
            else
                there.Remove(value.Path);
        }
    }
}
