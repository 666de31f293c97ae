using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Keys;

namespace Wexel.Core.Feeds;

/// <summary>The keys of what a podcast feed is made of.</summary>
public static class FeedKeys
{
    /// <summary>An episode's file.</summary>
    /// <param name="encodes">The key over everything that it is copied from.</param>
    /// <param name="title">Its title.</param>
    /// <param name="chapters">Its chapters.</param>
    /// <param name="media">What it is.</param>
    /// <param name="artwork">The key of the artwork inside it; null where it carries none.</param>
    /// <param name="tags">What else it says about itself; null for nothing.</param>
    public static string Episode(string encodes, string title, IReadOnlyList<Chapter> chapters, FeedMedia media, string? artwork, FileTags? tags) =>
        MadeKey.Hash(Makers.Episode, k =>
            k.Add("encodes", encodes)
                .Add("title", title)
                .Each("chapters", chapters, (f, c) => f.Add("span", c.Span).Add("title", c.Title))
                .Add("media", (FeedMedia?)media)
                .Add("artwork", artwork)
                .Part("tags", tags, FileTags.Declare)
        );

    /// <summary>What apps know an episode by: the same whenever the lesson is in this feed, even when it was taken down in between.</summary>
    /// <param name="feed">What names the feed for good.</param>
    /// <param name="lesson">What names the lesson in it for good.</param>
    /// <returns>32 hexadecimal digits.</returns>
    public static string EpisodeId(string feed, string lesson) => MadeKey.Hash(Makers.EpisodeId, k => k.Add("feed", feed).Add("lesson", lesson))[..32];

    /// <summary>Artwork that is made for a feed.</summary>
    /// <param name="plan">What stands on it.</param>
    /// <param name="mark">The key of the house's mark on it; null for none.</param>
    public static string Artwork(ArtworkPlan plan, string? mark) =>
        MadeKey.Hash(Makers.Artwork, k => k.Add("title", plan.Title).Add("house", plan.House).Add("colour", plan.Colour).Add("mark", mark));
}
