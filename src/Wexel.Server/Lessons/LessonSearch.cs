using Microsoft.EntityFrameworkCore;
using Wexel.Core.Lessons;
using Wexel.Core.Screens;
using Wexel.Core.Searching;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Screens;
using Wexel.Server.Shelves;
using Wexel.Server.Upkeep;

namespace Wexel.Server.Lessons;

/// <summary>
/// Finds what lessons say. What is searched is kept beside them and brought up to date before somebody searches, so that saving a lesson costs
/// nothing more.
/// </summary>
internal sealed class LessonSearch(WexelDb db, CaptionStore captions, LessonReels reels, ReadScreens screens) : IUpkeep
{
    private const int AtOnce = 100;

    /// <summary>The most lessons that are shown.</summary>
    private const int MostLessons = 50;

    /// <summary>The most lessons whose texts are read for that; whoever finds more than these has looked for too little.</summary>
    private const int MostRead = 200;

    private const string Work = "bringing what is searched up to date";

    public TimeSpan Every => TimeSpan.FromMinutes(1);

    public async Task DoAsync(CancellationToken cancel)
    {
        await using var hold = await WorkHold.TryAsync(db, Work, cancel);
        if (hold is not null)
            await BringUpToDateAsync(cancel);
    }

    /// <summary>The lessons that say all of some words.</summary>
    internal async Task<SearchAnswer> FindAsync(string typed, CancellationToken cancel)
    {
        if (TextSearch.Parse(typed) is not { } search)
            return new SearchAnswer([], false);
        await using (await WorkHold.WaitAsync(db, Work, cancel))
            await BringUpToDateAsync(cancel);
        var patterns = search.Words.Select(w => $"%{Escaped(w)}%").ToList();
        var lessons = db.Lessons.AsNoTracking();
        foreach (var pattern in patterns)
            lessons = lessons.Where(l => l.Texts.Any(t => EF.Functions.ILike(t.Text, pattern, "\\")));
        var found = await lessons
            .OrderBy(l => l.Course!.Position)
            .ThenBy(l => l.CourseId)
            .ThenBy(l => l.Position)
            .Take(MostRead)
            .Select(l => new
            {
                l.Id,
                l.Title,
                Course = l.Course!.Title,
                Texts = l.Texts.Select(t => new
                {
                    t.Kind,
                    t.Ref,
                    t.Text,
                }),
            })
            .ToListAsync(cancel);
        var hits = found
            .Select(l => new LessonFound(l.Id, l.Title, l.Course, search.In(l.Texts.Select(t => LessonText.Read(t.Kind, t.Ref, t.Text)))))
            .Where(l => l.Hits.Count > 0)
            .OrderByDescending(l => l.Hits[0].Found.Count)
            .ThenBy(l => l.Hits[0].Kind)
            .ToList();
        return new SearchAnswer([.. hits.Take(MostLessons)], hits.Count > MostLessons || found.Count == MostRead);
    }

    /// <summary>What was read from its pictures; what is cut is found too, since whoever works on it still has it.</summary>
    private async Task<IReadOnlyList<TextLine>> OnScreenAsync(LessonDocument document, CancellationToken cancel) =>
        [
            .. ScreenLines
                .Find((await screens.ReadAsync(await reels.ReadAsync(document, cancel), document.Language, cancel)).Text, null, _ => true)
                .Select(l => new TextLine(l.Span.Start, l.Text)),
        ];

    private static string Escaped(string word) => string.Concat(word.Select(c => c is '%' or '_' or '\\' ? $"\\{c}" : c.ToString()));

    private async Task BringUpToDateAsync(CancellationToken cancel)
    {
        while (
            await db
                .Lessons.Where(l => l.SearchedRevision != l.Revision && l.Revisions.Any(r => r.Number == l.Revision))
                .OrderBy(l => l.Id)
                .Take(AtOnce)
                .Select(l => new
                {
                    l.Id,
                    l.Revision,
                    l.Revisions.First(r => r.Number == l.Revision).Document,
                    Known = l.Texts.ToList(),
                })
                .ToListAsync(cancel)
                is { Count: > 0 } stale
        )
        {
            foreach (var lesson in stale)
            {
                var document = LessonDocument.Format.Read(lesson.Document);
                var texts = LessonText
                    .Of(await captions.ReadAsync(document, cancel), await OnScreenAsync(document, cancel))
                    .ToDictionary(t => (t.Kind, t.Ref), t => t.Text);
                foreach (var known in lesson.Known)
                {
                    if (texts.Remove((known.Kind, known.Ref), out var text))
                        known.Text = text;
                    else
                        db.SearchedTexts.Remove(known);
                }

                db.SearchedTexts.AddRange(
                    texts.Select(t => new SearchedText
                    {
                        LessonId = lesson.Id,
                        Kind = t.Key.Kind,
                        Ref = t.Key.Ref,
                        Text = t.Value,
                    })
                );
            }

            await db.SaveChangesAsync(cancel);
            foreach (var lesson in stale)
                await db.Lessons.Where(l => l.Id == lesson.Id).ExecuteUpdateAsync(set => set.SetProperty(l => l.SearchedRevision, lesson.Revision), cancel);
        }
    }
}
