using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using Wexel.Core.Questions.Kinds;

namespace Wexel.Core.Questions.Lists;

/// <summary>
/// A table with a question a line: its text, what is right and what is wrong, several of them with bars between. With wrong ones it is chosen, without them
/// typed, or a number. The first line names the columns; one without names has them in that order.
/// </summary>
internal sealed class CsvList : QuestionFormat
{
    private static readonly string[] Columns = ["question", "right", "wrong", "said when right", "said when wrong"];

    private static readonly string[] Delimiters = ["\t", ";", ","];

    internal override string Name => "CSV";

    internal override bool Looks(string text) => true;

    internal override void Read(string text, QuestionList.Reading reading)
    {
        var first = text[..(text.IndexOf('\n', StringComparison.Ordinal) is var end && end >= 0 ? end : text.Length)];
        using var csv = new CsvReader(
            new StringReader(text),
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                HasHeaderRecord = false,
                Delimiter = Delimiters.FirstOrDefault(d => first.Contains(d, StringComparison.Ordinal)) ?? ",",
                TrimOptions = TrimOptions.Trim,
                BadDataFound = null,
            }
        );
        int[]? places = null;
        var next = 1;
        while (csv.Read())
        {
            var (number, cells) = (next, csv.Parser.Record ?? []);
            next = csv.Parser.RawRow + 1;
            if (places is null)
            {
                places = [.. Columns.Select(c => Array.FindIndex(cells, cell => cell.Equals(c, StringComparison.OrdinalIgnoreCase)))];
                if (places[0] >= 0)
                    continue;
                places = [.. Columns.Select((_, i) => i)];
            }

            string Cell(int column) => places[column] is var at && at >= 0 && at < cells.Length ? cells[at] : "";
            if (cells.All(c => c.Length == 0))
                continue;
            if (Cell(0).Length == 0)
                reading.Problem(number, "There is no question in this line. It was left out.");
            else
                reading.Add(number, Cell(0), Asks(Several(Cell(1)), Several(Cell(2))), Cell(3), Cell(4));
        }
    }

    private static Interaction Asks(string[] right, string[] wrong)
    {
        IReadOnlyList<Option> options =
        [
            .. right.Select(text => (text, true)).Concat(wrong.Select(text => (text, false))).Select((o, i) => new Option($"x{i + 1}", o.text, o.Item2)),
        ];
        return (right, wrong) switch
        {
            (["true" or "True" or "TRUE"], []) => new TrueOrFalse(true),
            (["false" or "False" or "FALSE"], []) => new TrueOrFalse(false),
            ([var one], []) when new Scoring.NumberRule().Readings(one) is [var value, ..] => new NumberTyped(value),
            (_, []) => new ShortText([.. right.Select(text => new Accepted(text))]),
            ([_], _) => new ChooseOne(options, Shuffle: true),
            _ => new ChooseSeveral(options, Shuffle: true),
        };
    }

    private static string[] Several(string cell) => cell.Split('|', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
}
