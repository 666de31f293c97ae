using System.Text.Json.Serialization;

namespace Wexel.Core.Surveys.Kinds;

/// <summary>Free words.</summary>
/// <param name="Id">A name inside the survey that stays.</param>
/// <param name="Text">What is asked.</param>
public sealed record Comment(string Id, string Text) : SurveyItem(Id, Text)
{
    internal const string Name = "comment";

    /// <summary>The longest that is taken, in characters.</summary>
    public const int Longest = 2000;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    public override IReadOnlyList<string> Taken(IReadOnlyList<string> values) =>
        values is [var text] && PlainText.Within(text, Longest) is { Length: > 0 } said ? [said] : [];

    /// <inheritdoc/>
    public override string Said(IReadOnlyList<string> values) => string.Concat(values);

    /// <inheritdoc/>
    public override SurveyItemResult Result(IReadOnlyList<IReadOnlyList<string>> replies) =>
        new(Id, Kind, Text, replies.Count, [], null, [.. replies.Select(r => r[0]).Order(StringComparer.InvariantCultureIgnoreCase)]);
}
