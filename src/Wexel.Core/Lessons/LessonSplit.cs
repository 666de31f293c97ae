using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Lessons;

/// <summary>A lesson that becomes two at a place: both keep the whole recording, and each has cut what is the other's, so that every edge can be moved
/// later.</summary>
/// <param name="First">What comes before the place.</param>
/// <param name="Second">What comes from there on.</param>
public sealed record LessonSplit(LessonDocument First, LessonDocument Second)
{
    /// <summary>Splits a lesson.</summary>
    /// <param name="document">The lesson.</param>
    /// <param name="at">Where, in recording time.</param>
    /// <param name="map">The lesson's times.</param>
    /// <returns>The two, or why it cannot be split there.</returns>
    public static Result<LessonSplit> At(LessonDocument document, TimeSpan at, TimeMap map)
    {
        var place = map.ToLesson(at);
        if (at <= TimeSpan.Zero || place <= TimeSpan.Zero || place >= map.Length)
            return new Problem(
                "split-one-side",
                $"Nothing is kept {(place >= map.Length ? "after" : "before")} {TimeCode.Brief(at)}; go to a place with something on both sides.",
                "at"
            );
        var first = PlacedLists.Set(
            document with
            {
                Cuts = TimeRange.Union([.. document.Cuts, new TimeRange(at, map.RecordingLength)]),
                Picture = document.Picture?.At >= at ? null : document.Picture,
            },
            new Side(document, at, IsFirst: true)
        );
        var second = PlacedLists.Set(
            document with
            {
                Title = document.Title.Length == 0 ? "" : $"{document.Title}, part 2",
                Cuts = TimeRange.Union([.. document.Cuts, new TimeRange(TimeSpan.Zero, at)]),
                Picture = document.Picture?.At < at ? null : document.Picture,
            },
            new Side(document, at, IsFirst: false)
        );
        return new LessonSplit(first, second);
    }

    private sealed record Side(LessonDocument Document, TimeSpan At, bool IsFirst) : IPlacedWork
    {
        public IReadOnlyList<T> Do<T>(PlacedKind<T> kind, Func<object, IReadOnlyList<T>> list)
            where T : class, IPlaced<T> => IsFirst ? kind.Before(list(Document), At) : kind.From(list(Document), At);
    }
}
