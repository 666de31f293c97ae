using System.Text;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Kit;
using Wexel.Core.Questions.Lists;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests;

/// <summary>
/// Texts that were made to take long. Every reader takes time in proportion to its text: half a megabyte is read at once, where a reader that goes
/// back over what it has read would be at it for minutes.
/// </summary>
public sealed class HostileTextTests
{
    private const int Characters = 500_000;
    private const int Mixtures = 12;

    /// <summary>Far more than a slow machine needs, far less than time that grows with the square.</summary>
    private static readonly TimeSpan NeverDone = TimeSpan.FromMinutes(2);

    private static readonly Dictionary<string, Action<string>> Readers = new()
    {
        ["contents"] = text => ContentsText.Read(text),
        ["WebVTT"] = text => WebVttText.Read("WEBVTT\n\n" + text),
        ["WebVTT cue"] = text => WebVttText.Read("WEBVTT\n\n00:01.000 --> 00:02.000\n" + text),
        ["SubRip"] = text => SubRipText.Read(text),
        ["SubRip cue"] = text => SubRipText.Read("00:00:01,000 --> 00:00:02,000\n" + text),
        ["tags"] = text => CueMarkup.Read(text, t => t),
        ["caption file"] = text => CaptionFile.Read(System.Text.Encoding.UTF8.GetBytes(text)),
        ["questions"] = text => QuestionList.Read(text),
        ["GIFT"] = text => QuestionList.Read("Is it so? {T}\n\nWhich? {=a ~" + text + "}"),
        ["cuts"] = text => CutsText.Read(text, TimeSpan.FromHours(1)),
        ["move-ins"] = text => MoveInsText.Read(text, TimeSpan.FromHours(1)),
        ["profile"] = text => ProfileText.Read(text),
        ["SVG"] = text => SvgCheck.Wrong(new MemoryStream(System.Text.Encoding.UTF8.GetBytes(text))),
        ["SVG style"] = text =>
            SvgCheck.Wrong(
                new MemoryStream(System.Text.Encoding.UTF8.GetBytes($"<svg xmlns='http://www.w3.org/2000/svg'><style><![CDATA[{text}]]></style></svg>"))
            ),
        ["time"] = text => TimeCode.Parse(text),
        ["language"] = text => LanguageTag.Parse(text),
        ["title"] = text => SectionRules.OneLine(text),
        ["plain text"] = text => PlainText.Decode(System.Text.Encoding.Latin1.GetBytes(text)),
    };

    /// <summary>What the readers give a meaning to.</summary>
    private static readonly string[] Pieces =
    [
        " ",
        "\t",
        "\n",
        "\n\n",
        "\0",
        "\r",
        "a",
        "é",
        "-",
        "–",
        "•",
        "[",
        "]",
        "(",
        ")",
        ":",
        "|",
        ".",
        ",",
        "1",
        "0:01",
        "1:00:00",
        "9",
        "end",
        " to ",
        " at ",
        "1,1 ",
        "50x50",
        "x",
        "<",
        ">",
        "</",
        "<b>",
        "</b>",
        "<i>",
        "</u>",
        "<s ",
        "<font",
        "{",
        "}",
        "{\\",
        "\\an8",
        "&",
        "&amp;",
        ";",
        "-->",
        " --> ",
        "00:00:01,000",
        "00:01.000 --> 00:02.000\n",
        "NOTE\n",
        "{\"a\":",
        "[[",
        "\"",
        "<svg",
        "<g>",
        "<use href='#a'/>",
        "url(",
        "url(#a)",
        "@import",
        "'",
        "=",
        "/*",
        "%",
    ];

    public static TheoryData<string> Names => [.. Readers.Keys];

    [Theory]
    [MemberData(nameof(Names))]
    public async Task No_text_takes_longer_than_in_proportion_to_its_length(string reader)
    {
        var read = Readers[reader];
        var chance = new Random(20_261_128);
        var patterns = Pieces.Concat(
            Enumerable.Range(0, Mixtures).Select(_ => string.Concat(Enumerable.Range(0, chance.Next(2, 6)).Select(_ => Pieces[chance.Next(Pieces.Length)])))
        );
        foreach (var pattern in patterns)
        {
            // One that ends otherwise than it goes on makes a reader give up at the last moment.
            var text = new StringBuilder().Insert(0, pattern, Characters / pattern.Length).Append('!').ToString();
            await Task.Run(() => read(text), TestContext.Current.CancellationToken).WaitAsync(NeverDone, TestContext.Current.CancellationToken);
        }
    }

    /// <summary>The names of files are shorter than 256 bytes everywhere.</summary>
    [Fact]
    public void A_title_is_proposed_from_every_name_of_a_file()
    {
        foreach (var piece in Pieces)
            TitleProposal.From(new StringBuilder().Insert(0, piece, 255 / piece.Length).ToString());
    }

    [Fact]
    public void Contents_that_are_too_long_are_refused_with_a_sentence_and_of_too_many_lines_the_first_are_read()
    {
        ContentsText.Read(new string('a', 1_000_001)).Problems.Single().Code.ShouldBe("contents-too-long");
        var many = ContentsText.Read(string.Concat(Enumerable.Repeat("0:01 a\n", 2_500)));
        many.Lines.Count.ShouldBe(2_000);
        many.Problems.Single()
            .ShouldBe(new Problem("contents-too-many", "Nothing from line 2001 on was read: a lesson has at most 2000 sections.", "line 2001"));
        var none = ContentsText.Read(string.Concat(Enumerable.Repeat("no time\n", 2_500)));
        none.Problems.Count.ShouldBe(101);
        none.Problems[^1].Sentence.ShouldBe("Nothing from line 101 on was read: too much before it cannot be read.");
        ContentsText.Read("0:01 " + new string('9', 30) + ":" + new string('9', 5000)).Problems.ShouldAllBe(p => p.Sentence.Length < 200);
    }

    [Fact]
    public void Captions_that_are_too_many_or_too_long_are_left_out_with_a_sentence()
    {
        var many = WebVttText.Read("WEBVTT\n\n" + string.Concat(Enumerable.Repeat("00:01.000 --> 00:02.000\na\n\n", 50_001)));
        many.Cues.Count.ShouldBe(50_000);
        many.Problems.Single().Sentence.ShouldBe("Nothing from line 150002 on was read: a lesson has at most 50,000 captions.");
        var mixed = WebVttText.Read($"WEBVTT\n\n00:01.000 --> 00:02.000\n{new string('a', 10_001)}\n\n00:03.000 --> 00:04.000\nb\n");
        mixed.Cues.Single().Text.ShouldBe("b");
        mixed.Problems.Single().ShouldBe(new Problem("captions-too-long", "Line 3: the caption has more than 10,000 characters; it was left out.", "line 3"));
        var wrong = SubRipText.Read(string.Concat(Enumerable.Repeat("1\n00:00:02,000 --> 00:00:01,000\na\n\n", 200)));
        wrong.Problems.Count.ShouldBe(101);
    }
}
