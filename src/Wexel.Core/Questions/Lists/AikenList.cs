using System.Text.RegularExpressions;
using Wexel.Core.Questions.Kinds;

namespace Wexel.Core.Questions.Lists;

/// <summary>Aiken's format, which several learning systems read: a question, options with a capital letter each, and a line that names the right one.</summary>
internal sealed partial class AikenList : QuestionFormat
{
    internal override string Name => "Aiken";

    internal override bool Looks(string text) => Answer().IsMatch(text) && Option().IsMatch(text);

    internal override void Read(string text, QuestionList.Reading reading)
    {
        var asked = new List<string>();
        var options = new List<(char Letter, string Text)>();
        var begins = 1;
        foreach (var (line, number) in text.Split('\n').Select((l, i) => (l.Trim(), i + 1)))
        {
            if (Answer().Match(line) is { Success: true } answer)
            {
                var letter = char.ToUpperInvariant(answer.Groups[1].Value[0]);
                if (asked.Count == 0)
                    reading.Problem(number, "An answer stands here, and no question before it.");
                else if (options.All(o => o.Letter != letter))
                    reading.Problem(number, $"Answer {letter} is none of the options of “{Problem.Shown(asked[0])}”. It was left out.");
                else
                    reading.Add(
                        begins,
                        string.Join('\n', asked),
                        new ChooseOne([.. options.Select(o => new Option($"x{char.ToLowerInvariant(o.Letter)}", o.Text, o.Letter == letter))])
                    );
                (asked, options) = ([], []);
            }
            else if (Option().Match(line) is { Success: true } option && asked.Count > 0)
            {
                options.Add((option.Groups[1].Value[0], option.Groups[2].Value));
            }
            else if (line.Length > 0)
            {
                if (options.Count > 0)
                {
                    reading.Problem(begins, $"“{Problem.Shown(asked[0])}” has no line that begins with ANSWER. It was left out.");
                    (asked, options) = ([], []);
                }

                if (asked.Count == 0)
                    begins = number;
                asked.Add(line);
            }
        }

        if (asked.Count > 0)
            reading.Problem(begins, $"“{Problem.Shown(asked[0])}” has no line that begins with ANSWER. It was left out.");
    }

    [GeneratedRegex(@"^ANSWER:[ \t]*([A-Za-z])[ \t\r]*$", RegexOptions.Multiline)]
    private static partial Regex Answer();

    [GeneratedRegex(@"^([A-Z])[.)][ \t]+(.+)$", RegexOptions.Multiline)]
    private static partial Regex Option();
}
