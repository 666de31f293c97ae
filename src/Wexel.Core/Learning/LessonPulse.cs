using Wexel.Core.Timing;

namespace Wexel.Core.Learning;

/// <summary>What one learner did along a lesson.</summary>
/// <param name="Watched">What they watched.</param>
/// <param name="Again">What they watched once more.</param>
/// <param name="Position">Where they were last; null where nobody knows.</param>
/// <param name="IsDone">Whether the lesson is complete for them: then they did not leave it.</param>
public sealed record PulseLearner(IReadOnlyList<WatchedStretch> Watched, IReadOnlyList<WatchedStretch> Again, RecordingMoment? Position, bool IsDone);

/// <summary>What learners did in one step of a lesson.</summary>
/// <param name="At">Where the step begins, along the recordings.</param>
/// <param name="Seen">How many watched it: half of it or more.</param>
/// <param name="Again">How many watched it once more.</param>
/// <param name="Left">How many were there last and have not completed the lesson.</param>
public sealed record PulseStep(TimeSpan At, int Seen, int Again, int Left);

/// <summary>Where learners leave a lesson, and where they watch again: step by step of what is kept of it.</summary>
/// <param name="Step">How long a step is.</param>
/// <param name="Learners">How many learners there are.</param>
/// <param name="Steps">All steps, in order.</param>
public sealed record LessonPulse(TimeSpan Step, int Learners, IReadOnlyList<PulseStep> Steps)
{
    /// <summary>The most steps: more than a page shows apart.</summary>
    public const int MostSteps = 600;

    private static readonly TimeSpan Shortest = TimeSpan.FromSeconds(1);

    /// <summary>Reckons it.</summary>
    /// <param name="times">The lesson as it stands now; what learners did with recordings that it has not is left out.</param>
    /// <param name="learners">What each did.</param>
    public static LessonPulse Of(LessonTimes times, IReadOnlyCollection<PulseLearner> learners)
    {
        var seconds = Math.Max(Shortest.TotalSeconds, Math.Ceiling(times.Length.TotalSeconds / MostSteps));
        var step = TimeSpan.FromSeconds(seconds);
        var count = Math.Max(1, (int)Math.Ceiling(times.Length / step));
        var (seen, again, left) = (new int[count], new int[count], new int[count]);
        foreach (var learner in learners)
        {
            Add(seen, times.ToLesson(learner.Watched));
            Add(again, times.ToLesson(learner.Again));
            if (!learner.IsDone && learner.Position is { } at && times.ToLesson(at) is { } place)
                left[Math.Clamp((int)(place / step), 0, count - 1)]++;
        }

        return new LessonPulse(
            step,
            learners.Count,
            [.. Enumerable.Range(0, count).Select(i => new PulseStep(times.ToReel(times.ToRecordings(i * step)) ?? i * step, seen[i], again[i], left[i]))]
        );

        void Add(int[] steps, IReadOnlyList<TimeRange> ranges)
        {
            var covered = new Dictionary<int, TimeSpan>();
            foreach (var range in ranges)
            {
                for (var i = (int)(range.Start / step); i < count && i * step < range.End; i++)
                {
                    var (from, to) = (i * step > range.Start ? i * step : range.Start, (i + 1) * step < range.End ? (i + 1) * step : range.End);
                    covered[i] = covered.GetValueOrDefault(i) + (to - from);
                }
            }

            foreach (var (i, time) in covered)
            {
                var whole = (i + 1) * step < times.Length ? step : times.Length - (i * step);
                if (time * 2 >= whole)
                    steps[i]++;
            }
        }
    }
}
