using System.Globalization;
using System.Net;
using System.Text;
using System.Text.Json;
using Wexel.Core.Captions;
using Wexel.Core.Documents;
using Wexel.Core.Timing;

namespace Wexel.Core.Packages;

/// <summary>The HTML page around the learner's player.</summary>
public static class PlayerPage
{
    /// <summary>The player's script, a classic one, since browsers load no module from disk.</summary>
    public const string Script = "wexel-player.js";

    /// <summary>What the player loads for a lesson that comes in pieces.</summary>
    public const string PiecesScript = "hls.min.js";

    /// <summary>The player's styles.</summary>
    public const string Style = "wexel-player.css";

    /// <summary>A whole page; every text of the lesson is escaped.</summary>
    /// <param name="lesson">What the player is told.</param>
    /// <param name="assets">The folder of script and styles as the page sees it, with a slash at its end.</param>
    /// <param name="place">A line above the lesson that says where one is, or null.</param>
    /// <param name="head">More for the page's head, as HTML.</param>
    /// <param name="files">The folder of the lesson's caption files as the page sees it: empty, or with a slash at its end.</param>
    public static string Html(PlayerLesson lesson, string assets, PlayerSite? place = null, string head = "", string files = "")
    {
        var title = WebUtility.HtmlEncode(lesson.Title);
        var parts = PlayerPart.In(lesson).ToList();
        var data = JsonSerializer.Serialize(new PlayerData(lesson, place), WexelJson.Options);
        return $"""
            <!doctype html>
            <html lang="{WebUtility.HtmlEncode(lesson.Language)}">
            <head>
            <meta charset="utf-8">
            <meta name="viewport" content="width=device-width, initial-scale=1">
            <title>{title}</title>
            <meta name="description" content="{WebUtility.HtmlEncode(lesson.Description)}">
            <link rel="icon" href="data:,">
            <link rel="stylesheet" href="{WebUtility.HtmlEncode(assets)}{Style}">
            {Each(parts.Where(p => p.HasStyle), p => $"<link rel=\"stylesheet\" href=\"{WebUtility.HtmlEncode(assets)}{p.Style}\">")}{head}</head>
            <body>
            <div id="wexel"><noscript>{WithoutScripts(lesson, place, files)}</noscript>{FirstLook(lesson, place)}</div>
            <script type="application/json" id="wexel-lesson">{data}</script>
            {Each(parts, p => $"<script src=\"{WebUtility.HtmlEncode(assets)}{p.Script}\"></script>")}<script src="{WebUtility.HtmlEncode(
                assets
            )}{Script}"></script>
            </body>
            </html>

            """;
    }

    private static string Each(IEnumerable<PlayerPart> parts, Func<PlayerPart, string> html) => string.Concat(parts.Select(p => html(p) + "\n"));

    /// <summary>The lesson's picture where the player will stand, so that it is seen before the player is made; nothing in a package, whose page is at hand at
    /// once. The player puts itself in its place.</summary>
    private static string FirstLook(PlayerLesson lesson, PlayerSite? place) =>
        lesson is not { Poster: { } poster, Embedded: false } || place?.Served is null
            ? ""
            : $"""
                <div class="first"><div class="place"><strong>{WebUtility.HtmlEncode(place.House)}</strong><span>{WebUtility.HtmlEncode(
                    place.Where
                )}</span></div>
                <div class="lesson" style="--ratio:{Number((double)lesson.Width / lesson.Height)}"><div class="picture"><div class="stage">
                <img src="{WebUtility.HtmlEncode(
                    poster.Address
                )}" width="{lesson.Width}" height="{lesson.Height}" alt="" decoding="sync" fetchpriority="high"></div></div></div></div>
                """;

    /// <summary>What stands on the page where no script runs: the plain video with its captions, and what is said about it. A section leads into the video
    /// by its time (W3C Media Fragments, section 4.2.1).</summary>
    private static string WithoutScripts(PlayerLesson lesson, PlayerSite? place, string files)
    {
        var html = new StringBuilder("<div class=\"plain\" role=\"main\">");
        var video = WebUtility.HtmlEncode(lesson.Video);
        var language = $"dir=\"auto\" lang=\"{WebUtility.HtmlEncode(lesson.Language)}\"";
        html.Append($"<h1 {language}>{WebUtility.HtmlEncode(lesson.Title)}</h1>")
            .Append($"<video controls preload=\"metadata\" width=\"{Number(lesson.Width)}\" height=\"{Number(lesson.Height)}\" src=\"{video}\"")
            .Append(lesson.Poster is { } poster ? $" poster=\"{WebUtility.HtmlEncode(poster.Address)}\">" : ">");
        var names = CaptionFileName.ForLanguages([.. lesson.Captions.Select(c => c.Language)]);
        foreach (var (track, i) in lesson.Captions.Select((track, i) => (track, i)))
        {
            var name = WebUtility.HtmlEncode(LessonFiles.Captions(names[i]));
            html.Append($"<track kind=\"{(track.Kind == TrackKind.Translation ? "subtitles" : "captions")}\" src=\"{WebUtility.HtmlEncode(files)}{name}\"")
                .Append($" srclang=\"{WebUtility.HtmlEncode(track.Language)}\" label=\"{WebUtility.HtmlEncode(names[i])}")
                .Append($"{(track.Draft ? ", draft" : "")}\"{(i == 0 ? " default" : "")}>");
        }

        html.Append("</video>");
        foreach (var line in lesson.Description.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
            html.Append($"<p {language}>{WebUtility.HtmlEncode(line)}</p>");
        if (lesson.Sections.Count > 0)
        {
            html.Append("<h2>Contents</h2><ul>");
            foreach (var section in lesson.Sections)
                html.Append($"<li><a href=\"{video}#t={Number(section.At.TotalSeconds)}\">{TimeCode.Brief(section.At)}</a> ")
                    .Append($"<span {language}>{WebUtility.HtmlEncode(section.Title)}</span></li>");
            html.Append("</ul>");
        }

        if (lesson.Questions.Count > 0)
            html.Append($"<p>Questions are asked in this lesson ({lesson.Questions.Count}). They need a browser that runs scripts.</p>");
        if (lesson.Details.ForChildren != true && place is not null)
            foreach (var (words, to) in new[] { ("Previous lesson", place.Previous), ("Next lesson", place.Next) })
                if (to is not null)
                    html.Append($"<p>{words}: <a href=\"{WebUtility.HtmlEncode(to.Address)}\" dir=\"auto\">{WebUtility.HtmlEncode(to.Title)}</a></p>");
        return html.Append("</div>").ToString();
    }

    private static string Number(double number) => number.ToString(CultureInfo.InvariantCulture);
}

/// <summary>All that a page tells the player.</summary>
/// <param name="Lesson">The lesson.</param>
/// <param name="Place">A line above it, or null.</param>
public sealed record PlayerData(PlayerLesson Lesson, PlayerSite? Place);

/// <summary>Where a lesson stands, for the line above it.</summary>
/// <param name="House">The organisation.</param>
/// <param name="Where">The channel, the course and the lesson's number, as one text.</param>
/// <param name="AllLessons">The address of the list, or null.</param>
/// <param name="Previous">The lesson before it; null for none.</param>
/// <param name="Next">The lesson behind it; null for none.</param>
/// <param name="Served">What the page can do since a server stands behind it; null in a package.</param>
public sealed record PlayerSite(
    string House,
    string Where,
    string? AllLessons,
    PlayerLink? Previous = null,
    PlayerLink? Next = null,
    PlayerServed? Served = null
);

/// <summary>What a page can do that comes from a server.</summary>
/// <param name="Link">The page's whole address, to be passed on.</param>
/// <param name="EmbedCode">What puts the lesson into another page; null where it may not stand there.</param>
/// <param name="NotesTo">Where notes to the author are sent, and answers are read; null where none are taken.</param>
/// <param name="Download">The file that can be downloaded; null where none can be.</param>
/// <param name="Correcting">Where whoever makes lessons corrects the captions, without the moment; null for learners.</param>
public sealed record PlayerServed(string Link, string? EmbedCode, string? NotesTo, PlayerDownload? Download, string? Correcting = null);

/// <summary>A file that learners may keep.</summary>
/// <param name="Address">Where it lies, relative to the page.</param>
/// <param name="Name">What it is called on their disk.</param>
/// <param name="Kind">What it is, in a word.</param>
/// <param name="Width">The width of its picture in pixels; 0 for sound alone.</param>
/// <param name="Height">The height of its picture in pixels; 0 for sound alone.</param>
/// <param name="Bytes">How large it is, in bytes.</param>
public sealed record PlayerDownload(string Address, string Name, string Kind, int Width, int Height, long Bytes);

/// <summary>A lesson that another leads to.</summary>
/// <param name="Title">Its title.</param>
/// <param name="Address">Where its page lies, relative to the page.</param>
public sealed record PlayerLink(string Title, string Address);
