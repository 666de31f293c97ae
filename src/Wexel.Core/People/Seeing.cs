namespace Wexel.Core.People;

/// <summary>Who may see a release on a channel.</summary>
public enum Visibility
{
    /// <summary>Whoever owns the lesson, and nobody else.</summary>
    OnlyMe,

    /// <summary>People who are named, one by one or by their group, and nobody besides.</summary>
    Named,

    /// <summary>Whoever has the address, which cannot be guessed; it is listed and found nowhere, also not by people who are signed in.</summary>
    WithLink,

    /// <summary>The organisation: people of the house who are signed in.</summary>
    SignedIn,

    /// <summary>Everybody; it is listed, and found by search engines.</summary>
    Everybody,
}

/// <summary>Who may see something, from when and until when.</summary>
/// <param name="Visibility">Who.</param>
/// <param name="From">From when; null for at once.</param>
/// <param name="Until">Until when, which is no part of it; null for ever.</param>
public readonly record struct Opening(Visibility Visibility, DateTimeOffset? From = null, DateTimeOffset? Until = null)
{
    /// <summary>Whether the time has come, and is not over.</summary>
    public bool IsOpen(DateTimeOffset now) => !IsAhead(now) && !IsOver(now);

    /// <summary>Whether the time has not come yet.</summary>
    public bool IsAhead(DateTimeOffset now) => now < From;

    /// <summary>Whether the time is over.</summary>
    public bool IsOver(DateTimeOffset now) => now >= Until;

    /// <summary>What cannot be meant, or null.</summary>
    public Problem? Unusable =>
        From >= Until ? new Problem("opening-ends-first", "It would end before it begins. Give a later end, or none.", "endsAt")
        : Enum.IsDefined(Visibility) ? null
        : new Problem("visibility-unknown", "Choose who may see it.", "visibility");
}

/// <summary>A release, as far as it matters to who may see it.</summary>
/// <param name="Opening">Who may see it, from when and until when.</param>
/// <param name="Owner">Whose lesson it is; null where nobody's.</param>
/// <param name="Named">Who is named there; it counts where <see cref="Visibility.Named"/> may see it.</param>
public sealed record Shown(Opening Opening, Guid? Owner, NamedPeople Named);

/// <summary>Whoever asks to see something.</summary>
/// <param name="Person">Who they are; null for strangers.</param>
/// <param name="Mail">Their mail address.</param>
/// <param name="Groups">The groups that they are in.</param>
/// <param name="MakesLessons">Whether they make lessons, and so look at them before others do.</param>
/// <param name="IsGuest">Whether they do not belong to the house: they are known by their mail address alone.</param>
public sealed record Viewer(Guid? Person, string? Mail, IReadOnlySet<Guid> Groups, bool MakesLessons, bool IsGuest = false)
{
    /// <summary>Somebody of whom nothing is known, as a browser that shows an embedded lesson on the page of others.</summary>
    public static Viewer Stranger { get; } = new(null, null, new HashSet<Guid>(), false);

    /// <summary>Whether it is known who they are.</summary>
    public bool IsSignedIn => Person is not null;
}

/// <summary>Where something is seen.</summary>
public enum SeenIn
{
    /// <summary>By its address: its page, an embedded one, and every file and answer that belongs to it.</summary>
    Address,

    /// <summary>In lists, and by searching in them.</summary>
    List,

    /// <summary>In what other sites are told of an address that somebody gave them: oEmbed, and what a page says of itself to whoever shows a
    /// preview.</summary>
    Preview,

    /// <summary>In what search engines are told.</summary>
    Sitemap,
}

/// <summary>Who may see what, and where: the one place that decides it.</summary>
public static class Seeing
{
    /// <summary>What a release is open to where nobody says anything else.</summary>
    public const Visibility Usual = Visibility.SignedIn;

    /// <summary>Whether somebody may see a release now.</summary>
    public static bool May(Shown what, Viewer who, SeenIn where, DateTimeOffset now) =>
        where switch
        {
            SeenIn.Address => Reaches(what, who) && (what.Opening.IsOpen(now) || Owns(what, who) || who.MakesLessons),
            SeenIn.List => Reaches(what, who) && what.Opening.IsOpen(now) && IsListed(what.Opening.Visibility),
            // They tell it to whoever asks them.
            SeenIn.Preview => Reaches(what, Viewer.Stranger) && what.Opening.IsOpen(now),
            SeenIn.Sitemap => what.Opening.Visibility == Visibility.Everybody && what.Opening.IsOpen(now),
            _ => false,
        };

    /// <summary>Whether somebody is among those who may see a release, at its time.</summary>
    public static bool Reaches(Shown what, Viewer who) =>
        Owns(what, who)
        || what.Opening.Visibility switch
        {
            Visibility.Named => what.Named.Hold(who),
            Visibility.SignedIn => who is { IsSignedIn: true, IsGuest: false },
            Visibility.WithLink or Visibility.Everybody => true,
            _ => false,
        };

    /// <summary>Whether releases that are open to somebody are in lists at all.</summary>
    public static bool IsListed(Visibility visibility) => visibility != Visibility.WithLink;

    /// <summary>Whether people outside the house may come to it.</summary>
    public static bool IsOpenToStrangers(Visibility visibility) => visibility is Visibility.WithLink or Visibility.Everybody;

    private static bool Owns(Shown what, Viewer who) => who.Person is { } person && what.Owner == person;
}
