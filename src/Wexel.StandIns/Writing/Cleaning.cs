using Ganss.Xss;

namespace Wexel.StandIns.Writing;

/// <summary>Cleans what people paste: no scripts and no handlers, but frames in a shape, as page editors take them.</summary>
internal static class Cleaning
{
    private static readonly HtmlSanitizer Sanitizer = Make();

    internal static string Clean(string html)
    {
        lock (Sanitizer)
            return Sanitizer.Sanitize(html);
    }

    private static HtmlSanitizer Make()
    {
        var sanitizer = new HtmlSanitizer();
        sanitizer.AllowedTags.Add("iframe");
        sanitizer.AllowedAttributes.UnionWith(["allow", "allowfullscreen", "loading", "title", "style"]);
        sanitizer.AllowedCssProperties.Add("aspect-ratio");
        return sanitizer;
    }
}
