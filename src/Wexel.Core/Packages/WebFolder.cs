using System.Text;
using Wexel.Core.Keys;

namespace Wexel.Core.Packages;

/// <summary>One folder that works on any web server and also from disk.</summary>
public static class WebFolder
{
    /// <summary>All files of the folder, the page to link first.</summary>
    /// <param name="sources">The lesson.</param>
    /// <param name="playerFiles">The player's files, as paths relative to its folder and where they lie.</param>
    public static IReadOnlyList<PackageFile> Plan(LessonSources sources, IReadOnlyList<(string Path, KeyedFile Source)> playerFiles)
    {
        var made = sources with { Lesson = sources.Lesson.Packed(null) };
        List<PackageFile> files =
        [
            .. LessonFiles.List(made, "", LessonFiles.PlayerFolder, "The page to link. Learners open this one.", pageIsLinked: true),
            .. LessonFiles.OfPlayer(playerFiles, [made.Lesson], sources.Pieces is not null),
        ];
        files.Add(new("read me.txt", "What the files are for.", new PackageContent.Text(Explain(sources.Lesson.Title, sources.Pieces is not null, files))));
        return files;
    }

    private static string Explain(string title, bool inPieces, IEnumerable<PackageFile> files)
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
        // Of the pieces, the playlist stands for all.
        foreach (
            var file in files.Where(f =>
                !f.Path.StartsWith(LessonFiles.PiecesFolder, StringComparison.Ordinal) || f.Path.EndsWith("/lesson.m3u8", StringComparison.Ordinal)
            )
        )
            text.Append(file.Path).Append("\n    ").Append(file.Purpose).Append('\n');
        return text.ToString();
    }
}
