using Microsoft.EntityFrameworkCore;
using Npgsql;
using Wexel.Data;
using Wexel.Making.Storage;
using Wexel.Server.Demo;
using Wexel.Server.People;
using Wexel.Server.Setup;

namespace Wexel.Server;

/// <summary>Before the first request: brings the database to this version, and loads the demo into an empty one.</summary>
internal sealed class StartUp(IServiceScopeFactory scopes, FileStore store, TimeProvider clock, ILogger<StartUp> log) : IHostedLifecycleService
{
    private static readonly TimeSpan AskAgainAfter = TimeSpan.FromSeconds(1);

    public async Task StartingAsync(CancellationToken cancellationToken)
    {
        if (!store.CanWrite())
            throw new CannotStartException(
                $"Nothing can be written in {store.Root}, the folder for recordings and everything made (Wexel__Data). Let the user that Wexel "
                    + $"runs as write there, or name another."
            );
        var demo = await BringUpAsync(cancellationToken);
        await using var scope = scopes.CreateAsyncScope();
        if (demo)
            await scope.ServiceProvider.GetRequiredService<DemoSeed>().RunAsync(cancellationToken);
        await scope.ServiceProvider.GetRequiredService<FirstAdministrator>().AddAsync(cancellationToken);
    }

    /// <summary>Both may be started at once after a power cut: a database that is not there yet is waited for, and one that goes away meanwhile.</summary>
    /// <returns>Whether the demo is to be loaded.</returns>
    private async Task<bool> BringUpAsync(CancellationToken cancel)
    {
        while (true)
        {
            await using var scope = scopes.CreateAsyncScope();
            try
            {
                await scope.ServiceProvider.GetRequiredService<WexelDb>().Database.MigrateAsync(cancel);
                return await scope.ServiceProvider.GetRequiredService<DemoSeed>().IsWantedAsync(cancel);
            }
            catch (Exception failed) when (DatabaseOutage.MayPass(failed))
            {
                log.LogWarning("The database does not answer, and the start waits for it: {Why}", failed.GetBaseException().Message);
            }
            catch (NpgsqlException refused)
            {
                throw new CannotStartException($"The database (ConnectionStrings__Wexel) cannot be used: {refused.Message}");
            }

            await Task.Delay(AskAgainAfter, clock, cancel);
        }
    }

    public Task StartAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    public Task StartedAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    public Task StoppingAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    public Task StopAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    public Task StoppedAsync(CancellationToken cancellationToken) => Task.CompletedTask;
}
