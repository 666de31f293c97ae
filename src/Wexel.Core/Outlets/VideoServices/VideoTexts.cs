using System.Text.Json.Serialization;
using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Keys;
using Wexel.Core.Packages;
using Wexel.Core.People;

namespace Wexel.Core.Outlets.VideoServices;

/// <summary>What a video service is told of a video, as far as services have it in common.</summary>
/// <param name="Title">The title.</param>
/// <param name="Description">What it is about, with the contents below it as lines of time and title.</param>
/// <param name="Tags">Words by which it is found.</param>
/// <param name="Category">The subject, by the service's own words; null where none of them was chosen.</param>
/// <param name="ForChildren">Whether it is made for children; null where nobody said, which no service takes.</param>
/// <param name="Licence">What others may do with it, by its SPDX identifier or in one's own words; null where nobody said.</param>
/// <param name="MayEmbed">Whether other sites may show it.</param>
/// <param name="TellFollowers">Whether those who follow the channel are told.</param>
/// <param name="Visibility">Who may see it.</param>
/// <param name="Named">The mail addresses of those who may see it where they are named.</param>
/// <param name="OpensAt">From when; null for at once.</param>
public sealed record VideoTexts(
    string Title,
    string Description,
    IReadOnlyList<string> Tags,
    string? Category,
    bool? ForChildren,
    string? Licence,
    bool MayEmbed,
    bool TellFollowers,
    Visibility Visibility,
    IReadOnlyList<string> Named,
    DateTimeOffset? OpensAt
)
{
    /// <summary>What is said of a lesson.</summary>
    /// <param name="lesson">The lesson, as learners get it.</param>
    /// <param name="said">What is said about it there.</param>
    /// <param name="longest">The longest description that is taken, in characters: contents that would make it longer are left away.</param>
    /// <param name="opening">Who may see it, from when and until when. Services open what becomes public by themselves; all else is private before and
    /// after, and is said anew when its time has come.</param>
    /// <param name="named">The mail addresses of those who are named.</param>
    /// <param name="now">What the time is.</param>
    public static VideoTexts Of(PlayerLesson lesson, DetailSet said, int longest, Opening opening, IReadOnlyList<string> named, DateTimeOffset now)
    {
        var opensByItself = opening.Visibility == Visibility.Everybody;
        var who = opening.IsOver(now) || (opening.IsAhead(now) && !opensByItself) ? Visibility.OnlyMe : opening.Visibility;
        var whole = DescribedContents.Write(lesson.Description, lesson.Sections);
        return new VideoTexts(
            lesson.Title,
            whole.Length <= longest ? whole : lesson.Description,
            said.Tags ?? [],
            said.Category,
            said.ForChildren,
            said.Licence,
            said.MayEmbed != false,
            said.TellFollowers == true,
            who,
            who == Visibility.Named ? named : [],
            who == Visibility.Everybody ? opening.From : null
        );
    }

    /// <summary>The key of all of it: where that is the same, nothing else is said.</summary>
    [JsonIgnore]
    public string Key =>
        MadeKey.Hash(Makers.VideoTexts, k =>
            k.Add("title", Title)
                .Add("description", Description)
                .Each("tags", Tags)
                .Add("category", Category)
                .Add("forChildren", ForChildren is { } yes ? (yes ? "yes" : "no") : null)
                .Add("licence", Licence)
                .Add("mayEmbed", MayEmbed)
                .Add("tellFollowers", TellFollowers)
                .Add("visibility", Visibility.ToString())
                .Each("named", Named)
                .Add("opensAt", OpensAt?.ToUnixTimeMilliseconds())
        );

    /// <summary>What two sides say otherwise, each with both, in words for people.</summary>
    /// <param name="ours">As Wexel put it.</param>
    /// <param name="theirs">As it stands there.</param>
    public static IReadOnlyList<VideoDifference> Differences(VideoTexts ours, VideoTexts theirs)
    {
        var all = new List<VideoDifference>();
        void Compare(string field, string label, string one, string other)
        {
            if (one != other)
                all.Add(new VideoDifference(field, label, one, other));
        }
        Compare(DetailFields.Title.Code, "Title", ours.Title, theirs.Title);
        Compare(DetailFields.Description.Code, "Description", ours.Description, theirs.Description);
        Compare(DetailFields.Tags.Code, "Tags", string.Join(", ", ours.Tags), string.Join(", ", theirs.Tags));
        Compare(DetailFields.Category.Code, "Category", ours.Category ?? "", theirs.Category ?? "");
        Compare(DetailFields.ForChildren.Code, "Made for children", YesNo(ours.ForChildren), YesNo(theirs.ForChildren));
        Compare(DetailFields.MayEmbed.Code, "Other sites may embed it", YesNo(ours.MayEmbed), YesNo(theirs.MayEmbed));
        Compare("visibility", "Who may see it", Who(ours), Who(theirs));
        return all;
    }

    private static string YesNo(bool? value) =>
        value switch
        {
            true => "yes",
            false => "no",
            null => "",
        };

    private static string Who(VideoTexts texts) =>
        VisibilityWords.For(texts.Visibility).Name + (texts.Named.Count > 0 ? ": " + string.Join(", ", texts.Named) : "");
}

/// <summary>Something that was changed by hand at a service.</summary>
/// <param name="Field">Which detail, by its code; <c>visibility</c> for who may see it.</param>
/// <param name="Label">What it is called.</param>
/// <param name="Ours">As Wexel put it.</param>
/// <param name="Theirs">As it stands there.</param>
public sealed record VideoDifference(string Field, string Label, string Ours, string Theirs);
