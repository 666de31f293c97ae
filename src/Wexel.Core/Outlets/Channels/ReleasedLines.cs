using Wexel.Core.Packages;
using Wexel.Core.Searching;

namespace Wexel.Core.Outlets.Channels;

/// <summary>What of a lesson learners find: what its page says, in the lesson's own time, and not what was written since.</summary>
public static class ReleasedLines
{
    /// <summary>The lines in the language of the lesson, its captions in that language among them; and those of every other language by itself.</summary>
    /// <param name="page">What the page is told.</param>
    /// <param name="onScreen">What was read from the pictures that it shows, in the lesson's own time.</param>
    /// <returns>Languages as dictionaries are named, each with its lines by kind.</returns>
    public static IReadOnlyList<(string Dictionary, IReadOnlyList<LessonText> Texts)> By(PlayerLesson page, IReadOnlyList<TextLine> onScreen)
    {
        List<(string Dictionary, LessonText Text)> said =
        [
            .. new[]
            {
                new LessonText(TextKind.Title, "", LessonText.Plain([page.Title, page.Details.ShortTitle])),
                new LessonText(TextKind.Tag, "", LessonText.Plain([.. page.Details.Tags, page.Details.Category])),
                new LessonText(TextKind.Author, "", LessonText.Plain([page.Details.Author?.Name])),
                new LessonText(TextKind.Section, "", [.. page.Sections.SelectMany(s => LessonText.Plain([s.Title], s.At))]),
                new LessonText(TextKind.Description, "", LessonText.Plain(page.Description.Split('\n'))),
                new LessonText(TextKind.Screen, "", onScreen),
            }.Select(text => (Dictionaries.For(page.Language), text)),
            .. page.Captions.Select(track =>
                (
                    Dictionaries.For(track.Language),
                    new LessonText(TextKind.Caption, track.Language, [.. track.Cues.SelectMany(c => LessonText.Plain([c.Text], c.Span.Start))])
                )
            ),
        ];
        return
        [
            .. said.Where(s => s.Text.Lines.Count > 0).GroupBy(s => s.Dictionary).Select(g => (g.Key, (IReadOnlyList<LessonText>)[.. g.Select(s => s.Text)])),
        ];
    }
}
