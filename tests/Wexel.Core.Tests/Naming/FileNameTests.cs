using System.Text;
using CsCheck;
using Wexel.Core.Naming;

namespace Wexel.Core.Tests.Naming;

/// <summary>Names of files, against what Windows documents that it does not take: "Naming Files, Paths, and Namespaces" (Microsoft Learn, Win32);
/// its lists stand here from memory.</summary>
public class FileNameTests
{
    private static readonly string[] Reserved =
    [
        "CON",
        "PRN",
        "AUX",
        "NUL",
        .. Enumerable.Range(1, 9).SelectMany(n => new[] { $"COM{n}", $"LPT{n}" }),
        "COM¹",
        "COM²",
        "COM³",
        "LPT¹",
        "LPT²",
        "LPT³",
    ];

    private static Gen<T> OneOf<T>(params T[] all) => Gen.Int[0, all.Length - 1].Select(i => all[i]);

    private static void ShouldBeTakenEverywhere(string name)
    {
        name.ShouldNotBeEmpty();
        (name + ".wexel.zip").Length.ShouldBeLessThanOrEqualTo(255);
        System.Text.Encoding.UTF8.GetByteCount(name + " (999).wexel.zip").ShouldBeLessThanOrEqualTo(255);
        name.IndexOfAny([.. "<>:\"/\\|?*"]).ShouldBe(-1);
        name.ShouldAllBe(c => !char.IsControl(c));
        name[^1].ShouldNotBe('.');
        name.Trim(' ').ShouldBe(name);
        // What begins with a dot is hidden on macOS and Linux.
        name[0].ShouldNotBe('.');
        Reserved.ShouldNotContain(name.Split('.')[0].TrimEnd(' ').ToUpperInvariant());
        // Half a character is written by no file system.
        name.EnumerateRunes().ShouldAllBe(r => r != Rune.ReplacementChar);
    }

    [Fact]
    public void Whatever_the_title_is_the_name_is_taken_everywhere() =>
        Gen.OneOf(
                Gen.String[Gen.Char, 0, 600],
                Gen.String[Gen.Char["<>:\"/\\|?*. \t-aCONPRN1"], 0, 40],
                Gen.Select(OneOf(Reserved), OneOf("", ".", ".mp4", " ", " .", "x"), (name, rest) => name + rest)
            )
            .Sample(title => ShouldBeTakenEverywhere(FileName.Safe(title, "lesson")));

    [Theory]
    [InlineData("Closing the till", "Closing the till")]
    [InlineData("a", "a")]
    [InlineData("Till: opening/closing?", "Till- opening-closing-")]
    [InlineData("   ", "lesson")]
    [InlineData("...", "lesson")]
    [InlineData("///", "lesson")]
    [InlineData("What next...", "What next")]
    [InlineData(".hidden", "hidden")]
    [InlineData("con", "con_")]
    [InlineData("aux.mp4", "aux_.mp4")]
    [InlineData("NUL .x", "NUL_ .x")]
    [InlineData("Console", "Console")]
    [InlineData("two\nlines\tand  more", "two lines and more")]
    [InlineData("إغلاق الصندوق", "إغلاق الصندوق")]
    [InlineData("left\u202Egpj.exe", "leftgpj.exe")]
    [InlineData("Ferry 👩‍✈️ at work", "Ferry 👩‍✈️ at work")]
    public void A_title_stays_readable(string title, string name) => FileName.Safe(title, "lesson").ShouldBe(name);

    /// <summary>What an attribute cannot hold: half of a character.</summary>
    [Fact]
    public void Half_a_character_is_no_character() => FileName.Safe("half \ud83d", "lesson").ShouldBe("half -");

    [Fact]
    public void A_title_of_500_characters_is_cut_between_characters()
    {
        FileName.Safe(new string('x', 500), "lesson").ShouldBe(new string('x', 215));
        // A family of seven code points is one character, of 25 bytes.
        var family = "👨‍👩‍👧‍👦";
        FileName.Safe(string.Concat(Enumerable.Repeat(family, 60)), "lesson").ShouldBe(string.Concat(Enumerable.Repeat(family, 8)));
    }

    [Fact]
    public void No_two_are_alike_by_letter_case_either()
    {
        var names = new DistinctNames(["Lines"]);
        names.Take("The till", ".mp4").ShouldBe("The till.mp4");
        names.Take("the TILL", ".mp4").ShouldBe("the TILL (2).mp4");
        names.Take("The till", ".MP4").ShouldBe("The till (3).MP4");
        names.Take("The till").ShouldBe("The till");
        names.Take("lines").ShouldBe("lines (2)");
    }

    private static readonly NameParts Whole = new("Closing the till", "The till", "Ticket desk", 3, "Web 720p", new DateOnly(2026, 11, 29));

    [Theory]
    [InlineData("{title} - {profile}", "Closing the till - Web 720p")]
    [InlineData("{course} {number} {short}, {date}", "Ticket desk 03 The till, 2026-11-29")]
    [InlineData("Brackwater {number}", "Brackwater 03")]
    [InlineData("{title} for crews", "Closing the till for crews")]
    public void A_pattern_says_how_files_are_named(string pattern, string name) => Read(pattern).Name(Whole).ShouldBe(name);

    [Theory]
    [InlineData("{title} - {profile}", "Lines")]
    [InlineData("{course} - {number} - {title}", "Lines")]
    [InlineData("{title}_{date}_{profile}", "Lines")]
    [InlineData("({course}) {short}", "Lines")]
    [InlineData("Lesson {number}", "lesson")]
    [InlineData("{title} for crews {number}", "Lines")]
    public void A_part_that_there_is_not_goes_with_what_joins_it(string pattern, string name) => Read(pattern).Name(new NameParts("Lines")).ShouldBe(name);

    [Theory]
    [InlineData("", "so that two lessons")]
    [InlineData("{course} {date}", "so that two lessons")]
    [InlineData("{titel}", "no part {titel}")]
    [InlineData("{title", "character 1")]
    [InlineData("title} {number}", "character 6")]
    [InlineData("{{title}}", "character 1")]
    public void What_is_no_pattern_is_said(string pattern, string why)
    {
        NamePattern.Parse(pattern).Is(out _, out var problem).ShouldBeFalse();
        problem!.Sentence.ShouldContain(why);
        problem.Field.ShouldBe("filePattern");
    }

    [Fact]
    public void A_pattern_of_more_than_200_characters_is_refused()
    {
        NamePattern.Parse("{title}" + new string('x', 193)).Is(out _, out _).ShouldBeTrue();
        NamePattern.Parse("{title}" + new string('x', 194)).Is(out _, out _).ShouldBeFalse();
        NamePattern.Usual.Name(Whole).ShouldBe("Closing the till - Web 720p");
        NamePattern.PartNames.ShouldBe(["course", "date", "number", "profile", "short", "title"]);
    }

    private static NamePattern Read(string pattern) => NamePattern.Parse(pattern).Is(out var read, out _) ? read : throw new InvalidOperationException(pattern);
}
