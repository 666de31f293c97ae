namespace Wexel.Core.People;

/// <summary>Who may see a release on a channel.</summary>
public enum Visibility
{
    /// <summary>People who are signed in.</summary>
    SignedIn,

    /// <summary>Whoever has the link, which cannot be guessed.</summary>
    WithLink,
}

/// <summary>Who may see something, and from when.</summary>
/// <param name="Visibility">Who.</param>
/// <param name="From">From when; null for at once.</param>
public readonly record struct Opening(Visibility Visibility, DateTimeOffset? From = null)
{
    /// <summary>Whether the time has come.</summary>
    public bool IsOpen(DateTimeOffset now) => From is not { } from || now >= from;
}

/// <summary>Whoever asks to see something.</summary>
/// <param name="SignedIn">Whether it is known who they are.</param>
/// <param name="MakesLessons">Whether they make lessons, and so look at them before others do.</param>
public readonly record struct Viewer(bool SignedIn, bool MakesLessons = false);

/// <summary>Who may see what: the one place that decides it.</summary>
public static class Seeing
{
    /// <summary>Whether somebody may see a release whose address they have.</summary>
    public static bool May(Visibility visibility, Viewer viewer) =>
        visibility switch
        {
            Visibility.WithLink => true,
            Visibility.SignedIn => viewer.SignedIn,
            _ => false,
        };

    /// <summary>Whether somebody may see now a release whose address they have.</summary>
    public static bool May(Opening opening, Viewer viewer, DateTimeOffset now) =>
        (opening.IsOpen(now) || viewer.MakesLessons) && May(opening.Visibility, viewer);

    /// <summary>Whether what a release is may be told now to whoever asks.</summary>
    public static bool ToldToAll(Opening opening, DateTimeOffset now) => opening.IsOpen(now) && ToldToAll(opening.Visibility);

    /// <summary>Whether what a release is may be told to whoever asks, as when its link is pasted elsewhere.</summary>
    public static bool ToldToAll(Visibility visibility) => May(visibility, new Viewer(SignedIn: false));

    /// <summary>Whether a list of releases may be read.</summary>
    public static bool MayList(Viewer viewer) => viewer.SignedIn;
}
