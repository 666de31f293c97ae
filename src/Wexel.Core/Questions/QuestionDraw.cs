using Wexel.Core.Keys;

namespace Wexel.Core.Questions;

/// <summary>Of some questions of a lesson, each learner is asked only so many.</summary>
/// <param name="Tag">The tag that the questions have.</param>
/// <param name="Take">How many of them each learner is asked, 1 or more.</param>
public sealed record QuestionDraw(string Tag, int Take)
{
    /// <summary>The most that one lesson may have.</summary>
    public const int Most = 20;

    internal static void Declare(KeyFields key, QuestionDraw draw) => key.Add("tag", draw.Tag).Add("take", (long?)draw.Take);

    /// <summary>As they are saved: of each tag one, and each takes something.</summary>
    public static IReadOnlyList<QuestionDraw> Tidied(IEnumerable<QuestionDraw> draws) =>
        [.. draws.Where(d => d is { Tag.Length: > 0 and <= Question.LongestTag, Take: > 0 }).DistinctBy(d => d.Tag).Take(Most)];
}

/// <summary>Some questions of which so many are asked.</summary>
/// <param name="Of">The questions, by their names.</param>
/// <param name="Take">How many of them.</param>
public sealed record DrawnFrom(IReadOnlyList<string> Of, int Take)
{
    /// <summary>From which questions of a lesson is drawn, and how many. A question that has several tags belongs to the first.</summary>
    /// <param name="questions">The lesson's questions.</param>
    /// <param name="draws">How many of what.</param>
    public static IReadOnlyList<DrawnFrom> In(IReadOnlyList<Question> questions, IReadOnlyList<QuestionDraw> draws)
    {
        var taken = new HashSet<string>();
        return
        [
            .. draws
                .Select(d => new DrawnFrom([.. questions.Where(q => q.Tags.Contains(d.Tag) && taken.Add(q.Id)).Select(q => q.Id)], d.Take))
                .Where(d => d.Of.Count > d.Take),
        ];
    }

    /// <summary>The questions that somebody is not asked; the same for the same learner, however often it is reckoned.</summary>
    /// <param name="draws">From which questions is drawn.</param>
    /// <param name="learner">What names the learner.</param>
    public static IReadOnlySet<string> NotAsked(IReadOnlyList<DrawnFrom> draws, string learner) =>
        draws.SelectMany(d => d.Of.OrderBy(id => Lot(learner, id)).ThenBy(id => id, StringComparer.Ordinal).Skip(d.Take)).ToHashSet();

    /// <summary>The lot of a question: FNV-1a of 32 bits over both names in UTF-8, mixed once more as MurmurHash3 ends (values from memory). Held to
    /// the player by tests/vectors/draw.json.</summary>
    internal static uint Lot(string learner, string question)
    {
        var hash = 2166136261u;
        foreach (var b in System.Text.Encoding.UTF8.GetBytes($"{learner}\n{question}"))
            hash = unchecked((hash ^ b) * 16777619u);
        hash = unchecked((hash ^ (hash >> 16)) * 0x85ebca6bu);
        hash = unchecked((hash ^ (hash >> 13)) * 0xc2b2ae35u);
        return hash ^ (hash >> 16);
    }

    /// <summary>Whether both are the same.</summary>
    public bool Equals(DrawnFrom? other) => other is not null && Take == other.Take && Of.SequenceEqual(other.Of);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Take, Of.Count);
}
