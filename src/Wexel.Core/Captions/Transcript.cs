using System.Text;
using Wexel.Core.Timing;

namespace Wexel.Core.Captions;

/// <summary>A paragraph of what is said.</summary>
/// <param name="At">When it begins.</param>
/// <param name="Text">On one line.</param>
public sealed record TranscriptParagraph(TimeSpan At, string Text);

/// <summary>A part of a transcript: a section with what is said in it.</summary>
/// <param name="At">When it begins.</param>
/// <param name="Title">The section's title; null for what is said before the first.</param>
/// <param name="Paragraphs">In order.</param>
public sealed record TranscriptPart(TimeSpan At, string? Title, IReadOnlyList<TranscriptParagraph> Paragraphs);

/// <summary>Captions as a text that is read from top to bottom.</summary>
public static class Transcript
{
    /// <summary>A pause from which on a paragraph begins.</summary>
    private static readonly TimeSpan ParagraphPause = TimeSpan.FromSeconds(1.5);

    /// <summary>How long a paragraph may be, in characters, before it ends with the next sentence.</summary>
    private const int LongParagraph = 500;

    /// <summary>The transcript in parts.</summary>
    /// <param name="cues">In order of time.</param>
    /// <param name="headings">Where sections begin, with their titles, in order.</param>
    public static IReadOnlyList<TranscriptPart> Parts(IReadOnlyList<Cue> cues, IReadOnlyList<(TimeSpan At, string Title)> headings)
    {
        var parts = new List<TranscriptPart>();
        var first = headings.Count == 0 ? TimeSpan.MaxValue : headings[0].At;
        Add(TimeSpan.Zero, null, [.. cues.Where(c => c.Span.Start < first)]);
        foreach (var (index, (at, title)) in headings.Index())
        {
            var until = index + 1 < headings.Count ? headings[index + 1].At : TimeSpan.MaxValue;
            Add(at, title, [.. cues.Where(c => c.Span.Start >= at && c.Span.Start < until)]);
        }

        return parts;

        void Add(TimeSpan at, string? title, List<Cue> said)
        {
            if (title is not null || said.Count > 0)
                parts.Add(new TranscriptPart(at, title, Paragraphs(said)));
        }
    }

    /// <summary>The transcript as plain text: a heading on a line of its own, an empty line between paragraphs.</summary>
    /// <inheritdoc cref="Parts"/>
    public static string Text(IReadOnlyList<Cue> cues, IReadOnlyList<(TimeSpan At, string Title)> headings)
    {
        var text = new StringBuilder();
        foreach (var part in Parts(cues, headings))
        {
            if (part.Title is { } title)
                text.Append(TimeCode.Brief(part.At)).Append(' ').Append(title).Append("\n\n");
            foreach (var paragraph in part.Paragraphs)
                text.Append(paragraph.Text).Append("\n\n");
        }

        return text.ToString().TrimEnd('\n') + "\n";
    }

    private static List<TranscriptParagraph> Paragraphs(List<Cue> cues)
    {
        var paragraphs = new List<TranscriptParagraph>();
        var text = new StringBuilder();
        for (var i = 0; i < cues.Count; i++)
        {
            var isNew = i == 0 || cues[i].Span.Start - cues[i - 1].Span.End >= ParagraphPause || (text.Length > LongParagraph && Ends(cues[i - 1].Text));
            if (isNew)
                Close();
            if (text.Length == 0)
                paragraphs.Add(new TranscriptParagraph(cues[i].Span.Start, ""));
            text.Append(text.Length > 0 ? " " : "").Append(cues[i].Text.Replace('\n', ' '));
        }

        Close();
        return paragraphs;

        void Close()
        {
            if (text.Length > 0)
                paragraphs[^1] = paragraphs[^1] with { Text = text.ToString() };
            text.Clear();
        }
    }

    private static bool Ends(string text) => text.TrimEnd('"', '”', '’', ')') is [.., '.' or '?' or '!' or '…'];
}
