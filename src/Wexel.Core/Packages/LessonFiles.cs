using Wexel.Core.Captions;
using Wexel.Core.Contents;

namespace Wexel.Core.Packages;

/// <summary>What the files of one lesson are made from.</summary>
/// <param name="Lesson">The lesson; the addresses of video and poster are set by the package.</param>
/// <param name="VideoPath">The rendition.</param>
/// <param name="PosterPath">The poster, or null.</param>
public sealed record LessonSources(PlayerLesson Lesson, string VideoPath, string? PosterPath);

/// <summary>The files of one lesson and of the player, as they stand in every package.</summary>
public static class LessonFiles
{
    /// <summary>The page that learners open.</summary>
    public const string Page = "index.html";

    /// <summary>The video's name: its ending says what it is.</summary>
    private static string Video(LessonSources sources) => "lesson" + Path.GetExtension(sources.VideoPath);

    /// <summary>The player's folder in a package, with a slash at its end.</summary>
    public const string PlayerFolder = "player/";

    private const string Poster = "poster.jpg";

    /// <summary>The lesson's own files, the page first.</summary>
    /// <param name="sources">What they are made from.</param>
    /// <param name="folder">Where they lie in the package: empty, or with a slash at its end.</param>
    /// <param name="player">The player's folder as the page sees it, with a slash at its end.</param>
    /// <param name="pagePurpose">What the page is for.</param>
    /// <param name="pageIsLinked">Whether the page is the one to link.</param>
    public static IReadOnlyList<PackageFile> Of(LessonSources sources, string folder, string player, string pagePurpose, bool pageIsLinked)
    {
        var lesson = sources.Lesson with { Video = Video(sources), Poster = sources.PosterPath is null ? null : Poster, ReportTo = null, Embedded = false };
        var files = new List<PackageFile>
        {
            new(folder + Page, pagePurpose, new PackageContent.Text(PlayerPage.Html(lesson, player)), pageIsLinked),
            new(folder + lesson.Video, "The lesson's video. The page plays it; it also plays by itself.", new PackageContent.Copy(sources.VideoPath, AlreadyCompressed: true)),
        };
        if (sources.PosterPath is { } poster)
            files.Add(new(folder + Poster, "The picture that stands there before the lesson plays.", new PackageContent.Copy(poster, AlreadyCompressed: true)));
        if (lesson.Captions is { } captions)
            files.Add(new(folder + "captions.vtt", "The captions as a WebVTT file, for other players. The page has them inside.", new PackageContent.Text(WebVttText.Write(captions.Cues))));
        if (lesson.Sections.Count > 0)
            files.Add(new(folder + "contents.vtt", "The contents as a WebVTT file of chapters, for other players. The page has them inside.", new PackageContent.Text(Chapters.WebVtt(Chapters.Of(lesson.Sections, lesson.Length)))));
        return files;
    }

    /// <summary>The player's files, once a package.</summary>
    /// <param name="playerFiles">Paths relative to the player's folder, and where they lie.</param>
    public static IEnumerable<PackageFile> OfPlayer(IReadOnlyList<(string Path, string Source)> playerFiles) =>
        playerFiles.Select(f => new PackageFile(PlayerFolder + f.Path, "Part of the player. The page needs it.", new PackageContent.Copy(f.Source, AlreadyCompressed: f.Path.EndsWith(".woff2", StringComparison.Ordinal))));
}
