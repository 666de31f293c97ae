using System.Text.Json.Serialization;
using Wexel.Core.Contents;
using Wexel.Core.Questions;
using Wexel.Core.Scoring;

namespace Wexel.Core.Packages;

/// <summary>A question as the player asks it.</summary>
/// <param name="Id">Its name inside the lesson.</param>
/// <param name="At">When it is asked, in lesson time; the lesson's end for those that come last.</param>
/// <param name="Text">What is asked.</param>
/// <param name="Form">How it is answered.</param>
/// <param name="Points">What it counts.</param>
/// <param name="Must">Whether the lesson goes on only when it is answered.</param>
/// <param name="Tries">How often it may be answered; 0 for as often as somebody wants.</param>
/// <param name="Hints">Hints, one after the other.</param>
/// <param name="Again">From where to watch again, in lesson time; null for nowhere.</param>
/// <param name="Key">By what the player judges it; null where a server does, and what is right is not on the page.</param>
/// <param name="Picture">Where the picture that stands with it lies, relative to the page; null for none.</param>
public sealed record PlayerQuestion(
    string Id,
    TimeSpan At,
    string Text,
    AskedForm Form,
    double Points,
    bool Must,
    int Tries,
    IReadOnlyList<string> Hints,
    TimeSpan? Again,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] PlayerKey? Key = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Picture = null
)
{
    /// <summary>Questions as the player asks them, in the order in which they are asked.</summary>
    /// <param name="questions">They, in lesson time.</param>
    /// <param name="sections">The contents, in lesson time.</param>
    /// <param name="length">The lesson's length.</param>
    public static IReadOnlyList<PlayerQuestion> List(IReadOnlyList<Question> questions, IReadOnlyList<Section> sections, TimeSpan length) =>
        [.. questions.Select(q => Asked(q, AskedAt(q, sections, length))).OrderBy(q => q.At)];

    /// <summary>When a question is asked, in lesson time.</summary>
    /// <param name="question">It, in lesson time.</param>
    /// <param name="sections">The contents, in lesson time.</param>
    /// <param name="length">The lesson's length.</param>
    public static TimeSpan AskedAt(Question question, IReadOnlyList<Section> sections, TimeSpan length) =>
        question.When switch
        {
            AskedWhen.LessonEnd => length,
            AskedWhen.SectionEnd => sections.FirstOrDefault(s => s.At > question.At)?.At ?? length,
            _ => question.At,
        };

    private static PlayerQuestion Asked(Question question, TimeSpan at) =>
        new(
            question.Id,
            at,
            question.Text,
            question.Asks.Form(question.Id),
            question.Points,
            question.Must,
            question.Tries,
            question.Hints,
            question.Again,
            new PlayerKey(question.Asks.Key, question.Penalty, question.Right, question.Wrong, question.Asks.RightInWords),
            LessonFiles.ShownOf(question.Picture)
        );
}

/// <summary>By what the player judges an answer where no server does.</summary>
/// <param name="Judge">What is right.</param>
/// <param name="Penalty">How much of the points every try after the first takes away, in per cent.</param>
/// <param name="Right">What is said to a right answer; empty for nothing more.</param>
/// <param name="Wrong">What is said to one that is not wholly right; empty for nothing more.</param>
/// <param name="Answer">The right answer in words, shown when no try is left.</param>
public sealed record PlayerKey(AnswerKey Judge, int Penalty, string Right, string Wrong, string Answer);
