using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Speech;
using Wexel.Making.Transcripts;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Speech;

/// <summary>A script along the voice of a lesson.</summary>
/// <param name="Track">The captions that were made of it.</param>
/// <param name="Share">How much of it was found in the voice, 0 to 1.</param>
/// <param name="Differences">What is said otherwise, or not.</param>
internal sealed record ScriptRead(CaptionTrack Track, double Share, IReadOnlyList<ScriptDifference> Differences);

/// <summary>Captions from the trainer's own script.</summary>
internal static class ScriptEndpoints
{
    /// <summary>Where less of a script is found it is another lesson's, or in another language.</summary>
    private const double LeastShare = 0.4;

    /// <summary>Where as much is found, and nothing is missing, it is what was said.</summary>
    private const double AllOfIt = 0.97;

    internal static void MapScripts(this IEndpointRouteBuilder routes) =>
        routes.MapPut("/api/lessons/{id:guid}/script", ReadAsync).WithName("TakeScript").Accepts<Stream>("application/octet-stream");

    private static async Task<Results<Ok<ScriptRead>, ProblemHttpResult>> ReadAsync(
        Guid id,
        string fileName,
        HttpRequest request,
        DraftReader drafts,
        CaptionStore captions,
        CancellationToken cancel
    )
    {
        request.TakeAtMost(ScriptFile.LargestBytes);
        using var bytes = new MemoryStream();
        await request.Body.CopyToAsync(bytes, cancel);
        if (!ScriptFile.Read(bytes.ToArray()).Is(out var text, out var problem))
            return Problems.Answer(problem);
        var script = ScriptText.Parse(text);
        if (script.Words.Count == 0)
            return Problems.Answer(new Problem("script-empty", "There is no word in the script."));
        if (await drafts.HeardAsync(id, cancel) is not { } heard)
            return Problems.NotThere("lesson");
        if (heard.Words.Count == 0)
            return Problems.Answer(
                new Problem("script-not-heard", "No word of the recording has been heard yet; the script is laid along the voice when the draft is there.")
            );
        var aligned = ScriptAlignment.Of(script, heard.Words);
        if (aligned.Share < LeastShare)
            return Problems.Answer(
                new Problem(
                    "script-other",
                    $"Only {aligned.Share * 100:0} % of the script is said in the recording; is it another lesson’s, or in another language?"
                )
            );
        var cues = CueMaker.Make(aligned.Words, heard.Guidelines, heard.Grid, heard.Edges, heard.Length);
        var track = await captions.AddAsync(cues, heard.Language, fileName.Length <= 200 ? fileName : fileName[..200], cancel);
        var isWhole = aligned.Share >= AllOfIt && aligned.Differences.Count == 0;
        return TypedResults.Ok(new ScriptRead(track with { State = isWhole ? TrackState.Corrected : TrackState.Draft }, aligned.Share, aligned.Differences));
    }
}
