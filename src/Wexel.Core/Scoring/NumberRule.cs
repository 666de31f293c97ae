using System.Globalization;
using System.Text.RegularExpressions;

namespace Wexel.Core.Scoring;

/// <summary>How near a typed number must be to the right one (1EdTech QTI 2.2, section 15.3, equal: tolerance modes absolute and relative; both bounds are
/// included).</summary>
/// <param name="Within">By how much it may be off, 0 or more.</param>
/// <param name="PerCent">Whether that is in per cent of the right number, and not in its unit.</param>
/// <param name="Unit">The unit that may be typed behind it; null for none.</param>
public sealed partial record NumberRule(double Within = 0, bool PerCent = false, string? Unit = null)
{
    /// <summary>The right number where a typed one is near enough; otherwise what was typed.</summary>
    /// <param name="typed">What was typed.</param>
    /// <param name="right">The right number, as it is written in a declaration.</param>
    public string TakenFor(string typed, string right)
    {
        var value = double.Parse(right, CultureInfo.InvariantCulture);
        var off = (PerCent ? Math.Abs(value) * Within / 100 : Within) + (Math.Abs(value) * 1e-9);
        return Readings(typed).Any(r => Math.Abs(r - value) <= off) ? right : typed;
    }

    /// <summary>The numbers that a typed text may mean: a point or a comma before the decimals, spaces between thousands, the unit or nothing behind it. With
    /// one comma before three digits it may mean two (1,200 is read as 1200 and as 1.2); none where it is no number.</summary>
    public IReadOnlyList<double> Readings(string typed)
    {
        var text = Blank().Replace(typed.Replace('\u2212', '-'), "");
        if (Unit is { Length: > 0 } unit && Blank().Replace(unit, "") is var end && text.EndsWith(end, StringComparison.OrdinalIgnoreCase))
            text = text[..^end.Length];
        if (!Digits().IsMatch(text))
            return [];
        var (points, commas) = (text.Count(c => c == '.'), text.Count(c => c == ','));
        var texts = (points, commas) switch
        {
            (0, 0) or (1, 0) => [text],
            (0, 1) when Thousands().IsMatch(text) => [text.Replace(',', '.'), text.Replace(",", "", StringComparison.Ordinal)],
            (0, 1) => [text.Replace(',', '.')],
            (0, _) => [text.Replace(",", "", StringComparison.Ordinal)],
            (_, 0) => [text.Replace(".", "", StringComparison.Ordinal)],
            // Where both stand in it, the last one comes before the decimals.
            _ when text.LastIndexOf('.') > text.LastIndexOf(',') => [text.Replace(",", "", StringComparison.Ordinal)],
            _ => new[] { text.Replace(".", "", StringComparison.Ordinal).Replace(',', '.') },
        };
        return
        [
            .. texts
                .Select(t => double.TryParse(t, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) ? (double?)number : null)
                .OfType<double>(),
        ];
    }

    [GeneratedRegex("[\\s\u00A0\u202F]+")]
    private static partial Regex Blank();

    [GeneratedRegex("^[+-]?[0-9.,]*[0-9][0-9.,]*$")]
    private static partial Regex Digits();

    [GeneratedRegex("^[+-]?[1-9][0-9]{0,2},[0-9]{3}$")]
    private static partial Regex Thousands();
}
