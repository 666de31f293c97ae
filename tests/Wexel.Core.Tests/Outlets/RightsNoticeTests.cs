using Wexel.Core.Details;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets;
using Wexel.Core.Searching;
using Wexel.Core.Tests.Mixing;

namespace Wexel.Core.Tests.Outlets;

public class RightsNoticeTests
{
    private static readonly LessonDocument Lesson = new("Refunds", "", "en-GB", "aa", [], [], []);

    private static RightsLine Under(string licence, string? lessonLicence = null) =>
        RightsNotice
            .Of(
                Lesson with
                {
                    Details = new DetailSet(Licence: lessonLicence),
                    Sounds = [Sounds.Bed(0, 9_000) with { Sound = Sounds.Music with { Licence = licence, Author = "Elin Moor" } }],
                },
                []
            )
            .Heard[1];

    [Fact]
    public void Mail_addresses_that_learners_can_read_are_named_with_where_they_are()
    {
        var seen = RightsNotice
            .Of(
                Lesson,
                [
                    new(Ms.Of(12_000), "From: ana.quill@brackwater.example To: desk"),
                    new(Ms.Of(4_000), "Reply to ANA.QUILL@brackwater.example, not to @ or a@b"),
                    .. Enumerable.Range(0, 5).Select(i => new TextLine(Ms.Of(20_000 + i), $"guest{i}@mail.example")),
                ]
            )
            .Seen;
        seen.Skip(1)
            .Select(s => s.Text)
            .ShouldBe([
                "The mail address ana.quill@brackwater.example at 0:04.",
                "The mail address guest0@mail.example at 0:20.",
                "The mail address guest1@mail.example at 0:20.",
                "The mail address guest2@mail.example at 0:20.",
                "2 more mail addresses.",
            ]);
        seen[1].ShouldSatisfyAllConditions(s => s.IsDoubtful.ShouldBeTrue(), s => s.At.ShouldBe(Ms.Of(4_000)));
    }

    /// <summary>Creative Commons 4.0 legal code, section 1(a): music that is synchronised with a moving image is adapted material (from memory).</summary>
    [Theory]
    [InlineData("CC0-1.0", null, false, "CC0 1.0")]
    [InlineData("CC-BY-4.0", null, false, "stands in the description by itself")]
    [InlineData("CC-BY-ND-4.0", null, true, "does not allow it to be laid under pictures")]
    [InlineData("CC-BY-NC-ND-4.0", null, true, "does not allow it to be laid under pictures")]
    [InlineData("CC-BY-SA-4.0", null, true, "under the same licence")]
    [InlineData("CC-BY-SA-4.0", "CC-BY-SA-4.0", false, "stands in the description by itself")]
    [InlineData("CC-BY-NC-4.0", null, true, "nobody may earn by the lesson")]
    [InlineData("LicenseRef-AllRightsReserved", null, true, "in writing")]
    [InlineData("For our crews", null, true, "“For our crews”")]
    public void Each_licence_of_a_sound_says_what_it_means(string licence, string? lessons, bool doubtful, string part)
    {
        var line = Under(licence, lessons);
        (line.IsDoubtful, line.Text.Contains(part, StringComparison.Ordinal)).ShouldBe((doubtful, true), line.Text);
    }

    [Fact]
    public void Pictures_that_somebody_gave_are_named()
    {
        RightsNotice.Of(Lesson, []).Seen.Count.ShouldBe(1);
        RightsNotice.Of(Lesson with { Picture = new LessonPicture(Own: "p") }, []).Seen.Count.ShouldBe(2);
    }
}
