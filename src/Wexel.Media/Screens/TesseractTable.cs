using System.Globalization;
using Wexel.Core.Recordings;
using Wexel.Core.Screens;
using Wexel.Media.Tools;

namespace Wexel.Media.Screens;

/// <summary>Reads the table that tesseract prints (its TSV, as its manual has it): a row a word, with its line, box and confidence.</summary>
public static class TesseractTable
{
    private const int Columns = 12;
    private const string WordLevel = "5";

    /// <summary>Below this, in per cent, it is a picture that was taken for a word.</summary>
    private const double LeastSure = 30;

    /// <summary>Words of a line whose heights differ by more are two texts beside each other.</summary>
    private const double OtherHeight = 1.3;

    /// <summary>Words that stand further apart, by the height of their letters, are two texts beside each other.</summary>
    private const double WidestGap = 2.2;

    // What letters are of each other in usual typefaces (common practice, no source): a capital of a capital with a descender, of a small letter, and a
    // small letter of one with a descender.
    private const double OfHanging = 0.78;
    private const double OfSmall = 1.36;
    private const double SmallOfHanging = 0.72;

    private sealed record Word(string Line, PictureRect Box, double Confidence, string Text);

    /// <summary>The lines, from top to bottom.</summary>
    /// <param name="tool">Who printed it, for what is said where it is no such table.</param>
    /// <param name="printed">What it printed.</param>
    /// <param name="larger">How many times larger its picture was.</param>
    /// <exception cref="ToolFailedException">It is no such table.</exception>
    public static IReadOnlyList<ScreenLine> Read(string tool, string printed, int larger)
    {
        var rows = printed.Split('\n', StringSplitOptions.RemoveEmptyEntries);
        if (rows.Length == 0 || rows[0].Split('\t') is not ["level", ..])
            throw new ToolFailedException(tool, "It printed no table of words.");
        var words = rows.Skip(1).Select(r => r.Split('\t')).Where(c => c[0] == WordLevel).Select(c => Parse(tool, c)).OfType<Word>();
        return
        [
            .. words
                .GroupBy(w => w.Line)
                .SelectMany(Texts)
                .Select(t => Line(t, larger))
                .Where(l => l.Text.Any(char.IsLetterOrDigit))
                .OrderBy(l => l.Box.Y)
                .ThenBy(l => l.Box.X),
        ];
    }

    private static Word? Parse(string tool, string[] cells)
    {
        var numbers = new double[cells.Length];
        if (
            cells.Length != Columns
            || !Enumerable.Range(6, 5).All(i => double.TryParse(cells[i], NumberStyles.Float, CultureInfo.InvariantCulture, out numbers[i]))
        )
            throw new ToolFailedException(tool, "It printed a row that is no word with its place.");
        var text = string.Concat(cells[11].Where(c => !char.IsControl(c))).Trim();
        return text.Length == 0 || numbers[10] < LeastSure
            ? null
            : new Word(
                string.Join('.', cells[1..5]),
                new PictureRect((int)numbers[6], (int)numbers[7], (int)numbers[8], (int)numbers[9]),
                numbers[10] / 100,
                text
            );
    }

    /// <summary>The texts of a line: a heading and the small print beside it are two.</summary>
    private static IEnumerable<IReadOnlyList<Word>> Texts(IEnumerable<Word> line)
    {
        var text = new List<Word>();
        foreach (var word in line)
        {
            if (text.Count > 0 && IsOther(text, word))
            {
                yield return text;
                text = [];
            }

            text.Add(word);
        }

        if (text.Count > 0)
            yield return text;
    }

    private static bool IsOther(List<Word> text, Word word)
    {
        var (height, own) = (Height(text), CapitalHeight(word));
        return word.Box.X - (text[^1].Box.X + text[^1].Box.Width) > WidestGap * height || Math.Max(height, own) > OtherHeight * Math.Min(height, own);
    }

    private static double Height(IReadOnlyList<Word> words) => words.Select(CapitalHeight).Order().ElementAt(words.Count / 2);

    /// <summary>How high a capital of a word's letters is: what hangs below the line does not count, and a word of small letters alone is lower.</summary>
    private static double CapitalHeight(Word word)
    {
        var tall = word.Text.Any(c => char.IsUpper(c) || char.IsDigit(c) || "bdfhklt".Contains(c, StringComparison.Ordinal));
        var hangs = word.Text.Any(c => "gjpqy,;Q".Contains(c, StringComparison.Ordinal));
        return word.Box.Height
            * (tall, hangs) switch
            {
                (true, false) => 1,
                (true, true) => OfHanging,
                (false, false) => OfSmall,
                (false, true) => OfSmall * SmallOfHanging,
            };
    }

    private static ScreenLine Line(IReadOnlyList<Word> words, int larger)
    {
        var (left, top) = (words.Min(w => w.Box.X), words.Min(w => w.Box.Y));
        var (right, bottom) = (words.Max(w => w.Box.X + w.Box.Width), words.Max(w => w.Box.Y + w.Box.Height));
        return new ScreenLine(
            new PictureRect(left / larger, top / larger, (right - left) / larger, (bottom - top) / larger),
            string.Join(' ', words.Select(w => w.Text)),
            (int)Math.Round(Height(words) / larger),
            Math.Round(words.Average(w => w.Confidence), 2)
        );
    }
}
