using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Xml.Linq;

namespace Wexel.Server.Tests;

/// <summary>What other sites learn of a watch page, and what they do not.</summary>
public sealed class PreviewTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    [Fact]
    public async Task A_lesson_for_whoever_has_the_link_is_previewed_and_one_for_signed_in_people_is_not()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.UntilAsync("/api/lessons", c => c.GetArrayLength() > 0))[0].GetProperty("lessons")[0].GetProperty("id").GetString();
        var outlets = await trainer.UntilAsync($"/api/lessons/{lesson}/releases", o =>
            o.EnumerateArray().All(x => x.GetProperty("release").ValueKind == JsonValueKind.Object)
        );
        var channel = outlets.EnumerateArray().Single(o => o.GetProperty("kind").GetString() == "channel");
        var link = channel.GetProperty("release").GetProperty("link").GetString()!;
        var anybody = fixture.Anonymous();
        string OEmbed(string more = "") => $"/oembed?url={Uri.EscapeDataString(link + "#t=0:12")}{more}";

        var page = await anybody.GetStringAsync(new Uri(link).AbsolutePath);
        page.ShouldContain("type=\"application/json+oembed\"");
        page.ShouldContain("<meta property=\"og:title\" content=\"Closing the till\">");
        page.ShouldContain("\"@type\":\"Clip\"");
        var answer = await anybody.JsonAsync(OEmbed("&maxwidth=640"));
        answer.GetProperty("title").GetString().ShouldBe("Closing the till");
        answer.GetProperty("width").GetInt32().ShouldBe(640);
        answer.GetProperty("height").GetInt32().ShouldBe(360);
        XElement.Parse(await anybody.GetStringAsync(OEmbed("&format=xml"))).Element("type")!.Value.ShouldBe("video");
        (await anybody.GetAsync(OEmbed("&format=yaml"))).StatusCode.ShouldBe(HttpStatusCode.NotImplemented);
        (await anybody.GetAsync("/oembed?url=https%3A%2F%2Felsewhere.example%2Fwatch%2Fx")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await anybody.GetAsync("/oembed?url=nonsense")).StatusCode.ShouldBe(HttpStatusCode.BadRequest);

        (
            await trainer.PostAsJsonAsync(
                $"/api/lessons/{lesson}/releases",
                new
                {
                    outletId = channel.GetProperty("id").GetString(),
                    profileId = "web",
                    visibility = "signedIn",
                }
            )
        ).EnsureSuccessStatusCode();
        foreach (var address in new[] { OEmbed(), new Uri(link).AbsolutePath })
        {
            var refused = await anybody.GetAsync(address);
            refused.StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
            (await refused.Content.ReadAsStringAsync()).ShouldNotContain("Closing the till");
        }

        (await (await fixture.SignedInAsync(ServerFixture.Learner)).GetStringAsync(new Uri(link).AbsolutePath)).ShouldNotContain("og:title");
    }
}
