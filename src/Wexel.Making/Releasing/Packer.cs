using Wexel.Core.Keys;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;
using Wexel.Making.Lessons;
using Wexel.Making.Rendering;
using Wexel.Making.Storage;
using Wexel.Media.Packaging;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Making.Releasing;

/// <summary>A package that was made.</summary>
/// <param name="Key">The key under which it lies.</param>
/// <param name="Bytes">Its size, in bytes.</param>
/// <param name="Files">What is in it.</param>
public sealed record MadePackage(string Key, long Bytes, IReadOnlyList<WrittenFile> Files);

/// <summary>Makes packages; one with the same in it is not made again.</summary>
/// <param name="folders">Where.</param>
public sealed class Packer(MakingFolders folders)
{
    private readonly PictureMaker _pictures = new(folders);
    private readonly ShownPictures _shown = new(folders.Store);

    /// <summary>What a lesson gives to a package.</summary>
    /// <param name="player">What the learner's page is told.</param>
    /// <param name="planned">Its rendition, which is finished.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">Its picture cannot be taken.</exception>
    public async Task<LessonSources> SourcesAsync(PlayerLesson player, PlannedRendition planned, CancellationToken cancel)
    {
        var (store, container) = (folders.Store, planned.Plan.File.Container);
        var picture = await _pictures.MakeAsync(planned.Lesson, null, cancel);
        var shown = new List<ShownFile>();
        foreach (var key in planned.Lesson.Document.ShownPictures)
            shown.Add(new ShownFile(key, new KeyedFile(await _shown.MakeAsync(key), key)));
        var video = store.Keyed(planned.FileKey, MadeNames.Finished(container));
        return new LessonSources(
            player,
            video,
            picture is null ? null : new LessonPoster(store.Keyed(picture.Key, MadeNames.Poster), picture.Size),
            Muxing.Pieces(container, video.Path),
            shown
        );
    }

    /// <summary>What a package is made from.</summary>
    /// <param name="identifier">A name that stays the same whenever the package is made again.</param>
    /// <param name="title">The course's title, or the lesson's where it stands alone.</param>
    /// <param name="lessons">The lessons, in their order.</param>
    /// <param name="course">What a course is about; null for a lesson by itself.</param>
    public PackageSources Sources(string identifier, string title, IReadOnlyList<LessonSources> lessons, string? course = null) =>
        new(identifier, title, lessons, PlayerFiles.In(folders.PlayerFolder), course is not null, course ?? "");

    /// <summary>Packs files into a ZIP.</summary>
    public async Task<MadePackage> PackAsync(IReadOnlyList<PackageFile> files, CancellationToken cancel)
    {
        var key = PackageKeys.PackageKey(files);
        var zip = folders.Store.Derived(key, MadeNames.Package);
        if (!Wholeness.IsWhole(zip))
            await PackageWriter.WriteZipAsync(files, zip, cancel);
        return new MadePackage(key, new FileInfo(zip).Length, PackageWriter.List(files));
    }
}
