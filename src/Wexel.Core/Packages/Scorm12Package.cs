using System.Globalization;
using System.Reflection;
using Wexel.Core.Keys;

namespace Wexel.Core.Packages;

/// <summary>What a learning-system package is made from.</summary>
/// <param name="Identifier">A name that stays the same whenever the package is made again.</param>
/// <param name="Title">The course's title, or the lesson's where it stands alone.</param>
/// <param name="Lessons">The lessons in the trainer's order; at least one.</param>
/// <param name="PlayerFiles">The player's files, as paths relative to its folder and where they lie.</param>
public sealed record Scorm12Sources(
    string Identifier,
    string Title,
    IReadOnlyList<LessonSources> Lessons,
    IReadOnlyList<(string Path, KeyedFile Source)> PlayerFiles
);

/// <summary>
/// A package for learning systems after SCORM 1.2: a content aggregation whose items are the lessons (Content Aggregation Model,
/// section 2.3), each of which speaks the run-time API.
/// </summary>
public static class Scorm12Package
{
    /// <summary>What the player is told of its surroundings.</summary>
    public const string Runtime = "scorm12";

    private const string SchemaFolder = "Wexel.Core.Packages.Scorm12Schemas.";

    /// <summary>All files of the package, the manifest first.</summary>
    /// <exception cref="ArgumentException">There is no lesson.</exception>
    public static IReadOnlyList<PackageFile> Plan(Scorm12Sources sources)
    {
        if (sources.Lessons.Count == 0)
            throw new ArgumentException("A package needs a lesson.", nameof(sources));
        var alone = sources.Lessons.Count == 1;
        var player = LessonFiles.OfPlayer(sources.PlayerFiles, [.. sources.Lessons.Select(l => l.Lesson.Packed(Runtime))]).ToList();
        var items = new List<Scorm12Item>();
        var files = new List<PackageFile>();
        foreach (var (lesson, number) in sources.Lessons.Select((l, i) => (l, i + 1)))
        {
            var folder = alone ? "" : string.Create(CultureInfo.InvariantCulture, $"lesson-{number:00}/");
            var made = lesson with { Lesson = lesson.Lesson.Packed(Runtime) };
            var own = LessonFiles.List(
                made,
                folder,
                alone ? LessonFiles.PlayerFolder : "../" + LessonFiles.PlayerFolder,
                "The page that the learning system opens.",
                pageIsLinked: false
            );
            files.AddRange(own);
            items.Add(
                new Scorm12Item(
                    lesson.Lesson.Title,
                    own[0].Path,
                    [.. own.Select(f => f.Path)],
                    Scorm12Metadata.Describe(
                        lesson.Lesson,
                        alone ? sources.Identifier : string.Create(CultureInfo.InvariantCulture, $"{sources.Identifier}-{number:00}"),
                        own[0].Path,
                        lesson.MediaType
                    )
                )
            );
        }

        var manifest = Scorm12Manifest.Write(sources.Identifier, sources.Title, items, [.. player.Select(f => f.Path)]);
        return
        [
            new(Scorm12Manifest.FileName, "Tells the learning system what is in the package. It must stand at the top.", new PackageContent.Text(manifest)),
            .. files,
            .. player,
            .. Scorm12Manifest.SchemaFiles.Select(name => new PackageFile(
                name,
                "Part of the standard: the manifest's rules.",
                new PackageContent.Text(Schema(name))
            )),
        ];
    }

    private static string Schema(string name)
    {
        using var stream = Assembly.GetExecutingAssembly().GetManifestResourceStream(SchemaFolder + name)
            ?? throw new InvalidOperationException($"{name} is not built in.");
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }
}
