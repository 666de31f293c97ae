using Wexel.Core.Captions;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Captions;

/// <summary>A track is corrected cue by cue; what nobody names stays.</summary>
public class CueChangeTests
{
    private static readonly Cue[] Track = [Of("a", 0, 1, "One"), Of("b", 1, 2, "Two"), Of("c", 2, 3, "Three")];

    [Fact]
    public void What_is_set_replaces_what_has_its_name_and_the_rest_stays()
    {
        var changed = new CueChanges([Of("b", 1, 1.5, "To"), Of("d", 1.5, 2, "who\r\n\r\n  else ")], ["c"]).Apply(Track);
        changed.ShouldBe([Track[0], Of("b", 1, 1.5, "To"), Of("d", 1.5, 2, "who\nelse")]);
    }

    [Fact]
    public void A_cue_without_a_word_goes_and_one_that_is_moved_stands_where_it_belongs() =>
        new CueChanges([Of("a", 2.5, 2.8, "One"), Of("b", 1, 2, " \n ")], []).Apply(Track).Select(c => c.Id).ShouldBe(["c", "a"]);

    [Fact]
    public void Nothing_changed_is_the_same_track() => new CueChanges([], ["unknown"]).Apply(Track).ShouldBe(Track);

    [Theory]
    [InlineData("", 0, 1, "captions-without-name")]
    [InlineData("a b", 0, 1, "captions-without-name")]
    [InlineData("a", 1, 1, "captions-backward")]
    public void What_cannot_stand_is_refused(string id, double start, double end, string code) =>
        new CueChanges([Of(id, start, end, "x")], []).Refusal(Track)!.Code.ShouldBe(code);

    [Fact]
    public void Too_much_is_refused()
    {
        new CueChanges([Of("a", 0, 1, new string('x', CaptionFile.LongestCue + 1))], []).Refusal(Track)!.Code.ShouldBe("captions-too-long");
        var full = Enumerable.Range(0, CaptionFile.MostCues).Select(i => Of($"c{i}", i, i + 1, "x")).ToList();
        new CueChanges([Of("new", 0, 1, "x")], []).Refusal(full)!.Code.ShouldBe("captions-too-many");
        new CueChanges([Of("c7", 0, 1, "x")], []).Refusal(full).ShouldBeNull();
    }

    private static Cue Of(string id, double start, double end, string text) =>
        new(new TimeRange(TimeSpan.FromSeconds(start), TimeSpan.FromSeconds(end)), text, Id: id);
}
