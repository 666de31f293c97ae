using Hangfire;
using Wexel.Data;
using Wexel.Server.Live;
using Wexel.Server.Recordings;

namespace Wexel.Server.Uploads;

/// <summary>Brings in what has come in pieces.</summary>
internal sealed class UploadJob(WexelDb db, BringIn bringIn, LiveNews news)
{
    [AutomaticRetry(Attempts = 3)]
    [Queue("default")]
    public async Task RunAsync(Guid id, CancellationToken cancel)
    {
        // Whoever is at it goes to its end.
        if (!await WorkHold.IsFreeAsync(db, BringIn.WorkOn(id), cancel))
            return;
        await bringIn.TakeAsync(id, cancel);
        await news.UploadAsync(id);
    }
}
