using Hangfire;
using Microsoft.Extensions.Options;
using Wexel.Data;
using Wexel.Server.Recordings;
using Wexel.Server.Setup;
using Wexel.Server.Upkeep;

namespace Wexel.Server.Uploads;

/// <summary>Takes up what a server that went down has left: files that have come, recordings that are not looked through, uploads that nobody goes on
/// with.</summary>
internal sealed class LeftWork(
    WexelDb db,
    UploadKeeper uploads,
    JobStorage storage,
    IBackgroundJobClient jobs,
    IOptions<WexelOptions> options,
    TimeProvider clock
) : IUpkeep
{
    public TimeSpan Every => options.Value.LeftWorkEvery;

    public async Task DoAsync(CancellationToken cancel)
    {
        await uploads.RemoveExpiredAsync(cancel);
        // Who stands in line comes to it.
        if (storage.GetMonitoringApi().EnqueuedCount("default") > 0)
            return;
        await uploads.TakeUpAsync(cancel);
        await AnalysisJob.TakeUpAsync(db, jobs, clock, cancel);
    }
}
