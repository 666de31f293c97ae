using CsCheck;

namespace Wexel.Core.Tests;

internal static class Pick
{
    /// <summary>One of some values, each as likely as the others.</summary>
    internal static Gen<T> From<T>(params T[] values) => Gen.Int[0, values.Length - 1].Select(i => values[i]);
}
