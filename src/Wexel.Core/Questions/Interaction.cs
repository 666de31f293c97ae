using System.Text.Json.Serialization;
using Wexel.Core.Contents;
using Wexel.Core.Keys;
using Wexel.Core.Questions.Kinds;
using Wexel.Core.Scoring;

namespace Wexel.Core.Questions;

/// <summary>
/// What is asked of a learner, and what is right. A kind is a class in <c>Kinds</c>; a line here registers it, and nothing else in Core
/// has to know it. Desk and player have a part for each too, by the same name.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(ChooseOne), ChooseOne.Name)]
[JsonDerivedType(typeof(ChooseSeveral), ChooseSeveral.Name)]
[JsonDerivedType(typeof(TrueOrFalse), TrueOrFalse.Name)]
[JsonDerivedType(typeof(ShortText), ShortText.Name)]
[JsonDerivedType(typeof(NumberTyped), NumberTyped.Name)]
[JsonDerivedType(typeof(PutInOrder), PutInOrder.Name)]
[JsonDerivedType(typeof(MatchPairs), MatchPairs.Name)]
[JsonDerivedType(typeof(FillGaps), FillGaps.Name)]
[JsonDerivedType(typeof(ClickPlace), ClickPlace.Name)]
public abstract record Interaction
{
    /// <summary>The most options, items, pairs or areas that one may have.</summary>
    public const int MostOptions = 30;

    /// <summary>The longest text of an option, in characters.</summary>
    public const int LongestOption = 500;

    /// <summary>Its kind, as documents write it.</summary>
    [JsonIgnore]
    public abstract string Kind { get; }

    /// <summary>Its kind, as people read it: "one of several".</summary>
    [JsonIgnore]
    public abstract string InWords { get; }

    /// <summary>By what an answer is judged.</summary>
    [JsonIgnore]
    public abstract AnswerKey Key { get; }

    /// <summary>What learners see of it; nothing in it says what is right.</summary>
    /// <param name="seed">By which what must not stand in the right order is mixed; the same gives the same.</param>
    public abstract AskedForm Form(string seed);

    /// <summary>Why it cannot be asked yet, each in a sentence that says what to do; none where it can.</summary>
    [JsonIgnore]
    public abstract IEnumerable<string> Faults { get; }

    /// <summary>As it is saved: texts on one line and within their limits, names that tell apart.</summary>
    public abstract Interaction Tidied();

    /// <summary>Writes all of it that makes a difference.</summary>
    public abstract void Declare(KeyFields key);

    /// <summary>Whether it is about the picture at its moment, so that it can be asked nowhere else.</summary>
    [JsonIgnore]
    public virtual bool IsOnPicture => false;

    /// <summary>The same where what lies on the recording's picture lies elsewhere on what learners see.</summary>
    /// <param name="seen">Where a place is seen, both as shares.</param>
    public virtual Interaction Seen(Func<Place, Place> seen) => this;

    /// <summary>An answer as people read it.</summary>
    /// <param name="answer">Its values.</param>
    public virtual string Said(IReadOnlyList<string> answer) => string.Join(", ", answer);

    /// <summary>What of it was taken by an answer, each by itself, to be counted: its words, and whether it is right.</summary>
    /// <param name="answer">The values of the answer.</param>
    public virtual IEnumerable<(string Words, bool Right)> Taken(IReadOnlyList<string> answer)
    {
        if (Key.Responses is not [var response])
            return [(Said(answer), Key.Judge(answer).Right)];
        IReadOnlyList<string> taken = [.. answer.Select(value => Key.TakenFor(response, value))];
        return [(Said(taken), Key.Judge(taken).Right)];
    }

    /// <summary>The right answer as people read it; empty where there is none.</summary>
    [JsonIgnore]
    public virtual string RightInWords => string.Join(" · ", Key.Responses.Select(r => Said(r.Correct)));

    /// <summary>A text on one line.</summary>
    protected static string Line(string? text) => SectionRules.OneLine(text ?? "", LongestOption);

    /// <summary>A reply as it is saved; null for none.</summary>
    protected static string? Reply(string? text) => Line(text) is { Length: > 0 } line ? line : null;

    /// <summary>A sentence for texts of which two are the same; none where all differ.</summary>
    protected static IEnumerable<string> SameTwice(IEnumerable<string> texts, string what, StringComparer? by = null) =>
        texts
            .Where(t => t.Length > 0)
            .GroupBy(t => t, by ?? StringComparer.OrdinalIgnoreCase)
            .Where(g => g.Count() > 1)
            .Select(g => $"Two {what} say “{Problem.Shown(g.Key)}”: nobody can tell them apart. Change one.");

    /// <summary>Things in an order that says nothing, and is always the same.</summary>
    protected static IEnumerable<T> Mixed<T>(IEnumerable<T> things, string seed, Func<T, string> id) =>
        things.OrderBy(t => MadeKey.Hash("mixed-1", k => k.Add("seed", seed).Add("id", id(t))), StringComparer.Ordinal);
}

/// <summary>What learners see of a question besides its text: the same for all kinds, each with what it needs.</summary>
/// <param name="Kind">Which kind it is.</param>
/// <param name="Options">What is chosen, put in order, or matched.</param>
/// <param name="Targets">What options are matched with, or words for gaps.</param>
/// <param name="Parts">The text around gaps; one more than there are gaps.</param>
/// <param name="Unit">The unit of a number.</param>
/// <param name="Shuffle">Whether each learner gets the options in another order.</param>
public sealed record AskedForm(
    string Kind,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<AskedOption>? Options = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<AskedOption>? Targets = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<string>? Parts = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Unit = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool Shuffle = false
);

/// <summary>Something that a learner can take.</summary>
/// <param name="Id">What names it in an answer.</param>
/// <param name="Text">What it says.</param>
public sealed record AskedOption(string Id, string Text);
