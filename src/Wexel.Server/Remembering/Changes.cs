using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Npgsql;
using Wexel.Data;

namespace Wexel.Server.Remembering;

/// <summary>
/// Hears from the database which tables change, whoever changes them: PostgreSQL tells every server (LISTEN and NOTIFY, from the triggers of the
/// migration). While nobody
/// is heard, nothing may be remembered.
/// </summary>
internal sealed class Changes(string database, ILogger<Changes> log) : BackgroundService
{
    /// <summary>The channel on which the triggers tell the names of tables.</summary>
    internal const string Channel = "wexel_changed";

    private static readonly TimeSpan TryAgainAfter = TimeSpan.FromSeconds(2);

    private readonly ConcurrentDictionary<string, long> _versions = new();
    private volatile bool _hears;

    /// <summary>A number that is another after each change of a table; null while changes are not heard of.</summary>
    internal long? Version(string table) => _hears ? _versions.GetValueOrDefault(table) : null;

    /// <summary>A table has changed.</summary>
    internal void Changed(string table) => _versions.AddOrUpdate(table, 1, (_, version) => version + 1);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await HearAsync(stoppingToken);
            }
            catch (Exception failed) when (DatabaseOutage.Is(failed) || failed is IOException)
            {
                log.LogWarning("Changes in the database are not heard of; nothing is remembered until they are: {Why}", failed.Message);
            }

            _hears = false;
            await Task.Delay(TryAgainAfter, stoppingToken);
        }
    }

    private async Task HearAsync(CancellationToken cancel)
    {
        await using var connection = new NpgsqlConnection(
            new NpgsqlConnectionStringBuilder(database)
            {
                Pooling = false,
                KeepAlive = 10,
                ApplicationName = "wexel changes",
            }.ConnectionString
        );
        await connection.OpenAsync(cancel);
        connection.Notification += (_, told) => Changed(told.Payload);
        await using (var listen = new NpgsqlCommand($"listen {Channel}", connection))
            await listen.ExecuteNonQueryAsync(cancel);
        // What changed while nobody listened may be anything.
        foreach (var table in _versions.Keys)
            Changed(table);
        _hears = true;
        while (true)
            await connection.WaitAsync(cancel);
    }
}

/// <summary>Tells of what this server itself saves before whoever asked for it is answered: what was taken away is away then.</summary>
internal sealed class OwnChanges(Changes changes) : SaveChangesInterceptor
{
    private readonly ConditionalWeakTable<DbContext, List<string>> _tables = [];

    public override ValueTask<InterceptionResult<int>> SavingChangesAsync(
        DbContextEventData eventData,
        InterceptionResult<int> result,
        CancellationToken cancellationToken = default
    )
    {
        var entries = eventData.Context!.ChangeTracker.Entries().Where(e => e.State is EntityState.Added or EntityState.Modified or EntityState.Deleted);
        _tables.AddOrUpdate(eventData.Context, [.. entries.Select(e => e.Metadata.GetTableName()).OfType<string>().Distinct()]);
        return ValueTask.FromResult(result);
    }

    public override ValueTask<int> SavedChangesAsync(SaveChangesCompletedEventData eventData, int result, CancellationToken cancellationToken = default)
    {
        if (_tables.TryGetValue(eventData.Context!, out var tables))
            tables.ForEach(changes.Changed);
        return ValueTask.FromResult(result);
    }
}
