using System.Globalization;
using Wexel.Core.Lessons;

namespace Wexel.Core.Searching;

/// <summary>What a text of a lesson is; the sooner, the more it says about it.</summary>
public enum TextKind
{
    /// <summary>The title, and the short one.</summary>
    Title,

    /// <summary>A tag, or the category.</summary>
    Tag,

    /// <summary>Who made it.</summary>
    Author,

    /// <summary>The title of a section.</summary>
    Section,

    /// <summary>A paragraph of the description.</summary>
    Description,

    /// <summary>A caption.</summary>
    Caption,

    /// <summary>A line that stands on the screen.</summary>
    Screen,
}

/// <summary>A line of what a lesson says.</summary>
/// <param name="At">When it is said, in recording time; null for what holds for all of it.</param>
/// <param name="Text">What it says, on one line.</param>
public sealed record TextLine(TimeSpan? At, string Text);

/// <summary>All lines of one kind, as they are searched and kept.</summary>
/// <param name="Kind">What they are.</param>
/// <param name="Ref">What tells several of a kind apart: the hash of a caption track's file; otherwise empty.</param>
/// <param name="Lines">The lines.</param>
public sealed record LessonText(TextKind Kind, string Ref, IReadOnlyList<TextLine> Lines)
{
    /// <summary>The lines as one text: on each its time in milliseconds or nothing, a tab, and what it says.</summary>
    public string Text =>
        string.Join('\n', Lines.Select(l => $"{(l.At is { } at ? ((long)at.TotalMilliseconds).ToString(CultureInfo.InvariantCulture) : "")}\t{l.Text}"));

    /// <summary>Reads such a text.</summary>
    public static LessonText Read(TextKind kind, string hash, string text) =>
        new(
            kind,
            hash,
            [
                .. text.Split('\n', StringSplitOptions.RemoveEmptyEntries)
                    .Select(line => line.Split('\t', 2))
                    .Where(parts => parts.Length == 2)
                    .Select(parts => new TextLine(
                        long.TryParse(parts[0], NumberStyles.None, CultureInfo.InvariantCulture, out var at) ? TimeSpan.FromMilliseconds(at) : null,
                        parts[1]
                    )),
            ]
        );

    /// <summary>All that a lesson says, each kind by itself; none of which it says nothing.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="onScreen">What was read from its pictures.</param>
    public static IReadOnlyList<LessonText> Of(LessonWithCues lesson, IReadOnlyList<TextLine> onScreen)
    {
        var (document, details) = (lesson.Document, lesson.Document.Details);
        return
        [
            .. new[]
            {
                new LessonText(TextKind.Title, "", Plain([document.Title, details.ShortTitle])),
                new LessonText(TextKind.Tag, "", Plain([.. details.Tags ?? [], details.Category])),
                new LessonText(TextKind.Author, "", Plain([details.Author?.Name])),
                new LessonText(TextKind.Section, "", [.. document.Sections.SelectMany(s => Plain([s.Title], s.At))]),
                new LessonText(TextKind.Description, "", Plain(document.Description.Split('\n'))),
            }
                .Concat(Captions(lesson))
                .Append(new LessonText(TextKind.Screen, "", onScreen))
                .Where(t => t.Lines.Count > 0),
        ];
    }

    /// <summary>What its caption tracks say, by their files.</summary>
    private static IEnumerable<LessonText> Captions(LessonWithCues lesson) =>
        lesson
            .Document.Captions.DistinctBy(t => t.Hash)
            .Select(t => new LessonText(TextKind.Caption, t.Hash, [.. lesson.CuesOf(t).SelectMany(c => Plain([c.Text], c.Span.Start))]));

    /// <summary>Texts as lines; none of those that say nothing.</summary>
    /// <param name="texts">The texts.</param>
    /// <param name="at">When they are said; null for what holds for all of the lesson.</param>
    internal static IReadOnlyList<TextLine> Plain(IEnumerable<string?> texts, TimeSpan? at = null) =>
        [.. texts.Select(t => OneLine(t ?? "")).Where(t => t.Length > 0).Select(t => new TextLine(at, t))];

    private static string OneLine(string text) => string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
}
