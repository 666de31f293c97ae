using Wexel.Core.Captions;
using Wexel.Core.Speech;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Speech;

/// <summary>Words of captions that could be written otherwise.</summary>
public class CorrectionTests
{
    private static readonly WordList House = new([
        new HouseWord("MV Tern", "em vee tern", ["turn"]),
        new HouseWord("skipper", "", []),
        new HouseWord("BFL", "", []),
    ]);

    private static readonly Dictionary<string, IReadOnlyList<string>> Unknown = new()
    {
        ["flote"] = ["float", "flute"],
        ["bfl"] = [],
        ["tern"] = [],
    };

    [Fact]
    public void The_houses_words_capitals_and_slips_are_proposed_where_they_stand()
    {
        Proposed("Then i board the turn.", "the flote is counted", "and i'm done.")
            .ShouldBe(["a 5 i→I", "a 17 turn→MV Tern", "b 0 the→The", "b 4 flote→float", "c 4 i→I"]);
    }

    [Fact]
    public void What_is_right_is_left()
    {
        Proposed("Ask the skipper of MV Tern.", "Skipper, ask BFL.", "I'm here, i.e. at the desk").ShouldBeEmpty();
        Proposed("The BFL and the MV\nTern").ShouldBeEmpty();
    }

    [Fact]
    public void Another_language_has_no_lone_i() =>
        CaptionCorrections.Find([Cue("a", "Idem i jadę")], WordList.None, isEnglish: false, new Dictionary<string, IReadOnlyList<string>>()).ShouldBeEmpty();

    [Fact]
    public void A_sentence_that_goes_on_in_the_next_caption_begins_small() => Proposed("The float is", "counted at night.").ShouldBeEmpty();

    private static List<string> Proposed(params string[] texts)
    {
        List<Cue> cues = [.. texts.Select((t, i) => Cue(((char)('a' + i)).ToString(), t))];
        var found = CaptionCorrections.Find(cues, House, isEnglish: true, Unknown);
        found.ShouldAllBe(c => cues.Single(q => q.Id == c.Cue).Text.Substring(c.At, c.Length) == c.Written);
        return [.. found.Select(c => $"{c.Cue} {c.At} {c.Written}→{c.Instead[0]}")];
    }

    private static Cue Cue(string id, string text) => new(new TimeRange(TimeSpan.Zero, TimeSpan.FromSeconds(1)), text, Id: id);
}
