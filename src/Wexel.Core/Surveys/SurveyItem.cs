using System.Text.Json.Serialization;
using Wexel.Core.Contents;
using Wexel.Core.Keys;
using Wexel.Core.Surveys.Kinds;

namespace Wexel.Core.Surveys;

/// <summary>
/// One thing that a survey asks; nobody has to answer it. A kind is a class in <c>Kinds</c>; a line here registers it, and nothing else in Core
/// has to know it. Desk and player have a part for each too, by the same name.
/// </summary>
/// <param name="Id">A name inside the survey that stays.</param>
/// <param name="Text">What is asked.</param>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(Scale), Scale.Name)]
[JsonDerivedType(typeof(Choice), Choice.Name)]
[JsonDerivedType(typeof(Comment), Comment.Name)]
public abstract record SurveyItem(string Id, string Text)
{
    /// <summary>The longest text, in characters.</summary>
    public const int LongestText = 500;

    /// <summary>Its kind, as documents write it.</summary>
    [JsonIgnore]
    public abstract string Kind { get; }

    /// <summary>Why it cannot be asked yet, each in a sentence that says what to do; none where it can.</summary>
    [JsonIgnore]
    public virtual IEnumerable<string> Faults => Text.Length == 0 ? ["It asks nothing. Write what you want to know."] : [];

    /// <summary>As it is saved: texts within their limits.</summary>
    public virtual SurveyItem Tidied() => this with { Text = SectionRules.OneLine(Text ?? "", LongestText) };

    /// <summary>Writes all of it that makes a difference.</summary>
    public virtual void Declare(KeyFields key) => key.Add("id", Id).Add("kind", Kind).Add("text", Text);

    /// <summary>What of a reply counts: values that can be given to it, each once.</summary>
    /// <param name="values">What a browser sent.</param>
    public abstract IReadOnlyList<string> Taken(IReadOnlyList<string> values);

    /// <summary>A reply as it is read in a table.</summary>
    /// <param name="values">What was <see cref="Taken"/>.</param>
    public abstract string Said(IReadOnlyList<string> values);

    /// <summary>What all replies to it come to.</summary>
    /// <param name="replies">What was <see cref="Taken"/> of each reply that answers it; none is empty.</param>
    public abstract SurveyItemResult Result(IReadOnlyList<IReadOnlyList<string>> replies);
}

/// <summary>What the replies to one item of a survey come to.</summary>
/// <param name="Id">The item's name inside the survey.</param>
/// <param name="Kind">Its kind.</param>
/// <param name="Text">What was asked.</param>
/// <param name="Answered">How many answered it.</param>
/// <param name="Counts">How often each value was given, all values in order; empty for what is written freely.</param>
/// <param name="Mean">The mean of a scale; null for others, and where nobody answered.</param>
/// <param name="Comments">What was written, in alphabetical order, so that the order of replies says nothing.</param>
public sealed record SurveyItemResult(
    string Id,
    string Kind,
    string Text,
    int Answered,
    IReadOnlyList<SurveyCount> Counts,
    double? Mean,
    IReadOnlyList<string> Comments
);

/// <summary>How often something was given.</summary>
/// <param name="Words">What.</param>
/// <param name="Count">How often.</param>
public sealed record SurveyCount(string Words, int Count);
