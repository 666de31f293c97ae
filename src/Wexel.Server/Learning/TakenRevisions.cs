using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Caching.Memory;
using Wexel.Core.Documents;
using Wexel.Core.Learning;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Questions;
using Wexel.Core.Recordings;
using Wexel.Data;

namespace Wexel.Server.Learning;

/// <summary>Lessons’ revisions as learners take them. They never change: those that learners are in are known without the database.</summary>
internal sealed class TakenRevisions(IDbContextFactory<WexelDb> databases) : IDisposable
{
    private const int Most = 2000;

    private static readonly TimeSpan Unasked = TimeSpan.FromHours(1);

    private readonly MemoryCache _known = new(new MemoryCacheOptions { SizeLimit = Most });

    internal async Task<LessonTaken> ReadAsync(Guid lesson, int revision, CancellationToken cancel)
    {
        if (_known.TryGetValue((lesson, revision), out LessonTaken? known))
            return known!;
        var found = await FindAsync(lesson, revision, cancel);
        return _known.Set((lesson, revision), found, new MemoryCacheEntryOptions { Size = 1, SlidingExpiration = Unasked });
    }

    private async Task<LessonTaken> FindAsync(Guid lesson, int revision, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var text = await db.LessonRevisions.Where(r => r.LessonId == lesson && r.Number == revision).Select(r => r.Document).FirstAsync(cancel);
        var document = LessonDocument.Format.Read(text);
        var hashes = document.Recordings;
        var facts = await db.Recordings.Where(r => hashes.Contains(r.Hash)).ToDictionaryAsync(r => r.Hash, r => r.Facts, cancel);
        var reel = Reel.Of([.. hashes.Select(hash => (WexelJson.Read<RecordingFacts>(facts[hash]), (SoundSides?)null))]);
        var map = reel.Map(document.Cuts);
        var asked = Question.Kind.Following(document.Questions, map);
        return new LessonTaken(
            new LessonTimes(hashes, reel, map),
            [.. asked.Select(q => new QuestionTaken(q.Id, q.Points, q.Tries))],
            document.Goal,
            DrawnFrom.In(asked, document.Draws)
        );
    }

    public void Dispose() => _known.Dispose();
}
