using System.Collections.Concurrent;
using System.Diagnostics;

namespace Wexel.Cli;

/// <summary>Prints how far an encode is, on one line of standard error, at most once a per cent.</summary>
internal sealed class PercentOnError(TimeSpan length, Surroundings where) : IProgress<TimeSpan>
{
    private int _shown = -1;

    public void Report(TimeSpan value)
    {
        var percent = (int)Math.Clamp(value / length * 100, 0, 100);
        if (percent <= _shown)
            return;
        _shown = percent;
        where.Error.Write(where.AtTerminal ? $"\r{percent} % " : $"{percent} %\n");
        if (percent == 100 && where.AtTerminal)
            where.Error.WriteLine();
    }
}

/// <summary>How long each step took, all lessons together.</summary>
internal sealed class Stopwatches
{
    private readonly ConcurrentDictionary<string, long> _taken = new();

    public IReadOnlyDictionary<string, long> Taken => _taken;

    public async Task<T> TakeAsync<T>(string step, Func<Task<T>> work)
    {
        var watch = Stopwatch.StartNew();
        var result = await work();
        _taken.AddOrUpdate(step, watch.ElapsedMilliseconds, (_, before) => before + watch.ElapsedMilliseconds);
        return result;
    }

    public Task TakeAsync(string step, Func<Task> work) => TakeAsync(step, async () =>
        {
            await work();
            return true;
        });
}
