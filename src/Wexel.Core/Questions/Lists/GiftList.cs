using System.Globalization;
using System.Net;
using System.Text;
using System.Text.RegularExpressions;
using Wexel.Core.Questions.Kinds;
using Wexel.Core.Scoring;

namespace Wexel.Core.Questions.Lists;

/// <summary>
/// GIFT, which several learning systems read: questions with empty lines between, each with its answers in braces. Essays and descriptions have no right
/// answer, and are named and left out.
/// </summary>
internal sealed partial class GiftList : QuestionFormat
{
    /// <summary>What stands for an escaped sign while the rest is taken apart: private use, one for each.</summary>
    private const char Escaped = '\uE000';

    private const string Signs = "~=#{}:n\\";

    internal override string Name => "GIFT";

    internal override bool Looks(string text) => Braces().IsMatch(text);

    internal override void Read(string text, QuestionList.Reading reading)
    {
        var lines = text.Split('\n');
        for (var i = 0; i < lines.Length; )
        {
            if (IsBlank(lines[i]))
            {
                i++;
                continue;
            }

            var begins = i;
            var block = new StringBuilder();
            for (; i < lines.Length && !(lines[i].Trim().Length == 0); i++)
            {
                if (!IsBlank(lines[i]))
                    block.Append(lines[i].Trim()).Append('\n');
            }

            if (block.Length > 0)
                One(begins + 1, block.ToString().Trim(), reading);
        }
    }

    /// <summary>A line that says nothing: empty, a comment, or the category of what follows.</summary>
    private static bool IsBlank(string line) =>
        line.Trim() is var plain
        && (plain.Length == 0 || plain.StartsWith("//", StringComparison.Ordinal) || plain.StartsWith("$CATEGORY:", StringComparison.Ordinal));

    private static void One(int line, string block, QuestionList.Reading reading)
    {
        var hidden = Hide(block);
        var name = Title().Match(hidden);
        var rest = name.Success ? hidden[name.Length..].TrimStart() : hidden;
        var (open, close) = (rest.IndexOf('{', StringComparison.Ordinal), rest.LastIndexOf('}'));
        var shown = Problem.Shown(Shown(open < 0 ? rest : rest[..open]));
        if (open < 0 && close < 0)
            reading.Problem(line, $"“{shown}” asks nothing; it was left out.");
        else if (open < 0 || close < open)
            reading.Problem(line, $"“{shown}” has a brace without the other. It was left out.");
        else if (rest.IndexOf('{', open + 1) is var second && second >= 0 && second < close)
            reading.Problem(line, $"“{shown}” has braces in its braces; write them as \\{{ and \\}}. It was left out.");
        else
            Ask(line, rest[..open], rest[(open + 1)..close].Trim(), rest[(close + 1)..], shown, reading);
    }

    private static void Ask(int line, string before, string answers, string after, string shown, QuestionList.Reading reading)
    {
        var html = before.TrimStart().StartsWith("[html]", StringComparison.OrdinalIgnoreCase);
        var general = "";
        if (answers.IndexOf("####", StringComparison.Ordinal) is var at && at >= 0)
            (answers, general) = (answers[..at].TrimEnd(), Shown(answers[(at + 4)..], html));
        var text = after.Trim().Length == 0 ? Shown(before, html) : $"{Shown(before, html)} _____ {Shown(after, html)}";
        void Take(Interaction asks, string right = "", string wrong = "") =>
            reading.Add(line, text, asks, right.Length > 0 ? right : general, wrong.Length > 0 ? wrong : general);

        if (answers.Length == 0)
        {
            reading.Problem(line, $"“{shown}” is an essay, of which nobody can say at once whether it is right. It was left out.");
            return;
        }

        if (Truth().Match(answers) is { Success: true } truth)
        {
            var said = truth.Groups[2].Value.Split('#', StringSplitOptions.TrimEntries);
            Take(
                new TrueOrFalse(truth.Groups[1].Value[0] is 'T' or 't'),
                said.Length > 2 ? Shown(said[2], html) : "",
                said.Length > 1 ? Shown(said[1], html) : ""
            );
            return;
        }

        if (answers[0] == '#')
        {
            if (NumberOf(answers[1..]) is { } number)
                Take(number);
            else
                reading.Problem(line, $"The number of “{shown}” cannot be read. It was left out.");
            return;
        }

        var parts = Answers(answers, html);
        if (parts.Count == 0)
        {
            reading.Problem(line, $"The answers of “{shown}” begin with no = and no ~. It was left out.");
            return;
        }

        if (parts.All(p => p.Right && p.Text.Contains("->", StringComparison.Ordinal)))
        {
            var pairs = parts.ConvertAll(p => p.Text.Split("->", 2, StringSplitOptions.TrimEntries));
            Take(
                new MatchPairs(
                    [.. pairs.Where(p => p[0].Length > 0).Select((p, i) => new MatchPair($"l{i + 1}", p[0], $"r{i + 1}", p[1]))],
                    [.. pairs.Where(p => p[0].Length == 0).Select((p, i) => new Item($"o{i + 1}", p[1]))],
                    InPart: true
                )
            );
        }
        else if (parts.All(p => p.Right))
        {
            Take(new ShortText([.. parts.Select(p => new Accepted(p.Text, p.PerCent ?? 100, p.Reply))]));
        }
        else
        {
            // Where nothing is right by itself, several are right by what they count.
            var several = !parts.Exists(p => p.Right);
            IReadOnlyList<Option> options =
            [
                .. parts.Select(
                    (p, i) => new Option($"x{i + 1}", p.Text, p.Right || (several && p.PerCent > 0), p.Right && p.PerCent is null ? null : p.PerCent, p.Reply)
                ),
            ];
            Take(several ? new ChooseSeveral(options) : new ChooseOne(options));
        }
    }

    private sealed record Part(bool Right, int? PerCent, string Text, string? Reply);

    /// <summary>What stands behind each = and ~: how much it counts, its text, what is said to it.</summary>
    private static List<Part> Answers(string answers, bool html)
    {
        var parts = new List<Part>();
        var starts = new List<int>();
        for (var i = 0; i < answers.Length; i++)
        {
            if (answers[i] is '=' or '~')
                starts.Add(i);
        }

        for (var n = 0; n < starts.Count; n++)
        {
            var one = answers[(starts[n] + 1)..(n + 1 < starts.Count ? starts[n + 1] : answers.Length)].Trim();
            int? perCent = null;
            if (PerCent().Match(one) is { Success: true } counts)
            {
                perCent = (int)Math.Round(double.Parse(counts.Groups[1].Value, CultureInfo.InvariantCulture));
                one = one[counts.Length..];
            }

            var reply = one.IndexOf('#', StringComparison.Ordinal);
            parts.Add(
                new Part(
                    answers[starts[n]] == '=',
                    perCent,
                    Shown(reply < 0 ? one : one[..reply], html),
                    reply >= 0 && Shown(one[(reply + 1)..], html) is { Length: > 0 } said ? said : null
                )
            );
        }

        return parts;
    }

    /// <summary>A number with what it may be off by, two numbers between which it lies, or the first of several that counts all.</summary>
    private static NumberTyped? NumberOf(string answers)
    {
        var whole = answers.Trim();
        if (whole.StartsWith('='))
            whole = Answers(whole, html: false).OrderByDescending(p => p.PerCent ?? 100).Select(p => p.Text).FirstOrDefault() ?? "";
        whole = whole.Split('#')[0].Trim();
        if (whole.Split("..") is [var low, var high] && Number(low) is { } from && Number(high) is { } to)
            return new NumberTyped((from + to) / 2, new NumberRule(Math.Abs(to - from) / 2));
        var parts = whole.Split(':');
        return Number(parts[0]) is { } value && (parts.Length == 1 || Number(parts[1]) is not null)
            ? new NumberTyped(value, new NumberRule(parts.Length == 1 ? 0 : Math.Abs(Number(parts[1])!.Value)))
            : null;
    }

    private static double? Number(string text) =>
        double.TryParse(text.Trim(), NumberStyles.Float, CultureInfo.InvariantCulture, out var number) && double.IsFinite(number) ? number : null;

    private static string Hide(string text)
    {
        var hidden = new StringBuilder(text.Length);
        for (var i = 0; i < text.Length; i++)
        {
            if (text[i] == '\\' && i + 1 < text.Length && Signs.IndexOf(text[i + 1], StringComparison.Ordinal) is var sign && sign >= 0)
            {
                hidden.Append((char)(Escaped + sign));
                i++;
            }
            else
            {
                hidden.Append(text[i]);
            }
        }

        return hidden.ToString();
    }

    /// <summary>A text as people read it: escaped signs as they are, the name of its markup gone; of HTML its words alone.</summary>
    private static string Shown(string text, bool html = false)
    {
        var plain = Markup().Replace(text.Trim(), "");
        if (html)
            plain = WebUtility.HtmlDecode(Tag().Replace(plain, " "));
        var shown = new StringBuilder(plain.Length);
        foreach (var c in plain)
            shown.Append(
                c >= Escaped && c < Escaped + Signs.Length
                    ? Signs[c - Escaped] == 'n'
                        ? '\n'
                        : Signs[c - Escaped]
                    : c
            );
        return shown.ToString().Trim();
    }

    [GeneratedRegex(@"(?<!\\)\{[^{}]*(?<!\\)\}", RegexOptions.Singleline)]
    private static partial Regex Braces();

    [GeneratedRegex(@"^::.*?::", RegexOptions.Singleline)]
    private static partial Regex Title();

    [GeneratedRegex(@"^(T|TRUE|F|FALSE)\s*((?:#.*)?)$", RegexOptions.IgnoreCase | RegexOptions.Singleline)]
    private static partial Regex Truth();

    [GeneratedRegex(@"^%(-?[0-9]+(?:\.[0-9]+)?)%")]
    private static partial Regex PerCent();

    [GeneratedRegex(@"^\[[a-z]+\]", RegexOptions.IgnoreCase)]
    private static partial Regex Markup();

    [GeneratedRegex("<[^<>]*>")]
    private static partial Regex Tag();
}
