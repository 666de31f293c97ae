using System.Globalization;
using System.Net;
using System.Text;
using Wexel.Core.Keys;
using Wexel.Core.Naming;
using Wexel.Core.Timing;

namespace Wexel.Core.Packages;

/// <summary>
/// A whole course as one folder that works on any web server and also from disk: a page of its lessons in teaching order, and each lesson in a folder
/// of its own, named after it, whose page leads to the ones before and behind.
/// </summary>
public static class CourseFolder
{
    /// <summary>All files of the folder, the page to link first.</summary>
    /// <param name="title">The course's title.</param>
    /// <param name="description">What it is about; may be empty.</param>
    /// <param name="lessons">The lessons, in teaching order; at least one.</param>
    /// <param name="playerFiles">The player's files, as paths relative to its folder and where they lie.</param>
    public static IReadOnlyList<PackageFile> Plan(
        string title,
        string description,
        IReadOnlyList<LessonSources> lessons,
        IReadOnlyList<(string Path, KeyedFile Source)> playerFiles
    )
    {
        lessons = [.. lessons.Select(l => l with { Lesson = l.Lesson.Packed(null) })];
        var names = new DistinctNames([LessonFiles.PlayerFolder.TrimEnd('/'), LessonFiles.Page, ReadMe]);
        var folders = lessons.Select((l, i) => names.Take(FileName.Safe(l.Lesson.Title, $"lesson {i + 1}"))).ToList();
        var files = new List<PackageFile>
        {
            new(
                LessonFiles.Page,
                "The page to link: all lessons in teaching order.",
                new PackageContent.Text(Html(title, description, lessons, folders)),
                IsThePageToLink: true
            ),
        };
        foreach (var (i, lesson) in lessons.Index())
        {
            PlayerLink? To(int other) =>
                other >= 0 && other < lessons.Count ? new PlayerLink(lessons[other].Lesson.Title, $"../{Address(folders[other])}/{LessonFiles.Page}") : null;
            var place = new PlayerSite(title, $"lesson {i + 1} of {lessons.Count}", $"../{LessonFiles.Page}", To(i - 1), To(i + 1));
            var purpose = $"The page of “{lesson.Lesson.Title}”; it can be linked by itself.";
            files.AddRange(LessonFiles.List(lesson, $"{folders[i]}/", $"../{LessonFiles.PlayerFolder}", purpose, pageIsLinked: false, place));
        }

        var inPieces = lessons.Any(l => l.Pieces is not null);
        files.AddRange(LessonFiles.OfPlayer(playerFiles, [.. lessons.Select(l => l.Lesson)], inPieces));
        files.Add(new(ReadMe, "What the folder is.", new PackageContent.Text(Explain(title, lessons, folders, inPieces))));
        return files;
    }

    private const string ReadMe = "read me.txt";

    private static string Address(string folder) => Uri.EscapeDataString(folder);

    private static string Html(string title, string description, IReadOnlyList<LessonSources> lessons, IReadOnlyList<string> folders)
    {
        var items = new StringBuilder();
        foreach (var (lesson, folder) in lessons.Zip(folders))
            items.Append(Item(lesson, Address(folder)));
        return $"""
            <!doctype html>
            <html lang="{Text(lessons[0].Lesson.Language)}">
            <head>
            <meta charset="utf-8">
            <meta name="viewport" content="width=device-width, initial-scale=1">
            <title>{Text(title)}</title>
            <meta name="description" content="{Text(description)}">
            <link rel="icon" href="data:,">
            <link rel="stylesheet" href="{LessonFiles.PlayerFolder}{PlayerPage.Style}">
            </head>
            <body>
            <main class="course">
            <h1 dir="auto">{Text(title)}</h1>
            {Paragraphs(description)}<p class="sum">{Count(lessons.Count)}, {TimeCode.Brief(
                TimeSpan.FromTicks(lessons.Sum(l => l.Lesson.Length.Ticks))
            )}</p>
            <ol>
            {items}</ol>
            <p class="status">What you have seen is kept in this browser only.</p>
            </main>
            <script src="{LessonFiles.PlayerFolder}{PlayerPage.Script}"></script>
            </body>
            </html>

            """;
    }

    /// <summary>A lesson in the list; the player's script fills in what was seen of it.</summary>
    private static string Item(LessonSources sources, string folder)
    {
        var lesson = sources.Lesson;
        var picture = sources.Poster is { Size: var size }
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"""<img src="{folder}/{LessonFiles.Poster}" alt="" width="{size.Width}" height="{size.Height}" loading="lazy">"""
            )
            : "";
        return string.Create(
            CultureInfo.InvariantCulture,
            $"""
            <li data-lesson="{Text(lesson.Key)}" data-length="{(long)lesson.Length.TotalMilliseconds}" data-complete="{lesson.CompletePercent}">
            <a class="still" href="{folder}/{LessonFiles.Page}" tabindex="-1" aria-hidden="true">{picture}</a>
            <div>
            <h2><a href="{folder}/{LessonFiles.Page}" dir="auto" lang="{Text(lesson.Language)}">{Text(lesson.Title)}</a></h2>
            <p class="length">{TimeCode.Brief(lesson.Length)}<span class="seen"></span></p>
            {Paragraphs(lesson.Description)}</div>
            </li>

            """
        );
    }

    private static string Paragraphs(string text) =>
        string.Concat(
            text.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).Select(p => $"<p class=\"description\">{Text(p)}</p>\n")
        );

    private static string Count(int lessons) => lessons == 1 ? "1 lesson" : string.Create(CultureInfo.InvariantCulture, $"{lessons} lessons");

    private static string Text(string text) => WebUtility.HtmlEncode(text);

    private static string Explain(string title, IReadOnlyList<LessonSources> lessons, IReadOnlyList<string> folders, bool inPieces)
    {
        var text = new StringBuilder();
        text.Append(title)
            .Append("\n\nPut this whole folder on a web server and link ")
            .Append(LessonFiles.Page)
            .Append(
                inPieces
                    ? ".\nFrom disk it does not play: browsers load no pieces of a video from there.\n\n"
                    : $".\nIt also opens from disk: double-click {LessonFiles.Page}.\n\n"
            );
        foreach (var (lesson, folder) in lessons.Zip(folders))
            text.Append(folder).Append("/\n    ").Append(lesson.Lesson.Title).Append('\n');
        return text.Append(LessonFiles.PlayerFolder).Append("\n    What all lessons need to play.\n").ToString();
    }
}
