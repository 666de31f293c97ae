using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Encoding;
using Wexel.Core.Keys;
using Wexel.Core.Recordings;

namespace Wexel.Core.Packages;

/// <summary>What the files of one lesson are made from.</summary>
/// <param name="Lesson">The lesson; the addresses of video and poster are set by the package.</param>
/// <param name="Video">The rendition.</param>
/// <param name="Poster">The picture by which it is known, or null.</param>
/// <param name="Pieces">Where the rendition is a playlist: all files of its folder, relative to it, the playlist among them; otherwise null.</param>
/// <param name="Shown">The pictures that stand with its questions and notes; null for none.</param>
public sealed record LessonSources(
    PlayerLesson Lesson,
    KeyedFile Video,
    LessonPoster? Poster,
    IReadOnlyList<string>? Pieces = null,
    IReadOnlyList<ShownFile>? Shown = null
)
{
    /// <summary>What the rendition is over HTTP, by its name's ending.</summary>
    public string MediaType => ContainerFacts.ByEnding(Path.GetExtension(Video.Path)).MediaType;
}

/// <summary>A picture that stands with a question or a note, as a file.</summary>
/// <param name="Key">The key by which the lesson names it.</param>
/// <param name="File">A JPEG.</param>
public sealed record ShownFile(string Key, KeyedFile File);

/// <summary>The picture by which a lesson is known, as a file.</summary>
/// <param name="File">A JPEG.</param>
/// <param name="Size">Its size, in pixels.</param>
public sealed record LessonPoster(KeyedFile File, PictureSize Size);

/// <summary>The files of one lesson and of the player, as they stand in every package.</summary>
public static class LessonFiles
{
    /// <summary>The page that learners open.</summary>
    public const string Page = "index.html";

    /// <summary>The video's name: its ending says what it is.</summary>
    private static string Video(LessonSources sources) =>
        sources.Pieces is null ? "lesson" + Path.GetExtension(sources.Video.Path) : PiecesFolder + Path.GetFileName(sources.Video.Path);

    /// <summary>The folder of a lesson that is loaded piece by piece, with a slash at its end.</summary>
    public const string PiecesFolder = "stream/";

    /// <summary>The player's folder in a package, with a slash at its end.</summary>
    public const string PlayerFolder = "player/";

    /// <summary>The name of the picture by which it is known.</summary>
    public const string Poster = "poster.jpg";

    /// <summary>The folder of pictures that stand with questions and notes, with a slash at its end.</summary>
    public const string ShownFolder = "pictures/";

    /// <summary>Where such a picture lies, relative to the page; null for none.</summary>
    /// <param name="key">Its key.</param>
    public static string? ShownOf(string? key) => key is null ? null : $"{ShownFolder}{key}.jpg";

    /// <summary>The name of a file of captions.</summary>
    /// <param name="name">Of its language, see <see cref="CaptionFileName"/>.</param>
    public static string Captions(string name) => $"captions-{name}.vtt";

    /// <summary>The lesson's own files, the page first.</summary>
    /// <param name="sources">What they are made from.</param>
    /// <param name="folder">Where they lie in the package: empty, or with a slash at its end.</param>
    /// <param name="player">The player's folder as the page sees it, with a slash at its end.</param>
    /// <param name="pagePurpose">What the page is for.</param>
    /// <param name="pageIsLinked">Whether the page is the one to link.</param>
    /// <param name="place">Where the lesson stands; null for by itself.</param>
    public static IReadOnlyList<PackageFile> List(
        LessonSources sources,
        string folder,
        string player,
        string pagePurpose,
        bool pageIsLinked,
        PlayerSite? place = null
    )
    {
        var lesson = sources.Lesson with
        {
            Video = Video(sources),
            Poster = sources.Poster is { Size: var size } ? new PlayerPoster(Poster, size.Width, size.Height) : null,
            ReportTo = null,
            Embedded = false,
        };
        var files = new List<PackageFile> { new(folder + Page, pagePurpose, new PackageContent.Text(PlayerPage.Html(lesson, player, place)), pageIsLinked) };
        files.AddRange(Videos(sources).Select(f => f with { Path = folder + f.Path }));
        if (sources.Poster is { } poster)
            files.Add(
                new(folder + Poster, "The picture that stands there before the lesson plays.", new PackageContent.Copy(poster.File, AlreadyCompressed: true))
            );
        files.AddRange(
            (sources.Shown ?? []).Select(shown => new PackageFile(
                folder + ShownOf(shown.Key),
                "A picture that stands with a question or a note.",
                new PackageContent.Copy(shown.File, AlreadyCompressed: true)
            ))
        );
        var names = CaptionFileName.ForLanguages([.. lesson.Captions.Select(c => c.Language)]);
        files.AddRange(
            lesson.Captions.Select(
                (captions, i) =>
                    new PackageFile(
                        folder + Captions(names[i]),
                        $"The captions ({captions.Language}) as a WebVTT file, for other players. The page has them inside.",
                        new PackageContent.Text(WebVttText.WriteKept(captions.Cues))
                    )
            )
        );
        if (lesson.Sections.Count > 0)
            files.Add(
                new(
                    folder + "contents.vtt",
                    "The contents as a WebVTT file of chapters, for other players. The page has them inside.",
                    new PackageContent.Text(WebVttChapters.Write(Chapters.FromSections(lesson.Sections, lesson.Length)))
                )
            );
        return files;
    }

    private static IEnumerable<PackageFile> Videos(LessonSources sources) =>
        sources.Pieces is not { } pieces
            ?
            [
                new(
                    Video(sources),
                    "The lesson's video. The page plays it; it also plays by itself.",
                    new PackageContent.Copy(sources.Video, AlreadyCompressed: true)
                ),
            ]
            : OfPieces(sources.Video, pieces);

    /// <summary>A lesson that is loaded piece by piece.</summary>
    /// <param name="playlist">The playlist that is linked, with the key of its folder.</param>
    /// <param name="pieces">All files of its folder, relative to it.</param>
    public static IEnumerable<PackageFile> OfPieces(KeyedFile playlist, IReadOnlyList<string> pieces) =>
        pieces.Select(piece => new PackageFile(
            PiecesFolder + piece,
            piece == Path.GetFileName(playlist.Path)
                ? "The lesson's video as a playlist (HLS). The page plays it; players that know HLS do too."
                : "A piece of the video. The playlist names it.",
            new PackageContent.Copy(
                new KeyedFile(Path.Combine(Path.GetDirectoryName(playlist.Path)!, piece), playlist.Key + "/" + piece),
                AlreadyCompressed: piece.EndsWith(".m4s", StringComparison.Ordinal)
            )
        ));

    /// <summary>The player's files, once a package.</summary>
    /// <param name="playerFiles">Paths relative to the player's folder, and the files.</param>
    /// <param name="lessons">The lessons that it plays: what none of them needs is left out.</param>
    /// <param name="inPieces">Whether a lesson is loaded piece by piece; what does that is large, and not needed otherwise.</param>
    public static IEnumerable<PackageFile> OfPlayer(
        IReadOnlyList<(string Path, KeyedFile Source)> playerFiles,
        IReadOnlyList<PlayerLesson> lessons,
        bool inPieces = false
    ) =>
        playerFiles
            .Where(f => (inPieces || f.Path != PlayerPage.PiecesScript) && PlayerPart.Needs(f.Path, lessons))
            .Select(f => new PackageFile(
                PlayerFolder + f.Path,
                "Part of the player. The page needs it.",
                new PackageContent.Copy(f.Source, AlreadyCompressed: f.Path.EndsWith(".woff2", StringComparison.Ordinal))
            ));
}
