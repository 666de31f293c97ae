using System.Text;

namespace Wexel.Core.Packages;

/// <summary>One folder that works on any web server and also from disk.</summary>
public static class WebFolder
{
    /// <summary>All files of the folder, the page to link first.</summary>
    /// <param name="sources">The lesson.</param>
    /// <param name="playerFiles">The player's files, as paths relative to its folder and where they lie.</param>
    public static IReadOnlyList<PackageFile> Plan(LessonSources sources, IReadOnlyList<(string Path, string Source)> playerFiles)
    {
        List<PackageFile> files =
        [
            .. LessonFiles.Of(sources, "", LessonFiles.PlayerFolder, "The page to link. Learners open this one.", pageIsLinked: true),
            .. LessonFiles.OfPlayer(playerFiles),
        ];
        files.Add(new("read me.txt", "What the files are for.", new PackageContent.Text(Explain(sources.Lesson.Title, files))));
        return files;
    }

    private static string Explain(string title, IEnumerable<PackageFile> files)
    {
        var text = new StringBuilder();
        text.Append(title).Append("\n\nPut this whole folder on a web server and link ").Append(LessonFiles.Page)
            .Append(".\nIt also opens from disk: double-click ").Append(LessonFiles.Page).Append(".\n\n");
        foreach (var file in files)
            text.Append(file.Path).Append("\n    ").Append(file.Purpose).Append('\n');
        return text.ToString();
    }
}
