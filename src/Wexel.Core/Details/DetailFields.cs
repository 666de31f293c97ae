using System.Globalization;
using System.Net.Mail;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Documents;
using Wexel.Core.Keys;
using Wexel.Core.Placing;

namespace Wexel.Core.Details;

/// <summary>All details that there are, in the order in which they are asked.</summary>
public static class DetailFields
{
    /// <summary>The longest line, in characters.</summary>
    public const int LongestLine = 500;

    /// <summary>The longest description, in characters.</summary>
    public const int LongestText = 4000;

    /// <summary>The most tags, and the most characters of one.</summary>
    public const int MostTags = 50,
        LongestTag = 60;

    /// <summary>The title.</summary>
    public static DetailField Title { get; } = Line("title", "Title", s => s.Title, (s, v) => s with { Title = v }, ofOneLesson: true);

    /// <summary>The title where lists have little room.</summary>
    public static DetailField ShortTitle { get; } =
        Line(
            "shortTitle",
            "Short title",
            s => s.ShortTitle,
            (s, v) => s with { ShortTitle = v },
            "Stands in lists, where a long title would be cut off.",
            ofOneLesson: true
        );

    /// <summary>What it is about.</summary>
    public static DetailField Description { get; } =
        new DetailField<string>(
            "description",
            "Description",
            DetailInput.Text,
            s => s.Description,
            (s, v) => s with { Description = v },
            text => text.ReplaceLineEndings("\n").Trim() is { Length: > 0 } kept ? kept : null,
            text => TooLong("description", "The description", text, LongestText),
            (key, text) => key.Add("description", text),
            text => text.Length,
            "Times in it, such as 1:20, lead to their places."
        );

    /// <summary>Words by which it is found.</summary>
    public static DetailField Tags { get; } =
        new DetailField<IReadOnlyList<string>>(
            "tags",
            "Tags",
            DetailInput.Words,
            s => s.Tags,
            (s, v) => s with { Tags = v },
            tags =>
                [
                    .. tags.Select(t => SectionRules.OneLine(t, LongestTag + 1))
                        .Where(t => t.Length > 0)
                        .DistinctBy(t => t, StringComparer.CurrentCultureIgnoreCase),
                ],
            tags =>
                tags.Count > MostTags ? new Problem("tags-too-many", $"There are {tags.Count} tags; {MostTags} is the most.", "tags")
                : tags.FirstOrDefault(t => t.Length > LongestTag) is { } longest
                    ? new Problem("tag-too-long", $"The tag “{Problem.Shown(longest)}” has more than {LongestTag} characters; shorten it.", "tags")
                : tags.FirstOrDefault(t => t.Contains(',', StringComparison.Ordinal)) is { } comma
                    ? new Problem("tag-with-comma", $"The tag “{Problem.Shown(comma)}” has a comma in it; make it several tags.", "tags")
                : null,
            (key, tags) => key.Add("tagged", true).Each("tags", tags),
            tags => tags.Count
        );

    /// <summary>The subject that it belongs to.</summary>
    public static DetailField Category { get; } = Line("category", "Category", s => s.Category, (s, v) => s with { Category = v });

    /// <summary>Its language.</summary>
    public static DetailField Language { get; } =
        new DetailField<string>(
            "language",
            "Language",
            DetailInput.Language,
            s => s.Language,
            (s, v) => s with { Language = v },
            tag => tag.Trim() is { Length: > 0 } kept ? LanguageTag.Parse(kept) ?? kept : null,
            tag =>
                LanguageTag.Parse(tag) is null
                    ? new Problem("language-unknown", $"“{Problem.Shown(tag)}” is no language; write it such as en-GB.", "language")
                    : null,
            (key, tag) => key.Add("language", tag)
        );

    /// <summary>Whether it is made for children.</summary>
    public static DetailField ForChildren { get; } =
        YesNo(
            "forChildren",
            "Made for children",
            s => s.ForChildren,
            (s, v) => s with { ForChildren = v },
            "Where it is, places show no advertising, no comments and no list of others."
        );

    /// <summary>From which age it is meant to be seen.</summary>
    public static DetailField FromAge { get; } =
        new DetailField<int?>(
            "fromAge",
            "From the age of",
            DetailInput.Age,
            s => s.FromAge,
            (s, v) => s with { FromAge = v },
            age => age,
            age => age is < 0 or > 21 ? new Problem("age-out-of-range", "An age limit is between 0 and 21 years.", "fromAge") : null,
            (key, age) => key.Add("fromAge", (long?)age)
        );

    /// <summary>What others may do with it.</summary>
    public static DetailField Licence { get; } =
        new DetailField<string>(
            "licence",
            "Licence",
            DetailInput.Licence,
            s => s.Licence,
            (s, v) => s with { Licence = v },
            text => text.Trim() is { Length: > 0 } kept ? Licences.Find(kept)?.Id ?? kept : null,
            text => TooLong("licence", "The licence", text, LongestText),
            (key, text) => key.Add("licence", text)
        );

    /// <summary>Material of others in it.</summary>
    public static DetailField ThirdParty { get; } =
        new DetailField<ThirdParty>(
            "thirdParty",
            "Material of others",
            DetailInput.ThirdParty,
            s => s.ThirdParty,
            (s, v) => s with { ThirdParty = v },
            given => given with { Permission = given.Used ? given.Permission.Trim() : "" },
            given =>
                given is { Used: true } && string.IsNullOrWhiteSpace(given.Permission)
                    ? new Problem("permission-missing", "Say by whose permission the material of others is in it, or take it out.", "thirdParty")
                    : TooLong("thirdParty", "The permission", given.Permission, LongestText),
            // That there is none is an answer, and nothing that learners see.
            (key, given) => key.Add("thirdParty", given.Used ? given.Permission : null)
        );

    /// <summary>Who made it.</summary>
    public static DetailField Author { get; } =
        new DetailField<Author>(
            "author",
            "Author",
            DetailInput.Author,
            s => s.Author,
            (s, v) => s with { Author = v },
            author =>
                SectionRules.OneLine(author.Name, LongestLine) is { Length: > 0 } name
                    ? new Author(name, author.Contact?.Trim() is { Length: > 0 } contact ? contact : null)
                    : null,
            author =>
                TooLong("author", "The author’s name", author.Name, LongestLine)
                ?? (
                    author.Contact is { } contact && !IsContact(contact)
                        ? new Problem(
                            "contact-unusable",
                            $"“{Problem.Shown(contact)}” is neither a mail address nor a whole web address, such as training@harbour.example or "
                                + $"https://harbour.example/training.",
                            "author"
                        )
                        : null
                ),
            (key, author) => key.Add("author", author.Name).Add("contact", author.Contact)
        );

    /// <summary>Whether it may stand on other sites.</summary>
    public static DetailField MayEmbed { get; } = YesNo("mayEmbed", "Other sites may embed it", s => s.MayEmbed, (s, v) => s with { MayEmbed = v });

    /// <summary>Whether learners may download it.</summary>
    public static DetailField MayDownload { get; } = YesNo("mayDownload", "Learners may download it", s => s.MayDownload, (s, v) => s with { MayDownload = v });

    /// <summary>Which file learners download, by the profile with which it is made.</summary>
    public static DetailField DownloadAs { get; } =
        new DetailField<string>(
            "downloadAs",
            "Which file they download",
            DetailInput.Profile,
            s => s.DownloadAs,
            (s, v) => s with { DownloadAs = v },
            id => id.Trim() is { Length: > 0 } kept ? kept : null,
            id => TooLong("downloadAs", "The profile’s identifier", id, LongestLine),
            (key, id) => key.Add("downloadAs", id),
            help: "It is rendered together with the one that plays.",
            onlyWith: MayDownload.Code
        );

    /// <summary>Whether learners may write to the author.</summary>
    public static DetailField MayWrite { get; } = YesNo("mayWrite", "Learners may write to the author", s => s.MayWrite, (s, v) => s with { MayWrite = v });

    /// <summary>Whether learners may leave notes at moments of it.</summary>
    public static DetailField MayNote { get; } = YesNo("mayNote", "Learners may leave notes at a moment", s => s.MayNote, (s, v) => s with { MayNote = v });

    /// <summary>Whether those who follow a place are told of it.</summary>
    public static DetailField TellFollowers { get; } =
        YesNo("tellFollowers", "Tell those who follow", s => s.TellFollowers, (s, v) => s with { TellFollowers = v }, isSeen: false);

    /// <summary>In the order in which they are asked.</summary>
    public static IReadOnlyList<DetailField> All { get; } =
    [
        Title,
        ShortTitle,
        Description,
        Tags,
        Category,
        Language,
        ForChildren,
        FromAge,
        Licence,
        ThirdParty,
        Author,
        MayEmbed,
        MayDownload,
        DownloadAs,
        MayWrite,
        MayNote,
        TellFollowers,
    ];

    /// <summary>A set as it is kept: without what is blank, and of a house or an outlet without what only a lesson has.</summary>
    /// <param name="set">What somebody entered.</param>
    /// <param name="level">Where it is set.</param>
    public static DetailSet Tidy(DetailSet set, DetailLevel level) =>
        All.Aggregate(set, (kept, field) =>
            field.OfOneLesson && level is DetailLevel.House or DetailLevel.Outlet ? field.Take(kept, DetailSet.None) : field.Tidy(kept)
        );

    /// <summary>The first thing of a set that cannot be used, or null.</summary>
    public static Problem? Unusable(DetailSet set) => All.Select(f => f.Unusable(set)).FirstOrDefault(p => p is not null);

    /// <summary>What two sets say otherwise, by its label in small letters.</summary>
    public static IEnumerable<string> Changes(DetailSet before, DetailSet after) =>
        All.Where(f => Text(f, before) != Text(f, after)).Select(f => f.Label.ToLower(CultureInfo.InvariantCulture));

    /// <summary>What two people made of one set, field by field.</summary>
    /// <param name="three">Takes what both changed.</param>
    /// <param name="before">As both found it.</param>
    /// <param name="theirs">As the other has it.</param>
    /// <param name="mine">As I have it.</param>
    public static DetailSet Merged(ThreeWay three, DetailSet before, DetailSet theirs, DetailSet mine) => All.Aggregate(theirs, (merged, field) =>
        {
            var (was, there, here) = (Text(field, before), Text(field, theirs), Text(field, mine));
            return three.Value(was, there, here, $"“{field.Label}”") == there ? merged : field.Take(merged, mine);
        });

    /// <summary>What a field says, as a text that is equal where it says the same.</summary>
    private static string Text(DetailField field, DetailSet set) => WexelJson.Write(field.Take(DetailSet.None, set));

    private static DetailField<string> Line(
        string code,
        string label,
        Func<DetailSet, string?> read,
        Func<DetailSet, string?, DetailSet> write,
        string help = "",
        bool ofOneLesson = false
    ) =>
        new(
            code,
            label,
            DetailInput.Line,
            read,
            write,
            text => SectionRules.OneLine(text, LongestLine) is { Length: > 0 } kept ? kept : null,
            text => TooLong(code, $"The {label.ToLower(CultureInfo.InvariantCulture)}", text, LongestLine),
            (key, text) => key.Add(code, text),
            text => new StringInfo(text).LengthInTextElements,
            help,
            ofOneLesson
        );

    private static DetailField<bool?> YesNo(
        string code,
        string label,
        Func<DetailSet, bool?> read,
        Func<DetailSet, bool?, DetailSet> write,
        string help = "",
        bool isSeen = true
    ) =>
        new(
            code,
            label,
            DetailInput.YesNo,
            read,
            write,
            yes => yes,
            _ => null,
            (key, yes) => key.Add(code, yes!.Value ? "yes" : "no"),
            help: help,
            isSeen: isSeen
        );

    private static Problem? TooLong(string code, string what, string text, int most) =>
        text.Length > most
            ? new Problem(
                $"{code}-too-long",
                string.Create(CultureInfo.InvariantCulture, $"{what} has {text.Length:#,0} characters; {most:#,0} is the most."),
                code
            )
            : null;

    /// <summary>Whether a text is a mail address by itself, or a whole web address.</summary>
    private static bool IsContact(string text) =>
        (MailAddress.TryCreate(text, out var mail) && mail.Address == text)
        || (Uri.TryCreate(text, UriKind.Absolute, out var page) && page.Scheme is "http" or "https");
}
