using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Data.Model;
using Wexel.Data.Storage;
using Wexel.Media.Packaging;
using Wexel.Media.Rendering;
using Wexel.Server.Rendering;
using Wexel.Server.Setup;

namespace Wexel.Server.Releases;

/// <summary>A lesson that goes into a package: what the player is told, and the keys of its files.</summary>
internal sealed record PackedLesson(PlayerLesson Player, string? PosterKey, string FileKey, Container Container);

/// <summary>Makes packages; one that was made from the same things is not made again.</summary>
internal sealed class Packer(FileStore store, IOptions<WexelOptions> options)
{
    internal const string PackageName = "package.zip";
    private const string Maker = "package/3";

    /// <summary>Makes the package that an outlet of a kind takes, and notes it in the release.</summary>
    internal async Task PackAsync(PackagedRelease release, OutletKind kind, string identifier, string title, IReadOnlyList<PackedLesson> lessons, CancellationToken cancel)
    {
        var playerFiles = PlayerFiles.In(options.Value.PlayerFolder);
        var player = playerFiles.Select(f => new { f.Path, Written = File.GetLastWriteTimeUtc(f.Source) });
        var key = DerivedKey.Of(Maker, kind, identifier, title, lessons, player);
        var zip = store.Derived(key, PackageName);
        if (release.PackageKey != key || !File.Exists(zip))
        {
            LessonSources[] sources = [.. lessons.Select(Sources)];
            var files = kind == OutletKind.LearningSystem
                ? Scorm12Package.Plan(new Scorm12Sources(identifier, title, sources, playerFiles))
                : WebFolder.Plan(sources.Single(), playerFiles);
            release.PackageFiles = Json.Write(await PackageWriter.WriteZipAsync(files, zip, cancel));
        }

        (release.PackageKey, release.PackageBytes) = (key, new FileInfo(zip).Length);
    }

    private LessonSources Sources(PackedLesson lesson)
    {
        var video = store.Derived(lesson.FileKey, Finishing.FileName(lesson.Container));
        return new LessonSources(lesson.Player, video, lesson.PosterKey is { } poster ? store.Derived(poster, PlannedRender.PosterName) : null, Finishing.Pieces(lesson.Container, video));
    }
}
