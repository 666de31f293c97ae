using Wexel.Core.Scoring;

namespace Wexel.Core.Learning;

/// <summary>What is known of one learner and one lesson: what all events of the log come to, one after the other.</summary>
/// <param name="Watched">What was watched, of the recordings.</param>
/// <param name="Position">Where to go on; null where nothing was watched.</param>
/// <param name="SeenShare">How much of the lesson that is, 0 to 1, of the revision that was taken last.</param>
/// <param name="CompletedAt">When it was complete first; what is changed of the lesson later does not take it back.</param>
/// <param name="SeenLastAt">When something was reported last.</param>
/// <param name="Name">The learner's name, as it was last; null for somebody whom nobody knows.</param>
/// <param name="Answers">What was answered, question by question.</param>
/// <param name="Score">The points, of the revision that was taken last.</param>
/// <param name="Passed">Whether the lesson was passed or failed; null where that is not decided. Who passed once has passed.</param>
/// <param name="Again">What was watched once more, of the recordings.</param>
public sealed record LearnerState(
    IReadOnlyList<WatchedStretch> Watched,
    RecordingMoment? Position,
    double SeenShare,
    DateTimeOffset? CompletedAt,
    DateTimeOffset? SeenLastAt,
    string? Name,
    IReadOnlyList<AnswerState> Answers,
    LessonScore Score,
    bool? Passed,
    IReadOnlyList<WatchedStretch> Again
)
{
    /// <summary>Raised when the same log comes to something else than before; then all is reckoned again.</summary>
    public const int Version = 3;

    /// <summary>Somebody of whom nothing is known.</summary>
    public static LearnerState None { get; } = new([], null, 0, null, null, null, [], new LessonScore(0, 0), null, []);

    /// <summary>What is known after one more event.</summary>
    /// <param name="happened">The event.</param>
    /// <param name="taken">The revision that it was in.</param>
    public LearnerState After(LearningEvent happened, LessonTaken taken)
    {
        var times = taken.Times;
        var (watched, position, completed) = happened.Act switch
        {
            Watched w => (w.Stretches, w.Position, null),
            WatchedBefore b => (times.ToRecordings(b.Ranges), times.ToRecordings(b.Position), b.CompletedAt),
            _ => ([], null, (DateTimeOffset?)null),
        };
        var all = WatchedStretch.Union(Watched.Concat(watched));
        var attendance = Completion.Judge(times.ToLesson(all), times.Length);
        IReadOnlyList<AnswerState> answers = happened.Act switch
        {
            Answered answered =>
            [
                .. Answers.Where(a => a.Question != answered.Question),
                AnswerState.After(Answers.FirstOrDefault(a => a.Question == answered.Question), answered, happened.At),
            ],
            Rescored again =>
            [
                .. Answers.Select(a => a.Question == again.Question ? a with { Share = again.Share, Right = again.Right, FirstShare = again.FirstShare } : a),
            ],
            _ => Answers,
        };
        var standing = taken.Judge(attendance, answers);
        return new LearnerState(
            all,
            position ?? Position,
            attendance.SeenShare,
            CompletedAt ?? completed ?? (standing.Complete ? happened.At : null),
                // What others reckon is no visit.
                happened.Act is Rescored
                    ? SeenLastAt
                : SeenLastAt is { } last && last > happened.At ? last
                : happened.At,
            happened.Name,
            answers,
            taken.Score(answers),
            Passed == true && happened.Act is not Rescored ? true : standing.Passed,
            happened.Act is Watched { Again.Count: > 0 } more ? WatchedStretch.Union(Again.Concat(more.Again)) : Again
        );
    }

    /// <summary>What a log comes to.</summary>
    /// <param name="log">The events of one learner and lesson, in the order in which they were appended.</param>
    /// <param name="taken">A revision, by its number.</param>
    public static LearnerState Of(IEnumerable<LearningEvent> log, Func<int, LessonTaken> taken)
    {
        var (state, known) = (None, new HashSet<Guid>());
        foreach (var happened in log.Where(e => known.Add(e.Id)))
            state = state.After(happened, taken(happened.Revision));
        return state;
    }
}
