using CsCheck;
using Wexel.Core.Contents;

namespace Wexel.Core.Tests.Contents;

/// <summary>Contents as lines below a description; links are made of them where the list begins at 0:00 (common practice, no source).</summary>
public class DescribedContentsTests
{
    private static Section At(double seconds, string title, bool nested = false) => new(title, TimeSpan.FromSeconds(seconds), title, nested);

    private static Gen<T> OneOf<T>(params T[] all) => Gen.Int[0, all.Length - 1].Select(i => all[i]);

    private static readonly Gen<string> AnyTitle = Gen.String[Gen.Char["aZ…0:1 Contents-é"], 1, 12].Select(SectionRules.OneLine).Where(t => t.Length > 0);

    private static readonly Gen<IReadOnlyList<Section>> AnyContents = Gen.Select(Gen.Int[0, 20_000], AnyTitle, Gen.Bool)
        .List[0, 8]
        .Select(all =>
            (IReadOnlyList<Section>)
                [
                    .. all.OrderBy(s => s.Item1)
                        .Select((s, i) => At(s.Item1, s.Item2, s.Item3 && i > 0))
                        // At 0:00 this stands for none.
                        .Where(s => s.At > TimeSpan.Zero || s.Title != "…"),
                ]
        );

    private static readonly Gen<string> AnyDescription = OneOf("Contents:", "0:00 Start", "0:00 …", "", "A lesson.", "  1:05 Then", "Contents: below")
        .List[0, 6]
        .Select(lines => string.Join('\n', lines).TrimEnd());

    [Fact]
    public void What_is_printed_is_read_without_loss() =>
        Gen.Select(AnyDescription, AnyContents)
            .Sample(
                (description, contents) =>
                {
                    var read = DescribedContents.Read(DescribedContents.Write(description, contents));
                    read.Description.ShouldBe(description);
                    read.Lines.ShouldBe(contents.Select(s => new ContentsLine(s.At, s.Title, s.Nested)));
                    DescribedContents.Changes(contents, read.Lines).ShouldBeEmpty();
                }
            );

    [Fact]
    public void The_list_begins_at_0_and_stands_below_the_description()
    {
        DescribedContents
            .Write("How the till is closed.\r\n", [At(5.5, "Count"), At(65, "Coins", nested: true), At(3_725, "Sign")])
            .ShouldBe("How the till is closed.\n\nContents:\n0:00 …\n0:05 Count\n    1:05 Coins\n1:02:05 Sign");
        DescribedContents.Write("", [At(0.2, "Count")]).ShouldBe("Contents:\n0:00 Count");
        DescribedContents.Write("Times such as 0:10 are links.", []).ShouldBe("Times such as 0:10 are links.");
    }

    [Fact]
    public void What_somebody_edited_there_is_seen_line_by_line()
    {
        Section[] before = [At(0, "Count"), At(65.4, "Coins"), At(120, "Sign"), At(200, "Lock")];
        var read = DescribedContents.Read("Another text.\n\nContents:\n0:00 Count\n\n1:05  Coins and notes\n2:10 Sign\n5:00 Home");
        read.Description.ShouldBe("Another text.");
        DescribedContents
            .Changes(before, read.Lines)
            .Select(c => (c.Edit, c.Was?.Title, c.Is?.Title))
            .ShouldBe([
                (ContentsEdit.Renamed, "Coins", "Coins and notes"),
                (ContentsEdit.Moved, "Sign", "Sign"),
                (ContentsEdit.Removed, "Lock", null),
                (ContentsEdit.Added, null, "Home"),
            ]);
        // Of what is as it was, the exact time is known.
        DescribedContents.Changes([At(65.4, "Coins")], [new ContentsLine(TimeSpan.FromSeconds(65), "Coins", false)]).ShouldBeEmpty();
    }

    [Fact]
    public void A_heading_over_something_else_is_part_of_the_description() =>
        DescribedContents
            .Read("Contents:\n0:00 One\nand a sentence")
            .ShouldSatisfyAllConditions(r => r.Lines.ShouldBeEmpty(), r => r.Description.ShouldContain("One"));
}
