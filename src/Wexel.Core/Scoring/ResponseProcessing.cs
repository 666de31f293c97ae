using System.Globalization;

namespace Wexel.Core.Scoring;

/// <summary>
/// What a response comes to, by QTI's three standard templates (1EdTech QTI 2.2, section 8.2, response processing templates). A response of no
/// values is QTI's NULL.
/// </summary>
public static class ResponseProcessing
{
    /// <summary>By the template that its declaration asks for.</summary>
    /// <param name="declaration">What is right.</param>
    /// <param name="response">The values that were given.</param>
    public static double Score(ResponseDeclaration declaration, IReadOnlyList<string> response) =>
        declaration switch
        {
            { Areas: not null } => MapResponsePoint(declaration, response),
            { Mapping: not null } => MapResponse(declaration, response),
            { Places: true } => MapPlaces(declaration, response),
            _ => MatchCorrect(declaration, response),
        };

    /// <summary>1 where the response is the right one, 0 where not (<c>match_correct</c>).</summary>
    public static double MatchCorrect(ResponseDeclaration declaration, IReadOnlyList<string> response)
    {
        var (right, given) = (declaration.Correct, response);
        if (given.Count == 0 || right.Count != given.Count)
            return 0;
        if (declaration.Cardinality != Cardinality.Multiple)
            return right.Zip(given).All(pair => Same(declaration.BaseType, pair.First, pair.Second)) ? 1 : 0;
        var left = right.ToList();
        foreach (var value in given)
        {
            var found = left.FindIndex(r => Same(declaration.BaseType, r, value));
            if (found < 0)
                return 0;
            left.RemoveAt(found);
        }

        return 1;
    }

    /// <summary>The sum of what the values count, each once, within the bounds (<c>map_response</c>, section 7.3.2, mapResponse); 0 for no response.</summary>
    public static double MapResponse(ResponseDeclaration declaration, IReadOnlyList<string> response)
    {
        var mapping = declaration.Mapping ?? throw new ArgumentException("It has no mapping.", nameof(declaration));
        if (response.Count == 0)
            return 0;
        var counted = new List<string>();
        var sum = 0.0;
        foreach (var value in response)
        {
            if (counted.Exists(c => Same(declaration.BaseType, c, value)))
                continue;
            counted.Add(value);
            sum += EntryOf(declaration, value)?.Value ?? mapping.Default;
        }

        return mapping.Bounded(sum);
    }

    /// <summary>The sum of what the areas count in which the places lie, each area once (<c>map_response_point</c>, section 7.3.2,
    /// mapResponsePoint); 0 for no response.</summary>
    public static double MapResponsePoint(ResponseDeclaration declaration, IReadOnlyList<string> response)
    {
        var areas = declaration.Areas ?? throw new ArgumentException("It has no areas.", nameof(declaration));
        if (response.Count == 0)
            return 0;
        var hit = new HashSet<AreaEntry>(ReferenceEqualityComparer.Instance);
        var sum = 0.0;
        foreach (var value in response)
        {
            if (AreaOf(areas, value) is not { } area)
                sum += areas.Default;
            else if (hit.Add(area))
                sum += area.Value;
        }

        return areas.Bounded(sum);
    }

    /// <summary>The entry that a value is mapped by; null for the default.</summary>
    internal static MapEntry? EntryOf(ResponseDeclaration declaration, string value) =>
        declaration.Mapping!.Entries.FirstOrDefault(e =>
            e.CaseSensitive ? Same(declaration.BaseType, e.Key, value) : string.Equals(e.Key, value, StringComparison.OrdinalIgnoreCase)
        );

    /// <summary>The area in which a place lies; null for none.</summary>
    internal static AreaEntry? AreaOf(AreaMapping areas, string value) =>
        Place.Read(value) is { } place ? areas.Entries.FirstOrDefault(e => e.Shape.Contains(place)) : null;

    /// <summary>The share of the values that stand where they belong.</summary>
    private static double MapPlaces(ResponseDeclaration declaration, IReadOnlyList<string> response) =>
        declaration.Correct.Count == 0
            ? 0
            : declaration.Correct.Zip(response).Count(pair => Same(declaration.BaseType, pair.First, pair.Second)) / (double)declaration.Correct.Count;

    private static bool Same(BaseType type, string a, string b) =>
        a == b
        || type switch
        {
            BaseType.Float => Number(a) is { } x && x == Number(b),
            BaseType.Point => Place.Read(a) is { } p && p == Place.Read(b),
            BaseType.Pair => Turned(a) == b,
            _ => false,
        };

    private static double? Number(string text) => double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) ? number : null;

    private static string? Turned(string pair) => pair.Split(' ') is [var a, var b] ? $"{b} {a}" : null;
}
