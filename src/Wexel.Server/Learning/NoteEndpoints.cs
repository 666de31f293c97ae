using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Learning;
using Wexel.Data;
using Wexel.Server.Setup;

namespace Wexel.Server.Learning;

/// <summary>A note from a learner that waits for an answer.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Kind">What it says of the moment.</param>
/// <param name="Text">In the learner's words; may be empty.</param>
/// <param name="Name">Who it is from; null for somebody who came by a link.</param>
/// <param name="LeftAt">When it was left.</param>
/// <param name="At">At which moment of the reel; null where the recording is not in the lesson any more.</param>
/// <param name="TellsThem">Whether the learner is told of an answer by mail.</param>
internal sealed record WaitingNote(Guid Id, NoteKind Kind, string Text, string? Name, DateTimeOffset LeftAt, TimeSpan? At, bool TellsThem);

/// <param name="Text">What the learner is told; empty where it was seen to and nothing is said.</param>
internal sealed record NoteAnswer(string Text);

/// <summary>Notes from learners, for those who make the lesson.</summary>
internal static class NoteEndpoints
{
    internal static void MapNotes(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/lessons/{id:guid}/notes", ListAsync).WithName("Notes");
        routes.MapPost("/api/lessons/{id:guid}/notes/{note:guid}/answer", AnswerAsync).WithName("AnswerNote");
    }

    private static async Task<Results<Ok<IReadOnlyList<WaitingNote>>, ProblemHttpResult>> ListAsync(Guid id, WexelDb db, Notes notes, CancellationToken cancel)
    {
        if (await db.Lessons.Where(l => l.Id == id).Select(l => (int?)l.Revision).FirstOrDefaultAsync(cancel) is not { } revision)
            return Problems.NotThere("lesson");
        var waiting = await notes.WaitingAsync(id, revision, cancel);
        return TypedResults.Ok<IReadOnlyList<WaitingNote>>([
            .. waiting.Select(p => new WaitingNote(p.Note.Id, p.Note.Kind, p.Note.Text, p.Note.Name, p.Note.At, p.At, p.Note.PersonId is not null)),
        ]);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> AnswerAsync(Guid id, Guid note, NoteAnswer request, Notes notes, CancellationToken cancel)
    {
        if (request.Text.Length > NoteRules.LongestText)
            return Problems.Answer(new Problem("answer-too-long", $"An answer has at most {NoteRules.LongestText} characters. Say it in fewer words.", "text"));
        return await notes.AnswerAsync(id, note, request.Text, cancel) ? TypedResults.NoContent() : Problems.NotThere("note");
    }
}
