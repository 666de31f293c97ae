using Microsoft.EntityFrameworkCore;
using Npgsql;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Details;
using Wexel.Core.Editing;
using Wexel.Core.Kit;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Server.Live;

namespace Wexel.Server.Shelves;

/// <summary>A lesson that was saved.</summary>
/// <param name="Revision">Its revision now.</param>
/// <param name="SavedAt">When.</param>
/// <param name="Length">How long it is for learners.</param>
/// <param name="Changes">What changed, in a few words; empty where nothing did.</param>
/// <param name="Document">What was saved.</param>
internal sealed record Saved(int Revision, DateTimeOffset SavedAt, TimeSpan Length, string Changes, LessonDocument Document);

/// <summary>Reads and saves lessons; saving makes a revision, unless nothing changed.</summary>
internal sealed class LessonSaver(WexelDb db, LessonReels reels, CaptionStore captions, FileStore store, SoundShelf sounds, LiveNews news, TimeProvider clock)
{
    /// <summary>The code of the problem that somebody else was faster.</summary>
    internal const string SavedByAnother = "lesson-saved-by-another";

    internal async Task<LessonDocument?> CurrentAsync(Lesson lesson, CancellationToken cancel) => await AtAsync(lesson.Id, lesson.Revision, cancel);

    internal async Task<LessonDocument?> AtAsync(Guid lessonId, int revision, CancellationToken cancel) =>
        await db.LessonRevisions.FindAsync([lessonId, revision], cancel) is { } saved ? LessonDocument.Format.Read(saved.Document) : null;

    /// <summary>Adds the first revision of a new lesson; the caller saves.</summary>
    internal void AddFirst(Lesson lesson, LessonDocument document, string changes, string by)
    {
        lesson.Revision = 1;
        Note(lesson, document);
        lesson.Revisions.Add(
            new LessonRevision
            {
                Number = 1,
                Document = LessonDocument.Format.Write(document),
                Changes = changes,
                SavedBy = by,
                SavedAt = clock.GetUtcNow(),
            }
        );
    }

    /// <param name="lessonId">The lesson.</param>
    /// <param name="basedOn">The number of the revision that was changed.</param>
    /// <param name="document">The lesson as it is to be.</param>
    /// <param name="restoredFrom">The number of the earlier revision that is brought back; null where something new was changed.</param>
    /// <param name="by">Who saves.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task<Result<Saved>> SaveAsync(Guid lessonId, int basedOn, LessonDocument document, int? restoredFrom, string by, CancellationToken cancel)
    {
        var lesson = await db.Lessons.FirstAsync(l => l.Id == lessonId, cancel);
        if (lesson.Revision != basedOn)
            return Conflict();
        var before = (await CurrentAsync(lesson, cancel))!;
        if (await reels.TimesAsync(document.Recordings, cancel) is not { } reel)
            return new Problem("lesson-no-recording", "The lesson names a recording that is not here. Bring it in, then add it again.", "recordings");
        if (document.Cameras.Count > 0 && !await reels.HasAsync([.. document.Cameras.Select(c => c.Recording)], cancel))
            return new Problem("lesson-no-camera", "The lesson names a camera’s recording that is not here. Choose it again.", "cameras");
        if (LanguageTag.Parse(document.Language) is not { } language)
            return new Problem("lesson-no-language", $"“{document.Language}” is no language; write it such as en-GB.", "language");
        if (document.Captions.FirstOrDefault(t => LanguageTag.Parse(t.Language) is null) is { } unknown)
            return new Problem("captions-no-language", $"“{Problem.Shown(unknown.Language)}” is no language; write it such as en-GB.", "captions");
        document = document with { Language = language };
        if (captions.Missing(document.Captions.Except(before.Captions)) is { } missing)
            return missing;
        if (document.Picture?.Own is { } own && document.Picture != before.Picture && !(ImageFacts.IsKey(own) && store.Has(own, MadeNames.GivenPicture)))
            return new Problem("picture-gone", "The lesson’s picture is not here. Take it again.", LessonPicture.Field);
        if (document.ShownPictures.Except(before.ShownPictures).Any(key => !(ImageFacts.IsKey(key) && store.Has(key, MadeNames.GivenPicture))))
            return new Problem("picture-gone", "A picture of a question or a note is not here. Take it again.", ShownPicture.Field);
        if (!(await sounds.CheckedAsync(before, document, cancel)).Is(out var measured, out var lacking))
            return lacking;
        document = measured;
        var map = reel.Map(document.Cuts);
        if (LessonRules.Refusal(document, map) is { } refused)
            return refused;
        var tidy = LessonRules.Tidy(document, reel.Length, map.Grid);
        var changes = LessonRules.Describe(before, tidy);
        if (changes.Length == 0)
            return new Saved(lesson.Revision, clock.GetUtcNow(), lesson.Length, "", tidy);
        lesson.Revision++;
        (lesson.Title, lesson.Length, lesson.RecordingHash) = (tidy.Title, map.Length, tidy.RecordingHash);
        Note(lesson, tidy);
        db.LessonRevisions.Add(
            new LessonRevision
            {
                LessonId = lessonId,
                Number = lesson.Revision,
                Document = LessonDocument.Format.Write(tidy),
                Changes = changes,
                RestoredFrom = restoredFrom,
                SavedBy = by,
                SavedAt = clock.GetUtcNow(),
            }
        );
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException failed) when (failed.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            // The next number was given to somebody else's revision; any other fault is none of theirs.
            return Conflict();
        }

        await news.LessonAsync(lessonId);
        return new Saved(lesson.Revision, clock.GetUtcNow(), lesson.Length, changes, tidy);
    }

    /// <summary>Notes with a lesson what lists of many go by.</summary>
    private static void Note(Lesson lesson, LessonDocument document) =>
        (lesson.ContentKey, lesson.WantsMark, lesson.Said) = (LessonKeys.DocumentKey(document), document.HouseMark, DetailSet.Format.Write(document.Said));

    private static Problem Conflict() =>
        new(SavedByAnother, "Somebody else has saved this lesson meanwhile. Look at what they changed; what you changed last was not saved yet.");
}
