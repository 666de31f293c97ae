using Wexel.Core.Details;
using Wexel.Core.Placing;

namespace Wexel.Core.Tests.Details;

public class DetailFieldsTests
{
    private static readonly DetailSet All = DetailSet.Format.Read(
        File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "Documents", "Fixtures", "details-3.json"))
    );

    /// <summary>What can be said is asked: a member of the set that no field knows would be kept and shown nowhere. What a lesson must say of what is
    /// in it is reckoned, and nobody is asked.</summary>
    [Fact]
    public void Every_member_of_a_set_is_a_field()
    {
        DetailFields.All.ShouldAllBe(f => f.IsIn(All));
        DetailFields.All.Count.ShouldBe(
            typeof(DetailSet).GetProperties().Count(p => p.GetMethod!.IsStatic is false && p.Name is not ("EqualityContract" or nameof(DetailSet.Credits)))
        );
        DetailFields.All.Select(f => f.Code).ShouldBeUnique();
        DetailFields.All.Aggregate(DetailSet.None, (set, f) => f.Take(set, All)).ShouldBe(All);
        DetailFields.All.Aggregate(All, (set, f) => f.Take(set, DetailSet.None)).ShouldBe(DetailSet.None);
    }

    [Fact]
    public void A_set_with_all_of_it_is_kept_as_it_is() => DetailSet.Format.Write(Tidy(All)).ShouldBe(DetailSet.Format.Write(All));

    private static DetailSet Tidy(DetailSet set) => DetailFields.Tidy(set, DetailLevel.Lesson);

    [Theory]
    [InlineData(DetailLevel.House, false)]
    [InlineData(DetailLevel.Outlet, false)]
    [InlineData(DetailLevel.Lesson, true)]
    [InlineData(DetailLevel.Release, true)]
    public void A_title_is_of_one_lesson(DetailLevel level, bool kept)
    {
        var tidy = DetailFields.Tidy(All, level);
        (tidy.Title is not null, tidy.ShortTitle is not null, tidy.Description is not null).ShouldBe((kept, kept, true));
    }

    [Theory]
    [InlineData("  Opening\n the  till ", "Opening the till")]
    [InlineData("x", "x")]
    [InlineData("   ", null)]
    [InlineData("", null)]
    [InlineData("\u200f\u05e9\u05dc\u05d5\u05dd", "\u200f\u05e9\u05dc\u05d5\u05dd")]
    [InlineData("\ud83d\udea2 Tern", "\ud83d\udea2 Tern")]
    public void A_line_is_kept_on_one_line_and_blank_says_nothing(string typed, string? kept) =>
        Tidy(new DetailSet(ShortTitle: typed)).ShortTitle.ShouldBe(kept);

    [Theory]
    [InlineData(1, 1)]
    [InlineData(500, 500)]
    [InlineData(501, 500)]
    public void A_title_of_many_characters_is_kept_to_five_hundred(int length, int kept) =>
        Tidy(new DetailSet(Title: new string('a', length))).Title!.Length.ShouldBe(kept);

    [Fact]
    public void Paragraphs_stay_and_their_ends_are_one_kind() => Tidy(new DetailSet(Description: " One.\r\n\r\nTwo. \r")).Description.ShouldBe("One.\n\nTwo.");

    [Fact]
    public void Tags_are_there_once_and_none_is_an_answer()
    {
        Tidy(new DetailSet(Tags: ["till", " Till ", "", "deck  hands"])).Tags.ShouldBe(["till", "deck hands"]);
        Tidy(new DetailSet(Tags: [])).Tags.ShouldBe([]);
        DetailFields.Tags.IsIn(new DetailSet(Tags: [])).ShouldBeTrue();
    }

    [Theory]
    [InlineData(50, 60, null)]
    [InlineData(51, 60, "tags-too-many")]
    [InlineData(50, 61, "tag-too-long")]
    public void Tags_have_an_end(int many, int length, string? code)
    {
        var tags = Enumerable.Range(100, many).Select(i => $"{i}" + new string('a', length - 3)).ToList();
        (DetailFields.Unusable(Tidy(new DetailSet(Tags: tags)))?.Code).ShouldBe(code);
    }

    [Fact]
    public void A_tag_has_no_comma_since_files_part_them_so() =>
        DetailFields.Unusable(new DetailSet(Tags: ["till, float"])).ShouldNotBeNull().Code.ShouldBe("tag-with-comma");

    [Theory]
    [InlineData(-1, false)]
    [InlineData(0, true)]
    [InlineData(21, true)]
    [InlineData(22, false)]
    public void An_age_limit_is_of_years(int age, bool usable) => (DetailFields.Unusable(new DetailSet(FromAge: age)) is null).ShouldBe(usable);

    [Theory]
    [InlineData("training@brackwater.example", true)]
    [InlineData("https://brackwater.example/training", true)]
    [InlineData("http://brackwater.example", true)]
    [InlineData("javascript:alert(1)", false)]
    [InlineData("ftp://brackwater.example/", false)]
    [InlineData("Mara Tarn <mara@brackwater.example>", false)]
    [InlineData("brackwater", false)]
    public void An_author_is_reached_by_mail_or_by_a_page(string contact, bool usable) =>
        (DetailFields.Unusable(Tidy(new DetailSet(Author: new Author("Mara Tarn", contact)))) is null).ShouldBe(usable);

    [Fact]
    public void An_author_without_a_name_is_none_and_blank_contact_too()
    {
        Tidy(new DetailSet(Author: new Author(" ", "a@b.example"))).Author.ShouldBeNull();
        Tidy(new DetailSet(Author: new Author(" Mara ", " "))).Author.ShouldBe(new Author("Mara"));
    }

    [Theory]
    [InlineData(true, " ", "permission-missing")]
    [InlineData(true, "By permission of the board.", null)]
    [InlineData(false, "", null)]
    public void Material_of_others_needs_a_permission(bool used, string permission, string? code) =>
        (DetailFields.Unusable(Tidy(new DetailSet(ThirdParty: new ThirdParty(used, permission))))?.Code).ShouldBe(code);

    [Fact]
    public void Where_there_is_none_there_is_no_permission() =>
        Tidy(new DetailSet(ThirdParty: new ThirdParty(false, "x"))).ThirdParty.ShouldBe(new ThirdParty(false));

    [Theory]
    [InlineData("en-gb", "en-GB", null)]
    [InlineData("tongue", "tongue", "language-unknown")]
    [InlineData(" ", null, null)]
    public void A_language_is_written_by_custom(string typed, string? kept, string? code)
    {
        var tidy = Tidy(new DetailSet(Language: typed));
        (tidy.Language, DetailFields.Unusable(tidy)?.Code).ShouldBe((kept, code));
    }

    [Theory]
    [InlineData("cc-by-4.0", "CC-BY-4.0")]
    [InlineData(" For our own crews. ", "For our own crews.")]
    [InlineData(" ", null)]
    public void A_licence_is_one_of_the_list_or_ones_own_words(string typed, string? kept) => Tidy(new DetailSet(Licence: typed)).Licence.ShouldBe(kept);

    [Theory]
    [InlineData(4000, null)]
    [InlineData(4001, "description-too-long")]
    public void A_description_has_an_end(int length, string? code) =>
        (DetailFields.Unusable(new DetailSet(Description: new string('a', length)))?.Code).ShouldBe(code);

    [Theory]
    [InlineData(4000, null)]
    [InlineData(4001, "licence-too-long")]
    public void A_licence_has_an_end(int length, string? code) => (DetailFields.Unusable(new DetailSet(Licence: new string('a', length)))?.Code).ShouldBe(code);

    [Fact]
    public void What_changed_is_said_by_its_label()
    {
        DetailFields.Changes(All, All with { Tags = [.. All.Tags!] }).ShouldBeEmpty();
        DetailFields.Changes(DetailSet.None, new DetailSet(ThirdParty: new ThirdParty(false))).ShouldBe(["material of others"]);
        DetailFields.Changes(All, All with { Tags = [], FromAge = 0, MayEmbed = null }).ShouldBe(["tags", "from the age of", "other sites may embed it"]);
    }

    [Fact]
    public void What_two_people_said_is_brought_together_field_by_field()
    {
        var clashes = new List<string>();
        var (mine, theirs) = (All with { Category = "Deck", FromAge = 18 }, All with { Tags = ["rope"], FromAge = 14 });
        var merged = DetailFields.Merged(new ThreeWay(clashes), All, theirs, mine);
        (merged.Category, merged.Tags!.Single(), merged.FromAge, merged.Author).ShouldBe(("Deck", "rope", 18, All.Author));
        clashes.ShouldBe(["“From the age of”"]);
    }
}
