using Wexel.Core.Captions;
using Wexel.Core.Keys;
using Wexel.Core.Packages;

namespace Wexel.Core.Feeds;

/// <summary>An episode's files for a folder.</summary>
/// <param name="Entry">The episode.</param>
/// <param name="Media">Its file.</param>
/// <param name="Captions">The cues of each of its transcripts, in lesson time.</param>
/// <param name="Picture">Its picture; null where it has none.</param>
/// <param name="Sound">Its file in the feed of sound beside; null where it is not in that.</param>
public sealed record EpisodeSources(FeedEntry Entry, KeyedFile Media, IReadOnlyList<IReadOnlyList<Cue>> Captions, KeyedFile? Picture, KeyedFile? Sound = null);

/// <summary>A whole feed as a folder for a plain web server.</summary>
public static class FeedFolder
{
    /// <summary>All files of the folder, the feed first.</summary>
    /// <param name="feed">The feed, whose folder is the address under which the files will lie.</param>
    /// <param name="artwork">The artwork.</param>
    /// <param name="episodes">The files of its episodes.</param>
    /// <param name="beside">The feed of sound beside it, in the same folder; null for none.</param>
    public static IReadOnlyList<PackageFile> Plan(FeedSources feed, KeyedFile artwork, IReadOnlyList<EpisodeSources> episodes, FeedSources? beside = null)
    {
        var files = new List<PackageFile>
        {
            new(
                FeedFiles.Feed,
                $"The feed. Its address, {feed.Address.AbsoluteUri}, is what people subscribe to and what a directory is given.",
                new PackageContent.Text(System.Text.Encoding.UTF8.GetString(FeedDocument.Write(feed))),
                IsThePageToLink: true
            ),
            new(feed.Artwork, "The artwork.", new PackageContent.Copy(artwork, AlreadyCompressed: true)),
        };
        if (beside is not null)
            files.Add(
                new(
                    beside.Name,
                    $"The same episodes as sound alone. Its address is {beside.Address.AbsoluteUri}.",
                    new PackageContent.Text(System.Text.Encoding.UTF8.GetString(FeedDocument.Write(beside)))
                )
            );
        foreach (var (entry, media, captions, picture, sound) in episodes)
        {
            var episode = entry.Episode;
            files.Add(
                new(
                    FeedFiles.Media(episode.Name, feed.Settings.Media),
                    $"The episode “{episode.Title}”.",
                    new PackageContent.Copy(media, AlreadyCompressed: true)
                )
            );
            if (sound is not null)
                files.Add(
                    new(FeedFiles.Media(episode.Name, FeedMedia.Sound), "The same as sound alone.", new PackageContent.Copy(sound, AlreadyCompressed: true))
                );
            if (picture is not null)
                files.Add(new(FeedFiles.Picture(episode.Name), "Its picture.", new PackageContent.Copy(picture, AlreadyCompressed: true)));
            if (episode.Sections.Count > 0)
                files.Add(new(FeedFiles.ChaptersOf(episode.Name), "Its chapters.", new PackageContent.Text(episode.ChaptersJson())));
            files.AddRange(
                episode.TranscriptFiles.Zip(captions, (t, cues) =>
                    new PackageFile(
                        FeedFiles.Transcript(episode.Name, t.Apart),
                        $"Its transcript ({t.Language}).",
                        new PackageContent.Text(WebVttText.WriteKept(cues))
                    )
                )
            );
        }

        return files;
    }
}
