using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Making.Storage;
using Wexel.Media.Analysing;
using Wexel.Media.Tools;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.Uploads;

namespace Wexel.Server.Captions;

internal sealed record CaptionsRead(CaptionTrack? Track, IReadOnlyList<Problem> Problems);

/// <param name="Recordings">The hashes of the lesson's recordings, in their order.</param>
/// <param name="Place">Which of their subtitle tracks, from 0.</param>
/// <param name="Language">The lesson's, for a track that does not say its own.</param>
internal sealed record CaptionsInsideRequest(IReadOnlyList<string> Recordings, int Place, string Language);

/// <param name="Hash">What names the track as it is now.</param>
/// <param name="CueCount">How many captions it has.</param>
internal sealed record KeptCues(string Hash, int CueCount);

/// <summary>Caption tracks: read from files and from inside recordings, corrected cue by cue.</summary>
internal static class CaptionEndpoints
{
    internal static void MapCaptions(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/captions");
        group.MapPut("", AddAsync).WithName("AddCaptions").Accepts<Stream>("application/octet-stream");
        group.MapPost("inside", TakeInsideAsync).WithName("TakeCaptionsInside");
        group.MapGet("{hash}", CuesAsync).WithName("Cues");
        group.MapPost("{hash}/changes", ChangeAsync).WithName("ChangeCues");
    }

    private static async Task<Results<Ok<CaptionsRead>, ProblemHttpResult>> AddAsync(
        string fileName,
        string language,
        HttpRequest request,
        CaptionStore captions,
        CancellationToken cancel
    )
    {
        if (LanguageTag.Parse(language) is not { } known)
            return Problems.Answer(new Problem("captions-no-language", $"“{Problem.Shown(language)}” is no language; write it such as en-GB.", "language"));
        request.TakeAtMost(CaptionFile.LargestBytes);
        using var bytes = new MemoryStream();
        await request.Body.CopyToAsync(bytes, cancel);
        var reading = CaptionFile.Read(bytes.ToArray());
        if (reading.Cues.Count == 0)
            return TypedResults.Ok(new CaptionsRead(null, reading.Problems));
        var track = await captions.AddAsync(reading.Cues, known, Receiver.CleanName(fileName), cancel);
        return TypedResults.Ok(new CaptionsRead(track, reading.Problems));
    }

    /// <summary>Takes the captions that stand inside recordings, along the time of their reel; one that has no such track has none.</summary>
    private static async Task<Results<Ok<CaptionsRead>, ProblemHttpResult>> TakeInsideAsync(
        CaptionsInsideRequest request,
        LessonReels reels,
        FileStore store,
        CaptionStore captions,
        CancellationToken cancel
    )
    {
        if (await reels.FindAsync(request.Recordings, cancel) is not { } reel)
            return Problems.NotThere("recording");
        var (cues, problems) = (new List<Cue>(), new List<Problem>());
        var found = reel.Reel.Parts.Select(p => p.Facts.Subtitles?.FirstOrDefault(s => s.Place == request.Place)).ToList();
        try
        {
            foreach (var (index, track) in found.Index().Where(f => f.Item is not null))
            {
                var reading = await SubtitleReader.ReadAsync(store.Recording(reel.Hashes[index]), track!.Place, cancel);
                cues.AddRange(SubtitleReader.Later(reading.Cues, reel.Reel.SpanOf(index).Start));
                problems.AddRange(reading.Problems);
            }
        }
        catch (ToolFailedException failed)
        {
            return Problems.Answer(new Problem("captions-inside", $"The captions could not be taken out: {failed.Said}"));
        }

        if (cues.Count == 0)
            return TypedResults.Ok(new CaptionsRead(null, problems.Count > 0 ? problems : [new Problem("captions-none", "There is no caption inside.")]));
        var language = found.Select(f => f?.Language).FirstOrDefault(l => l is not null) ?? request.Language;
        // A file that says only "English" is of the lesson's region.
        if (request.Language.StartsWith(language + "-", StringComparison.OrdinalIgnoreCase))
            language = request.Language;
        return TypedResults.Ok(new CaptionsRead(await captions.AddAsync(cues, language, "From the recording", cancel), problems));
    }

    private static async Task<Results<Ok<IReadOnlyList<Cue>>, ProblemHttpResult>> CuesAsync(string hash, CaptionStore captions, CancellationToken cancel) =>
        await captions.ReadAsync(hash, cancel) is { } cues ? TypedResults.Ok(cues) : Problems.NotThere("caption file");

    /// <summary>A track with changes, kept under a name of its own; the one that it is made from stays, so that it can be gone back to.</summary>
    private static async Task<Results<Ok<KeptCues>, ProblemHttpResult>> ChangeAsync(
        string hash,
        CueChanges changes,
        CaptionStore captions,
        CancellationToken cancel
    )
    {
        if (await captions.ReadAsync(hash, cancel) is not { } cues)
            return Problems.NotThere("caption file");
        if (changes.Refusal(cues) is { } problem)
            return Problems.Answer(problem);
        var changed = changes.Apply(cues);
        return TypedResults.Ok(new KeptCues(await captions.KeepAsync(changed, cancel), changed.Count));
    }
}
