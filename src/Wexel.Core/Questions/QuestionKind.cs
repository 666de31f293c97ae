using Wexel.Core.Contents;
using Wexel.Core.Keys;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Questions;

/// <summary>Questions of a lesson: each stands at a moment; several at one are asked one after the other.</summary>
internal sealed class QuestionKind : PlacedKind<Question>
{
    private const int LongestText = 2000;
    private const int LongestReply = 1000;

    public override string Name => "question";

    public override int Most => 200;

    public override IReadOnlyList<(string Word, Func<Question, Question, bool> Differs)> Changes { get; } =
    [
        ("moved", (a, b) => a.At != b.At || a.When != b.When),
        ("changed", (a, b) => a with { At = default, When = default } != b with { At = default, When = default }),
    ];

    public override string Named(Question thing) => $"the question “{Problem.Shown(thing.Text.Length > 0 ? thing.Text : thing.Asks.InWords)}”";

    public override Question At(Question thing, TimeRange span) => thing with { At = span.Start };

    public override Question Called(Question thing, string id) => thing with { Id = id };

    public override Question Merged(Question before, Question theirs, Question mine)
    {
        T Of<T>(Func<Question, T> part) => Equals(part(mine), part(before)) ? part(theirs) : part(mine);
        return new Question(
            mine.Id,
            Of(q => q.At),
            Of(q => q.Text),
            // What is asked and what is right of it are one thing.
            Documents.WexelJson.Write(mine.Asks) == Documents.WexelJson.Write(before.Asks)
                ? theirs.Asks
                : mine.Asks,
            Of(q => q.When),
            Of(q => q.Points),
            Of(q => q.Must),
            Of(q => q.Tries),
            Of(q => q.Penalty),
            Of(q => q.Right),
            Of(q => q.Wrong),
            mine.Hints.SequenceEqual(before.Hints) ? theirs.Hints : mine.Hints,
            Of(q => q.Again),
            mine.Tags.SequenceEqual(before.Tags) ? theirs.Tags : mine.Tags,
            Of(q => q.Picture)
        );
    }

    public override void Declare(KeyFields key, Question thing)
    {
        key.Add("id", thing.Id)
            .Add("at", thing.At)
            .Add("text", thing.Text)
            .Add("kind", thing.Asks.Kind)
            .Part("asks", thing.Asks, (k, asks) => asks.Declare(k))
            .Add("when", (AskedWhen?)thing.When)
            .Add("points", (double?)thing.Points)
            .Add("must", thing.Must)
            .Add("tries", (long?)thing.Tries)
            .Add("penalty", (long?)thing.Penalty)
            .Add("said-right", thing.Right)
            .Add("said-wrong", thing.Wrong)
            .Each("hints", thing.Hints)
            .Add("again", thing.Again)
            .Each("tags", thing.Tags)
            .Add("picture", thing.Picture);
    }

    public override IReadOnlyList<Question> Tidy(IEnumerable<Question> things, TimeSpan length) =>
        [.. things.Select(q => Tidied(q, length)).Where(q => q.At < length).OrderBy(q => q.At)];

    /// <summary>What is asked inside a cut goes with it; what is asked at a section's or the lesson's end stays as long as there is a lesson.</summary>
    public override IReadOnlyList<Question> Following(IReadOnlyList<Question> things, TimeMap map) =>
        [
            .. things
                .Where(q => map.Kept.Count > 0 && (q.When == AskedWhen.LessonEnd || map.Keeps(q.At) || IsAtJoint(q.At, map)))
                .Select(q => q with { At = map.ToLesson(q.At), Again = q.Again is { } again ? map.ToLesson(again) : null }),
        ];

    public override Question? Carried(Question thing, ReelPlaces places) =>
        base.Carried(thing, places) is { } carried ? carried with { Again = thing.Again is { } again ? places.Moved(again) : null } : null;

    public override IEnumerable<string> Faults(Question thing) => thing.Faults;

    /// <summary>Where a cut begins, what comes before it is kept.</summary>
    private static bool IsAtJoint(TimeSpan at, TimeMap map) => at > TimeSpan.Zero && map.Keeps(at - TimeSpan.FromMilliseconds(1));

    private static Question Tidied(Question question, TimeSpan length) =>
        question with
        {
            At = question.At < TimeSpan.Zero ? TimeSpan.Zero : question.At,
            Text = PlainText.Within(question.Text, LongestText),
            Asks = question.Asks.Tidied(),
            When = Enum.IsDefined(question.When) && !question.Asks.IsOnPicture ? question.When : AskedWhen.Here,
            Points = double.IsFinite(question.Points) ? Math.Round(Math.Clamp(question.Points, 0, Question.MostPoints), 2) : 1,
            Tries = Math.Clamp(question.Tries, 0, Question.MostTries),
            Penalty = Math.Clamp(question.Penalty, 0, 100),
            Right = PlainText.Within(question.Right, LongestReply),
            Wrong = PlainText.Within(question.Wrong, LongestReply),
            Hints = [.. question.Hints.Select(h => SectionRules.OneLine(h, LongestReply)).Where(h => h.Length > 0).Take(Question.MostHints)],
            Tags =
            [
                .. question
                    .Tags.Select(t => SectionRules.OneLine(t, Question.LongestTag).ToLowerInvariant())
                    .Where(t => t.Length > 0)
                    .Distinct()
                    .Take(Question.MostTags),
            ],
            Again = question.Again is { } again && again >= TimeSpan.Zero && again < length ? again : null,
        };
}
