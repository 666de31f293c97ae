using CsCheck;
using Wexel.Core.Details;

namespace Wexel.Core.Tests.Details;

public class DetailLayersTests
{
    private static readonly Gen<DetailSet> Sets = Gen.Select(
        Gen.OneOf(Gen.Const((string?)null), Gen.String[Gen.Char.AlphaNumeric, 1, 3].Select(s => (string?)s)),
        Gen.OneOf(Gen.Const((bool?)null), Gen.Bool.Select(b => (bool?)b)),
        Gen.OneOf(Gen.Const((int?)null), Gen.Int[0, 21].Select(i => (int?)i)),
        Gen.OneOf(Gen.Const((IReadOnlyList<string>?)null), Gen.String[Gen.Char.AlphaNumeric, 1, 3].List[0, 2].Select(l => (IReadOnlyList<string>?)l)),
        (text, yes, age, tags) => new DetailSet(Category: text, MayEmbed: yes, FromAge: age, Tags: tags)
    );

    /// <summary>Of each detail holds what the last of the four says that says anything, and it comes from there.</summary>
    [Fact]
    public void The_last_that_says_anything_holds() =>
        Gen.Select(Sets, Sets, Sets, Sets)
            .Sample(
                (house, outlet, lesson, release) =>
                {
                    var found = new DetailLayers(house, outlet, lesson, release).Resolve();
                    foreach (var field in DetailFields.All)
                    {
                        DetailSet[] levels = [house, outlet, lesson, release];
                        var last = Array.FindLastIndex(levels, field.IsIn);
                        field.Take(DetailSet.None, found.Values).ShouldBe(field.Take(DetailSet.None, last < 0 ? DetailSet.None : levels[last]));
                        (found.From.TryGetValue(field.Code, out var from) ? (int)from : -1).ShouldBe(last);
                    }
                }
            );

    [Fact]
    public void Nothing_said_anywhere_is_nothing()
    {
        var found = new DetailLayers(DetailSet.None, DetailSet.None, DetailSet.None, DetailSet.None).Resolve();
        (found.Values, found.From.Count).ShouldBe((DetailSet.None, 0));
    }

    [Theory]
    [InlineData("How a day begins.", null, "How a day begins.\n\nSound: by A.")]
    [InlineData("How a day begins.", "In short.", "In short.\n\nSound: by A.")]
    [InlineData(null, null, "Sound: by A.")]
    public void What_must_be_said_stands_behind_whichever_description_holds(string? lesson, string? release, string expected)
    {
        var merged = DetailLayers.Merged(DetailSet.None, new DetailSet(Description: lesson, Credits: "Sound: by A."), new DetailSet(Description: release));
        (merged.Description, merged.Credits).ShouldBe((expected, null));
    }

    private static readonly IReadOnlyList<DetailRule> Asked =
    [
        new(DetailFields.Title, Required: true, Longest: 10),
        new(DetailFields.Description, Required: true),
        new(DetailFields.Tags, Required: true, Longest: 2),
        new(DetailFields.ForChildren, Required: true),
    ];

    /// <summary>One place demands title, description and a tag, and another the audience (common practice, no source).</summary>
    [Theory]
    [InlineData(null, null, -1, false, "title description tags forChildren")]
    [InlineData("Fares", null, -1, true, "description tags")]
    [InlineData("Fares", "How.", 0, true, "tags")]
    [InlineData("Fares", "How.", 1, false, "forChildren")]
    [InlineData("Fares", "How.", 2, true, "")]
    [InlineData("Fares", "How.", 3, true, "tags")]
    [InlineData("0123456789", "How.", 1, true, "")]
    [InlineData("0123456789a", "How.", 1, true, "title")]
    public void What_a_place_lacks_is_named_field_by_field(string? title, string? description, int tags, bool audience, string missing)
    {
        var said = new DetailSet(
            title,
            Description: description,
            Tags: tags < 0 ? null : [.. Enumerable.Range(0, tags).Select(i => $"t{i}")],
            ForChildren: audience ? false : null
        );
        var found = DetailRule.Missing(Asked, said, "Quay Video");
        string.Join(' ', found.Select(p => p.Field)).ShouldBe(missing);
        found.ShouldAllBe(p => p.Sentence.Contains("“Quay Video”", StringComparison.Ordinal));
    }

    [Fact]
    public void A_length_counts_letters_as_people_do()
    {
        // A family of four is one letter to people (Unicode Standard Annex 29, section 3; the example is from memory).
        var family = "\ud83d\udc68\u200d\ud83d\udc69\u200d\ud83d\udc67\u200d\ud83d\udc66";
        DetailFields.Title.Length(new DetailSet(Title: family + "abc")).ShouldBe(4);
    }

    [Fact]
    public void Only_what_a_place_has_and_shows_makes_a_difference_to_it()
    {
        IReadOnlyList<DetailRule> rules = [new(DetailFields.Title), new(DetailFields.TellFollowers)];
        string Key(DetailSet set) => DetailRule.Key(rules, set);
        Key(new DetailSet("a", Category: "x", TellFollowers: true)).ShouldBe(Key(new DetailSet("a", Category: "y", TellFollowers: false)));
        Key(new DetailSet("a")).ShouldNotBe(Key(new DetailSet("b")));
        // That there is no material of others is an answer, and makes nothing behind; a permission does.
        DetailRule
            .Key([new(DetailFields.ThirdParty)], new DetailSet(ThirdParty: new ThirdParty(false)))
            .ShouldBe(DetailRule.Key([new(DetailFields.ThirdParty)], DetailSet.None));
    }

    [Fact]
    public void Every_detail_that_is_seen_makes_a_difference()
    {
        var all = DetailSet.Format.Read(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "Documents", "Fixtures", "details-1.json")));
        var rules = DetailFields.All.Select(f => new DetailRule(f)).ToList();
        EveryField.MakesADifference(all, set => DetailRule.Key(rules, set), 14, but: ["$.tellFollowers"]);
        DetailRule.Key(rules, new DetailSet(Tags: [])).ShouldNotBe(DetailRule.Key(rules, DetailSet.None));
    }

    [Fact]
    public void A_file_says_what_it_can_hold()
    {
        FileTags.Of(new DetailSet("Title", "Short", FromAge: 3, MayEmbed: true)).ShouldBeNull();
        var tags = FileTags.Of(new DetailSet(Licence: "CC-BY-4.0", Author: new Author("Mara Tarn"), Tags: ["till"])).ShouldNotBeNull();
        tags.Rights.ShouldBe("CC BY 4.0, Attribution (https://creativecommons.org/licenses/by/4.0/)");
        (tags.Author, tags.Keywords.Single()).ShouldBe(("Mara Tarn", "till"));
        FileTags.Of(new DetailSet(Licence: Licences.AllRightsReserved))!.Rights.ShouldBe("All rights reserved");
        FileTags.Of(new DetailSet(Licence: "For our crews."))!.Rights.ShouldBe("For our crews.");
    }
}
