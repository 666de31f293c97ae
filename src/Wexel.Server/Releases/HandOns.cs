using Microsoft.Extensions.Options;
using Wexel.Core.Outlets;
using Wexel.Core.Outlets.VideoServices;
using Wexel.Core.Packages;
using Wexel.Core.People;
using Wexel.Core.Recordings;
using Wexel.Data.Model;
using Wexel.Server.Feeds;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>What is handed on of a release; each is there from the moment that it is wanted.</summary>
/// <param name="Link">The page, on Wexel's own server or where it was put; null where none is known.</param>
/// <param name="EmbedCode">For other sites; null where it may not stand there.</param>
/// <param name="EmbedWarning">What must be said with it, before somebody finds out.</param>
/// <param name="Feed">The feed's address.</param>
/// <param name="SoundFeed">The address of the feed of sound beside it.</param>
/// <param name="SoundPage">Where a directory lists that one.</param>
/// <param name="Folder">The whole path of the folder where it lies.</param>
internal sealed record HandedOn(string? Link, string? EmbedCode, string? EmbedWarning, string? Feed, string? SoundFeed, string? SoundPage, string? Folder)
{
    /// <summary>Each with what it is.</summary>
    internal IEnumerable<(string Label, string Value)> Lines =>
        new[] { ("Page", Link), ("Embed code", EmbedCode), ("Feed", Feed), ("Feed of sound", SoundFeed), ("Page of the sound", SoundPage), ("Folder", Folder) }
            .Where(l => l.Item2 is not null)
            .Select(l => (l.Item1, l.Item2!));
}

/// <summary>Finds what is handed on.</summary>
internal sealed class HandOns(IOptions<WexelOptions> options)
{
    /// <summary>A page that nobody has seen yet is embedded in this shape.</summary>
    private static readonly PictureSize Usual = new(1280, 720);

    internal HandedOn Find(KnownOutlet outlet, Release release)
    {
        var at = options.Value.PublicAddress;
        var (pages, stands) = (outlet.Kind.HasPages, release.MadeFrom.Length > 0);
        var player = stands ? PlayerLesson.Format.Read(release.Player) : null;
        var shared = outlet.Row.Feed is { } own && !FeedReader.Settings(outlet.Row).Private ? own : null;
        // At a video service its own player is shown; it says where that stands, or that others may not show it.
        var frame = pages
            ? player?.Details.MayEmbed == false
                ? null
                : new Uri(at, $"embed/{release.Token}")
            : release.VideoThere is { } there && VideoThere.Format.Read(there).Embed is { } embed
                ? new Uri(embed)
                : null;
        return new HandedOn(
            pages ? new Uri(at, $"watch/{release.Token}").AbsoluteUri
                : outlet.Row.Feed is { } feed ? FeedPage(feed, shared is null)
                : IsFolder(release) ? null
                : release.SentTo,
            frame is null
                ? null
                : HandOn.EmbedCode(frame, player?.Title ?? release.Lesson?.Title ?? "", player is null ? Usual : new PictureSize(player.Width, player.Height)),
            frame is not null ? VisibilityWords.For(stands ? release.Visibility : release.WantedVisibility).EmbedWarning : null,
            shared is null ? null : FeedReader.Address(shared, options.Value).AbsoluteUri,
            shared is null ? null : FeedReader.SoundAddress(outlet.Row, shared.Token, options.Value)?.AbsoluteUri,
            shared is null ? null : ListedAt(shared, isSound: true),
            IsFolder(release) ? release.SentTo : null
        );
    }

    /// <summary>Where people subscribe: at a directory that lists it, or on its own page. Of a private feed each listener has a page of their own.</summary>
    private string? FeedPage(PodcastFeed feed, bool isPrivate) =>
        isPrivate ? null : ListedAt(feed, isSound: false) ?? FeedReader.SubscribePage(feed.Token, options.Value).AbsoluteUri;

    private static string? ListedAt(PodcastFeed feed, bool isSound) => feed.Listings.Find(l => l.Page is not null && l.IsSound == isSound)?.Page;

    private static bool IsFolder(Release release) => release.SentTo is { } to && Path.IsPathFullyQualified(to);
}
