using Hangfire;
using Microsoft.EntityFrameworkCore;
using Wexel.Data;
using Wexel.Data.Storage;
using Wexel.Server.Demo;
using Wexel.Server.Recordings;
using Wexel.Server.Uploads;

namespace Wexel.Server.Setup;

/// <summary>Before the first request: brings the database to this version, takes up what a server that died has left, and loads the demo into an empty one.</summary>
internal sealed class StartUp(IServiceScopeFactory scopes, FileStore store, TimeProvider clock) : IHostedLifecycleService
{
    /// <summary>Another server may be at work on the same store; whoever writes a file writes more often than this.</summary>
    private static readonly TimeSpan SurelyAbandoned = TimeSpan.FromHours(1);

    public async Task StartingAsync(CancellationToken cancellationToken)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<WexelDb>();
        await db.Database.MigrateAsync(cancellationToken);
        store.RemoveAbandoned(clock.GetUtcNow() - SurelyAbandoned);
        await AnalysisJob.TakeUpAsync(db, scope.ServiceProvider.GetRequiredService<IBackgroundJobClient>(), cancellationToken);
        await UploadKeeper.TidyAsync(db, store, scope.ServiceProvider.GetRequiredService<IBackgroundJobClient>(), clock, cancellationToken);
        await scope.ServiceProvider.GetRequiredService<DemoSeed>().RunAsync(cancellationToken);
    }

    public Task StartAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    public Task StartedAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    public Task StoppingAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    public Task StopAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    public Task StoppedAsync(CancellationToken cancellationToken) => Task.CompletedTask;
}
