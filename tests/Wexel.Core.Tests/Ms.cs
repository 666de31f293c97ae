namespace Wexel.Core.Tests;

internal static class Ms
{
    internal static TimeSpan Of(long milliseconds) => TimeSpan.FromMilliseconds(milliseconds);
}
