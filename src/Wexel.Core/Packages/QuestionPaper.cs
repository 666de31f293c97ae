using System.Net;
using System.Text;
using Wexel.Core.Questions;
using Wexel.Core.Timing;

namespace Wexel.Core.Packages;

/// <summary>A lesson's questions as a document for printing: what is asked on the first pages, what is right on a page of its own.</summary>
public static class QuestionPaper
{
    private const string Style = """
        body { font: 12pt/1.4 serif; margin: 2cm; max-width: 17cm }
        h1 { font-size: 18pt }
        ol > li { margin: 0 0 14pt; break-inside: avoid }
        p, ul { margin: 2pt 0 }
        ul { list-style: none; padding-left: 0 }
        li li::before { content: "☐ " }
        .order li::before { content: "___ " }
        .line { border-bottom: 1px solid #000; display: inline-block; min-width: 7cm }
        td { padding: 2pt 18pt 2pt 0 }
        .points { color: #555 }
        .answers { break-before: page }
        """;

    /// <summary>The document, as HTML that stands by itself.</summary>
    /// <param name="title">The lesson's title.</param>
    /// <param name="language">Its language, as a BCP 47 tag.</param>
    /// <param name="questions">What it asks; what cannot be asked yet is left out.</param>
    public static string Html(string title, string language, IReadOnlyList<Question> questions)
    {
        IReadOnlyList<Question> asked = [.. questions.Where(q => q.Faults.Count == 0)];
        var html = new StringBuilder(
            $"<!doctype html>\n<html lang=\"{Text(language)}\">\n<head><meta charset=\"utf-8\"><title>{Text(title)}: questions</title>\n"
        );
        html.Append($"<style>\n{Style}\n</style></head>\n<body>\n");
        html.Append($"<h1>{Text(title)}</h1>\n<p>Name: <span class=\"line\"></span></p>\n<ol>\n");
        foreach (var question in asked)
            html.Append($"<li>{Asked(question)}</li>\n");
        html.Append($"</ol>\n<section class=\"answers\">\n<h1>{Text(title)}: answers</h1>\n<ol>\n");
        foreach (var question in asked)
            html.Append($"<li>{Lines(question.Text)}<p><strong>{Text(question.Asks.RightInWords)}</strong></p></li>\n");
        return html.Append("</ol>\n</section>\n</body>\n</html>\n").ToString();
    }

    private static string Asked(Question question)
    {
        var form = question.Asks.Form(question.Id);
        var points = question.Points > 0 ? $"<p class=\"points\">{question.Points:0.##} {(question.Points == 1 ? "point" : "points")}</p>" : "";
        return Lines(question.Text) + points + Answered(form, question);
    }

    private static string Answered(AskedForm form, Question question) =>
        form switch
        {
            { Parts: { } parts } => $"<p>{string.Join("<span class=\"line\"></span>", parts.Select(Text))}</p>{Choices(form.Targets)}",
            { Targets: { } targets, Options: { } options } => $"<table>{Rows(options, targets)}</table>",
            _ when question.Asks.IsOnPicture => $"<p>On the picture at {TimeCode.Brief(question.At)}:</p>{Choices(form.Options)}",
            { Options: { } options } => Choices(options, question.Asks.Key.Responses[0].Cardinality == Scoring.Cardinality.Ordered ? "order" : ""),
            _ => $"<p><span class=\"line\"></span> {Text(form.Unit ?? "")}</p>",
        };

    private static string Choices(IReadOnlyList<AskedOption>? options, string kind = "") =>
        options is null ? "" : $"<ul{(kind.Length > 0 ? $" class=\"{kind}\"" : "")}>{string.Concat(options.Select(o => $"<li>{Text(o.Text)}</li>"))}</ul>";

    private static string Rows(IReadOnlyList<AskedOption> left, IReadOnlyList<AskedOption> right)
    {
        string Left(int i) => i < left.Count ? $"___ {Text(left[i].Text)}" : "";
        string Right(int i) => i < right.Count ? $"{(char)('A' + i)} {Text(right[i].Text)}" : "";
        return string.Concat(Enumerable.Range(0, Math.Max(left.Count, right.Count)).Select(i => $"<tr><td>{Left(i)}</td><td>{Right(i)}</td></tr>"));
    }

    private static string Lines(string text) => string.Concat(text.Split('\n').Where(l => l.Length > 0).Select(line => $"<p>{Text(line)}</p>"));

    private static string Text(string text) => WebUtility.HtmlEncode(text);
}
