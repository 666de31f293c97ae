using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Keys;
using Wexel.Core.Kit;
using Wexel.Core.Outlets;
using Wexel.Core.Outlets.PodcastFeeds;
using Wexel.Making;
using Wexel.Making.Releasing;
using Wexel.Making.Rendering;
using Wexel.Making.Storage;
using Wexel.Media.Measuring;

namespace Wexel.Cli;

/// <summary>What a <c>course.json</c> says of its feed, under <c>feed</c>; all of it may be left out.</summary>
internal sealed record CourseFeed(
    string? Description = null,
    string? Author = null,
    string? OwnerMail = null,
    string? Category = null,
    string? Subcategory = null,
    string? Language = null,
    bool Explicit = false,
    string? Link = null,
    FeedMedia Media = FeedMedia.Video,
    FeedOrder Order = FeedOrder.Serial,
    bool Unlisted = false,
    string? Colour = null,
    string? Artwork = null
)
{
    /// <exception cref="UnusableInputException">Something in it cannot be used.</exception>
    internal FeedSettings Settings(string title)
    {
        var settings = new FeedSettings(
            title,
            Description ?? title,
            Author ?? "",
            OwnerMail ?? "",
            Category ?? "Education",
            Category is null ? Subcategory ?? "How To" : Subcategory,
            Language ?? Core.Captions.LanguageTag.Usual,
            Explicit,
            Link,
            Media,
            Order,
            Unlisted,
            Colour ?? FeedSettings.UsualColour
        );
        return settings.Unusable() is { } problem ? throw new UnusableInputException(problem.Sentence) : settings;
    }
}

/// <summary>A folder with a podcast feed.</summary>
internal sealed class PodcastPurpose(string? baseUrl, MakingFolders folders) : Purpose(folders)
{
    private readonly Uri? _folder =
        Uri.TryCreate(baseUrl?.TrimEnd('/') + "/", UriKind.Absolute, out var address) && address.Scheme is "http" or "https" ? address : null;

    internal override OutletKind Kind { get; } = new PodcastFeedKind();

    protected override OutletTerms Terms(MakeSources sources) => Kind.Terms(new PodcastFeedKind().Format.Write(sources.Feed.Settings(sources.Title ?? "?")));

    internal override string? Refusal(MakeSources sources, Profile profile) =>
        this switch
        {
            { _folder: null } => "A feed names its files by whole addresses: give the one where the folder will lie with --base-url, such as "
                + "https://intranet.example/listening/.",
            _ => base.Refusal(sources, profile),
        };

    /// <exception cref="UnusableInputException">The artwork or a lesson cannot be used in the feed.</exception>
    internal override async Task<MakePlan> PlanAsync(string title, MakeSources course, IReadOnlyList<MadeLesson> lessons, CancellationToken cancel)
    {
        var (settings, folder, maker) = (course.Feed.Settings(title), _folder!, new EpisodeMaker(Folders));
        var (artwork, facts) = await ArtworkAsync(settings, course.Feed.Artwork, maker, cancel);
        var episodes = new List<EpisodeSources>();
        var published = DateTimeOffset.MinValue;
        foreach (var made in lessons)
        {
            var (planned, said) = (made.Planned, made.Planned.Lesson.Said);
            if (settings.Media == FeedMedia.Sound && planned.Plan.Sound is null)
                throw new UnusableInputException($"“{made.Title}” has no sound, so a feed of sound alone cannot carry it.");
            var number = episodes.Count + 1;
            // Apps order by these times: where the files' own contradict the order of the lessons, the order holds.
            published = made.RecordedAt > published ? made.RecordedAt : published.AddMinutes(1);
            var media = await maker.MakeAsync(planned, settings.Media, said, artwork, cancel);
            var (name, page) = ($"{number:00}-{FileNames.FromTitle(made.Title)}", LearnerPage.Compose(made.Id, planned, said));
            var transcripts = page.Captions.Select(c => c.Language).ToList();
            var picture = await new PictureMaker(Folders).MakeAsync(planned.Lesson, null, cancel);
            var episode = maker.Describe(planned, settings.Media, said, artwork, folder.AbsoluteUri, name, name, transcripts, picture?.Size);
            episodes.Add(
                new EpisodeSources(
                    new FeedEntry(episode, published, 1, number),
                    media,
                    [.. page.Captions.Select(c => c.Cues)],
                    picture is null ? null : Folders.Store.Keyed(picture.Key, MadeNames.Poster)
                )
            );
        }

        var sources = new FeedSources(
            settings,
            settings.Author,
            folder,
            folder,
            facts.Format == "png" ? "artwork.png" : "artwork.jpg",
            published,
            [.. episodes.Select(e => e.Entry)],
            FeedGuid.For(new Uri(folder, FeedFiles.Feed))
        );
        return new MakePlan(FeedFolder.Plan(sources, artwork, episodes), FeedCheck.Findings(FeedDocument.Write(sources), facts));
    }

    private static async Task<(KeyedFile Artwork, ImageFacts Facts)> ArtworkAsync(
        FeedSettings settings,
        string? own,
        EpisodeMaker maker,
        CancellationToken cancel
    )
    {
        if (own is not null)
        {
            var measured = File.Exists(own) ? await ArtworkMeasurer.MeasureAsync(own, cancel) : null;
            var wrong = measured is null ? [new Problem("artwork-no-picture", $"“{own}” is no picture that can be read.")] : ArtworkRules.Wrong(measured);
            return wrong.Count == 0 ? (new KeyedFile(own, own), measured!) : throw new UnusableInputException(string.Join(' ', wrong.Select(w => w.Sentence)));
        }

        var made = await maker.ArtworkAsync(new ArtworkPlan(settings.Title, settings.Author, settings.Colour), null, cancel);
        return (made, (await ArtworkMeasurer.MeasureAsync(made.Path, cancel))!);
    }
}
