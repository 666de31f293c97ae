using System.Text;

namespace Wexel.Media.Rendering;

/// <summary>Writes a text into ffmpeg's filter arguments.</summary>
internal static class FilterText
{
    /// <summary>Takes their meaning from characters that have one, first in a filter's options and then in a chain of filters.</summary>
    internal static string Escape(string text) => Behind(Behind(text, ":'\\"), "\\'[],;");

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
