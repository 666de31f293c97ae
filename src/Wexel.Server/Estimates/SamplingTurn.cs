namespace Wexel.Server.Estimates;

/// <summary>Samples are encoded one after the other, so that they measure the machine and not each other.</summary>
internal sealed class SamplingTurn : IDisposable
{
    private readonly SemaphoreSlim _one = new(1);

    internal async Task<T> TakeAsync<T>(Func<Task<T>> work, CancellationToken cancel)
    {
        await _one.WaitAsync(cancel);
        try
        {
            return await work();
        }
        finally
        {
            _one.Release();
        }
    }

    public void Dispose() => _one.Dispose();
}
