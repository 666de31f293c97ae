namespace Wexel.Core.People;

/// <summary>Who may see a release on a channel.</summary>
public enum Visibility
{
    /// <summary>People who are signed in.</summary>
    SignedIn,

    /// <summary>Whoever has the link, which cannot be guessed.</summary>
    WithLink,
}

/// <summary>Whoever asks to see something.</summary>
/// <param name="SignedIn">Whether it is known who they are.</param>
public readonly record struct Viewer(bool SignedIn);

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

    /// <summary>Whether what a release is may be told to whoever asks, as when its link is pasted elsewhere.</summary>
    public static bool ToldToAll(Visibility visibility) => May(visibility, new Viewer(SignedIn: false));

    /// <summary>Whether a list of releases may be read.</summary>
    public static bool MayList(Viewer viewer) => viewer.SignedIn;
}
