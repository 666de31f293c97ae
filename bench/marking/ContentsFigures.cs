using System.Globalization;
using Wexel.Core.Contents;
using Wexel.Core.Proposing;
using Wexel.Core.Speech;

namespace Wexel.Marking;

/// <summary>Contents that are proposed without anybody's help, held against contents by hand.</summary>
internal sealed class ContentsFigures
{
    private static readonly TimeSpan Near = TimeSpan.FromSeconds(3);

    private int _right;
    private int _proposed;
    private int _true;
    private int _titles;
    private int _headings;

    internal double Precision => (double)_right / _proposed;

    internal double Recall => (double)_right / _true;

    internal double F1 => 2 * Precision * Recall / (Precision + Recall);

    internal double Titles => (double)_titles / _headings;

    /// <summary>Holds a lesson against what was written by hand, and its titles against what stood on the screen.</summary>
    internal void Add(Known known, string truth, string pages, double amount, TextWriter? told)
    {
        var by = ContentsText.Read(truth).Lines;
        var seen = ContentsText.Read(pages).Lines;
        var said = SaidSentences.FromWords(Sentences.Write(known.Heard.Speech.Words, known.Heard.Speech.Writes, new WordList([]), []));
        var proposed = ContentsProposals.Find(new LessonSigns(known.Length, said, known.Read.Screen, [], []), amount);
        var right = by.Count(t => proposed.Any(p => (p.At - t.At).Duration() <= Near));
        (_right, _proposed, _true) = (_right + right, _proposed + proposed.Count, _true + by.Count);
        foreach (var p in proposed.Where(p => p.Signs.Contains(SectionSign.PageChanged) || p.Signs.Contains(SectionSign.Beginning)))
        {
            _headings++;
            var heading = seen.LastOrDefault(s => s.At <= p.At + TimeSpan.FromSeconds(5))?.Title ?? "";
            if (WordList.Plain(heading) == WordList.Plain(p.Title))
                _titles++;
            else
                told?.WriteLine($"    title “{p.Title}”, on the screen “{heading}”");
        }

        if (told is null)
            return;
        foreach (var t in by.Where(t => !proposed.Any(p => (p.At - t.At).Duration() <= Near)))
            told.WriteLine($"    missed {t.At:mm\\:ss\\.f} {t.Title}; said: {said.MinBy(s => (s.Span.Start - t.At).Duration())?.Text}");
        foreach (var p in proposed)
            told.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"  {(by.Any(t => (p.At - t.At).Duration() <= Near) ? "+" : "-")} {p.At:mm\\:ss\\.f} {p.Weight:0.00} {string.Join(',', p.Signs)} “{p.Title}”"
                )
            );
        told.WriteLine($"  {right} of {by.Count}, {proposed.Count} proposed");
    }
}
