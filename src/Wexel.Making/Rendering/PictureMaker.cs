using Wexel.Core.Lessons;
using Wexel.Making.Lessons;
using Wexel.Making.Storage;
using Wexel.Media.Measuring;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Making.Rendering;

/// <summary>Makes the pictures by which lessons are known. Nothing is encoded for them, and one that is there is not made again.</summary>
/// <param name="folders">Where.</param>
public sealed class PictureMaker(MakingFolders folders)
{
    /// <summary>Makes the picture of a lesson.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="picture">Which picture; null for the lesson's own.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>What was made; null where the lesson has none.</returns>
    /// <exception cref="ToolFailedException">A recording cannot be read there.</exception>
    /// <exception cref="InvalidDataException">What was given cannot be read.</exception>
    public async Task<PlannedPicture?> MakeAsync(LessonToMake lesson, LessonPicture? picture, CancellationToken cancel)
    {
        if (PlannedPicture.Of(lesson, picture ?? lesson.Picture) is not { } planned)
            return null;
        await MakeAsync(planned, cancel);
        return planned;
    }

    /// <summary>Makes a picture that was planned.</summary>
    /// <param name="picture">Which picture.</param>
    /// <param name="cancel">Stops it.</param>
    /// <inheritdoc cref="MakeAsync(LessonToMake, LessonPicture, CancellationToken)" path="/exception"/>
    public Task MakeAsync(PlannedPicture picture, CancellationToken cancel)
    {
        var path = folders.Store.Derived(picture.Key, MadeNames.Poster);
        if (Wholeness.IsWhole(path))
            return Task.CompletedTask;
        return picture.Own is { } own
            ? GivenPicture.MakeAsync(folders.Store.Derived(own, MadeNames.GivenPicture), picture.Size, LessonPicture.Seen, path)
            : SourcePicture.TakeAsync(picture.Planned!.Plan.Picture!, picture.Planned.Inputs(folders), picture.Frame, path, cancel);
    }
}
