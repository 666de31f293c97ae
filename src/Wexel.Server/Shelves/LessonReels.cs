using Microsoft.EntityFrameworkCore;
using Wexel.Core.Documents;
using Wexel.Core.Editing;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Lessons;

namespace Wexel.Server.Shelves;

/// <summary>The recordings that a lesson is made of, with what was found of them.</summary>
/// <param name="Recordings">Their rows, in their order.</param>
/// <param name="ToMake">The same as a lesson is made from them.</param>
internal sealed record FoundReel(IReadOnlyList<Recording> Recordings, LessonReel ToMake)
{
    internal Reel Reel => ToMake.Reel;

    internal IReadOnlyList<string> Hashes => ToMake.Hashes;

    internal IReadOnlyList<RecordingAnalysis?> Analyses => ToMake.Analyses;

    internal RecordingAnalysis? Analysis => ToMake.Analysis;

    internal IReadOnlyList<RecordingFrame?> Frames(IReadOnlyList<RecordingFrame> frames) => ToMake.Frames(frames);
}

/// <summary>Finds the recordings of lessons.</summary>
internal sealed class LessonReels(WexelDb db)
{
    /// <summary>The most recordings that a lesson may have.</summary>
    internal const int Most = 50;

    /// <summary>The reel of a lesson as it was saved.</summary>
    internal async Task<FoundReel> ReadAsync(LessonDocument document, CancellationToken cancel) => (await ReadAllAsync([document], cancel))[0];

    /// <summary>The reels of lessons as they were saved, read at once.</summary>
    internal async Task<IReadOnlyList<FoundReel>> ReadAllAsync(IReadOnlyList<LessonDocument> documents, CancellationToken cancel) =>
        [
            .. (await FindAllAsync([.. documents.Select(Needs)], cancel)).Select(found =>
                found ?? throw new InvalidOperationException("A saved lesson names a recording that is not here.")
            ),
        ];

    /// <summary>Recordings one after the other, of which nothing but their times is asked; null where one of them is not here.</summary>
    internal async Task<Reel?> TimesAsync(IReadOnlyList<string> hashes, CancellationToken cancel)
    {
        if (hashes.Count is 0 or > Most)
            return null;
        var facts = await db
            .Recordings.Where(r => hashes.Contains(r.Hash))
            .Select(r => new { r.Hash, r.Facts })
            .ToDictionaryAsync(r => r.Hash, r => r.Facts, cancel);
        return hashes.All(facts.ContainsKey) ? Reel.Of([.. hashes.Select(hash => (WexelJson.Read<RecordingFacts>(facts[hash]), (SoundSides?)null))]) : null;
    }

    /// <summary>The reel of recordings by their hashes; null where one of them is not here.</summary>
    internal async Task<FoundReel?> FindAsync(IReadOnlyList<string> hashes, CancellationToken cancel) => (await FindAllAsync([(hashes, [])], cancel))[0];

    /// <summary>The reel of a lesson as somebody has it, with its cameras; null where one of its recordings is not here.</summary>
    internal async Task<FoundReel?> FindAsync(LessonDocument document, CancellationToken cancel) => (await FindAllAsync([Needs(document)], cancel))[0];

    /// <summary>Whether recordings are here.</summary>
    internal async Task<bool> HasAsync(IReadOnlyList<string> hashes, CancellationToken cancel) =>
        await db.Recordings.CountAsync(r => hashes.Contains(r.Hash), cancel) == hashes.Distinct().Count();

    private static (IReadOnlyList<string> Hashes, IReadOnlyList<string> Cameras) Needs(LessonDocument document) =>
        (document.Recordings, [.. document.Cameras.Select(c => c.Recording)]);

    /// <summary>Several reels, read at once; null for each of which a recording is not here.</summary>
    private async Task<IReadOnlyList<FoundReel?>> FindAllAsync(
        IReadOnlyList<(IReadOnlyList<string> Hashes, IReadOnlyList<string> Cameras)> reels,
        CancellationToken cancel
    )
    {
        var wanted = reels.Where(r => r.Hashes.Count is > 0 and <= Most).SelectMany(r => r.Hashes.Concat(r.Cameras)).Distinct().ToList();
        var rows = wanted.Count == 0 ? [] : await db.Recordings.AsNoTracking().Where(r => wanted.Contains(r.Hash)).ToListAsync(cancel);
        var found = rows.ToDictionary(
            r => r.Hash,
            r =>
                (
                    Row: r,
                    Facts: WexelJson.Read<RecordingFacts>(r.Facts),
                    Analysis: (r.Analysis ?? r.AnalysisSoFar) is { } text ? WexelJson.Read<RecordingAnalysis>(text) : null
                )
        );
        return
        [
            .. reels.Select(needs =>
            {
                var (hashes, cameras) = needs;
                if (hashes.Count is 0 or > Most || hashes.Any(hash => !found.ContainsKey(hash)))
                    return null;
                var parts = hashes.Select(hash => found[hash]).ToList();
                var reel = Reel.Of([.. parts.Select(p => (p.Facts, p.Analysis?.Sides))]);
                var failure = parts.Select(p => p.Row.AnalysisFailure).FirstOrDefault(f => f is not null);
                var isReady = parts.TrueForAll(p => p.Row.Analysis is not null);
                return new FoundReel(
                    [.. parts.Select(p => p.Row)],
                    new LessonReel(
                        hashes,
                        reel,
                        [.. parts.Select(p => p.Analysis)],
                        isReady,
                        failure,
                        Cameras: cameras.Distinct().Where(found.ContainsKey).ToDictionary(c => c, c => found[c].Facts)
                    )
                );
            }),
        ];
    }
}
