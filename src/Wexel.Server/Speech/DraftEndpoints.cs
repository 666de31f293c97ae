using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Documents;
using Wexel.Core.Speech;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Live;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Speech;

/// <summary>A word that the engine was not sure of, in recording time.</summary>
internal sealed record UnsureWord(TimeRange Span, string Text, double Confidence);

/// <summary>A draft of a lesson's captions, made by this machine of its speech.</summary>
/// <param name="State">How far it is.</param>
/// <param name="Share">How much of the sound was listened to, 0 to 1.</param>
/// <param name="Engine">Who listened; empty while nobody has.</param>
/// <param name="Language">As what it was listened to, as a BCP 47 tag.</param>
/// <param name="Sure">How sure the engine is of its words in the middle, 0 to 1; null without a word.</param>
/// <param name="Failure">Why there is none, or not all of it; null where nothing is in the way.</param>
/// <param name="Outlook">What to know before: where the sound will make a poor draft.</param>
/// <param name="Cues">The captions so far, in recording time.</param>
/// <param name="Unsure">The words that somebody should look at.</param>
internal sealed record DraftView(
    HearingState State,
    double Share,
    string Engine,
    string Language,
    double? Sure,
    string? Failure,
    IReadOnlyList<Problem> Outlook,
    IReadOnlyList<Cue> Cues,
    IReadOnlyList<UnsureWord> Unsure
);

/// <summary>Drafts of captions.</summary>
internal static class DraftEndpoints
{
    internal static void MapDrafts(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/lessons/{id:guid}/draft");
        group.MapGet("", GetAsync).WithName("Draft");
        group.MapPost("", TakeAsync).WithName("TakeDraft");
        group.MapPost("stop", StopAsync).WithName("StopDraft");
        group.MapPost("listen", ListenAsync).WithName("ListenAgain");
    }

    private static async Task<Results<Ok<DraftView>, ProblemHttpResult>> GetAsync(Guid id, DraftReader drafts, CancellationToken cancel) =>
        await drafts.ReadAsync(id, cancel) is { } draft ? TypedResults.Ok(draft) : Problems.NotThere("lesson");

    /// <summary>The draft as it stands becomes a track, to be corrected or to go out as it is.</summary>
    private static async Task<Results<Ok<CaptionTrack>, ProblemHttpResult>> TakeAsync(
        Guid id,
        DraftReader drafts,
        CaptionStore captions,
        CancellationToken cancel
    )
    {
        if (await drafts.ReadAsync(id, cancel) is not { } draft)
            return Problems.NotThere("lesson");
        if (draft.Cues.Count == 0)
            return Problems.Answer(new Problem("draft-empty", draft.Failure ?? "No word has been heard yet; wait until the draft begins."));
        var track = await captions.AddAsync(draft.Cues, draft.Language, "Draft by this machine", cancel);
        return TypedResults.Ok(track with { Kind = TrackKind.MachineDraft, State = TrackState.Draft });
    }

    /// <summary>Stops listening to the lesson's recordings; what was heard stays.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> StopAsync(Guid id, WexelDb db, DraftReader drafts, LiveNews news, CancellationToken cancel)
    {
        if (await drafts.LessonAsync(id, cancel) is not { } document)
            return Problems.NotThere("lesson");
        foreach (var hash in document.Recordings.Distinct())
        {
            // One that nobody has begun with is not begun with either.
            if (!await db.HeardRecordings.AnyAsync(h => h.RecordingHash == hash, cancel))
            {
                db.HeardRecordings.Add(New(hash, document.Language, HearingState.Stopped));
                await db.SaveChangesAsync(cancel);
            }

            await db
                .HeardRecordings.Where(h => h.RecordingHash == hash && h.State == HearingState.Listening)
                .ExecuteUpdateAsync(set => set.SetProperty(h => h.State, HearingState.Stopped), cancel);
            await news.RecordingAsync(hash);
        }

        return TypedResults.NoContent();
    }

    /// <summary>Goes on where it was stopped or failed; in another language, and where it came to its end, from the start.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> ListenAsync(
        Guid id,
        WexelDb db,
        DraftReader drafts,
        LiveNews news,
        CancellationToken cancel
    )
    {
        if (await drafts.LessonAsync(id, cancel) is not { } document)
            return Problems.NotThere("lesson");
        var rows = await db.HeardRecordings.Where(h => document.Recordings.Contains(h.RecordingHash)).ToListAsync(cancel);
        foreach (var row in rows.Where(r => r.State != HearingState.Listening))
        {
            if (row.State is HearingState.Stopped or HearingState.Failed && row.Language == document.Language)
                (row.State, row.Failure, row.Attempts, row.Asked) = (HearingState.Listening, null, 0, row.Asked + 1);
            else
                db.HeardRecordings.Remove(row);
        }

        await db.SaveChangesAsync(cancel);
        foreach (var hash in document.Recordings.Distinct())
            await news.RecordingAsync(hash);
        return TypedResults.NoContent();
    }

    private static HeardRecording New(string hash, string language, HearingState state) =>
        new()
        {
            RecordingHash = hash,
            Language = language,
            State = state,
            Heard = WexelJson.Write(HeardSpeech.Nothing("", false)),
        };
}
