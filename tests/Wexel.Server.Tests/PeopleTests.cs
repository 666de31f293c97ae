using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;

namespace Wexel.Server.Tests;

/// <summary>Who is added, changed and let in no more, by hand and by a list, and how passwords are chosen by a mail.</summary>
public sealed partial class PeopleTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    [Fact]
    public async Task Somebody_new_chooses_a_password_by_the_mail_signs_in_and_is_let_in_no_more_at_once()
    {
        var owner = await fixture.SignedInAsync();
        const string ada = "ada.lund+desk@brackwater.example";
        (await AddAsync(owner, "Ada  Lund", ada, "trainer", "Deck crew, early", " ")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var (person, token) = LinkOf(await fixture.Outside.MailAsync(ada));
        var browser = fixture.Anonymous();
        (await ProblemOf(await ChooseAsync(browser, person, token, "short"))).ShouldBe("password-weak");
        (await ProblemOf(await ChooseAsync(browser, person, token[..^2] + "xx", "Lantern on the quay"))).ShouldBe("password-link-over");
        (await ProblemOf(await ChooseAsync(browser, person, "%%%", "Lantern on the quay"))).ShouldBe("password-link-over");
        (await ChooseAsync(browser, person, token, "Lantern on the quay")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ProblemOf(await ChooseAsync(browser, person, token, "Another on the quay"))).ShouldBe("password-link-over");
        (await SignInAsync(browser, ada.ToUpperInvariant(), "Lantern on the quay")).StatusCode.ShouldBe(HttpStatusCode.OK);
        var me = await browser.JsonAsync("/api/me");
        (me.GetProperty("name").GetString(), me.GetProperty("trainer").GetBoolean(), me.GetProperty("administrator").GetBoolean()).ShouldBe(
            ("Ada Lund", true, false)
        );
        var entry = (await owner.JsonAsync("/api/people?find=lund")).GetProperty("people")[0];
        entry.GetProperty("groups")[0].GetString().ShouldBe("Deck crew, early");

        // A trainer makes lessons and says nothing of who is who.
        (await browser.GetAsync("/api/lessons")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await AddAsync(browser, "X", "x@brackwater.example", "administrator")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        var id = entry.GetProperty("id").GetGuid();
        (await browser.PutAsync($"/api/people/{id}/disabled", null)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);

        // What they do changes at once, wherever they are signed in.
        (await owner.PutAsJsonAsync($"/api/people/{id}", new { name = "Ada Lund", role = "learner" })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await browser.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await SignInAsync(browser, ada, "Lantern on the quay")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await browser.GetAsync("/api/lessons")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await owner.PutAsync($"/api/people/{id}/disabled", null)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await browser.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await SignInAsync(browser, ada, "Lantern on the quay")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await owner.DeleteAsync($"/api/people/{id}/disabled")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await SignInAsync(browser, ada, "Lantern on the quay")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task All_that_is_known_of_somebody_is_one_file_and_is_removed_while_the_counts_stay()
    {
        var owner = await fixture.SignedInAsync();
        const string mail = "rue.ander@brackwater.example";
        var id = await fixture.PersonAsync(mail, "Rue Ander");
        var rue = await fixture.SignedInAsync(mail);
        var key = id.ToString("N");
        Guid lesson = default;
        await fixture.WithAsync(async db =>
        {
            lesson = await db.Lessons.Select(l => l.Id).FirstAsync(Cancel);
            db.LearningLog.Add(
                new()
                {
                    EventId = Guid.NewGuid(),
                    LearnerKey = key,
                    Name = "Rue Ander",
                    LessonId = lesson,
                    Kind = "watched",
                    Data = "{}",
                    At = DateTimeOffset.UtcNow,
                }
            );
            db.LearnerRecords.Add(
                new()
                {
                    LessonId = lesson,
                    LearnerKey = key,
                    Name = "Rue Ander",
                    State = "{}",
                    SeenShare = 0.5,
                    SeenLastAt = DateTimeOffset.UtcNow,
                }
            );
            db.LearnerNotes.Add(
                new()
                {
                    LessonId = lesson,
                    LearnerKey = key,
                    PersonId = id,
                    Name = "Rue Ander",
                    Text = "The float is 200 now.",
                    Recording = "x",
                }
            );
            await db.SaveChangesAsync(Cancel);
        });
        (await rue.PutAsJsonAsync("/api/me/follows/mails", new { daily = true })).EnsureSuccessStatusCode();

        // Their own, and nobody else's but an administrator's.
        var file = await rue.JsonAsync("/api/me/data");
        file.GetProperty("account").GetProperty("mail").GetString().ShouldBe(mail);
        file.GetProperty("lessons")[0].GetProperty("seenShare").GetDouble().ShouldBe(0.5);
        file.GetProperty("notes")[0].GetProperty("text").GetString().ShouldBe("The float is 200 now.");
        file.GetProperty("whatTheyDid").GetArrayLength().ShouldBe(1);
        file.GetProperty("changes").EnumerateArray().Select(c => c.GetProperty("action").GetString()).ShouldContain("ChooseMails");
        file.GetRawText().ShouldNotContain("hash", Case.Insensitive);
        (await owner.JsonAsync($"/api/people/{id}/data")).GetProperty("account").GetProperty("name").GetString().ShouldBe("Rue Ander");
        (await rue.GetAsync($"/api/people/{id}/data")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await rue.DeleteAsync($"/api/people/{id}/data")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);

        // Not by a slip: first they can sign in no more.
        (await ProblemOf(await owner.DeleteAsync($"/api/people/{id}/data"))).ShouldBe("person-not-disabled");
        (await owner.PutAsync($"/api/people/{id}/disabled", null)).EnsureSuccessStatusCode();
        (await owner.DeleteAsync($"/api/people/{id}/data")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ProblemOf(await owner.DeleteAsync($"/api/people/{id}/data"))).ShouldBe("person-gone");
        (await owner.GetAsync($"/api/people/{id}/data")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        await fixture.WithAsync(async db =>
        {
            (await db.Users.AnyAsync(p => p.Id == id, Cancel)).ShouldBeFalse();
            (await db.LearningLog.AnyAsync(e => e.LearnerKey == key || e.Name == "Rue Ander", Cancel)).ShouldBeFalse();
            (await db.AuditEntries.AnyAsync(a => a.PersonId == id || a.Who.Contains("Rue"), Cancel)).ShouldBeFalse();
            var gone = await db.LearningLog.SingleAsync(e => e.LessonId == lesson && e.LearnerKey.StartsWith("gone-"), Cancel);
            (await db.LearnerRecords.SingleAsync(r => r.LearnerKey == gone.LearnerKey, Cancel)).SeenShare.ShouldBe(0.5);
            (await db.LearnerNotes.SingleAsync(n => n.LearnerKey == gone.LearnerKey, Cancel)).Name.ShouldBeNull();
            // Nothing else of it can be changed.
            await Should.ThrowAsync<Npgsql.PostgresException>(() =>
                db.LearningLog.Where(e => e.Number == gone.Number).ExecuteUpdateAsync(set => set.SetProperty(e => e.Kind, "other"), Cancel)
            );
        });
    }

    [Fact]
    public async Task A_forgotten_password_is_replaced_by_a_link_that_tells_nobody_who_has_an_account()
    {
        const string tam = "tam.brook@brackwater.example";
        var (here, there) = (await fixture.SignedInAsync(tam), fixture.Anonymous());
        (await there.PostAsJsonAsync("/api/sign-in/forgotten", new { email = "nobody@harbour.example" })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await there.PostAsJsonAsync("/api/sign-in/forgotten", new { email = $" {tam} " })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var (person, token) = LinkOf(await fixture.Outside.MailAsync(tam));
        (await fixture.Outside.MailsAsync("nobody@harbour.example")).ShouldBeEmpty();
        (await ChooseAsync(there, person, token, "Herring gull at noon")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await here.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized, "who knew the old one is signed in nowhere");
        (await SignInAsync(there, tam, ServerFixture.Password)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await SignInAsync(there, tam, "Herring gull at noon")).StatusCode.ShouldBe(HttpStatusCode.OK);

        // Asking again and again is held back.
        HttpStatusCode last = HttpStatusCode.NoContent;
        for (var i = 0; i < 30 && last == HttpStatusCode.NoContent; i++)
            last = (await fixture.Anonymous().PostAsJsonAsync("/api/sign-in/forgotten", new { email = "ana.quill@brackwater.example" })).StatusCode;
        last.ShouldBe(HttpStatusCode.TooManyRequests);
    }

    [Fact]
    public async Task Somebody_may_always_add_people_and_what_cannot_be_meant_is_refused()
    {
        var owner = await fixture.SignedInAsync();
        var me = (await owner.JsonAsync("/api/people?find=mara")).GetProperty("people")[0].GetProperty("id").GetGuid();
        (await ProblemOf(await owner.PutAsync($"/api/people/{me}/disabled", null))).ShouldBe("people-no-administrator");
        (await ProblemOf(await owner.PutAsJsonAsync($"/api/people/{me}", new { name = "Mara Tarn", role = "trainer" }))).ShouldBe("people-no-administrator");
        (await ProblemOf(await ListAsync(owner, "mail,role\nmara.tarn@brackwater.example,learner"))).ShouldBe("people-no-administrator");
        (await owner.GetAsync("/api/lessons")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await ProblemOf(await AddAsync(owner, "Joss", "JOSS.reed@brackwater.example", "learner"))).ShouldBe("person-known");
        (await ProblemOf(await AddAsync(owner, "Joss", "joss at brackwater", "learner"))).ShouldBe("person-no-mail");
        (await ProblemOf(await AddAsync(owner, " ", "new@brackwater.example", "learner"))).ShouldBe("person-no-name");
        (await ProblemOf(await owner.PutAsJsonAsync($"/api/people/{Guid.NewGuid()}", new { name = "X", role = "learner" }))).ShouldBe("person-gone");
        (await owner.PutAsync($"/api/groups/{Guid.NewGuid()}/members/{me}", null)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        // What is looked for is no pattern.
        (await owner.JsonAsync("/api/people?find=%25")).GetProperty("total").GetInt32().ShouldBe(0);
    }

    [Fact]
    public async Task A_list_says_first_what_each_line_will_do_and_taken_twice_does_nothing()
    {
        var owner = await fixture.SignedInAsync();
        const string list =
            "\uFEFFName;Mail;Role;Groups\r\n\"Quay; Bo\";bo.quay@brackwater.example;trainer;\"Office, upstairs; Night\"\r\n"
            + "Nell;nell.howe@brackwater.example;;night\r\n;x;;\r\n";
        var preview = await PreviewAsync(owner, list);
        Numbers(preview).ShouldBe((1, 1, 0, 3));
        preview.GetProperty("newGroups").EnumerateArray().Select(g => g.GetString()).ShouldBe(["Night", "Office, upstairs"]);
        preview.GetProperty("lines")[2].GetProperty("words").GetString().ShouldBe("“x” is no mail address. Write it as name@place.");
        (await owner.JsonAsync("/api/people?find=bo.quay")).GetProperty("total").GetInt32().ShouldBe(0);
        (await ListAsync(owner, list)).StatusCode.ShouldBe(HttpStatusCode.OK);
        var bo = (await owner.JsonAsync("/api/people?find=bo.quay")).GetProperty("people")[0];
        (bo.GetProperty("name").GetString(), bo.GetProperty("role").GetString()).ShouldBe(("Quay; Bo", "trainer"));
        (await owner.JsonAsync("/api/people?find=nell")).GetProperty("people")[0].GetProperty("name").GetString().ShouldBe("Nell");
        Numbers(await PreviewAsync(owner, list)).ShouldBe((0, 0, 2, 3));
        (await ListAsync(owner, list)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await owner.JsonAsync("/api/people?find=bo.quay")).GetProperty("total").GetInt32().ShouldBe(1);
        (await ProblemOf(await ListAsync(owner, "name,role\nX,trainer"))).ShouldBe("people-no-mail-column");
        (await ListAsync(fixture.Anonymous(), list)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task Twenty_thousand_lines_are_taken_part_by_part_and_can_be_stopped_between_two()
    {
        var owner = await fixture.SignedInAsync();
        var list = "name,mail,groups\n" + string.Concat(Enumerable.Range(1, 20_000).Select(i => $"Crew {i:00000},crew{i}@ferries.example,\"Crew, all\"\n"));
        Numbers(await PreviewAsync(owner, list)).ShouldBe((20_000, 0, 0, 20_000));
        var done = 0;
        for (var parts = 1; done < 20_000; parts++)
        {
            // As much again of what was done does nothing.
            var answer = await ListAsync(owner, list, parts == 3 ? 0 : done);
            var reached = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("done").GetInt32();
            done = Math.Max(done, reached);
            parts.ShouldBeLessThan(50);
        }

        var people = await owner.JsonAsync("/api/people?find=ferries.example");
        (people.GetProperty("total").GetInt32(), people.GetProperty("people").GetArrayLength()).ShouldBe((20_000, 200));
        (await owner.JsonAsync("/api/groups"))
            .EnumerateArray()
            .Single(g => g.GetProperty("name").GetString() == "Crew, all")
            .GetProperty("count")
            .GetInt32()
            .ShouldBe(20_000);
        Numbers(await PreviewAsync(owner, list)).ShouldBe((0, 0, 20_000, 20_000));
    }

    private static (int Adds, int Changes, int Nothing, int Total) Numbers(JsonElement preview) =>
        (
            preview.GetProperty("adds").GetInt32(),
            preview.GetProperty("changes").GetInt32(),
            preview.GetProperty("nothing").GetInt32(),
            preview.GetProperty("total").GetInt32()
        );

    private static Task<HttpResponseMessage> AddAsync(HttpClient who, string name, string mail, string role, params string[] groups) =>
        who.PostAsJsonAsync(
            "/api/people",
            new
            {
                name,
                mail,
                role,
                groups,
                invite = true,
            }
        );

    private static Task<HttpResponseMessage> ListAsync(HttpClient who, string list, int from = 0) =>
        who.PostAsync($"/api/people/list?from={from}&invite=false", new StringContent(list, Encoding.UTF8, "text/csv"));

    private static async Task<JsonElement> PreviewAsync(HttpClient who, string list)
    {
        var answer = await who.PostAsync("/api/people/list/preview", new StringContent(list, Encoding.UTF8, "text/csv"));
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private static Task<HttpResponseMessage> ChooseAsync(HttpClient who, Guid person, string token, string password) =>
        who.PostAsJsonAsync(
            "/api/sign-in/new-password",
            new
            {
                person,
                token,
                password,
            }
        );

    private static Task<HttpResponseMessage> SignInAsync(HttpClient who, string email, string password) =>
        who.PostAsJsonAsync("/api/sign-in", new { email, password });

    private static async Task<string?> ProblemOf(HttpResponseMessage answer)
    {
        answer.IsSuccessStatusCode.ShouldBeFalse();
        return (await answer.ProblemAsync()).GetProperty("code").GetString();
    }

    private static (Guid Person, string Token) LinkOf(JsonElement mail)
    {
        var link = Link().Match(mail.GetProperty("text").GetString()!);
        return (Guid.Parse(link.Groups[1].Value), link.Groups[2].Value);
    }

    [GeneratedRegex(@"/new-password#([0-9a-f-]{36})\.(\S+)")]
    private static partial Regex Link();

    private static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;
}
