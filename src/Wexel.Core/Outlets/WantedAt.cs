using Wexel.Core.Details;
using Wexel.Core.Encoding;
using Wexel.Core.Keys;

namespace Wexel.Core.Outlets;

/// <summary>What is wanted at an outlet with a profile, of whichever lesson.</summary>
public sealed class WantedAt
{
    private readonly OutletAtHand _outlet;
    private readonly Profile _profile;
    private readonly HouseKeys _house;
    private readonly DetailSet _details;
    private readonly string _termsKey,
        _profileKey;
    private readonly IReadOnlyList<string> _makers;

    /// <param name="outlet">The outlet.</param>
    /// <param name="profile">The profile that lessons are made with.</param>
    /// <param name="house">What the house gives.</param>
    public WantedAt(OutletAtHand outlet, Profile profile, HouseKeys house)
    {
        (_outlet, _profile, _house) = (outlet, profile, house);
        (_termsKey, _profileKey, _details) = (outlet.Terms.Key, ProfileKeys.ProfileKey(profile), DetailLayers.Merged(house.Details, outlet.Details));
        _makers =
        [
            Makers.Picture,
            Makers.Sound,
            Makers.Finish,
            .. outlet.Terms.Copies.Count == 0 ? [] : new[] { Makers.Episode },
            .. outlet.Terms.TakesPlayer ? new[] { Makers.Package } : [],
        ];
        Frame = MadeKey.Hash(Makers.Release, k =>
            k.Add("terms", _termsKey)
                .Add("profile", _profileKey)
                .Add("mark", Mark)
                .Add("player", Player)
                .Add("artwork", Artwork)
                .Each("rules", [.. outlet.Rules.Select(r => r.Field.Code)])
                .Add("details", DetailRule.Key(All, _details))
                .Add("house", DetailRule.Key(All, house.Details))
                .Add("downloads", HasDownloads ? house.ProfilesKey() : null)
                .Each("makers", _makers)
        );
    }

    private static IReadOnlyList<DetailRule> All { get; } = [.. DetailFields.All.Select(f => new DetailRule(f))];

    /// <summary>The key of all that it goes by besides the lesson: where that is the same, the same lesson is wanted under the same key.</summary>
    public string Frame { get; }

    private string? Mark => _house.MarkOn(_profile);

    private bool HasDownloads => _outlet.Rules.Any(r => r.Field == DetailFields.DownloadAs);

    private string? Player => _outlet.Terms.TakesPlayer ? _house.Player : null;

    private string? Artwork => _outlet.Terms.Copies.Contains(Feeds.FeedMedia.Sound) ? _outlet.Artwork : null;

    /// <summary>The key that is wanted of a lesson.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="release">What is said about it there alone.</param>
    public string Key(LessonAtHand lesson, DetailSet release)
    {
        var said = DetailLayers.Merged(_details, lesson.Said, release);
        var download = HasDownloads && OtherDownload(said, _profile) is { } id ? _house.Profiles.FirstOrDefault(p => p.Id == id) : null;
        return MadeKey.Hash(Makers.Release, k =>
            k.Add("terms", _termsKey)
                .Add("lesson", lesson.Key)
                .Add("profile", _profileKey)
                .Add("mark", lesson.WantsMark ? Mark : null)
                .Add("player", Player)
                .Add("artwork", Artwork)
                .Add("details", DetailRule.Key(_outlet.Rules, said))
                .Add("download", download is null ? null : ProfileKeys.ProfileKey(download))
                .Add("downloadMark", download is not null && lesson.WantsMark ? _house.MarkOn(download) : null)
                .Part("tags", FileTags.Of(DetailLayers.Merged(_house.Details, lesson.Said)), FileTags.Declare)
                .Each("makers", _makers)
        );
    }

    /// <summary>The identifier of the profile of a file that learners download beside the one that plays; null where there is none.</summary>
    /// <param name="said">What is said about the lesson there.</param>
    /// <param name="plays">The profile of the one that plays.</param>
    public static string? OtherDownload(DetailSet said, Profile plays) => said is { MayDownload: true, DownloadAs: { } id } && id != plays.Id ? id : null;
}
