using Wexel.Core.People;

namespace Wexel.Data.Model;

/// <summary>Lessons of any courses in an order of their own, for whoever may see the list.</summary>
public sealed class LessonList
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required string Name { get; set; }

    /// <summary>What stands in its address; it cannot be guessed and never changes.</summary>
    public required string Token { get; init; }

    public Visibility Visibility { get; set; } = Seeing.Usual;

    /// <summary>Who is named as those who may see it, <see cref="NamedPeople"/> as JSON; null for nobody.</summary>
    public string? Named { get; set; }

    /// <summary>Whose it is; null where they are not there any more.</summary>
    public Guid? OwnerId { get; set; }

    public List<ListedLesson> Lessons { get; } = [];
}

/// <summary>A lesson in a list.</summary>
public sealed class ListedLesson
{
    public Guid ListId { get; init; }
    public Guid LessonId { get; init; }
    public Lesson? Lesson { get; init; }

    /// <summary>Its place, in the order of their numbers.</summary>
    public int Position { get; set; }

    /// <summary>Who put it there, and when: the list that somebody used last is likely their next.</summary>
    public Guid AddedBy { get; init; }

    public DateTimeOffset AddedAt { get; init; }
}
