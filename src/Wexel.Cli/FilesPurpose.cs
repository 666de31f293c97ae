using Wexel.Core.Captions;
using Wexel.Core.Encoding;
using Wexel.Core.Outlets;
using Wexel.Core.Packages;

namespace Wexel.Cli;

/// <summary>The files by themselves, one of each lesson and profile, in a folder.</summary>
internal sealed class FilesPurpose(string playerFolder) : Purpose(playerFolder)
{
    internal override OutletKind Kind => OutletKind.WebServer;

    internal override bool TakesSeveralProfiles => true;

    /// <summary>No outlet is asked: whoever wants files knows where they go.</summary>
    internal override string? Refusal(MakeSources sources, Profile profile) => null;

    internal override Task<MakePlan> PlanAsync(string title, MakeSources sources, IReadOnlyList<MadeLesson> made, string work, CancellationToken cancel) =>
        Task.FromResult(new MakePlan([.. made.SelectMany(Files), .. made.DistinctBy(m => Name(m)).SelectMany(Captions)]));

    private static string Name(MadeLesson made) => FileNames.Of(made.Sources.Lesson.Title);

    private static IEnumerable<PackageFile> Files(MadeLesson made)
    {
        var (name, purpose) = ($"{Name(made)}-{made.Profile.Id}", $"{made.Profile.Title}: {made.Profile.Description}");
        return made.Sources.Pieces is { } pieces
            ? LessonFiles.OfPieces(made.Sources.VideoPath, pieces).Select(f => f with { Path = $"{name}/{f.Path[LessonFiles.PiecesFolder.Length..]}" })
            : [new PackageFile(name + Path.GetExtension(made.Sources.VideoPath), purpose, new PackageContent.Copy(made.Sources.VideoPath, AlreadyCompressed: true))];
    }

    private static IEnumerable<PackageFile> Captions(MadeLesson made) => made.Sources.Lesson.Captions is { } captions
        ? [new PackageFile(Name(made) + ".vtt", "The captions as a WebVTT file, for players beside whose file they lie.", new PackageContent.Text(WebVttText.Write(captions.Cues)))]
        : [];
}
