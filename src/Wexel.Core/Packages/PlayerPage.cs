using System.Net;
using System.Text.Json;
using Wexel.Core.Documents;

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
    public static string Html(PlayerLesson lesson, string assets, PlayerSite? place = null, string head = "")
    {
        var title = WebUtility.HtmlEncode(lesson.Title);
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
            {head}</head>
            <body>
            <div id="wexel"><noscript><h1>{title}</h1><video controls src="{WebUtility.HtmlEncode(lesson.Video)}"></video></noscript></div>
            <script type="application/json" id="wexel-lesson">{data}</script>
            <script src="{WebUtility.HtmlEncode(assets)}{Script}"></script>
            </body>
            </html>

            """;
    }
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
public sealed record PlayerSite(string House, string Where, string? AllLessons, PlayerLink? Previous = null, PlayerLink? Next = null);

/// <summary>A lesson that another leads to.</summary>
/// <param name="Title">Its title.</param>
/// <param name="Address">Where its page lies, relative to the page.</param>
public sealed record PlayerLink(string Title, string Address);
