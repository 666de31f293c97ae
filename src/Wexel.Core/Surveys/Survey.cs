using System.Text.Json;
using System.Text.Json.Serialization;
using Wexel.Core.Contents;
using Wexel.Core.Keys;

namespace Wexel.Core.Surveys;

/// <summary>What learners are asked at a lesson's end, about the lesson and not about what they learnt.</summary>
/// <param name="Title">What it is called.</param>
/// <param name="Named">Whether the trainer sees who replied; learners are told so.</param>
/// <param name="Items">What is asked, in order.</param>
public sealed record Survey(string Title, bool Named, IReadOnlyList<SurveyItem> Items) : IJsonOnDeserialized
{
    /// <summary>The most items.</summary>
    public const int MostItems = 30;

    /// <summary>The longest name of an item, in characters.</summary>
    public const int LongestId = 64;

    private const int LongestTitle = 200;

    /// <summary>Why it cannot be asked yet, each in a sentence that says what to do; none where it can.</summary>
    [JsonIgnore]
    public IReadOnlyList<string> Faults =>
        Items.Count == 0
            ? ["The survey asks nothing. Add something to it, or delete it."]
            : [.. Items.SelectMany((item, i) => item.Faults.Select(fault => $"In the survey, at {i + 1}: {fault}"))];

    /// <summary>As it is saved: texts within their limits, names that tell apart.</summary>
    public Survey Tidied() =>
        this with
        {
            Title = SectionRules.OneLine(Title, LongestTitle),
            Items = [.. Items.Where(i => i is { Id.Length: > 0 and <= LongestId }).DistinctBy(i => i.Id).Take(MostItems).Select(i => i.Tidied())],
        };

    /// <summary>What of a reply counts, item by item; empty where nothing does.</summary>
    /// <param name="values">What a browser sent, by the names of items.</param>
    public IReadOnlyDictionary<string, IReadOnlyList<string>> Taken(IReadOnlyDictionary<string, IReadOnlyList<string>> values) =>
        Items
            .Select(item => (item.Id, Taken: values.TryGetValue(item.Id, out var given) && given is not null ? item.Taken(given) : []))
            .Where(reply => reply.Taken.Count > 0)
            .ToDictionary(reply => reply.Id, reply => reply.Taken);

    /// <summary>Writes all of it that makes a difference.</summary>
    internal static void Declare(KeyFields key, Survey survey) =>
        key.Add("title", survey.Title).Add("named", survey.Named).Each("items", survey.Items, (k, item) => item.Declare(k));

    /// <summary>Whether both ask the same.</summary>
    public bool Equals(Survey? other) => other is not null && Title == other.Title && Named == other.Named && Items.SequenceEqual(other.Items);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Title, Named, Items.Count);

    /// <summary>What was read may lack what nobody could do without.</summary>
    /// <exception cref="JsonException">It does not say what it asks.</exception>
    void IJsonOnDeserialized.OnDeserialized()
    {
        if (Title is null || Items is null || Items.Any(i => i is null))
            throw new JsonException("A survey does not say what it asks.");
    }
}
