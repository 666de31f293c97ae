using Wexel.Core.Details;
using Wexel.Core.Encoding;
using Wexel.Core.Kit;
using Wexel.Core.Outlets;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Encoding;

public class OwnMarkTests
{
    private static readonly MarkOnPicture House = new("house", new PictureSize(400, 200), MarkPlacement.Usual);
    private static readonly MarkOnPicture Own = new("own", new PictureSize(300, 300), MarkPlacement.Usual with { Position = MarkPosition.TopLeft });

    private static Profile With(MarkOnPicture? own, bool house = true) =>
        Profiles.Web with
        {
            Picture = Profiles.Web.Picture! with { OwnMark = own, HouseMark = house },
        };

    private static string? MarkOn(Profile profile, bool wants = true)
    {
        var reel = Reel.Of(Sample.Facts());
        return RenderPlanner.Plan(reel, reel.Map([]), profile, new LessonLook(Mark: wants ? House : null, WantsMark: wants)).Picture!.Mark?.Key;
    }

    [Fact]
    public void It_stands_in_the_place_of_the_houses_where_the_lesson_wants_one()
    {
        MarkOn(With(null)).ShouldBe("house");
        MarkOn(With(Own)).ShouldBe("own");
        MarkOn(With(Own, house: false)).ShouldBe("own");
        MarkOn(With(null, house: false)).ShouldBeNull();
        MarkOn(With(Own), wants: false).ShouldBeNull();
    }

    [Fact]
    public void It_makes_another_profile_and_the_houses_makes_no_difference_then()
    {
        ProfileKeys.ProfileKey(With(Own)).ShouldNotBe(ProfileKeys.ProfileKey(With(null)));
        ProfileKeys.ProfileKey(With(Own with { Placement = Own.Placement with { WidthPercent = 30 } })).ShouldNotBe(ProfileKeys.ProfileKey(With(Own)));
        string Key(Profile profile, string mark) => new HouseKeys(mark, "player", DetailSet.None, [profile]).MarkOn(profile) ?? "none";
        Key(With(Own), "a").ShouldBe(Key(With(Own), "b"));
        Key(With(null), "a").ShouldNotBe(Key(With(null), "b"));
    }

    [Fact]
    public void Its_picture_goes_along_in_the_profiles_file()
    {
        byte[] picture = [0x89, 1, 2, 3];
        var text = ProfileText.Write(With(Own), picture);
        ProfileText.Read(text).Value.ShouldBe(With(Own));
        ProfileText.Mark(text).ShouldBe(picture);
        ProfileText.Mark(ProfileText.Write(With(null))).ShouldBeNull();
        ProfileText.Schema()["properties"]!["ownMarkPicture"].ShouldNotBeNull();
        ProfileText.NoMark(With(Own)).Sentence.ShouldContain("brings a mark of its own");
    }

    [Fact]
    public void One_that_says_nothing_of_itself_is_a_fault_with_a_way_out()
    {
        var fault = ProfileRules.Findings(With(Own with { Placement = null! })).Single(f => f.IsFault);
        fault.Field.ShouldBe("picture.ownMark");
        fault.Mended!.Picture!.OwnMark.ShouldBeNull();
    }
}
