using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Hosting;

namespace Wexel.Server.Tests;

/// <summary>A server that may talk to the stand-in provider, which has two seconds to answer.</summary>
public sealed class ProviderFixture : ServerFixture
{
    protected override void Set(IWebHostBuilder host)
    {
        host.UseSetting("Wexel:PracticeProvider", Outside.Client.BaseAddress!.AbsoluteUri);
        host.UseSetting("Wexel:ProviderAnswersWithin", "00:00:02");
    }
}

/// <summary>Signing in by the organisation's own provider (OpenID Connect Core 1.0), and in how many ways that fails.</summary>
public sealed partial class ProviderTests(ProviderFixture fixture) : IClassFixture<ProviderFixture>
{
    private const string Home = "http://127.0.0.1:5080";
    private const string Phrase = "Tide-2026";

    [Fact]
    public async Task Somebody_whom_the_provider_knows_gets_an_account_and_its_groups_and_comes_back_to_where_they_were()
    {
        var owner = await fixture.SignedInAsync();
        var (desk, deck) = (await GroupAsync(owner, "Desk by pass"), await GroupAsync(owner, "Deck by pass"));
        var provider = await ProviderAsync(owner, "Groups pass", "groups", "groups", [new("ticket desk", desk), new("deck", deck)]);
        (await owner.PostAsync($"/api/providers/{provider}/try", null)).StatusCode.ShouldBe(HttpStatusCode.OK);
        var browser = fixture.Anonymous();
        (await SignInAsync(browser, provider, "ida", to: "/channel?sort=newest")).ShouldBe("/channel?sort=newest");
        var me = await browser.JsonAsync("/api/me");
        (me.GetProperty("name").GetString(), me.GetProperty("email").GetString(), me.GetProperty("trainer").GetBoolean()).ShouldBe(
            ("Ida Fenn", "ida.fenn@brackwater.example", false)
        );
        me.GetProperty("hasPassword").GetBoolean().ShouldBeFalse();
        (await GroupsOfAsync(owner, "ida.fenn")).ShouldBe(["Desk by pass"]);

        // What is mapped follows what the provider says at the next sign-in; what is not stays.
        var own = await GroupAsync(owner, "By hand");
        var id = (await owner.JsonAsync("/api/people?find=ida.fenn")).GetProperty("people")[0].GetProperty("id").GetGuid();
        foreach (var group in (Guid[])[own, deck])
            (await owner.PutAsync($"/api/groups/{group}/members/{id}", null)).EnsureSuccessStatusCode();
        (await SignInAsync(fixture.Anonymous(), provider, "ida")).ShouldBe("/");
        (await GroupsOfAsync(owner, "ida.fenn")).ShouldBe(["By hand", "Desk by pass"]);

        // Who has an account already is that one, as the provider says that the address is theirs.
        (await SignInAsync(fixture.Anonymous(), provider, "joss")).ShouldBe("/");
        (await owner.JsonAsync("/api/people?find=joss.reed")).GetProperty("total").GetInt32().ShouldBe(1);
        (await owner.JsonAsync("/api/providers"))
            .EnumerateArray()
            .First(p => p.GetProperty("id").GetGuid() == provider)
            .GetProperty("people")
            .GetInt32()
            .ShouldBe(2);

        // Whoever is let in no more is out at once, and does not come in by the provider either.
        (await owner.PutAsync($"/api/people/{id}/disabled", null)).EnsureSuccessStatusCode();
        (await browser.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await SaidAsync(await SignInAsync(fixture.Anonymous(), provider, "ida"))).ShouldContain("account here was closed");

        // A provider that is removed lets nobody in, and whom it let in is out.
        var wes = fixture.Anonymous();
        await SignInAsync(wes, provider, "wes");
        (await wes.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await owner.DeleteAsync($"/api/providers/{provider}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await wes.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await SaidAsync((await wes.GetAsync($"/provider/{provider}/go")).Headers.Location!.OriginalString)).ShouldContain("not there any more");
    }

    public static TheoryData<string, string> Faults =>
        new()
        {
            { "Late", "did not answer in time" },
            { "WronglySigned", "was not signed by" },
            { "AnotherNonce", "belongs to another sign-in" },
            { "ClockAhead", "clocks" },
            { "ClockBehind", "clocks" },
            { "AnotherAudience", "meant for another application" },
            { "NoMail", "did not say your mail address" },
            { "UnverifiedMail", "does not say that" },
        };

    [Theory]
    [MemberData(nameof(Faults))]
    public async Task What_goes_wrong_at_the_provider_is_said_in_a_sentence_and_lets_nobody_in(string fault, string sentence)
    {
        var owner = await fixture.SignedInAsync();
        var provider = await ProviderAsync(owner, $"Pass with {fault}");
        var browser = fixture.Anonymous();
        var back = await SignInAsync(browser, provider, "olu", fault, "/channel");
        back.ShouldStartWith("/sign-in?");
        back.ShouldEndWith("&to=%2Fchannel");
        var said = await SaidAsync(back);
        said.ShouldContain(sentence);
        said.ShouldContain(fault is "WronglySigned" or "Late" or "NoMail" ? $"Pass with {fault}" : "");
        (await browser.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task Where_the_organisation_gives_out_addresses_one_is_believed_though_it_is_not_verified()
    {
        var provider = await ProviderAsync(await fixture.SignedInAsync(), "Trusted pass", owns: true);
        (await SignInAsync(fixture.Anonymous(), provider, "olu", "UnverifiedMail")).ShouldBe("/");
    }

    [Fact]
    public async Task What_was_declined_begun_elsewhere_or_made_up_lets_nobody_in()
    {
        var provider = await ProviderAsync(await fixture.SignedInAsync(), "Careful pass");
        var browser = fixture.Anonymous();
        (await SaidAsync(await SignInAsync(browser, provider, decline: true))).ShouldContain("did not let Careful pass tell");

        // An answer that belongs to another browser, used twice, or of nobody.
        var back = await AnswerAsync(browser, provider, "wes");
        (await SaidAsync((await fixture.Anonymous().GetAsync(back)).Headers.Location!.OriginalString)).ShouldContain("begun in another browser");
        (await browser.GetAsync(back)).Headers.Location!.OriginalString.ShouldBe("/");
        (await SaidAsync((await browser.GetAsync(back)).Headers.Location!.OriginalString)).ShouldContain("begun in another browser");
        (await SaidAsync((await browser.GetAsync($"/provider/{provider}/back?code=x&state=y")).Headers.Location!.OriginalString)).ShouldContain("begun");

        // Nobody is sent to another site, and nobody makes Wexel say something.
        (await SignInAsync(browser, provider, "wes", to: "https://harbour.example/")).ShouldBe("/");
        (await SignInAsync(browser, provider, "wes", to: "//harbour.example/")).ShouldBe("/");
        (await browser.JsonAsync("/api/sign-in/ways?refused=Call%20this%20number")).GetProperty("problem").ValueKind.ShouldBe(JsonValueKind.Null);
        (await browser.JsonAsync("/api/sign-in/ways?failed=nothing-known")).GetProperty("problem").ValueKind.ShouldBe(JsonValueKind.Null);

        // A sign-out that is signed by nobody ends nothing (OpenID Connect Back-Channel Logout 1.0, section 2.6).
        foreach (var token in (string[])["", "a.b.c", "eyJhbGciOiJub25lIn0.eyJzdWIiOiJ4In0."])
            (await browser.PostAsync($"/provider/{provider}/signed-out", new FormUrlEncodedContent([new("logout_token", token)]))).StatusCode.ShouldBe(
                HttpStatusCode.BadRequest
            );
        (await browser.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Who_signs_out_is_sent_to_be_signed_out_at_the_provider_too()
    {
        var provider = await ProviderAsync(await fixture.SignedInAsync(), "Leaving pass");
        var browser = fixture.Anonymous();
        await SignInAsync(browser, provider, "wes");
        var next = (await (await browser.PostAsync("/api/sign-out", null)).Content.ReadFromJsonAsync<JsonElement>()).GetProperty("next").GetString()!;
        next.ShouldStartWith($"{fixture.Outside.Client.BaseAddress}identity/leave?");
        (await browser.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        // The provider knows its own token by the hint, and where to go then (OpenID Connect RP-Initiated Logout 1.0, section 2).
        using var there = Outside();
        (await there.GetAsync(next)).Headers.Location!.OriginalString.ShouldStartWith($"{Home}/sign-in");
    }

    [Fact]
    public async Task A_provider_that_cannot_be_is_refused_and_one_that_is_away_says_so()
    {
        var owner = await fixture.SignedInAsync();
        async Task<string> Refused(object settings) =>
            (await (await owner.PostAsJsonAsync("/api/providers", new { settings, secret = "x" })).ProblemAsync()).GetProperty("code").GetString()!;
        object Settings(string name = "X", string address = "https://sign-in.example/", string client = "wexel", string claim = "", object[]? groups = null) =>
            new
            {
                name,
                address,
                client,
                scopes = "",
                groupClaim = claim,
                groups = groups ?? [],
                ownsAddresses = false,
            };
        (await Refused(Settings(name: " "))).ShouldBe("provider-name");
        (await Refused(Settings(address: "sign-in.example"))).ShouldBe("provider-address");
        (await Refused(Settings(address: "http://sign-in.example/"))).ShouldBe("provider-address-plain");
        (await Refused(Settings(client: ""))).ShouldBe("provider-client");
        (await Refused(Settings(groups: [new { value = "a", group = Guid.NewGuid() }]))).ShouldBe("provider-group-claim");
        (await Refused(Settings(claim: "groups", groups: [new { value = "a", group = Guid.NewGuid() }]))).ShouldBe("provider-group-gone");
        var away = await ProviderAsync(owner, "Away pass", address: $"https://127.0.0.1:{ServerProcess.FreePort()}/");
        (await (await owner.PostAsync($"/api/providers/{away}/try", null)).ProblemAsync()).GetProperty("code").GetString().ShouldBe("provider-inside");
        (await SaidAsync((await fixture.Anonymous().GetAsync($"/provider/{away}/go")).Headers.Location!.OriginalString)).ShouldContain("is not allowed");
        (await Refused(Settings(name: "Away pass"))).ShouldBe("provider-name-taken");
        // The secret is kept, and shown to nobody.
        (await owner.GetStringAsync("/api/providers")).ShouldNotContain("tide-table");
        (await (await fixture.SignedInAsync("joss.reed@brackwater.example")).GetAsync("/api/providers")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    private sealed record Mapped(string Value, Guid Group);

    private async Task<Guid> ProviderAsync(
        HttpClient owner,
        string name,
        string scopes = "",
        string claim = "",
        Mapped[]? groups = null,
        bool owns = false,
        string? address = null
    )
    {
        var settings = new
        {
            name,
            address = address ?? fixture.Outside.Client.BaseAddress!.AbsoluteUri,
            client = name,
            scopes,
            groupClaim = claim,
            groups = groups ?? [],
            ownsAddresses = owns,
        };
        var added = await owner.PostAsJsonAsync("/api/providers", new { settings, secret = "tide-table" });
        added.StatusCode.ShouldBe(HttpStatusCode.OK, await added.Content.ReadAsStringAsync());
        var id = (await added.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetGuid();
        var known = (await owner.JsonAsync("/api/providers")).EnumerateArray().First(p => p.GetProperty("id").GetGuid() == id);
        using var said = new FormUrlEncodedContent([
            new("id", name),
            new("secret", "tide-table"),
            new("back", known.GetProperty("back").GetString()!),
            new("signedOut", known.GetProperty("afterSignOut").GetString()!),
            new("backChannel", ""),
        ]);
        await fixture.Outside.Client.PostAsync("identity/applications", said);
        return id;
    }

    /// <summary>Signs in at the provider and comes back.</summary>
    /// <returns>Where the browser is sent at last.</returns>
    private async Task<string> SignInAsync(
        HttpClient browser,
        Guid provider,
        string who = "",
        string fault = "None",
        string? to = null,
        bool decline = false
    ) => (await browser.GetAsync(await AnswerAsync(browser, provider, who, fault, to, decline))).Headers.Location!.OriginalString;

    /// <summary>What the provider sends a browser back with.</summary>
    private async Task<string> AnswerAsync(HttpClient browser, Guid provider, string who, string fault = "None", string? to = null, bool decline = false)
    {
        using var there = Outside();
        var go = (await browser.GetAsync($"/provider/{provider}/go{(to is null ? "" : $"?to={Uri.EscapeDataString(to)}")}")).Headers.Location!;
        go.Query.ShouldContain("code_challenge_method=S256");
        var form = await there.GetStringAsync(go);
        var back = WebUtility.HtmlDecode(Return().Match(form).Groups[1].Value);
        using var said = new FormUrlEncodedContent([
            new("return", back),
            new("name", who),
            new("password", Phrase),
            new("fault", fault),
            .. decline ? [new KeyValuePair<string, string>("decline", "yes")] : Array.Empty<KeyValuePair<string, string>>(),
        ]);
        var signed = await there.PostAsync("identity/sign-in", said);
        var answer = (await there.GetAsync(signed.Headers.Location)).Headers.Location!;
        answer.AbsoluteUri.ShouldStartWith($"{Home}/provider/{provider}/back");
        return answer.PathAndQuery;
    }

    private HttpClient Outside() =>
        new(new HttpClientHandler { AllowAutoRedirect = false, CookieContainer = new CookieContainer() }) { BaseAddress = fixture.Outside.Client.BaseAddress };

    /// <summary>What the page says to which a browser was sent.</summary>
    private async Task<string> SaidAsync(string page) =>
        (await fixture.Anonymous().JsonAsync($"/api/sign-in/ways{page[page.IndexOf('?')..]}")).GetProperty("problem").GetString() ?? "nothing";

    private static async Task<Guid> GroupAsync(HttpClient owner, string name) =>
        (await (await owner.PostAsJsonAsync("/api/groups", new { name })).Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetGuid();

    private static async Task<List<string>> GroupsOfAsync(HttpClient owner, string find) =>
        [.. (await owner.JsonAsync($"/api/people?find={find}")).GetProperty("people")[0].GetProperty("groups").EnumerateArray().Select(g => g.GetString()!)];

    [GeneratedRegex("name=\"return\" value=\"([^\"]+)\"")]
    private static partial Regex Return();
}
