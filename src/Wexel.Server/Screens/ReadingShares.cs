using System.Collections.Concurrent;

namespace Wexel.Server.Screens;

/// <summary>How far this server is with the recordings whose screens it reads.</summary>
internal sealed class ReadingShares
{
    private readonly ConcurrentDictionary<string, double> _shares = new();

    /// <summary>How much of a recording was read, 0 to 1; null where it is not being read.</summary>
    internal double? Find(string hash) => _shares.TryGetValue(hash, out var share) ? share : null;

    /// <summary>Told how far reading a recording is.</summary>
    internal IProgress<double> Watch(string hash) => new Told(share => _shares[hash] = share);

    internal void Leave(string hash) => _shares.TryRemove(hash, out _);

    private sealed class Told(Action<double> tell) : IProgress<double>
    {
        public void Report(double value) => tell(value);
    }
}
