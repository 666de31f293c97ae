using System.Text.Json;
using System.Text.Json.Serialization;
using Wexel.Core.Documents;
using Wexel.Core.Placing;
using Wexel.Core.Questions.Kinds;
using Wexel.Core.Timing;

namespace Wexel.Core.Questions;

/// <summary>When a question is asked.</summary>
public enum AskedWhen
{
    /// <summary>At its moment.</summary>
    Here,

    /// <summary>At the end of the section in which its moment lies.</summary>
    SectionEnd,

    /// <summary>At the lesson's end.</summary>
    LessonEnd,
}

/// <summary>Something that learners are asked.</summary>
public sealed record Question : IPlaced<Question>, IJsonOnDeserialized
{
    /// <summary>The most tries that may be given.</summary>
    public const int MostTries = 10;

    /// <summary>The most hints.</summary>
    public const int MostHints = 5;

    /// <summary>The most tags.</summary>
    public const int MostTags = 10;

    /// <summary>The longest tag, in characters.</summary>
    public const int LongestTag = 40;

    /// <summary>The most points.</summary>
    public const double MostPoints = 1000;

    /// <param name="id">A name that stays when it is moved or changed.</param>
    /// <param name="at">Where it stands, in recording time.</param>
    /// <param name="text">What is asked.</param>
    /// <param name="asks">How it is answered, and what is right.</param>
    /// <param name="when">When it is asked.</param>
    /// <param name="points">What it counts; 0 for nothing.</param>
    /// <param name="must">Whether the lesson goes on only when it is answered.</param>
    /// <param name="tries">How often it may be answered; 0 for as often as somebody wants.</param>
    /// <param name="penalty">How much of the points every try after the first takes away, in per cent.</param>
    /// <param name="right">What is said to a right answer; empty for nothing more.</param>
    /// <param name="wrong">What is said to one that is not wholly right.</param>
    /// <param name="hints">Hints, given one after the other when somebody asks.</param>
    /// <param name="again">From where to watch again, in recording time; null for nowhere.</param>
    /// <param name="tags">Words by which it is found, and drawn with others that have the same.</param>
    /// <param name="picture">The key of a picture that stands with it; null for none.</param>
    [JsonConstructor]
    public Question(
        string id,
        TimeSpan at,
        string text,
        Interaction asks,
        AskedWhen when = AskedWhen.Here,
        double points = 1,
        bool must = false,
        int tries = 1,
        int penalty = 0,
        string? right = null,
        string? wrong = null,
        IReadOnlyList<string>? hints = null,
        TimeSpan? again = null,
        IReadOnlyList<string>? tags = null,
        string? picture = null
    )
    {
        // What was read may lack what its kind cannot be without.
        (Id, At, Text, Asks, When, Points, Must) = (id, at, text, asks?.Tidied()!, when, points, must);
        (Tries, Penalty, Right, Wrong, Hints, Again) = (tries, penalty, right ?? "", wrong ?? "", hints ?? [], again);
        (Tags, Picture) = (tags ?? [], picture);
    }

    /// <inheritdoc cref="QuestionKind"/>
    public static PlacedKind<Question> Kind { get; } = new QuestionKind();

    /// <inheritdoc/>
    public string Id { get; init; }

    /// <summary>Where it stands, in recording time.</summary>
    public TimeSpan At { get; init; }

    /// <summary>What is asked, plain text.</summary>
    public string Text { get; init; }

    /// <summary>How it is answered, and what is right.</summary>
    public Interaction Asks { get; init; }

    /// <summary>When it is asked.</summary>
    public AskedWhen When { get; init; }

    /// <summary>What it counts; 0 for nothing.</summary>
    public double Points { get; init; }

    /// <summary>Whether the lesson goes on only when it is answered.</summary>
    public bool Must { get; init; }

    /// <summary>How often it may be answered; 0 for as often as somebody wants.</summary>
    public int Tries { get; init; }

    /// <summary>How much of the points every try after the first takes away, in per cent.</summary>
    public int Penalty { get; init; }

    /// <summary>What is said to a right answer; empty for nothing more.</summary>
    public string Right { get; init; }

    /// <summary>What is said to one that is not wholly right; empty for nothing more.</summary>
    public string Wrong { get; init; }

    /// <summary>Hints, given one after the other when somebody asks.</summary>
    public IReadOnlyList<string> Hints { get; init; }

    /// <summary>From where to watch again, in recording time; null for nowhere.</summary>
    public TimeSpan? Again { get; init; }

    /// <summary>Words by which it is found, and drawn with others that have the same.</summary>
    public IReadOnlyList<string> Tags { get; init; }

    /// <summary>The key of a picture that stands with it; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Picture { get; init; }

    TimeRange IPlaced.Span => new(At, At);

    /// <summary>Why it cannot be asked yet, each in a sentence that says what to do; none where it can.</summary>
    [JsonIgnore]
    public IReadOnlyList<string> Faults =>
        Text.Length == 0 && Asks is not FillGaps ? ["It asks nothing. Write the question.", .. Asks.Faults] : [.. Asks.Faults];

    /// <summary>Whether both say the same.</summary>
    public bool Equals(Question? other) => other is not null && (ReferenceEquals(this, other) || WexelJson.Write(this) == WexelJson.Write(other));

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Id, At, Text);

    /// <summary>What was read may lack what nobody could do without.</summary>
    /// <exception cref="JsonException">It does not say what it asks.</exception>
    void IJsonOnDeserialized.OnDeserialized()
    {
        if (Asks is null || Text is null || Hints.Any(h => h is null) || Tags.Any(t => t is null))
            throw new JsonException("A question does not say what it asks.");
    }
}
