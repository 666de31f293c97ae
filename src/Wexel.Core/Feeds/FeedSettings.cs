namespace Wexel.Core.Feeds;

/// <summary>What the episodes of a feed are.</summary>
public enum FeedMedia
{
    /// <summary>Picture and sound: M4V at a constant frame rate.</summary>
    Video,

    /// <summary>Sound alone: M4A with chapters and artwork inside.</summary>
    Sound,
}

/// <summary>In which order a feed is meant to be taken (<c>itunes:type</c>).</summary>
public enum FeedOrder
{
    /// <summary>In the order of the course, the first lesson first.</summary>
    Serial,

    /// <summary>By date, the newest first.</summary>
    Episodic,
}

/// <summary>What a trainer says of a podcast feed.</summary>
/// <param name="Title">Its name in apps and directories.</param>
/// <param name="Description">What it is about, plain text.</param>
/// <param name="Author">Who makes it, as apps show it.</param>
/// <param name="OwnerMail">Where a directory writes to its owner.</param>
/// <param name="Category">One of <see cref="FeedCategories.All"/>.</param>
/// <param name="Subcategory">One of that category's, or null.</param>
/// <param name="Language">As a BCP 47 tag.</param>
/// <param name="Explicit">Whether it is unfit for children.</param>
/// <param name="Link">A page about it, or null for the publisher's own address.</param>
/// <param name="Media">What its episodes are.</param>
/// <param name="Order">How they are meant to be taken.</param>
/// <param name="Unlisted">Whether directories are asked to keep it out, and its address is only handed on.</param>
/// <param name="Colour">The artwork's colour, as <c>#RRGGBB</c>.</param>
/// <param name="Private">Whether each listener has an address of their own, which can be withdrawn; then there is none for all.</param>
/// <param name="AlsoSound">Whether a feed of video has another beside it with the same episodes as sound alone.</param>
public sealed record FeedSettings(
    string Title,
    string Description,
    string Author,
    string OwnerMail,
    string Category,
    string? Subcategory,
    string Language,
    bool Explicit,
    string? Link,
    FeedMedia Media,
    FeedOrder Order,
    bool Unlisted,
    string Colour = FeedSettings.UsualColour,
    bool Private = false,
    bool AlsoSound = false
)
{
    /// <summary>The artwork's colour where nobody chose one.</summary>
    public const string UsualColour = "#0B6570";

    /// <summary>What is said of the feed of sound beside it; null where there is none. Apps list both, and tell them apart by their titles.</summary>
    public FeedSettings? SoundBeside() =>
        AlsoSound && Media == FeedMedia.Video
            ? this with
            {
                Title = (Title.Length + OfSound.Length > LongestTitle ? Title[..(LongestTitle - OfSound.Length)] : Title) + OfSound,
                Media = FeedMedia.Sound,
                AlsoSound = false,
            }
            : null;

    private const int LongestTitle = 255;
    private const string OfSound = " (sound)";

    /// <summary>What is said of a colour that cannot be read.</summary>
    public static Problem ColourProblem { get; } = new("colour-unusable", "Write the colour as # and six hexadecimal digits, such as #0B6570.", "colour");

    /// <summary>Whether a text is a colour as it is written here, <c>#RRGGBB</c>.</summary>
    public static bool IsColour(string text) => text is ['#', ..] && text.Length == 7 && text[1..].All(char.IsAsciiHexDigit);

    /// <summary>The first thing that keeps a feed from being saved, or null. What directories want besides is told by <see cref="FeedCheck"/>.</summary>
    public Problem? Unusable() =>
        this switch
        {
            { Title.Length: 0 } => new Problem("feed-without-title", "Give the feed a title; apps list it by that.", "title"),
            { Title.Length: > LongestTitle } => new Problem("feed-title-too-long", "The title has more than 255 characters; shorten it.", "title"),
            { Description.Length: > 4000 } => new Problem(
                "feed-description-too-long",
                "The description has more than 4,000 characters; shorten it.",
                "description"
            ),
            _ when Link is not null && !(Uri.TryCreate(Link, UriKind.Absolute, out var link) && link.Scheme is "http" or "https") => new Problem(
                "feed-link-unusable",
                "The link must be a whole web address, such as https://intranet.example/courses.",
                "link"
            ),
            _ when !FeedCategories.Has(Category, Subcategory) => new Problem(
                "feed-category-unknown",
                "Choose a category from the directories' list.",
                "category"
            ),
            _ when !IsColour(Colour) => ColourProblem,
            _ => null,
        };
}
