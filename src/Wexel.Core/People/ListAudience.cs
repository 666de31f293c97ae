namespace Wexel.Core.People;

/// <summary>What of a list across courses its viewers do not find in it: a list shows a lesson to nobody who may not see the lesson.</summary>
public static class ListAudience
{
    /// <summary>From whom of those who may see a list a lesson in it is hidden, in a few words; null where all of them find it.</summary>
    /// <param name="list">Who may see the list.</param>
    /// <param name="lesson">Who may see the lesson; null where it stands in no channel.</param>
    public static string? HiddenFrom(Shown list, Shown? lesson) =>
        lesson?.Opening.Visibility switch
        {
            null => "everybody, as it is in no channel",
            Visibility.Everybody => null,
            // What is found by its address alone stands in no list.
            Visibility.WithLink => "everybody, as it is for whoever has the address",
            Visibility.SignedIn => list.Opening.Visibility switch
            {
                Visibility.WithLink or Visibility.Everybody => "people outside the organisation",
                Visibility.Named => list.Named.Mails.Count > 0 ? "those named who have no account" : null,
                _ => null,
            },
            Visibility.Named => list.Opening.Visibility switch
            {
                Visibility.OnlyMe when list.Owner is not null && list.Owner == lesson.Owner => null,
                Visibility.Named when IsWithin(list.Named, lesson.Named) => null,
                _ => "whoever is not named at it",
            },
            _ => list.Opening.Visibility == Visibility.OnlyMe && list.Owner is not null && list.Owner == lesson.Owner ? null : "everybody but its owner",
        };

    /// <summary>How many of a list's lessons are hidden from whom, in a sentence; null where none is.</summary>
    /// <param name="list">Who may see the list.</param>
    /// <param name="lessons">Who may see each of its lessons; null for one that stands in no channel.</param>
    public static string? Sentence(Shown list, IReadOnlyCollection<Shown?> lessons)
    {
        var hidden = lessons.Select(l => HiddenFrom(list, l)).OfType<string>().GroupBy(whom => whom).OrderByDescending(g => g.Count()).ToList();
        return hidden.Count == 0
            ? null
            : $"{hidden.Sum(g => g.Count())} of {lessons.Count} are hidden: {string.Join("; ", hidden.Select(g => $"{g.Count()} from {g.Key}"))}.";
    }

    private static bool IsWithin(NamedPeople some, NamedPeople all) =>
        some.Groups.All(all.Groups.Contains) && some.Mails.All(m => all.Mails.Contains(m, StringComparer.OrdinalIgnoreCase));
}
