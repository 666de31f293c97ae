using System.Text;

namespace Wexel.Media.Tools;

/// <summary>Writes a text into ffmpeg's filter arguments.</summary>
internal static class FilterText
{
    /// <summary>Takes their meaning from characters that have one, first in a filter's options and then in a chain of filters.</summary>
    internal static string Escape(string text) => Behind(Behind(text, ":'\\"), "\\'[],;");

    /// <summary>A sum set in pairs of brackets: ffmpeg cannot read one of more than some hundred terms in a row.</summary>
    internal static string Sum(ReadOnlySpan<string> terms) =>
        terms.Length == 1 ? terms[0] : $"({Sum(terms[..(terms.Length / 2)])}+{Sum(terms[(terms.Length / 2)..])})";

    private static string Behind(string text, string special)
    {
        var escaped = new StringBuilder();
        foreach (var c in text)
        {
            if (special.Contains(c, StringComparison.Ordinal))
                escaped.Append('\\');
            escaped.Append(c);
        }

        return escaped.ToString();
    }
}
