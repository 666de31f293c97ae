using System.Collections.Concurrent;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.Net.Http.Headers;
using Wexel.Core.Kit;
using Wexel.Core.Lessons;
using Wexel.Core.Recordings;
using Wexel.Making.Lessons;
using Wexel.Making.Rendering;
using Wexel.Making.Storage;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Lessons;

/// <summary>What a lesson's picture could be.</summary>
/// <param name="Proposals">Moments in recording time, the best first; none while it is being looked through.</param>
internal sealed record PictureChoice(IReadOnlyList<TimeSpan> Proposals);

/// <summary>A picture that was given.</summary>
/// <param name="Key">What names it.</param>
/// <param name="Width">Its width, in pixels.</param>
/// <param name="Height">Its height, in pixels.</param>
internal sealed record GivenPictureView(string Key, int Width, int Height);

/// <summary>The pictures by which lessons are known, and what they could be.</summary>
internal static class PictureEndpoints
{
    /// <summary>How wide they are in lists, in pixels.</summary>
    private const int SmallWidth = 320;

    /// <summary>Not more at once: each is a decoder, and there may be renders beside them.</summary>
    private static readonly SemaphoreSlim AtOnce = new(2);

    internal static void MapPictures(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/lessons/{id:guid}/pictures", ChoiceAsync).WithName("PictureChoice");
        routes.MapGet("/api/lessons/{id:guid}/picture.jpg", PictureAsync).WithName("LessonPicture").ExcludeFromDescription();
        routes.MapGet("/api/pictures/{key}.jpg", Given).ExcludeFromDescription();
        routes.MapGet("/api/pictures/shown/{key}.jpg", Shown).ExcludeFromDescription();
        routes.MapPut("/api/pictures/shown", TakeShownAsync).WithName("TakeShownPicture").Accepts<Stream>("application/octet-stream");
        routes.MapPut("/api/pictures", TakeAsync).WithName("TakePicture").Accepts<Stream>("application/octet-stream");
    }

    private static async Task<Results<Ok<PictureChoice>, ProblemHttpResult>> ChoiceAsync(Guid id, RenderPlans plans, CancellationToken cancel) =>
        await plans.LessonAsync(id, cancel) is { } lesson ? TypedResults.Ok(new PictureChoice(lesson.Proposals)) : Problems.NotThere("lesson");

    /// <summary>The picture by which a lesson is known, or another that it could be.</summary>
    /// <param name="id">The lesson.</param>
    /// <param name="at">A frame, in milliseconds of recording time; null for the lesson's own picture.</param>
    /// <param name="own">A picture that was given; null for none.</param>
    /// <param name="small">Whether it is for a list.</param>
    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> PictureAsync(
        Guid id,
        long? at,
        string? own,
        bool? small,
        RenderPlans plans,
        PictureMaker maker,
        FileStore store,
        HttpResponse response,
        CancellationToken cancel
    )
    {
        if (await plans.LessonAsync(id, cancel) is not { } lesson)
            return Problems.NotThere("lesson");
        if (own is not null && !(ImageFacts.IsKey(own) && store.Has(own, MadeNames.GivenPicture)))
            return Problems.NotThere("picture");
        var wanted =
            own is not null ? new LessonPicture(Own: own)
            : at is { } moment ? new LessonPicture(TimeSpan.FromMilliseconds(moment))
            : null;
        if (await MadeAsync(lesson, wanted, small == true, maker, store, cancel) is not { } path)
            return Problems.NotThere("picture");
        // It is asked again whether it is another by now, and then sent no second time.
        response.Headers.CacheControl = "private, no-cache";
        return TypedResults.PhysicalFile(path.Path, "image/jpeg", entityTag: new EntityTagHeaderValue($"\"{path.Key}\""));
    }

    private static async Task<(string Key, string Path)?> MadeAsync(
        LessonToMake lesson,
        LessonPicture? wanted,
        bool small,
        PictureMaker maker,
        FileStore store,
        CancellationToken cancel
    )
    {
        if (PlannedPicture.Of(lesson, wanted ?? lesson.Picture) is not { } planned)
            return null;
        var (path, little) = (store.Derived(planned.Key, MadeNames.Poster), store.Derived(planned.Key, MadeNames.SmallPoster));
        var answer = (planned.Key, small ? little : path);
        if (Wholeness.IsWhole(answer.Item2))
            return answer;
        await AtOnce.WaitAsync(cancel);
        try
        {
            await maker.MakeAsync(planned, cancel);
            if (small && !Wholeness.IsWhole(little))
                await GivenPicture.MakeAsync(path, Small(planned.Size), LessonPicture.Seen, little);
            return answer;
        }
        catch (Exception failed) when (failed is ToolFailedException or InvalidDataException)
        {
            return null;
        }
        finally
        {
            AtOnce.Release();
        }
    }

    /// <summary>A picture that was given, as pages have it.</summary>
    private static Results<PhysicalFileHttpResult, ProblemHttpResult> Given(string key, FileStore store) =>
        ImageFacts.IsKey(key)
        && store.Derived(LessonPicture.OwnKey(key, LessonPicture.SizeOfOwn(null)), MadeNames.Poster) is var file
        && Wholeness.IsWhole(file)
            ? TypedResults.PhysicalFile(file, "image/jpeg")
            : Problems.NotThere("picture");

    private static PictureSize Small(PictureSize size) => new(SmallWidth, Math.Max(1, SmallWidth * size.Height / size.Width));

    private static async Task<Results<Ok<GivenPictureView>, ProblemHttpResult>> TakeAsync(HttpRequest request, PictureTaker pictures, CancellationToken cancel)
    {
        request.TakeAnySize();
        return (await pictures.TakeGivenAsync(request.Body, cancel)).Is(out var taken, out var problem)
            ? TypedResults.Ok(new GivenPictureView(taken.Key, taken.Facts.Width, taken.Facts.Height))
            : Problems.Answer(problem);
    }

    private static async Task<Results<Ok<GivenPictureView>, ProblemHttpResult>> TakeShownAsync(
        HttpRequest request,
        PictureTaker pictures,
        CancellationToken cancel
    )
    {
        request.TakeAnySize();
        return (await pictures.TakeShownAsync(request.Body, cancel)).Is(out var taken, out var problem)
            ? TypedResults.Ok(new GivenPictureView(taken.Key, taken.Facts.Width, taken.Facts.Height))
            : Problems.Answer(problem);
    }

    /// <summary>A picture as it stands with a question or a note.</summary>
    private static Results<PhysicalFileHttpResult, ProblemHttpResult> Shown(string key, FileStore store) =>
        ImageFacts.IsKey(key) && store.Derived(key, MadeNames.Shown) is var file && Wholeness.IsWhole(file)
            ? TypedResults.PhysicalFile(file, "image/jpeg")
            : Problems.NotThere("picture");
}
