using System.Collections.Concurrent;
using Hangfire;
using Wexel.Core;
using Wexel.Core.Legibility;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Storage;
using Wexel.Media.Analysing;
using Wexel.Media.Tools;
using Wexel.Server.Live;
using Wexel.Server.Setup;

namespace Wexel.Server.Recordings;

/// <summary>Looks at what there is to read in a recording, for the sizes in which a lesson is delivered. Kept by the recording's hash and those sizes.</summary>
internal sealed class DetailJob(WexelDb db, FileStore store, LiveNews news)
{
    private const string Name = "detail.json";

    /// <summary>What this server has asked for and not got yet, so that an open page asks once.</summary>
    private static readonly ConcurrentDictionary<string, bool> Asked = new();

    [AutomaticRetry(Attempts = 2)]
    [Queue("default")]
    public async Task RunAsync(string hash, string sizes, CancellationToken cancel)
    {
        var delivered = sizes.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(s => s.Split('x')).Select(s => new PictureSize(int.Parse(s[0]), int.Parse(s[1]))).ToList();
        var key = Key(hash, delivered);
        try
        {
            await using var hold = await WorkHold.TryAsync(db, $"detail {key}", cancel);
            if (hold is null || store.Has(key, Name) || await db.Recordings.FindAsync([hash], cancel) is not { Analysis: { } analysis } recording)
                return;
            var seen = await DetailFinder.FindAsync(Json.Read<RecordingFacts>(recording.Facts), store.Recording(hash), Json.Read<RecordingAnalysis>(analysis), delivered, cancel);
            await WholeFile.MakeAsync(store.Derived(key, Name), temporary => File.WriteAllTextAsync(temporary, Json.Write(seen), cancel));
        }
        finally
        {
            // However it ended: whoever looks next asks anew for what is not there.
            Asked.TryRemove(key, out _);
        }

        await news.RecordingAsync(hash);
    }

    /// <summary>What was found, or null while it is being looked for; asking has it looked for.</summary>
    internal static async Task<IReadOnlyList<SeenPicture>?> FindAsync(string hash, IReadOnlyList<PictureSize> delivered, FileStore store, IBackgroundJobClient jobs, CancellationToken cancel)
    {
        var key = Key(hash, delivered);
        if (store.Has(key, Name))
            return Json.Read<List<SeenPicture>>(await File.ReadAllTextAsync(store.Derived(key, Name), cancel));
        var sizes = string.Join(' ', delivered.Select(s => $"{s.Width}x{s.Height}"));
        if (Asked.TryAdd(key, true))
            jobs.Enqueue<DetailJob>(job => job.RunAsync(hash, sizes, CancellationToken.None));
        return null;
    }

    private static string Key(string hash, IReadOnlyList<PictureSize> delivered) => DerivedKey.Of(DetailFinder.Maker, hash, delivered);
}
