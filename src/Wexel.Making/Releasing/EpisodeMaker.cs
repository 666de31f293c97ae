using Wexel.Core.Details;
using Wexel.Core.Feeds;
using Wexel.Core.Keys;
using Wexel.Core.Recordings;
using Wexel.Making.Lessons;
using Wexel.Making.Storage;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Making.Releasing;

/// <summary>Makes what stands in a podcast feed: episodes, copied from renditions as apps take them, and artwork. Nothing is encoded.</summary>
/// <param name="folders">Where.</param>
public sealed class EpisodeMaker(MakingFolders folders)
{
    /// <summary>Makes an episode's file, where it is not there yet.</summary>
    /// <param name="planned">The rendition that it is copied from; all of it is encoded.</param>
    /// <param name="media">What it is to be.</param>
    /// <param name="said">What is said about the lesson there.</param>
    /// <param name="artwork">The feed's artwork.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The muxer ended with an error.</exception>
    public async Task<KeyedFile> MakeAsync(PlannedRendition planned, FeedMedia media, DetailSet said, KeyedFile artwork, CancellationToken cancel)
    {
        var key = KeyOf(planned, media, said, artwork.Key);
        var path = folders.Store.Derived(key, MadeNames.Episode(media));
        if (!Wholeness.IsWhole(path))
            await Muxing.EpisodeAsync(
                planned.MuxInputs(folders.Store) with
                {
                    Captions = [],
                },
                path,
                said.Title ?? "",
                planned.Chapters,
                FileTags.Of(said),
                media,
                artwork.Path,
                cancel
            );
        return new KeyedFile(path, key);
    }

    /// <summary>The key of an episode's file.</summary>
    /// <param name="planned">The rendition that it is copied from.</param>
    /// <param name="media">What it is to be.</param>
    /// <param name="said">What is said about the lesson there.</param>
    /// <param name="artwork">The key of the feed's artwork.</param>
    public static string KeyOf(PlannedRendition planned, FeedMedia media, DetailSet said, string artwork) =>
        FeedKeys.Episode(planned.Keys.Encodes, said.Title ?? "", planned.Chapters, media, ArtworkInside(media, artwork), FileTags.Of(said));

    /// <summary>What a feed says of an episode whose file is made.</summary>
    /// <param name="planned">The rendition that it was copied from.</param>
    /// <param name="media">What it is.</param>
    /// <param name="said">What is said about the lesson there.</param>
    /// <param name="artwork">The feed's artwork.</param>
    /// <param name="feed">What names the feed for good.</param>
    /// <param name="lesson">What names the lesson for good.</param>
    /// <param name="name">The stem of its files' names.</param>
    /// <param name="transcripts">The language of each of its transcripts.</param>
    /// <param name="picture">The size of the lesson’s picture; null where it has none.</param>
    public Episode Describe(
        PlannedRendition planned,
        FeedMedia media,
        DetailSet said,
        KeyedFile artwork,
        string feed,
        string lesson,
        string name,
        IReadOnlyList<string> transcripts,
        PictureSize? picture
    )
    {
        return new Episode(
            FeedKeys.EpisodeId(feed, lesson),
            name,
            said.Title ?? "",
            said.Description ?? "",
            said.Language ?? planned.Lesson.Document.Language,
            planned.Plan.Length,
            Bytes(KeyOf(planned, media, said, artwork.Key), media),
            planned.Sections,
            transcripts,
            ArtworkInside(media, artwork.Key),
            said.Tags,
            said.Author?.Name,
            said.Licence,
            said.ThirdParty is { Used: true, Permission: var permission } ? permission : null,
            picture
        );
    }

    /// <summary>How large an episode's file is, which is made.</summary>
    /// <param name="key">Its key.</param>
    /// <param name="media">What it is.</param>
    public long Bytes(string key, FeedMedia media) => new FileInfo(folders.Store.Derived(key, MadeNames.Episode(media))).Length;

    /// <summary>The key of the artwork inside an episode's file; null where it carries none.</summary>
    private static string? ArtworkInside(FeedMedia media, string artwork) => media == FeedMedia.Sound ? artwork : null;

    /// <summary>Makes artwork from a title, where it is not there yet.</summary>
    /// <param name="plan">What stands on it.</param>
    /// <param name="mark">The key of the house's mark; null for none.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">It could not be drawn.</exception>
    public async Task<KeyedFile> ArtworkAsync(ArtworkPlan plan, string? mark, CancellationToken cancel)
    {
        var key = FeedKeys.Artwork(plan, mark);
        var path = folders.Store.Derived(key, MadeNames.Artwork);
        if (!File.Exists(path))
            await ArtworkMaker.MakeAsync(plan, folders.Fonts, mark is null ? null : folders.Store.Derived(mark, MadeNames.Mark), path, cancel);
        return new KeyedFile(path, key);
    }
}
