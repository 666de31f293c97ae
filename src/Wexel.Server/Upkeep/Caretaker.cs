using Wexel.Data;

namespace Wexel.Server.Upkeep;

/// <summary>Sees to one thing while the server runs, first when it starts.</summary>
internal sealed class Caretaker<T>(IServiceScopeFactory scopes, TimeProvider clock, ILogger<T> log) : BackgroundService
    where T : class, IUpkeep
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (true)
        {
            await using var scope = scopes.CreateAsyncScope();
            var upkeep = scope.ServiceProvider.GetRequiredService<T>();
            try
            {
                await upkeep.DoAsync(stoppingToken);
            }
            catch (Exception failed) when (failed is IOException or UnauthorizedAccessException || DatabaseOutage.Is(failed))
            {
                // Neither must end the server; it is seen to next time.
                log.LogWarning(failed, "{What} could not be seen to; it is tried again in {Seconds} s", typeof(T).Name, upkeep.Every.TotalSeconds);
            }

            await Task.Delay(upkeep.Every, clock, stoppingToken);
        }
    }
}

internal static class Caretakers
{
    /// <summary>Has something seen to.</summary>
    internal static IServiceCollection AddUpkeep<T>(this IServiceCollection services)
        where T : class, IUpkeep => services.AddScoped<T>().AddHostedService<Caretaker<T>>();
}
