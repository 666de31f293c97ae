using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Documents;
using Wexel.Core.Speech;
using Wexel.Data;
using Wexel.Making.Transcripts;
using Wexel.Server.Live;
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

    internal static void MapScripts(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/lessons/{id:guid}/script");
        group.MapPut("", ReadAsync).WithName("TakeScript").Accepts<Stream>("application/octet-stream");
        group.MapGet("", GetAsync).WithName("Script");
        group.MapPut("differences", SettleAsync).WithName("SettleScript");
    }

    /// <summary>What is kept of the script, with what is still to be looked at; nothing where there is none.</summary>
    private static async Task<Results<Ok<KeptScript>, NoContent, ProblemHttpResult>> GetAsync(Guid id, WexelDb db, CancellationToken cancel) =>
        await db.Lessons.AsNoTracking().Where(l => l.Id == id).Select(l => new { l.Script }).FirstOrDefaultAsync(cancel) is not { } lesson
            ? Problems.NotThere("lesson")
        : lesson.Script is null ? TypedResults.NoContent()
        : TypedResults.Ok(WexelJson.Read<KeptScript>(lesson.Script));

    /// <summary>Differences that somebody has looked at are not shown any more; those that are given are left.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> SettleAsync(
        Guid id,
        IReadOnlyList<ScriptDifference> left,
        WexelDb db,
        LiveNews news,
        CancellationToken cancel
    )
    {
        if (await db.Lessons.FirstOrDefaultAsync(l => l.Id == id, cancel) is not { Script: { } script } lesson)
            return Problems.NotThere("script");
        var kept = WexelJson.Read<KeptScript>(script);
        lesson.Script = WexelJson.Write(kept with { Differences = [.. kept.Differences.Where(left.Contains)] });
        await db.SaveChangesAsync(cancel);
        await news.LessonAsync(id);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<ScriptRead>, ProblemHttpResult>> ReadAsync(
        Guid id,
        string fileName,
        HttpRequest request,
        DraftReader drafts,
        CaptionStore captions,
        WexelDb db,
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
        var kept = WexelJson.Write(new KeptScript(track.FileName, track.Id, aligned.Place(script), aligned.Differences));
        await db.Lessons.Where(l => l.Id == id).ExecuteUpdateAsync(set => set.SetProperty(l => l.Script, kept), cancel);
        var isWhole = aligned.Share >= AllOfIt && aligned.Differences.Count == 0;
        return TypedResults.Ok(new ScriptRead(track with { State = isWhole ? TrackState.Corrected : TrackState.Draft }, aligned.Share, aligned.Differences));
    }
}
