using Wexel.Core.Recordings;
using Wexel.Core.Speech;
using Wexel.Core.Timing;

namespace Wexel.Core.Screens;

/// <summary>A line when it is first seen.</summary>
/// <param name="Span">How long the picture is seen on which it is first, in recording time.</param>
/// <param name="Text">What it says.</param>
public sealed record SeenLine(TimeRange Span, string Text);

/// <summary>What is found of what stands on the screen.</summary>
public static class ScreenLines
{
    /// <summary>A line that was read with less certainty is not searched (common practice, no source).</summary>
    private const double Sure = 0.7;

    private const int FewLetters = 3;

    /// <summary>Each line once, where it is first seen, in order.</summary>
    /// <param name="screen">What was read.</param>
    /// <param name="seen">The part of the picture that learners see, in its pixels; null for all of it.</param>
    /// <param name="shows">Whether anything of a stretch is shown.</param>
    public static IReadOnlyList<SeenLine> Find(ScreenText screen, PictureRect? seen, Func<TimeRange, bool> shows)
    {
        var (lines, known) = (new List<SeenLine>(), new HashSet<string>());
        foreach (var picture in screen.Pictures.Where(p => shows(p.Span)))
        {
            foreach (var line in picture.Lines.Where(l => l.Confidence >= Sure && l.Text.Count(char.IsLetter) >= FewLetters && Lies(l.Box, seen)))
            {
                if (known.Add(string.Join(' ', WordList.PlainWords(line.Text))))
                    lines.Add(new SeenLine(picture.Span, line.Text));
            }
        }

        return lines;
    }

    /// <summary>Whether all of a box is seen: what is seen in part says something else.</summary>
    private static bool Lies(PictureRect box, PictureRect? seen) =>
        seen is not { } part || (box.X >= part.X && box.Y >= part.Y && box.X + box.Width <= part.X + part.Width && box.Y + box.Height <= part.Y + part.Height);
}
