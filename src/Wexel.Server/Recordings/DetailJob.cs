using System.Collections.Concurrent;
using Hangfire;
using Wexel.Core.Documents;
using Wexel.Core.Legibility;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Making.Storage;
using Wexel.Media.Analysing;
using Wexel.Media.Tools;
using Wexel.Server.Live;

namespace Wexel.Server.Recordings;

/// <summary>Looks at what there is to read in a recording, for the sizes in which a lesson is delivered. Kept by the recording's hash and those
/// sizes.</summary>
internal sealed class DetailJob(WexelDb db, FileStore store, LiveNews news)
{
    /// <summary>What this server has asked for and not got yet, so that an open page asks once.</summary>
    private static readonly ConcurrentDictionary<string, bool> Asked = new();

    [AutomaticRetry(Attempts = 2)]
    [Queue("default")]
    public async Task RunAsync(string hash, string sizes, CancellationToken cancel)
    {
        var delivered = sizes
            .Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Select(s => s.Split('x'))
            .Select(s => new PictureSize(int.Parse(s[0]), int.Parse(s[1])))
            .ToList();
        var key = Key(hash, delivered);
        try
        {
            await using var hold = await WorkHold.TryAsync(db, $"detail {key}", cancel);
            if (hold is null || store.Has(key, MadeNames.Detail) || await db.Recordings.FindAsync([hash], cancel) is not { Analysis: { } analysis } recording)
                return;
            var seen = await DetailFinder.FindAsync(
                WexelJson.Read<RecordingFacts>(recording.Facts),
                store.Recording(hash),
                WexelJson.Read<RecordingAnalysis>(analysis),
                delivered,
                cancel
            );
            await WholeFile.MakeAsync(store.Derived(key, MadeNames.Detail), temporary => File.WriteAllTextAsync(temporary, WexelJson.Write(seen), cancel));
        }
        finally
        {
            // However it ended: whoever looks next asks anew for what is not there.
            Asked.TryRemove(key, out _);
        }

        await news.RecordingAsync(hash);
    }

    /// <summary>What was found, or null while it is being looked for; asking has it looked for.</summary>
    internal static async Task<IReadOnlyList<SeenPicture>?> FindAsync(
        string hash,
        IReadOnlyList<PictureSize> delivered,
        FileStore store,
        IBackgroundJobClient jobs,
        CancellationToken cancel
    )
    {
        var key = Key(hash, delivered);
        if (store.Has(key, MadeNames.Detail))
            return WexelJson.Read<List<SeenPicture>>(await File.ReadAllTextAsync(store.Derived(key, MadeNames.Detail), cancel));
        var sizes = string.Join(' ', delivered.Select(s => $"{s.Width}x{s.Height}"));
        if (Asked.TryAdd(key, true))
            jobs.Enqueue<DetailJob>(job => job.RunAsync(hash, sizes, CancellationToken.None));
        return null;
    }

    private static string Key(string hash, IReadOnlyList<PictureSize> delivered) => RecordingKeys.Detail(hash, delivered);
}
