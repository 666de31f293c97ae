using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Making;
using Wexel.Making.Lessons;
using Wexel.Making.Storage;
using Wexel.Media.Measuring;
using Wexel.Media.Tools;
using Wexel.Server.Estimates;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Trying;

/// <param name="Profiles">The profiles that are tried.</param>
/// <param name="At">A moment of the lesson within the seconds that are encoded; null for where its picture moves most.</param>
internal sealed record TrialRequest(IReadOnlyList<string> Profiles, TimeSpan? At);

/// <param name="Key">Under which its pictures are asked for.</param>
/// <param name="BytesAMinute">What a minute like these seconds comes to.</param>
internal sealed record TrialView(
    string ProfileId,
    string ProfileTitle,
    string Coding,
    string Key,
    PictureSize Size,
    long Bytes,
    long BytesAMinute,
    TimeSpan Took,
    double MeanSsim,
    double WorstSsim,
    long WorstFrame
);

/// <param name="From">Where the seconds start in the lesson.</param>
/// <param name="Frames">How many frames they have.</param>
internal sealed record TrialsView(string LessonTitle, TimeSpan From, FrameRate Grid, long Frames, IReadOnlyList<TrialView> Trials);

/// <summary>Tries profiles on the same few seconds of a lesson.</summary>
internal static partial class TryEndpoints
{
    private const int Most = 4;

    internal static void MapTrying(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/lessons/{id:guid}/trials", TryAsync).WithName("TryProfiles");
        routes.MapGet("/api/trials/{key}/{frame:long}.png", FrameAsync).WithName("TrialFrame").ExcludeFromDescription();
    }

    private static async Task<Results<Ok<TrialsView>, ProblemHttpResult>> TryAsync(
        Guid id,
        TrialRequest request,
        RenderPlans plans,
        ProfileShelf shelf,
        FileStore store,
        SamplingTurn turn,
        MakingFolders folders,
        CancellationToken cancel
    )
    {
        if (request.Profiles.Count is 0 or > Most)
            return Problems.Answer(new Problem("trial-nothing", $"Choose one to {Most} profiles to try.", "profiles"));
        if (await plans.LessonAsync(id, cancel) is not { } renderable)
            return Problems.NotThere("lesson");
        var (trials, window, grid) = (new List<TrialView>(), default(SampleWindow), default(FrameRate));
        foreach (var profileId in request.Profiles)
        {
            if (await shelf.FindAsync(profileId, cancel) is not { } profile)
                return Problems.NotThere("profile");
            if (profile.Picture is null)
                return Problems.Answer(
                    new Problem("trial-without-picture", $"“{profile.Title}” makes sound alone; there is no picture to look at.", "profiles")
                );
            var (planned, refused) = renderable.Wanted(profile);
            if (planned is null)
                return Problems.Answer(refused! with { Field = "profiles" });
            var picture = planned.Plan.Picture!;
            (window, grid) = (Window(planned, request.At), planned.Map.Grid);
            var key = RenditionKeys.Trial(picture, window, planned.Map, planned.Hashes);
            try
            {
                var measured = await turn.TakeAsync(
                    () =>
                        MakeAsync(
                            store,
                            key,
                            () =>
                                Trial.MakeAsync(
                                    picture,
                                    planned.Reel.Parts[0].Picture.Even,
                                    planned.Inputs(folders),
                                    window,
                                    store.Derived(key, MadeNames.Trial),
                                    cancel
                                ),
                            cancel
                        ),
                    cancel
                );
                var seconds = grid.TimeOf(window.Count).TotalSeconds;
                trials.Add(
                    new TrialView(
                        profile.Id,
                        profile.Title,
                        CodingWords.Say(planned.Plan),
                        key,
                        measured.Size,
                        measured.Bytes,
                        (long)(measured.Bytes * 60 / seconds),
                        measured.Took,
                        measured.MeanSsim,
                        measured.WorstSsim,
                        measured.WorstFrame
                    )
                );
            }
            catch (ToolFailedException failed)
            {
                return Problems.Answer(new Problem("trial-failed", $"“{profile.Title}” could not be tried: {failed.Said}", "profiles"));
            }
        }

        return TypedResults.Ok(new TrialsView(renderable.Document.Title, grid.TimeOf(window.First), grid, window.Count, trials));
    }

    /// <summary>Some seconds around a moment, or those in which the picture moves most.</summary>
    private static SampleWindow Window(PlannedRendition planned, TimeSpan? at)
    {
        var map = planned.Map;
        if (at is null && Samples.Choose(map, planned.Unmoving) is { Count: > 1 } samples)
            return samples.MaxBy(s => s.Moving);
        var count = Math.Min(map.Frames, map.Grid.FrameAt(Samples.Length));
        return new SampleWindow(Math.Clamp(map.Grid.FrameAt(at ?? map.Length / 2) - (count / 2), 0, map.Frames - count), count, 1);
    }

    private static async Task<TrialMeasured> MakeAsync(FileStore store, string key, Func<Task<TrialMeasured>> make, CancellationToken cancel)
    {
        var path = store.Derived(key, MadeNames.TrialMeasured);
        if (File.Exists(path))
            return WexelJson.Read<TrialMeasured>(await File.ReadAllTextAsync(path, cancel));
        var measured = await make();
        await WholeFile.MakeAsync(path, temporary => File.WriteAllTextAsync(temporary, WexelJson.Write(measured), cancel));
        return measured;
    }

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> FrameAsync(string key, long frame, FileStore store, CancellationToken cancel)
    {
        if (!Hash().IsMatch(key) || !store.Has(key, MadeNames.TrialMeasured))
            return Problems.NotThere("trial");
        var measured = WexelJson.Read<TrialMeasured>(await File.ReadAllTextAsync(store.Derived(key, MadeNames.TrialMeasured), cancel));
        if (frame < 0 || frame >= measured.Window.Count)
            return Problems.NotThere("frame");
        var png = store.Derived(RenditionKeys.TrialFrame(key, frame), MadeNames.Frame);
        if (!File.Exists(png))
            await Trial.FrameAsync(measured, store.Derived(key, MadeNames.Trial), frame, png, cancel);
        return TypedResults.PhysicalFile(png, "image/png");
    }

    [GeneratedRegex("^[0-9a-f]{64}$")]
    private static partial Regex Hash();
}
