using Wexel.Core.Mixing;

namespace Wexel.Core.Tests.Mixing;

public class ShelfQueryTests
{
    private static readonly IReadOnlyList<ShelvedSound> Shelf =
    [
        Music("Morning tide", "Acoustic", 24_000, 80, "Calm", "Warm"),
        Music("Gulls", "Folk", 19_200, 100, "Bright"),
        Music("Slow fog", "Ambient", 64_000, 60, "Calm", "Serious"),
        Music("Night boat", "Electronic", 28_800, null, "Calm"),
        new(Sounds.Music with { Title = "Ship’s bell", Length = Ms.Of(3_000) }, SoundUse.Effect, "", [], "attention, strike"),
        new(Sounds.Music with { Title = "Button", Length = Ms.Of(200) }, SoundUse.Effect, "", [], "click, press"),
    ];

    private static readonly ShelfQuery All = new(SoundUse.Music, [], [], []);

    private static ShelvedSound Music(string title, string genre, long length, double? tempo, params string[] moods) =>
        new(Sounds.Music with { Title = title, Length = Ms.Of(length), Tempo = tempo }, SoundUse.Music, genre, moods);

    private static string Titles(ShelfQuery query) => string.Join(", ", query.Ask(Shelf).Sounds.Select(s => s.Sound.Title));

    [Fact]
    public void Boxes_of_one_list_add_to_each_other_and_lists_take_from_each_other()
    {
        Titles(All with { Moods = ["Calm"] }).ShouldBe("Morning tide, Night boat, Slow fog");
        Titles(All with { Moods = ["Calm", "Bright"] }).ShouldBe("Gulls, Morning tide, Night boat, Slow fog");
        Titles(All with { Moods = ["Calm"], Lengths = ["to30"] }).ShouldBe("Morning tide, Night boat");
        Titles(All with { Moods = ["Calm"], Lengths = ["to30"], Genres = ["Folk"] }).ShouldBe("");
    }

    [Fact]
    public void Each_box_says_how_many_it_would_find()
    {
        var found = (All with { Moods = ["Calm"], Genres = ["Acoustic"] }).Ask(Shelf);
        string.Join(' ', found.Genres.Select(g => $"{g.Name}:{g.Count}")).ShouldBe("Acoustic:1 Ambient:1 Electronic:1 Folk:0");
        string.Join(' ', found.Moods.Select(g => $"{g.Name}:{g.Count}")).ShouldBe("Bright:0 Calm:1 Serious:0 Warm:1");
        string.Join(' ', found.Lengths.Select(g => $"{g.Code}:{g.Count}")).ShouldBe("to30:1 to180:0");
    }

    [Theory]
    [InlineData(ShelfOrder.Length, "Gulls, Morning tide, Night boat, Slow fog")]
    [InlineData(ShelfOrder.Tempo, "Slow fog, Morning tide, Gulls, Night boat")]
    [InlineData(ShelfOrder.Title, "Gulls, Morning tide, Night boat, Slow fog")]
    public void They_are_sorted(ShelfOrder order, string expected) => Titles(All with { Order = order }).ShouldBe(expected);

    [Theory]
    [InlineData("bell", "Ship’s bell")]
    [InlineData("CLICK but", "Button")]
    [InlineData("whale", "")]
    [InlineData("", "Button, Ship’s bell")]
    public void Effects_are_found_by_words(string words, string expected) => Titles(new(SoundUse.Effect, [], [], [], words)).ShouldBe(expected);

    [Theory]
    [InlineData("", "CC0-1.0", "A", "sound-no-title")]
    [InlineData("T", " ", "A", "sound-no-licence")]
    [InlineData("T", "CC-BY-4.0", "", "sound-no-author")]
    [InlineData("T", "CC0-1.0", "", null)]
    public void What_the_shelf_asks_for(string title, string licence, string author, string? code) =>
        (
            (Shelf[0] with { Sound = Shelf[0].Sound with { Title = title, Licence = licence, Author = author } }).Tidied().Refusal() is { Code: var refused }
                ? refused
                : null
        ).ShouldBe(code);
}
