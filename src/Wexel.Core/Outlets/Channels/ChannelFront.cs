namespace Wexel.Core.Outlets.Channels;

/// <summary>In which order a learner wants to see the lessons of a channel.</summary>
public enum ListOrder
{
    /// <summary>As the trainer teaches them, course by course: what holds where nobody says otherwise.</summary>
    Teaching,

    /// <summary>What was released last first.</summary>
    Newest,

    /// <summary>By their titles.</summary>
    Name,

    /// <summary>The shortest first.</summary>
    Length,

    /// <summary>What most learners began first.</summary>
    Watched,
}

/// <summary>How far a learner is in a lesson.</summary>
/// <param name="At">Where they left it, in lesson time.</param>
/// <param name="SeenShare">How much of it they have seen, 0 to 1.</param>
/// <param name="Complete">Whether that was enough.</param>
/// <param name="Last">When they watched it last.</param>
public sealed record LessonSeen(TimeSpan At, double SeenShare, bool Complete, DateTimeOffset Last);

/// <summary>A lesson on a channel's front page.</summary>
/// <param name="Token">What stands in its address.</param>
/// <param name="Lesson">Which lesson it is.</param>
/// <param name="Course">Its course.</param>
/// <param name="CourseTitle">What that is called.</param>
/// <param name="Position">Its place in the course, from 1.</param>
/// <param name="Title">What it is called where there is little room.</param>
/// <param name="About">What it is about, in a line; may be empty.</param>
/// <param name="Language">The language of both, a tag of BCP 47; null where it is not said.</param>
/// <param name="Tags">What it is filed under.</param>
/// <param name="Length">How long it is.</param>
/// <param name="HasPicture">Whether there is a picture by which it is known.</param>
/// <param name="ReleasedAt">When it was released first.</param>
/// <param name="Learners">How many learners began it.</param>
/// <param name="Seen">How far whoever looks is in it; null where they have not begun.</param>
public sealed record ChannelLesson(
    string Token,
    Guid Lesson,
    Guid Course,
    string CourseTitle,
    int Position,
    string Title,
    string About,
    string? Language,
    IReadOnlyList<string> Tags,
    TimeSpan Length,
    bool HasPicture,
    DateTimeOffset ReleasedAt,
    int Learners,
    LessonSeen? Seen
);

/// <summary>Lessons under one heading.</summary>
/// <param name="Course">The course; null where they are in no course's order.</param>
/// <param name="Title">What that is called; null likewise.</param>
/// <param name="Lessons">The lessons, in the order in which they are shown.</param>
public sealed record ChannelPart(Guid? Course, string? Title, IReadOnlyList<ChannelLesson> Lessons)
{
    /// <summary>How long all of them are.</summary>
    public TimeSpan Length => TimeSpan.FromTicks(Lessons.Sum(l => l.Length.Ticks));

    /// <summary>How much of all of them was seen, 0 to 1.</summary>
    public double SeenShare => Length == TimeSpan.Zero ? 0 : Lessons.Sum(l => l.Length / Length * (l.Seen?.SeenShare ?? 0));
}

/// <summary>What stands on a channel's front page for whoever looks: its lessons in an order, and where they go on.</summary>
/// <param name="Parts">The lessons; in teaching order a part a course.</param>
/// <param name="GoOn">The lesson that was left in the middle last; null where none was.</param>
/// <param name="Next">The first in teaching order that is not complete; null where all are.</param>
/// <param name="Tags">All that the lessons are filed under, by the alphabet.</param>
/// <param name="Languages">The languages of the lessons, tags of BCP 47, by the alphabet.</param>
public sealed record ChannelFront(
    IReadOnlyList<ChannelPart> Parts,
    ChannelLesson? GoOn,
    ChannelLesson? Next,
    IReadOnlyList<string> Tags,
    IReadOnlyList<string> Languages
)
{
    /// <summary>Lays lessons out.</summary>
    /// <param name="lessons">The lessons, in teaching order.</param>
    /// <param name="order">In which order they are wanted.</param>
    /// <param name="tag">Under what they must be filed; null for all.</param>
    /// <param name="language">In which language they must be, a tag of BCP 47; null for all.</param>
    public static ChannelFront Of(IReadOnlyList<ChannelLesson> lessons, ListOrder order, string? tag = null, string? language = null)
    {
        var shown = lessons
            .Where(l => tag is null || l.Tags.Contains(tag, StringComparer.OrdinalIgnoreCase))
            .Where(l => language is null || language.Equals(l.Language, StringComparison.OrdinalIgnoreCase))
            .ToList();
        IReadOnlyList<ChannelPart> parts =
            order == ListOrder.Teaching ? [.. shown.GroupBy(l => l.Course).Select(c => new ChannelPart(c.Key, c.First().CourseTitle, [.. c]))]
            : shown.Count == 0 ? []
            : [new ChannelPart(null, null, [.. Ordered(shown, order)])];
        return new ChannelFront(
            parts,
            lessons.Where(l => l.Seen is { Complete: false } seen && seen.At > TimeSpan.Zero && seen.At < l.Length).MaxBy(l => l.Seen!.Last),
            lessons.FirstOrDefault(l => l.Seen is not { Complete: true }),
            [.. lessons.SelectMany(l => l.Tags).Distinct(StringComparer.OrdinalIgnoreCase).Order(StringComparer.OrdinalIgnoreCase)],
            [.. lessons.Select(l => l.Language).OfType<string>().Distinct(StringComparer.OrdinalIgnoreCase).Order(StringComparer.OrdinalIgnoreCase)]
        );
    }

    // Each is stable: what is alike stays in teaching order.
    private static IEnumerable<ChannelLesson> Ordered(List<ChannelLesson> lessons, ListOrder order) =>
        order switch
        {
            ListOrder.Newest => lessons.OrderByDescending(l => l.ReleasedAt),
            ListOrder.Name => lessons.OrderBy(l => l.Title, StringComparer.OrdinalIgnoreCase),
            ListOrder.Length => lessons.OrderBy(l => l.Length),
            ListOrder.Watched => lessons.OrderByDescending(l => l.Learners),
            _ => lessons,
        };
}
