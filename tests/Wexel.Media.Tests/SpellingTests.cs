using Wexel.Media.Spelling;

namespace Wexel.Media.Tests;

/// <summary>Spelling by Debian's hunspell and its dictionaries.</summary>
public sealed class SpellingTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Slips_are_found_with_what_they_could_be_and_right_words_are_not()
    {
        var unknown = await new Hunspell().UnknownAsync(["float", "flote", "colour", "teh", "don't", "!cat", "12", "^", "zzxqj"], "en_GB", Cancel);
        unknown.Keys.Order().ShouldBe(["flote", "teh", "zzxqj"]);
        unknown["teh"].ShouldContain("the");
        unknown["zzxqj"].ShouldBeEmpty();
    }

    [Fact]
    public async Task Twenty_thousand_words_are_asked_at_once_and_none_is_a_command()
    {
        var words = Enumerable
            .Range(0, 20_000)
            .Select(i => $"w{(char)('a' + (i % 26))}{(char)('a' + (i / 26 % 26))}{(char)('a' + (i / 676))}")
            .Append("*added")
            .Append("@skip")
            .Append("#save");
        (await new Hunspell().UnknownAsync(words, "en_GB", Cancel)).Count.ShouldBeGreaterThan(5000);
    }

    [Theory]
    [InlineData("en-GB", "en_GB")]
    [InlineData("en-NZ", "en_GB")]
    [InlineData("qq", null)]
    public void A_dictionary_is_of_the_region_else_of_the_language(string language, string? dictionary) =>
        new Hunspell().Dictionary(language).ShouldBe(dictionary);

    [Fact]
    public void Without_the_program_there_is_none() => new Hunspell("no-such-program").Dictionary("en-GB").ShouldBeNull();
}
