using Microsoft.EntityFrameworkCore;
using Wexel.Core.Encoding;
using Wexel.Core.Lessons;
using Wexel.Data;
using Wexel.Making.Lessons;
using Wexel.Server.Shelves;

namespace Wexel.Server.Library;

/// <summary>Reckons the keys of many lessons with many profiles. What was reckoned before and still holds costs no reading of lessons, captions or
/// look-throughs; the rest is read in lots.</summary>
internal sealed class KeyReader(WexelDb db, RenderPlans plans, KnownKeys known)
{
    /// <summary>So many look-throughs are held at once.</summary>
    private const int Lot = 100;

    /// <param name="asked">Saved lessons, each with the profiles for which keys are wanted.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>By the profile's key (see <see cref="ProfileKeys"/>); null while a recording is still being looked through.</returns>
    internal async Task<IReadOnlyDictionary<SavedLesson, IReadOnlyDictionary<string, PlannedKeys?>>> ReadAsync(
        ILookup<SavedLesson, Profile> asked,
        CancellationToken cancel
    )
    {
        var mark = HouseShelf.OnPictures(await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel))?.WholeKey;
        // PostgreSQL's own number of the last transaction that wrote a row: another when anything about the recording is.
        var rows = await db.Database.SqlQuery<RecordingRow>($"SELECT \"Hash\", xmin::text AS \"Written\" FROM \"Recordings\"").ToListAsync(cancel);
        var written = rows.ToDictionary(r => r.Hash, r => r.Written);
        string Stamp(IReadOnlyList<string> recordings) => $"{mark} {string.Join(' ', recordings.Select(r => written.GetValueOrDefault(r)))}";

        var found = new Dictionary<SavedLesson, IReadOnlyDictionary<string, PlannedKeys?>>();
        var open = new Dictionary<SavedLesson, Dictionary<string, Profile>>();
        foreach (var saved in asked)
        {
            var profiles = saved.DistinctBy(ProfileKeys.ProfileKey).ToDictionary(ProfileKeys.ProfileKey);
            if (known.Find(saved.Key, Stamp) is { } keys && profiles.Keys.All(keys.ContainsKey))
                found[saved.Key] = keys;
            else
                open[saved.Key] = profiles;
        }

        foreach (var lot in open.Keys.Chunk(Lot))
        {
            var documents = await DocumentsAsync(lot, cancel);
            var lessons = await plans.LessonsAsync([.. documents.Values], cancel);
            foreach (var ((saved, document), lesson) in documents.Zip(lessons))
            {
                var keys = open[saved].ToDictionary(p => p.Key, p => Keys(lesson.With(p.Value)));
                known.Keep(saved, document.Recordings, Stamp(document.Recordings), keys);
                found[saved] = keys;
            }
        }

        return found;
    }

    private static PlannedKeys? Keys(PlannedRendition? planned) => planned is null ? null : new PlannedKeys(planned.FileKey, [.. planned.Keys.Tracks]);

    private async Task<Dictionary<SavedLesson, LessonDocument>> DocumentsAsync(IReadOnlyList<SavedLesson> saved, CancellationToken cancel)
    {
        var (lessons, numbers) = (saved.Select(s => s.Lesson).Distinct().ToList(), saved.Select(s => s.Revision).Distinct().ToList());
        var rows = await db.LessonRevisions.AsNoTracking().Where(r => lessons.Contains(r.LessonId) && numbers.Contains(r.Number)).ToListAsync(cancel);
        return rows.Select(r => (Saved: new SavedLesson(r.LessonId, r.Number), r.Document))
            .Where(r => saved.Contains(r.Saved))
            .ToDictionary(r => r.Saved, r => LessonDocument.Format.Read(r.Document));
    }

    private sealed record RecordingRow(string Hash, string Written);
}
