using Wexel.Core.Keys;

namespace Wexel.Core.Details;

/// <summary>Where a detail is set; the later goes before the earlier.</summary>
public enum DetailLevel
{
    /// <summary>For everything that the house makes.</summary>
    House,

    /// <summary>For everything at one outlet.</summary>
    Outlet,

    /// <summary>For a lesson, wherever it goes.</summary>
    Lesson,

    /// <summary>For a lesson at one outlet.</summary>
    Release,
}

/// <summary>What holds for a lesson at an outlet.</summary>
/// <param name="Values">What is said.</param>
/// <param name="From">Where each detail that is said comes from, by its code.</param>
public sealed record ResolvedDetails(DetailSet Values, IReadOnlyDictionary<string, DetailLevel> From);

/// <summary>Details of the four places where they can be set.</summary>
/// <param name="House">For everything that the house makes.</param>
/// <param name="Outlet">For everything at the outlet.</param>
/// <param name="Lesson">For the lesson, wherever it goes.</param>
/// <param name="Release">For the lesson at the outlet.</param>
public sealed record DetailLayers(DetailSet House, DetailSet Outlet, DetailSet Lesson, DetailSet Release)
{
    private IEnumerable<(DetailLevel Level, DetailSet Set)> Levels =>
        [(DetailLevel.House, House), (DetailLevel.Outlet, Outlet), (DetailLevel.Lesson, Lesson), (DetailLevel.Release, Release)];

    /// <summary>What holds of several sets, of which the later go before the earlier. What must be said stands behind the description, whichever that
    /// is.</summary>
    public static DetailSet Merged(params ReadOnlySpan<DetailSet> sets)
    {
        var values = DetailSet.None;
        string? credits = null;
        foreach (var set in sets)
        {
            credits = set.Credits ?? credits;
            if (ReferenceEquals(set, DetailSet.None))
                continue;
            foreach (var field in DetailFields.All)
            {
                if (field.IsIn(set))
                    values = field.Take(values, set);
            }
        }

        return credits is null ? values : values with { Description = $"{values.Description}\n\n{credits}".Trim() };
    }

    /// <summary>What holds: of each detail, what the last of the four says that says anything.</summary>
    public ResolvedDetails Resolve()
    {
        var from = new Dictionary<string, DetailLevel>();
        foreach (var (level, set) in Levels)
        {
            foreach (var field in DetailFields.All.Where(f => f.IsIn(set)))
                from[field.Code] = level;
        }

        return new ResolvedDetails(Merged(House, Outlet, Lesson, Release), from);
    }
}

/// <summary>What a place asks of one detail.</summary>
/// <param name="Field">The detail.</param>
/// <param name="Required">Whether it takes no lesson without it.</param>
/// <param name="Longest">The most characters that it takes, or tags; null for as many as there are.</param>
public sealed record DetailRule(DetailField Field, bool Required = false, int? Longest = null)
{
    /// <summary>What keeps a lesson from a place by its details, one problem a field, in the order of the rules.</summary>
    /// <param name="rules">What the place asks.</param>
    /// <param name="values">What holds for the lesson there.</param>
    /// <param name="outlet">The outlet's name.</param>
    public static IReadOnlyList<Problem> Missing(IReadOnlyList<DetailRule> rules, DetailSet values, string outlet) =>
        [.. rules.Select(r => r.Problem(values, outlet)).OfType<Problem>()];

    private Problem? Problem(DetailSet values, string outlet) =>
        Required && !(Field.IsIn(values) && Field.Length(values) is not 0)
            ? new Problem("detail-missing", $"“{outlet}” asks for this: {Field.Label.ToLowerInvariant()}.", Field.Code)
        : Longest is { } longest && Field.Length(values) is { } length && length > longest
            ? new Problem(
                "detail-too-long",
                $"“{outlet}” takes {(Field.Input == DetailInput.Words ? $"{longest} of these" : $"{longest} characters")} at most: "
                    + $"{Field.Label.ToLowerInvariant()}. There are {length}.",
                Field.Code
            )
        : null;

    /// <summary>The key of what holds of those details that a place has; what it has not makes no difference there.</summary>
    public static string Key(IReadOnlyList<DetailRule> rules, DetailSet values) => MadeKey.Hash(Makers.Details, k =>
        {
            foreach (var rule in rules.Where(r => r.Field.IsSeen))
                rule.Field.Declare(k, values);
        });
}
