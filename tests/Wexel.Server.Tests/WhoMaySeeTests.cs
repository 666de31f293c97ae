using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Options;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.Tests;

/// <summary>Who may see a lesson, asked of every address under which something of it is found.</summary>
public sealed class WhoMaySeeTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    private const string Reaches = "page, embed, progress, video, poster, captions, notes, download, transcript";

    /// <summary>What each of them gets of a lesson of each level.</summary>
    [Fact]
    public async Task Each_level_means_exactly_this_at_every_address()
    {
        var (owner, release, page, lesson) = await ChannelAsync();
        var crew = await fixture.PersonAsync("bo.quay@brackwater.example", "Bo Quay");
        var named = await fixture.PersonAsync("ines.holm@brackwater.example", "Ines Holm");
        await fixture.PersonAsync("per.strand@brackwater.example", "Per Strand", Roles.Trainer);
        await fixture.PersonAsync("ada.helm@brackwater.example", "Ada Helm", Roles.Administrator);
        var list = (
            await (await owner.PostAsJsonAsync("/api/lists", new { name = "All of it", visibility = "everybody" })).Content.ReadFromJsonAsync<JsonElement>()
        )
            .GetProperty("id")
            .GetGuid();
        (await owner.PutAsync($"/api/lists/{list}/lessons/{lesson}", null)).EnsureSuccessStatusCode();
        var across = new Uri((await owner.JsonAsync("/api/lists"))[0].GetProperty("link").GetString()!).PathAndQuery;
        var title = (await owner.JsonAsync($"/api/lists/{list}/lessons"))[0].GetProperty("title").GetString()!;
        var group = (
            await (
                await owner.PostAsJsonAsync("/api/groups", new { name = "Engine crew, \"early\"", members = new[] { crew } })
            ).Content.ReadFromJsonAsync<JsonElement>()
        )
            .GetProperty("id")
            .GetGuid();
        var people = new Dictionary<string, HttpClient>
        {
            ["stranger"] = fixture.Anonymous(),
            ["learner"] = await fixture.SignedInAsync(ServerFixture.Learner),
            ["named"] = await fixture.SignedInAsync("ines.holm@brackwater.example"),
            ["in group"] = await fixture.SignedInAsync("bo.quay@brackwater.example"),
            ["other trainer"] = await fixture.SignedInAsync("per.strand@brackwater.example"),
            ["administrator"] = await fixture.SignedInAsync("ada.helm@brackwater.example"),
            ["owner"] = owner,
        };

        const string words = "Slack the stern line";
        const string track = $$"""[{"language":"en","cues":[{"span":{"start":0,"end":900},"text":"{{words}}","markup":"","atTop":false}],"kind":"captions"}]""";
        await ServerFixture.ExecuteAsync(
            $"update \"Releases\" set \"Player\" = jsonb_set(\"Player\", '{{captions}}', '{track}'),"
                + $" \"DownloadKey\" = \"FileKey\", \"DownloadContainer\" = \"Container\" where \"Id\" = '{release}'",
            Database()
        );
        // What stands on a channel is in no podcast feed, for whomever it is: a feed has releases of its own.
        var feeds = (await owner.JsonAsync("/api/outlets"))
            .EnumerateArray()
            .Where(o => o.GetProperty("kind").GetString() == "podcastFeed")
            .Select(o => o.GetProperty("id").GetGuid())
            .ToList();
        feeds.ShouldNotBeEmpty();
        var feed = new Uri((await owner.JsonAsync($"/api/feeds/{feeds[0]}")).GetProperty("address").GetString()!).PathAndQuery;

        const string all = "stranger, learner, named, in group, other trainer, administrator, owner";
        foreach (
            var (level, byAddress, listed, told) in new[]
            {
                ("onlyMe", "owner", "owner", ""),
                ("named", "owner, named, in group", "owner, named, in group", ""),
                ("withLink", all, "", "oembed"),
                ("signedIn", all["stranger, ".Length..], all["stranger, ".Length..], ""),
                ("everybody", all, all, "oembed, sitemap"),
            }
        )
        {
            await OpenAsync(level);
            foreach (var (name, client) in people)
            {
                var gets =
                    (Has(byAddress, name) ? Reaches : "")
                    + (Has(listed, name) ? ", list, list across courses, search" : "")
                    + (told.Length > 0 ? $", {told}" : "");
                (await FindsAsync(client)).ShouldBe(gets.TrimStart(',', ' '), $"{name}, {level}");
            }
        }

        // What is taken away is away at once, also for the addresses that were copied.
        await OpenAsync("named");
        (await people["in group"].GetAsync(page + "/video.mp4")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await owner.PutAsJsonAsync($"/api/groups/{group}", new { name = "Engine crew", members = Array.Empty<Guid>() })).EnsureSuccessStatusCode();
        (await FindsAsync(people["in group"])).ShouldBe("");
        (await owner.PutAsJsonAsync($"/api/groups/{group}", new { name = "Engine crew", members = new[] { crew } })).EnsureSuccessStatusCode();
        (await people["in group"].GetAsync(page + "/video.mp4")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await owner.DeleteAsync($"/api/groups/{group}")).EnsureSuccessStatusCode();
        (await FindsAsync(people["in group"])).ShouldBe("");
        await ServerFixture.ExecuteAsync($"update \"Lessons\" set \"OwnerId\" = '{named}' where \"Id\" = '{lesson}'", Database());
        await OpenAsync("onlyMe");
        (await FindsAsync(owner)).ShouldBe("");
        (await FindsAsync(people["named"])).ShouldStartWith(Reaches);
        await ServerFixture.ExecuteAsync($"update \"AspNetUsers\" set \"DisabledAt\" = now() where \"Id\" = '{named}'", Database());
        (await FindsAsync(people["named"])).ShouldBe("");
        await ServerFixture.ExecuteAsync(
            $"update \"Lessons\" set \"OwnerId\" = (select \"Id\" from \"AspNetUsers\" where \"Email\" = '{ServerFixture.Trainer}') where \"Id\" = '{lesson}'",
            Database()
        );

        async Task OpenAsync(string visibility) =>
            (
                await owner.PutAsJsonAsync(
                    $"/api/releases/{release}/visibility",
                    new { visibility, named = new { mails = new[] { "Ines.Holm@brackwater.example" }, groups = new[] { group } } }
                )
            ).EnsureSuccessStatusCode();

        async Task<string> FindsAsync(HttpClient who)
        {
            var at = fixture.Server.Services.GetRequiredService<IOptions<WexelOptions>>().Value.PublicAddress;
            var token = page["/watch/".Length..];
            var found = new List<string>();
            foreach (
                var (what, address) in new[]
                {
                    ("page", page),
                    ("embed", $"/embed/{token}"),
                    ("progress", page + "/progress?learner=0123456789abcdef0123456789abcdef"),
                    ("video", page + "/video.mp4"),
                    ("poster", page + "/poster.jpg"),
                    ("captions", page + "/captions-en.vtt"),
                    ("notes", page + "/notes?learner=0123456789abcdef0123456789abcdef"),
                    ("download", page + "/download"),
                }
            )
            {
                var answer = await who.GetAsync(address);
                if (answer.StatusCode == HttpStatusCode.OK)
                    found.Add(what);
                else
                    answer.StatusCode.ShouldBeOneOf(HttpStatusCode.Unauthorized, HttpStatusCode.Forbidden);
                // A part of the file is no way around it.
                if (what is "video" or "download")
                {
                    using var part = new HttpRequestMessage(HttpMethod.Get, address);
                    part.Headers.Range = new(0, 99);
                    (await who.SendAsync(part)).StatusCode.ShouldBe(answer.IsSuccessStatusCode ? HttpStatusCode.PartialContent : answer.StatusCode);
                }
            }

            if ((await (await who.GetAsync(page)).Content.ReadAsStringAsync()).Contains(words, StringComparison.Ordinal))
                found.Add("transcript");
            if ((await who.GetStringAsync(feed)).Contains(token, StringComparison.Ordinal))
                found.Add("feed");
            if ((await (await who.GetAsync("/channel")).Content.ReadAsStringAsync()).Contains(page, StringComparison.Ordinal))
                found.Add("list");
            if ((await who.GetStringAsync(across)).Contains(page, StringComparison.Ordinal))
                found.Add("list across courses");
            // By its title and by what is said in it.
            var byTitle = (await who.GetStringAsync($"/search?q={Uri.EscapeDataString(title)}")).Contains(page, StringComparison.Ordinal);
            (await who.GetStringAsync($"/search?q={Uri.EscapeDataString(words)}")).Contains(page, StringComparison.Ordinal).ShouldBe(byTitle);
            if (byTitle)
                found.Add("search");
            if ((await who.GetAsync($"/oembed?url={Uri.EscapeDataString(new Uri(at, page).AbsoluteUri)}")).IsSuccessStatusCode)
                found.Add("oembed");
            if ((await who.GetStringAsync("/sitemap.xml")).Contains(page, StringComparison.Ordinal))
                found.Add("sitemap");
            return string.Join(", ", found);
        }

        static bool Has(string names, string name) => names.Split(", ").Contains(name);
    }

    [Fact]
    public async Task A_lesson_ends_says_so_and_what_cannot_be_meant_is_refused()
    {
        var (owner, release, page, _) = await ChannelAsync();
        async Task<HttpResponseMessage> OpenAsync(object opening) => await owner.PutAsJsonAsync($"/api/releases/{release}/visibility", opening);
        var now = DateTimeOffset.UtcNow;
        (await OpenAsync(new { visibility = "everybody", endsAt = now.AddMinutes(-1) })).EnsureSuccessStatusCode();
        var ended = await fixture.Anonymous().GetAsync(page);
        ended.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await ended.Content.ReadAsStringAsync()).ShouldContain("This lesson has ended");
        (await fixture.Anonymous().GetAsync(page + "/video.mp4")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await owner.GetAsync(page)).StatusCode.ShouldBe(HttpStatusCode.OK, "whoever makes lessons looks at them");

        foreach (
            var (opening, code) in new (object, string)[]
            {
                (
                    new
                    {
                        visibility = "everybody",
                        opensAt = now,
                        endsAt = now.AddDays(-1),
                    },
                    "opening-ends-first"
                ),
                (new { visibility = "named", named = new { mails = Array.Empty<string>(), groups = Array.Empty<Guid>() } }, "named-nobody"),
                (new { visibility = "named", named = new { mails = new[] { "no address" }, groups = Array.Empty<Guid>() } }, "named-no-mail"),
            }
        )
        {
            var refused = await OpenAsync(opening);
            refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            (await refused.ProblemAsync()).GetProperty("code").GetString().ShouldBe(code);
        }

        foreach (var (name, code) in new[] { (" ", "group-name"), ("Deck", "group-name-taken") })
        {
            await owner.PostAsJsonAsync("/api/groups", new { name = "Deck", members = Array.Empty<Guid>() });
            var refused = await owner.PostAsJsonAsync("/api/groups", new { name, members = Array.Empty<Guid>() });
            (await refused.ProblemAsync()).GetProperty("code").GetString().ShouldBe(code);
        }

        (await OpenAsync(new { visibility = "everybody" })).EnsureSuccessStatusCode();
        (await fixture.Anonymous().GetAsync(page)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_lesson_is_given_away_by_its_owner_alone_or_by_anybody_where_that_left()
    {
        var (owner, _, _, lesson) = await ChannelAsync();
        var other = await fixture.PersonAsync("sven.lund@brackwater.example", "Sven Lund", Roles.Trainer);
        var learner = await fixture.PersonAsync("lea.moor@brackwater.example", "Lea Moor");
        var sven = await fixture.SignedInAsync("sven.lund@brackwater.example");
        var before = (await owner.JsonAsync($"/api/lessons/{lesson}/owner")).GetProperty("personId").GetGuid();
        async Task<(HttpStatusCode, string?)> GiveAsync(HttpClient who, Guid personId)
        {
            var answer = await who.PutAsJsonAsync($"/api/lessons/{lesson}/owner", new { personId });
            return (answer.StatusCode, answer.IsSuccessStatusCode ? null : (await answer.ProblemAsync()).GetProperty("code").GetString());
        }

        (await GiveAsync(sven, other)).ShouldBe((HttpStatusCode.Forbidden, "owner-is-another"));
        (await GiveAsync(owner, learner)).ShouldBe((HttpStatusCode.UnprocessableEntity, "owner-unfit"));
        (await GiveAsync(owner, other)).ShouldBe((HttpStatusCode.NoContent, null));
        var now = await owner.JsonAsync($"/api/lessons/{lesson}/owner");
        (now.GetProperty("name").GetString(), now.GetProperty("mayGive").GetBoolean()).ShouldBe(("Sven Lund", false));
        await ServerFixture.ExecuteAsync($"update \"AspNetUsers\" set \"DisabledAt\" = now() where \"Id\" = '{other}'", Database());
        (await GiveAsync(owner, before)).ShouldBe((HttpStatusCode.NoContent, null));
    }

    [Fact]
    public async Task A_named_address_without_an_account_gets_a_mail_and_opens_the_lesson_by_a_code_alone()
    {
        var (owner, release, page, _) = await ChannelAsync();
        const string inge = "inge+desk@harbour.example";
        async Task OpenAsync(string visibility, params string[] mails) =>
            (
                await owner.PutAsJsonAsync($"/api/releases/{release}/visibility", new { visibility, named = new { mails, groups = Array.Empty<Guid>() } })
            ).EnsureSuccessStatusCode();
        // Told once, with the address; those who have an account, or were told, are not.
        await OpenAsync("named", inge, ServerFixture.Learner);
        (await fixture.Outside.MailAsync(inge, 1)).GetProperty("text").GetString()!.ShouldContain(page);
        await OpenAsync("named", inge, ServerFixture.Learner);
        (await fixture.Outside.MailsAsync(ServerFixture.Learner)).ShouldBeEmpty();

        var guest = fixture.Anonymous();
        (await guest.GetAsync(page)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        async Task<HttpStatusCode> WantAsync(string email) => (await guest.PostAsJsonAsync("/api/sign-in/code", new { email })).StatusCode;
        async Task<HttpStatusCode> TypeAsync(string email, string code) =>
            (await guest.PostAsJsonAsync("/api/sign-in/code/typed", new { email, code })).StatusCode;
        // The answer tells nobody who is named.
        (await WantAsync("nobody@harbour.example")).ShouldBe(HttpStatusCode.NoContent);
        (await WantAsync(inge)).ShouldBe(HttpStatusCode.NoContent);
        var code = (await fixture.Outside.MailAsync(inge, 2)).GetProperty("subject").GetString()![..6];
        (await fixture.Outside.MailsAsync("nobody@harbour.example")).ShouldBeEmpty();
        (await TypeAsync(inge, code == "123456" ? "123457" : "123456")).ShouldBe(HttpStatusCode.Unauthorized);
        (await TypeAsync("nobody@harbour.example", code)).ShouldBe(HttpStatusCode.Unauthorized);
        (await TypeAsync(inge.ToUpperInvariant(), $" {code} ")).ShouldBe(HttpStatusCode.NoContent);
        (await guest.GetAsync(page)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await guest.GetAsync(page + "/video.mp4")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await guest.GetStringAsync("/channel")).ShouldContain(page);
        (await TypeAsync(inge, code)).ShouldBe(HttpStatusCode.Unauthorized, "it is good once");
        // A guest is not of the house, and makes no lessons.
        await OpenAsync("signedIn");
        (await guest.GetAsync(page)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await guest.GetAsync("/api/lessons")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);

        // Who has an account is told to use it; a code is over after a few tries.
        await OpenAsync("named", inge, ServerFixture.Learner);
        (await guest.GetAsync(page)).StatusCode.ShouldBe(HttpStatusCode.OK);
        await WantAsync(ServerFixture.Learner);
        (await fixture.Outside.MailAsync(ServerFixture.Learner, 1)).GetProperty("text").GetString()!.ShouldContain("sign in with your password");
        using var scope = fixture.Server.Services.CreateScope();
        var codes = scope.ServiceProvider.GetRequiredService<People.MailedCodes>();
        var cancel = TestContext.Current.CancellationToken;
        await codes.SendAsync(inge, cancel);
        var last = (await fixture.Outside.MailAsync(inge, 3)).GetProperty("subject").GetString()![..6];
        for (var i = 0; i < 5; i++)
            (await codes.TakeAsync(inge, last == "000000" ? "111111" : "000000", cancel)).ShouldBeNull();
        (await codes.TakeAsync(inge, last, cancel)).ShouldBeNull();
        (await fixture.Outside.MailsAsync(inge)).Count.ShouldBe(3);
    }

    private string Database() => fixture.Connection[(fixture.Connection.LastIndexOf('=') + 1)..];

    private async Task<(HttpClient Owner, Guid Release, string Page, Guid Lesson)> ChannelAsync()
    {
        var owner = await fixture.SignedInAsync();
        using var scope = fixture.Server.Services.CreateScope();
        var db = scope.ServiceProvider.GetRequiredService<WexelDb>();
        var one = await db.Releases.FirstAsync(r => r.Outlet!.Kind == "channel", TestContext.Current.CancellationToken);
        var mara = await db.Users.SingleAsync(p => p.Email == ServerFixture.Trainer, TestContext.Current.CancellationToken);
        (await db.Lessons.SingleAsync(l => l.Id == one.LessonId, TestContext.Current.CancellationToken)).OwnerId.ShouldBe(mara.Id, "who brought it in");
        return (owner, one.Id, $"/watch/{one.Token}", one.LessonId);
    }
}
