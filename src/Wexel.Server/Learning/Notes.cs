using Hangfire;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Learning;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Live;
using Wexel.Server.Mailing;

namespace Wexel.Server.Learning;

/// <summary>What a learner wants to leave.</summary>
/// <param name="Kind">What it says of the moment.</param>
/// <param name="At">The moment, in the time of the revision that they take.</param>
/// <param name="Text">In their words; may be empty.</param>
internal sealed record NoteLeft(NoteKind Kind, TimeSpan At, string Text);

/// <summary>A note with the moment at which it stands now.</summary>
/// <param name="Note">The note.</param>
/// <param name="At">In the time that was asked for; null where its moment is not there any more.</param>
internal sealed record PlacedNote(LearnerNote Note, TimeSpan? At);

/// <summary>What learners say of moments of lessons, and what authors answer. A note is of a moment of a recording, so that it stays where it was when the
/// lesson is cut otherwise.</summary>
internal sealed class Notes(WexelDb db, TakenRevisions revisions, LiveNews news, IBackgroundJobClient jobs, TimeProvider clock)
{
    /// <summary>Leaves a note.</summary>
    /// <returns>Why not; null where it is left.</returns>
    internal async Task<Problem?> LeaveAsync(Taken taken, Learner learner, Guid? person, NoteLeft left, CancellationToken cancel)
    {
        var times = (await revisions.ReadAsync(taken.LessonId, taken.Revision, cancel)).Times;
        var waiting = await Left(taken.LessonId, learner.Key).CountAsync(n => n.AnsweredAt == null, cancel);
        if (NoteRules.Refusal(left.Text, left.At, times.Length, waiting) is { } refusal)
            return refusal;
        var moment = times.ToRecordings(left.At);
        db.LearnerNotes.Add(
            new LearnerNote
            {
                LessonId = taken.LessonId,
                LearnerKey = learner.Key,
                PersonId = person,
                Name = learner.Name,
                Kind = left.Kind,
                Text = left.Text.Trim(),
                Recording = moment.Recording,
                Nth = moment.Nth,
                Moment = moment.At,
                At = clock.GetUtcNow(),
            }
        );
        await db.SaveChangesAsync(cancel);
        await news.LessonAsync(taken.LessonId);
        return null;
    }

    /// <summary>A learner's notes at a lesson, the newest first, in the time of the revision that they take.</summary>
    internal async Task<IReadOnlyList<PlacedNote>> OfLearnerAsync(Taken taken, string learner, CancellationToken cancel)
    {
        var times = (await revisions.ReadAsync(taken.LessonId, taken.Revision, cancel)).Times;
        var notes = await Left(taken.LessonId, learner).AsNoTracking().OrderByDescending(n => n.At).Take(NoteRules.MostWaiting * 2).ToListAsync(cancel);
        return [.. notes.Select(n => new PlacedNote(n, times.ToLesson(MomentOf(n))))];
    }

    /// <summary>The notes at a lesson that wait for an answer, in the time of its reel.</summary>
    internal async Task<IReadOnlyList<PlacedNote>> WaitingAsync(Guid lesson, int revision, CancellationToken cancel)
    {
        var notes = await db.LearnerNotes.AsNoTracking().Where(n => n.LessonId == lesson && n.AnsweredAt == null).OrderBy(n => n.At).ToListAsync(cancel);
        if (notes.Count == 0)
            return [];
        var times = (await revisions.ReadAsync(lesson, revision, cancel)).Times;
        return [.. notes.Select(n => new PlacedNote(n, times.ToReel(MomentOf(n))))];
    }

    /// <summary>Answers a note, which stands in the sheet no longer; a learner who was signed in is told by mail.</summary>
    /// <returns>False where there is no such note.</returns>
    internal async Task<bool> AnswerAsync(Guid lesson, Guid note, string answer, CancellationToken cancel)
    {
        var found = await db.LearnerNotes.FirstOrDefaultAsync(n => n.Id == note && n.LessonId == lesson, cancel);
        if (found is null)
            return false;
        if (found.AnsweredAt is not null)
            return true;
        (found.Answer, found.AnsweredAt) = (answer.Trim() is { Length: > 0 } said ? said : null, clock.GetUtcNow());
        await db.SaveChangesAsync(cancel);
        await news.LessonAsync(lesson);
        var to = await db.Users.Where(p => p.Id == found.PersonId && p.DisabledAt == null).Select(p => p.Email).FirstOrDefaultAsync(cancel);
        if (to is null || found.Answer is null)
            return true;
        var title = await db.Lessons.Where(l => l.Id == lesson).Select(l => l.Title).FirstAsync(cancel);
        var text = $"You left a note at “{title}”{(found.Text.Length > 0 ? $":\n\n{Quoted(found.Text)}" : ".")}\n\nThe answer:\n\n{found.Answer}\n";
        jobs.Enqueue<Mailer>(mailer => mailer.SendAsync(to, $"Your note at {title}", text, CancellationToken.None));
        return true;
    }

    private IQueryable<LearnerNote> Left(Guid lesson, string learner) => db.LearnerNotes.Where(n => n.LessonId == lesson && n.LearnerKey == learner);

    private static RecordingMoment MomentOf(LearnerNote note) => new(note.Recording, note.Nth, note.Moment);

    private static string Quoted(string text) => "> " + text.ReplaceLineEndings("\n").Replace("\n", "\n> ", StringComparison.Ordinal);
}
