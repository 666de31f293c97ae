using Wexel.Core.Questions;
using Wexel.Core.Scoring;

namespace Wexel.Core.Learning;

/// <summary>An answer as it is counted.</summary>
/// <param name="Words">What was taken or typed.</param>
/// <param name="Count">How many learners did, the first time they answered.</param>
/// <param name="Right">Whether it is right.</param>
public sealed record AnswerCount(string Words, int Count, bool Right);

/// <summary>What came of a question.</summary>
/// <param name="Question">Its name inside the lesson.</param>
/// <param name="Statistics">What it did among learners.</param>
/// <param name="Answers">How often each answer was taken, the most frequent first.</param>
/// <param name="Others">How many took an answer that is not listed.</param>
public sealed record QuestionResult(string Question, ItemStatistics Statistics, IReadOnlyList<AnswerCount> Answers, int Others)
{
    /// <summary>Whether most of those who answered missed it.</summary>
    public bool IsMissedByMost => Statistics is { Answers: >= LessonResults.FewestToTell, Difficulty: < 0.5 };
}

/// <summary>What came of all questions of a lesson. All of it goes by each learner's first answers: later ones were helped.</summary>
/// <param name="Questions">Each question, in order.</param>
/// <param name="Whole">How many learners answered all of them.</param>
/// <param name="Alpha">How reliable the whole is, see <see cref="TestStatistics.Alpha"/>.</param>
public sealed record LessonResults(IReadOnlyList<QuestionResult> Questions, int Whole, double? Alpha)
{
    /// <summary>Of fewer learners nothing is concluded (common practice, no source).</summary>
    public const int FewestToTell = 5;

    private const int MostAnswers = 12;

    /// <summary>Reckons them.</summary>
    /// <param name="questions">What the lesson asks.</param>
    /// <param name="learners">What each learner answered.</param>
    public static LessonResults Of(IReadOnlyList<Question> questions, IReadOnlyList<IReadOnlyList<AnswerState>> learners)
    {
        var place = questions.Select((q, i) => (q.Id, i)).ToDictionary();
        var shares = new List<IReadOnlyList<double?>>(learners.Count);
        var counts = questions.Select(_ => new Dictionary<string, (int Count, bool Right)>(StringComparer.OrdinalIgnoreCase)).ToList();
        // What was taken of one answer is the same whoever gave it, and many give the same.
        var taken = questions.Select(_ => new Dictionary<string, IReadOnlyList<(string Words, bool Right)>>(StringComparer.Ordinal)).ToList();
        foreach (var learner in learners)
        {
            var own = new double?[questions.Count];
            foreach (var answer in learner)
            {
                if (!place.TryGetValue(answer.Question, out var i))
                    continue;
                own[i] = answer.FirstShare;
                var key = string.Join('\n', answer.First);
                if (!taken[i].TryGetValue(key, out var all))
                    taken[i][key] = all = [.. questions[i].Asks.Taken(answer.First)];
                foreach (var (words, right) in all)
                    counts[i][words] = (counts[i].GetValueOrDefault(words).Count + 1, right);
            }

            shares.Add(own);
        }

        var found = TestStatistics.Of(shares, [.. questions.Select(q => q.Points > 0 ? q.Points : 1)]);
        return new LessonResults(
            [
                .. questions.Select(
                    (q, i) =>
                        new QuestionResult(
                            q.Id,
                            found.Items[i],
                            [
                                .. counts[i]
                                    .OrderByDescending(c => c.Value.Count)
                                    .ThenBy(c => c.Key, StringComparer.Ordinal)
                                    .Take(MostAnswers)
                                    .Select(c => new AnswerCount(c.Key, c.Value.Count, c.Value.Right)),
                            ],
                            counts[i].OrderByDescending(c => c.Value.Count).Skip(MostAnswers).Sum(c => c.Value.Count)
                        )
                ),
            ],
            found.Learners,
            found.Alpha
        );
    }
}
