namespace Wexel.Core.Packages;

/// <summary>A part of the player that only some lessons need: a script, and styles where it has any, beside the player's own. A line here registers
/// one.</summary>
/// <param name="Name">Its name: its files are called after it.</param>
/// <param name="IsNeeded">Whether a lesson needs it.</param>
/// <param name="HasStyle">Whether it has styles.</param>
public sealed record PlayerPart(string Name, Func<PlayerLesson, bool> IsNeeded, bool HasStyle = false)
{
    /// <summary>All that there are, in the order in which they are loaded.</summary>
    public static IReadOnlyList<PlayerPart> All { get; } =
    [
        new("contents", lesson => lesson.Sections.Count > 0),
        new("captions", lesson => lesson.Captions.Any(c => c.Cues.Count > 0)),
        new("questions", lesson => lesson.Questions.Count > 0, HasStyle: true),
        new("overlays", lesson => lesson.Areas.Count + lesson.Notes.Count > 0, HasStyle: true),
        new("survey", lesson => lesson.Survey is not null, HasStyle: true),
        new(Scorm12Package.Runtime, lesson => lesson.Runtime == Scorm12Package.Runtime),
    ];

    /// <summary>Its script.</summary>
    public string Script => $"wexel-{Name}.js";

    /// <summary>Its styles.</summary>
    public string Style => $"wexel-{Name}.css";

    /// <summary>Those that a lesson needs.</summary>
    public static IEnumerable<PlayerPart> In(PlayerLesson lesson) => All.Where(p => p.IsNeeded(lesson));

    /// <summary>Whether a file of the player is needed for some lessons.</summary>
    /// <param name="file">Its path, relative to the player's folder.</param>
    /// <param name="lessons">The lessons.</param>
    internal static bool Needs(string file, IReadOnlyList<PlayerLesson> lessons) =>
        All.FirstOrDefault(p => file == p.Script || file == p.Style) is not { } part || lessons.Any(part.IsNeeded);
}
