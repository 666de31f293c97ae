using System.Globalization;
using System.Text.RegularExpressions;

namespace Wexel.Core.Timing;

/// <summary>Times as people write them: <c>0:05</c>, <c>12:30.5</c>, <c>1:02:30</c>.</summary>
public static partial class TimeCode
{
    /// <summary>
    /// Reads minutes:seconds or hours:minutes:seconds with up to three decimals after a point or a comma; null when it is neither.
    /// Minutes may pass 59 only where no hours are written ("75:00"); seconds never do.
    /// </summary>
    public static TimeSpan? Parse(string? text)
    {
        var match = Pattern().Match(text?.Trim() ?? "");
        if (!match.Success)
            return null;
        int Number(string group) => match.Groups[group].Success ? int.Parse(match.Groups[group].Value, CultureInfo.InvariantCulture) : 0;
        var withHours = match.Groups["h"].Success;
        var minutes = Number("m");
        var seconds = Number("s");
        if (seconds > 59 || (withHours && minutes > 59))
            return null;
        var fraction = match.Groups["f"].Value.PadRight(3, '0');
        return new TimeSpan(0, Number("h"), minutes, seconds, int.Parse(fraction, CultureInfo.InvariantCulture));
    }

    /// <summary>Prints a time for people, to the second below: <c>0:05</c>, <c>62:30</c> is <c>1:02:30</c>.</summary>
    public static string Brief(TimeSpan time) =>
        time.TotalHours >= 1
            ? string.Create(CultureInfo.InvariantCulture, $"{(int)time.TotalHours}:{time.Minutes:00}:{time.Seconds:00}")
            : string.Create(CultureInfo.InvariantCulture, $"{time.Minutes}:{time.Seconds:00}");

    /// <summary>Prints a length for people, with its unit: <c>0.3 s</c>, <c>12 s</c>, <c>1:02 min</c>.</summary>
    public static string InWords(TimeSpan length) =>
        length.TotalSeconds switch
        {
            < 9.95 => string.Create(CultureInfo.InvariantCulture, $"{length.TotalSeconds:0.0} s"),
            < 59.5 => string.Create(CultureInfo.InvariantCulture, $"{length.TotalSeconds:0} s"),
            _ => Brief(length + TimeSpan.FromSeconds(0.5)) + (length.TotalHours >= 1 ? " h" : " min"),
        };

    /// <summary>Prints a time as WebVTT writes it, <c>00:01:02.500</c> (W3C WebVTT, section 4.1: hours always written).</summary>
    public static string Full(TimeSpan time) =>
        string.Create(CultureInfo.InvariantCulture, $"{(int)time.TotalHours:00}:{time.Minutes:00}:{time.Seconds:00}.{time.Milliseconds:000}");

    [GeneratedRegex(@"^(?:(?<h>\d{1,4}):(?<m>\d{1,2})|(?<m>\d{1,4})):(?<s>\d{2})(?:[.,](?<f>\d{1,3}))?$")]
    private static partial Regex Pattern();
}
