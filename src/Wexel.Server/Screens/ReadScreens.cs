using Microsoft.EntityFrameworkCore;
using Wexel.Core.Documents;
using Wexel.Core.Editing;
using Wexel.Core.Lessons;
using Wexel.Core.Recordings;
using Wexel.Core.Screens;
using Wexel.Core.Searching;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Media.Screens;
using Wexel.Server.Shelves;

namespace Wexel.Server.Screens;

/// <summary>What was read from the screens of a lesson's recordings, along their time.</summary>
/// <param name="Text">What was read so far.</param>
/// <param name="Share">How much was read where it is being read, 0 to 1; null where nothing is.</param>
/// <param name="Waiting">Whether some of it is still to be read.</param>
/// <param name="Failure">Why it is not read, in a sentence; null where nothing is in the way.</param>
/// <param name="HasFailed">Whether reading one of them failed, so that it can be tried again.</param>
internal sealed record LessonScreen(ScreenText Text, double? Share, bool Waiting, string? Failure, bool HasFailed);

/// <summary>Finds what was read from the screens of recordings.</summary>
internal sealed class ReadScreens(WexelDb db, FileStore store, IScreenReader reader, ReadingShares reading)
{
    /// <summary>What was read of a recording; null where nothing was yet.</summary>
    internal async Task<ScreenText?> ReadAsync(Recording recording, CancellationToken cancel)
    {
        if (recording.ScreenReadAs is not { } language || RecordingKeys.Screen(recording.Hash, language) is not { } key || !store.Has(key, MadeNames.Screen))
            return null;
        return WexelJson.Read<ScreenText>(await File.ReadAllTextAsync(store.Derived(key, MadeNames.Screen), cancel));
    }

    /// <summary>What was read along a lesson.</summary>
    /// <param name="found">Its recordings.</param>
    /// <param name="language">The lesson's language, as a BCP 47 tag.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task<LessonScreen> ReadAsync(FoundReel found, string language, CancellationToken cancel)
    {
        var (pictures, changes) = (new List<ScreenPicture>(), new List<ScreenChange>());
        foreach (var (index, recording) in found.Recordings.Index())
        {
            if (await ReadAsync(recording, cancel) is not { } read)
                continue;
            var span = found.Reel.SpanOf(index);
            pictures.AddRange(read.Pictures.Where(p => p.Span.Start < span.Length).Select(p => p with { Span = Along(p.Span, span) }));
            changes.AddRange(read.Changes.Where(c => c.At < span.Length).Select(c => c with { At = c.At + span.Start }));
        }

        var unread = found.Recordings.Where(r => r is { ScreenReadAs: null, ScreenFailure: null }).ToList();
        var shares = unread.Select(r => reading.Find(r.Hash)).OfType<double>().ToList();
        var missing = unread.Count > 0 ? reader.Missing(language)?.Sentence : null;
        return new LessonScreen(
            new ScreenText(pictures.Count > 0 ? reader.Name : "", pictures, changes),
            shares.Count > 0 ? shares.Min() : null,
            unread.Count > 0 && missing is null,
            missing ?? found.Recordings.Select(r => r.ScreenFailure).FirstOrDefault(f => f is not null),
            found.Recordings.Any(r => r.ScreenFailure is not null)
        );
    }

    /// <summary>Has recordings of which the screen could not be read tried again.</summary>
    /// <param name="recordings">Their hashes.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task TryAgainAsync(IReadOnlyList<string> recordings, CancellationToken cancel)
    {
        foreach (var hash in recordings)
            ScreenReading.Forgive(hash);
        await db
            .Recordings.Where(r => recordings.Contains(r.Hash) && r.ScreenFailure != null)
            .ExecuteUpdateAsync(set => set.SetProperty(r => r.ScreenFailure, (string?)null), cancel);
    }

    /// <summary>What learners see of it, in the lesson's own time: nothing of what is cut, and nothing that lies beside what is shown.</summary>
    /// <param name="document">The lesson as it was released.</param>
    /// <param name="reels">Finds its recordings.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task<IReadOnlyList<TextLine>> ShownAsync(LessonDocument document, LessonReels reels, CancellationToken cancel)
    {
        if (await reels.FindAsync(document.Recordings, cancel) is not { } found)
            return [];
        var (map, frames, lines) = (found.Reel.Map(document.Cuts), found.Frames(document.Frames), new List<TextLine>());
        foreach (var (index, recording) in found.Recordings.Index())
        {
            if (await ReadAsync(recording, cancel) is not { } read || found.Reel.Parts[index].Picture is not { } picture)
                continue;
            var span = found.Reel.SpanOf(index);
            var placed = CanvasPlacement.Of(picture.ShownSize, Canvas.Under(found.Reel, document.Canvas, frames[index]), null);
            // By the moment that was read: what little changes behind it is not read again, and may be what the cut is for.
            lines.AddRange(
                ScreenLines
                    .Find(read, placed.From, s => map.Keeps(Along(s, span).Start))
                    .Select(l => new TextLine(map.ToLesson(Along(l.Span, span).Start), l.Text))
            );
        }

        return lines;
    }

    /// <summary>Has lessons searched anew that are made of a recording.</summary>
    internal async Task TellSearchAsync(string hash, CancellationToken cancel)
    {
        var lessons = await db
            .Database.SqlQuery<Guid>(
                $"""
                SELECT l."Id" AS "Value" FROM "Lessons" l JOIN "LessonRevisions" r ON r."LessonId" = l."Id" AND r."Number" = l."Revision"
                WHERE l."RecordingHash" = {hash} OR r."Document"::text LIKE {$"%{hash}%"}
                """
            )
            .ToListAsync(cancel);
        await db.Lessons.Where(l => lessons.Contains(l.Id)).ExecuteUpdateAsync(set => set.SetProperty(l => l.SearchedRevision, 0), cancel);
        await db.ReleasedTexts.Where(t => db.Releases.Any(r => r.Id == t.ReleaseId && lessons.Contains(r.LessonId))).ExecuteDeleteAsync(cancel);
    }

    private static TimeRange Along(TimeRange span, TimeRange recording)
    {
        var end = recording.Start + span.End;
        return new TimeRange(recording.Start + span.Start, end < recording.End ? end : recording.End);
    }
}
