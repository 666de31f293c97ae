using Wexel.Core.People;
using TextEncoding = System.Text.Encoding;

namespace Wexel.Core.Tests.People;

/// <summary>Lists of people as CSV (RFC 4180, section 2: quotes are doubled, a cell in quotes may hold line breaks and what parts cells).</summary>
public class PeopleListTests
{
    private static IReadOnlyList<PersonLine> Read(string text) => PeopleList.Read(TextEncoding.UTF8.GetBytes(text)).Value!;

    private static (string Mail, string Name, PersonRole? Role, string Groups, string? Problem)[] Shown(string text) =>
        [.. Read(text).Select(l => (l.Mail, l.Name, l.Role, string.Join('|', l.Groups), l.Problem?.Code))];

    [Theory]
    [InlineData("name,mail,role,groups\nIda Moor,ida@brackwater.example,trainer,Deck crew\n")]
    [InlineData("\uFEFFMail;Groups;Name;Role\r\nida@brackwater.example;Deck crew;Ida Moor;Trainer\r\n")]
    [InlineData("E-mail\tname\trole\tgroup\nida@brackwater.example\tIda Moor\tTRAINER\tDeck crew")]
    [InlineData("Ida  Moor , ida@brackwater.example , trainer , Deck crew")]
    [InlineData(
        "\"Name\";\"Shoe size\";\"Mail address\";\"Role\";\"Groups\"\n\"Ida Moor\";\"39\";\"ida@brackwater.example\";\"trainer\";\"Deck crew; deck  crew\""
    )]
    public void Commas_semicolons_tabs_marks_at_the_front_and_columns_in_any_order(string text) =>
        Shown(text).ShouldBe([("ida@brackwater.example", "Ida Moor", PersonRole.Trainer, "Deck crew", null)]);

    [Fact]
    public void Quotes_hold_commas_quotes_and_line_breaks()
    {
        var lines = Read(
            "name,mail,groups\n\"Moor, Ida\",ida@brackwater.example,\"Deck, early; The \"\"A\"\" crew\nTicket desk\"\nBo Quay,bo@brackwater.example,"
        );
        lines[0].Name.ShouldBe("Moor, Ida");
        lines[0].Groups.ShouldBe(["Deck, early", "The \"A\" crew", "Ticket desk"]);
        // The number is that of the line in the file, where one looks for it.
        lines.Select(l => l.Number).ShouldBe([2, 4]);
    }

    [Theory]
    [InlineData("ida+desk@brackwater.example", null)]
    [InlineData("ida.möwe@brackwater.example", null)]
    [InlineData("潮@brackwater.example", null)]
    [InlineData("ida at brackwater", "person-no-mail")]
    [InlineData("Ida <ida@brackwater.example>", "person-no-mail")]
    [InlineData("", "person-no-mail")]
    public void An_address_may_have_a_plus_and_letters_of_any_writing(string mail, string? code) =>
        (Read($"name,mail\nIda,{mail}")[0].Problem?.Code).ShouldBe(code);

    [Theory]
    [InlineData("captain", "person-role-unknown")]
    [InlineData("1", "person-role-unknown")]
    [InlineData(" Administrator ", null)]
    [InlineData("", null)]
    public void A_role_is_one_of_three(string role, string? code) =>
        (Read($"name,mail,role\nIda,ida@brackwater.example,{role}")[0].Problem?.Code).ShouldBe(code);

    [Fact]
    public void Twenty_thousand_lines_are_read_and_one_more_is_too_many()
    {
        string Of(int lines) => "name,mail\n" + string.Concat(Enumerable.Range(1, lines).Select(i => $"P {i},p{i}@brackwater.example\n"));
        Read(Of(PeopleList.Most)).Count.ShouldBe(20_000);
        PeopleList.Read(TextEncoding.UTF8.GetBytes(Of(PeopleList.Most + 1))).Problem!.Code.ShouldBe("people-too-many");
    }

    [Theory]
    [InlineData("", "people-empty")]
    [InlineData(" \n \n", "people-empty")]
    [InlineData("name,mail\n", "people-empty")]
    [InlineData("name,role\nIda,trainer\n", "people-no-mail-column")]
    public void What_holds_nobody_says_why(string text, string code) => PeopleList.Read(TextEncoding.UTF8.GetBytes(text)).Problem!.Code.ShouldBe(code);

    [Fact]
    public void What_is_no_text_says_so_and_older_encodings_are_read()
    {
        PeopleList.Read([0x50, 0x4B, 3, 4, 0, 0, 1, 2, 3, 0, 0]).Problem!.Code.ShouldBe("people-no-text");
        PeopleList.Read([.. "name;mail\nZo"u8, 0xEB, .. ";zoe@brackwater.example\n"u8]).Value![0].Name.ShouldBe("Zoë");
        PeopleList
            .Read(TextEncoding.Unicode.GetPreamble().Concat(TextEncoding.Unicode.GetBytes("name\tmail\nZoë\tzoe@brackwater.example")).ToArray())
            .Value![0]
            .Name.ShouldBe("Zoë");
    }

    [Fact]
    public void Each_line_says_what_it_will_do_and_done_twice_nothing_is_done()
    {
        KnownPerson[] known =
        [
            new("ida@brackwater.example", "Ida Moor", PersonRole.Learner, ["Deck crew"]),
            new("bo@brackwater.example", "Bo Quay", PersonRole.Trainer, [], IsDisabled: true),
            new("guest@harbour.example", "guest@harbour.example", PersonRole.Learner, [], IsGuest: true),
        ];
        var lines = Read(
            """
            name,mail,role,groups
            New One,new@brackwater.example,,Deck crew
            Ida Moor-Quay,IDA@brackwater.example,trainer,deck crew; Ticket desk
            ,bo@brackwater.example,,
            A Guest,guest@harbour.example,,
            New Two,NEW@brackwater.example,trainer,
            ,nameless@brackwater.example,,
            X,no address,,
            """
        );
        var planned = PeoplePlan.Plan(lines, known);
        planned
            .Select(p => (p.Effect, p.Words))
            .ShouldBe([
                (LineEffect.Adds, "Added as a learner, in Deck crew."),
                (LineEffect.Changes, "Ida Moor is called Ida Moor-Quay instead of Ida Moor, becomes a trainer, joins Ticket desk."),
                (LineEffect.Nothing, "All of it is so already. They can sign in no more, and that stays so."),
                (LineEffect.Changes, "guest@harbour.example belongs to the house from now on, is called A Guest instead of guest@harbour.example."),
                (LineEffect.Repeats, "Line 2 names the same address; this one does nothing."),
                (LineEffect.Refused, "This address is new, and there is no name in the line. Write the name."),
                (LineEffect.Refused, "“no address” is no mail address. Write it as name@place."),
            ]);
        var after = known
            .Where(k => planned.All(p => p.Wanted?.Mail.Equals(k.Mail, StringComparison.OrdinalIgnoreCase) != true))
            .Concat(planned.Select(p => p.Wanted).OfType<KnownPerson>());
        PeoplePlan.Plan(lines, after).ShouldAllBe(p => p.Effect != LineEffect.Adds && p.Effect != LineEffect.Changes);
    }
}
