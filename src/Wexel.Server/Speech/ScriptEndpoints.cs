using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Documents;
using Wexel.Core.Speech;
using Wexel.Data;
using Wexel.Data.Model;
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

/// <summary>The script of a lesson.</summary>
/// <param name="FileName">The name of its file.</param>
/// <param name="Share">How much of the voice was listened to with its words, 0 to 1.</param>
/// <param name="Waiting">Whether it is still being listened to.</param>
/// <param name="Laid">Whether captions were made of it.</param>
/// <param name="Failure">What went wrong while it was listened to; null where nothing did.</param>
/// <param name="Differences">Where it and the voice differ, and nobody has looked at it yet.</param>
internal sealed record ScriptView(string FileName, double Share, bool Waiting, bool Laid, string? Failure, IReadOnlyList<ScriptDifference> Differences);

/// <summary>Captions from the trainer's own script. The recordings are listened to once more by an engine that knows the script's words; then it is laid
/// along what was heard.</summary>
internal static class ScriptEndpoints
{
    /// <summary>Where less of a script is found it is another lesson's, or in another language.</summary>
    private const double LeastShare = 0.4;

    /// <summary>So little may be found in what was heard without the script's words; an engine that knows them hears more.</summary>
    private const double LeastBefore = 0.25;

    /// <summary>Where as much is found, and nothing is missing, it is what was said.</summary>
    private const double AllOfIt = 0.97;

    internal static void MapScripts(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/lessons/{id:guid}/script");
        group.MapPut("", TakeAsync).WithName("TakeScript").Accepts<Stream>("application/octet-stream");
        group.MapGet("", GetAsync).WithName("Script");
        group.MapPost("lay", LayAsync).WithName("LayScript");
        group.MapPut("differences", SettleAsync).WithName("SettleScript");
    }

    /// <summary>Keeps a script, and has the recordings listened to with its words.</summary>
    private static async Task<Results<Ok<ScriptView>, ProblemHttpResult>> TakeAsync(
        Guid id,
        string fileName,
        HttpRequest request,
        DraftReader drafts,
        SpeechEngines engines,
        WexelDb db,
        LiveNews news,
        IOptions<WexelOptions> options,
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
        var listens = options.Value.SpeechDrafts && engines.For(heard.Language) is not null;
        if (heard.Words.Count == 0 && !listens)
            return Problems.Answer(
                new Problem(
                    "script-not-heard",
                    $"No word of the recording has been heard. {engines.WhyNone(heard.Language)} A script is laid along what is heard."
                )
            );
        if (
            drafts.StateOf(heard) == HearingState.Done
            && ScriptAlignment.Of(script, heard.Words).Share is var share
            && share < (listens ? LeastBefore : LeastShare)
        )
            return Problems.Answer(Another(share));
        var name = fileName.Length <= 200 ? fileName : fileName[..200];
        var kept = WexelJson.Write(new KeptScript(name, text, null, [], []));
        await using var both = await db.Database.BeginTransactionAsync(cancel);
        await db.Lessons.Where(l => l.Id == id).ExecuteUpdateAsync(set => set.SetProperty(l => l.Script, kept), cancel);
        if (listens)
            await ListenAgainAsync(db, heard, text, cancel);
        await both.CommitAsync(cancel);
        foreach (var hash in heard.Document.Recordings.Distinct())
            await news.RecordingAsync(hash);
        return await GetAsync(id, db, drafts, cancel) is { Result: Ok<ScriptView> view } ? view : Problems.NotThere("lesson");
    }

    private static async Task ListenAgainAsync(WexelDb db, HeardLesson heard, string? script, CancellationToken cancel)
    {
        var rows = await db.HeardRecordings.Where(h => heard.Document.Recordings.Contains(h.RecordingHash)).ToDictionaryAsync(h => h.RecordingHash, cancel);
        foreach (var hash in heard.Document.Recordings.Distinct())
        {
            if (!rows.TryGetValue(hash, out var row))
                db.HeardRecordings.Add(
                    row = new HeardRecording
                    {
                        RecordingHash = hash,
                        Language = heard.Language,
                        Heard = "",
                    }
                );
            (row.Script, row.State, row.Until, row.Attempts, row.Failure) = (script, HearingState.Listening, TimeSpan.Zero, 0, null);
            (row.Heard, row.Language) = (WexelJson.Write(HeardSpeech.Nothing("", false)), heard.Language);
            row.Asked++;
        }

        await db.SaveChangesAsync(cancel);
    }

    /// <summary>The script with what is still to be looked at; nothing where there is none.</summary>
    private static async Task<Results<Ok<ScriptView>, NoContent, ProblemHttpResult>> GetAsync(Guid id, WexelDb db, DraftReader drafts, CancellationToken cancel)
    {
        if (await db.Lessons.AsNoTracking().Where(l => l.Id == id).Select(l => new { l.Script }).FirstOrDefaultAsync(cancel) is not { } lesson)
            return Problems.NotThere("lesson");
        if (lesson.Script is null || await drafts.HeardAsync(id, cancel) is not { } heard)
            return TypedResults.NoContent();
        var kept = WexelJson.Read<KeptScript>(lesson.Script);
        return TypedResults.Ok(
            new ScriptView(
                kept.FileName,
                heard.Share,
                drafts.StateOf(heard) == HearingState.Listening,
                kept.Track is not null,
                heard.Rows.Values.Select(r => r.Failure).FirstOrDefault(f => f is not null),
                kept.Differences
            )
        );
    }

    /// <summary>Makes captions of the script that is kept, by what was heard.</summary>
    private static async Task<Results<Ok<ScriptRead>, ProblemHttpResult>> LayAsync(
        Guid id,
        WexelDb db,
        DraftReader drafts,
        CaptionStore captions,
        LiveNews news,
        CancellationToken cancel
    )
    {
        if (
            await db.Lessons.FirstOrDefaultAsync(l => l.Id == id, cancel) is not { Script: { } text } lesson
            || await drafts.HeardAsync(id, cancel) is not { } heard
        )
            return Problems.NotThere("script");
        var kept = WexelJson.Read<KeptScript>(text);
        if (heard.Words.Count == 0)
            return Problems.Answer(
                new Problem("script-not-heard", "No word of the recording has been heard yet; the script is laid along the voice when it has.")
            );
        var script = ScriptText.Parse(kept.Text);
        var aligned = ScriptAlignment.Of(script, heard.Words);
        if (aligned.Share < LeastShare)
        {
            // What was heard with the words of another lesson is no draft of this one.
            lesson.Script = null;
            if (heard.Rows.Values.Any(r => r.Script is not null))
                await ListenAgainAsync(db, heard, null, cancel);
            else
                await db.SaveChangesAsync(cancel);
            return Problems.Answer(Another(aligned.Share));
        }

        var cues = CueMaker.Make(aligned.Words, heard.Guidelines, heard.Grid, heard.Edges, heard.Length);
        var track = await captions.AddAsync(cues, heard.Language, kept.FileName, cancel);
        lesson.Script = WexelJson.Write(kept with { Track = track.Id, Headings = aligned.Place(script), Differences = aligned.Differences });
        await db.SaveChangesAsync(cancel);
        await news.LessonAsync(id);
        var isWhole = aligned.Share >= AllOfIt && aligned.Differences.Count == 0;
        return TypedResults.Ok(new ScriptRead(track with { State = isWhole ? TrackState.Corrected : TrackState.Draft }, aligned.Share, aligned.Differences));
    }

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

    private static Problem Another(double share) =>
        new("script-other", $"Only {share * 100:0} % of the script is said in the recording; is it another lesson’s, or in another language?");
}
