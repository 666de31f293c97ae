namespace Wexel.Core.Outlets;

/// <summary>A file at an outlet.</summary>
/// <param name="Path">Its path there, with slashes.</param>
/// <param name="Key">The key of what is in it.</param>
public sealed record DeliveredFile(string Path, string Key);

/// <summary>What has to be put at an outlet, and what has to go there.</summary>
/// <param name="Put">The files that are new or other than before, in their order.</param>
/// <param name="Remove">The paths of files that are not wanted any more.</param>
public sealed record DeliveryPlan(IReadOnlyList<DeliveredFile> Put, IReadOnlyList<string> Remove)
{
    /// <summary>The difference of what is wanted and what stands there.</summary>
    /// <param name="wanted">The files that are to stand there.</param>
    /// <param name="there">What stands there: the key of what is in each file, by its path.</param>
    public static DeliveryPlan Of(IReadOnlyList<DeliveredFile> wanted, IReadOnlyDictionary<string, string> there)
    {
        var paths = wanted.Select(f => f.Path).ToHashSet();
        return new DeliveryPlan(
            [.. wanted.Where(f => there.GetValueOrDefault(f.Path) != f.Key)],
            [.. there.Keys.Where(p => !paths.Contains(p)).Order(StringComparer.Ordinal)]
        );
    }
}
