using Wexel.Core.Captions;
using Wexel.Core.Encoding;
using Wexel.Core.Outlets;
using Wexel.Core.Outlets.WebServers;
using Wexel.Core.Packages;
using Wexel.Making;
using Wexel.Making.Storage;
using Wexel.Media.Rendering;

namespace Wexel.Cli;

/// <summary>The files by themselves, one of each lesson and profile, in a folder.</summary>
internal sealed class FilesPurpose(MakingFolders folders) : Purpose(folders)
{
    internal override OutletKind Kind { get; } = new WebServerKind();

    internal override bool TakesSeveralProfiles => true;

    /// <summary>No outlet is asked: whoever wants files knows where they go.</summary>
    internal override string? Refusal(MakeSources sources, Profile profile) => null;

    internal override Task<MakePlan> PlanAsync(string title, MakeSources sources, IReadOnlyList<MadeLesson> made, CancellationToken cancel) =>
        Task.FromResult(new MakePlan([.. made.SelectMany(Files), .. made.DistinctBy(m => Name(m)).SelectMany(Captions)]));

    private static string Name(MadeLesson made) => FileNames.FromTitle(made.Title);

    private IEnumerable<PackageFile> Files(MadeLesson made)
    {
        var (name, purpose, video) = (
            $"{Name(made)}-{made.Profile.Id}",
            $"{made.Profile.Title}: {made.Profile.Description}",
            Folders.Store.Keyed(made.Finished.FileKey, MadeNames.Finished(made.Profile.Container))
        );
        return Muxing.Pieces(made.Profile.Container, video.Path) is { } pieces
            ? LessonFiles.OfPieces(video, pieces).Select(f => f with { Path = $"{name}/{f.Path[LessonFiles.PiecesFolder.Length..]}" })
            : [new PackageFile(name + Path.GetExtension(video.Path), purpose, new PackageContent.Copy(video, AlreadyCompressed: true))];
    }

    /// <summary>Players look for captions beside a file, under its name; with the language in it where there are several.</summary>
    private static IEnumerable<PackageFile> Captions(MadeLesson made)
    {
        var tracks = made.Planned.Tracks;
        return tracks.Zip(CaptionFileName.ForLanguages([.. tracks.Select(t => t.Track.Language)]), (t, apart) =>
            new PackageFile(
                Name(made) + (tracks.Count == 1 ? "" : "." + apart) + ".vtt",
                "The captions as a WebVTT file, for players beside whose file they lie.",
                new PackageContent.Text(WebVttText.WriteKept(t.Cues))
            )
        );
    }
}
