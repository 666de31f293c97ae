using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;

namespace Wexel.Server.Tests;

public sealed class MarkTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    private static ByteArrayContent Octets(byte[] bytes) => new(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } };

    private static Task<HttpResponseMessage> TakeAsync(HttpClient trainer, string svg) =>
        trainer.PutAsync("/api/house/mark", Octets(Encoding.UTF8.GetBytes(svg)));

    private static async Task<JsonElement> PlaceAsync(HttpClient trainer, object? placement)
    {
        var answer = await trainer.PutAsJsonAsync("/api/house/mark/placement", new { placement });
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    [Fact]
    public async Task The_mark_is_put_on_lessons_and_taken_off_one_and_renders_follow()
    {
        var trainer = await fixture.SignedInAsync();
        (await trainer.DeleteAsync("/api/house/mark")).EnsureSuccessStatusCode();
        var usual = (await trainer.JsonAsync("/api/house")).GetProperty("usualPlacement");
        (await (await trainer.PutAsJsonAsync("/api/house/mark/placement", new { placement = usual })).ProblemAsync())
            .GetProperty("code")
            .GetString()
            .ShouldBe("mark-none");

        (
            await TakeAsync(trainer, "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 40 20'><rect width='40' height='20' fill='#a94a14'/></svg>")
        ).EnsureSuccessStatusCode();
        var house = await PlaceAsync(trainer, usual);
        house.GetProperty("markSize").GetProperty("width").GetInt32().ShouldBe(1600);
        var box = await (
            await trainer.PostAsJsonAsync("/api/house/mark/box", new { placement = usual, picture = new { width = 1280, height = 720 } })
        ).Content.ReadFromJsonAsync<JsonElement>();
        (box.GetProperty("x").GetInt32(), box.GetProperty("y").GetInt32(), box.GetProperty("width").GetInt32()).ShouldBe((960, 556, 256));

        var id = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        await trainer.UntilAsync($"/api/lessons/{id}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        async Task<bool> NothingToEncodeAsync() =>
            (await trainer.JsonAsync($"/api/lessons/{id}/deliver"))
                .GetProperty("profiles")
                .EnumerateArray()
                .Single(p => p.GetProperty("id").GetString() == "small-480p")
                .GetProperty("nothingToEncode")
                .GetBoolean();
        (await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { id }, profiles = new[] { "small-480p" } })).EnsureSuccessStatusCode();
        await trainer.UntilAsync($"/api/lessons/{id}/deliver", d =>
            d.GetProperty("renditions")
                .EnumerateArray()
                .Any(r => r.GetProperty("profileTitle").GetString() == "Small 480p" && r.GetProperty("state").GetString() == "done")
        );
        (await NothingToEncodeAsync()).ShouldBeTrue();

        // Off this lesson, it is another picture; on again, the one that is there.
        async Task SetAsync(bool on)
        {
            var now = await trainer.JsonAsync($"/api/lessons/{id}");
            var document = JsonSerializer.Deserialize<Dictionary<string, object>>(now.GetProperty("document").GetRawText())!;
            document["houseMark"] = on;
            var saved = await (
                await trainer.PutAsJsonAsync($"/api/lessons/{id}/document", new { basedOn = now.GetProperty("revision").GetInt32(), document })
            ).Content.ReadFromJsonAsync<JsonElement>();
            saved.GetProperty("changes").GetString().ShouldBe(on ? "house mark on" : "house mark off");
        }

        await SetAsync(false);
        (await NothingToEncodeAsync()).ShouldBeFalse();
        await SetAsync(true);
        (await NothingToEncodeAsync()).ShouldBeTrue();
        // Elsewhere on the picture it is another picture too, and numbers out of range are brought into it.
        house = await PlaceAsync(
            trainer,
            new
            {
                opacityPercent = 400,
                widthPercent = 20,
                position = "topLeft",
                distancePercent = 5,
                offsetX = 0,
                offsetY = 0,
            }
        );
        house.GetProperty("placement").GetProperty("opacityPercent").GetDouble().ShouldBe(100);
        (await NothingToEncodeAsync()).ShouldBeFalse();
        await PlaceAsync(trainer, null);
        (await trainer.JsonAsync("/api/house")).GetProperty("placement").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Theory]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><script/></svg>", "mark-svg-not-plain")]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><image href='http://pier.example/a.png'/></svg>", "mark-svg-not-plain")]
    [InlineData("<svg", "mark-svg-broken")]
    [InlineData("just text, renamed to mark.png", "mark-no-picture")]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><g id='a'><use href='#a'/></g></svg>", "mark-svg-too-much")]
    public async Task What_is_no_plain_picture_is_refused(string file, string code)
    {
        var trainer = await fixture.SignedInAsync();
        var before = (await trainer.JsonAsync("/api/house")).GetProperty("mark").ToString();
        var refused = await TakeAsync(trainer, file);
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.ProblemAsync()).GetProperty("code").GetString().ShouldBe(code);
        (await trainer.JsonAsync("/api/house")).GetProperty("mark").ToString().ShouldBe(before);
        Directory.EnumerateFiles(Path.Combine(fixture.Data, "arriving")).ShouldBeEmpty();
    }

    /// <summary>It says of itself that it is a PNG of a size that is taken, and what follows is none.</summary>
    [Fact]
    public async Task A_picture_with_garbage_in_it_is_refused()
    {
        var trainer = await fixture.SignedInAsync();
        var path = Path.Combine(fixture.Data, "whole.png");
        await CliWrap.Cli.Wrap("ffmpeg").WithArguments(["-v", "error", "-y", "-f", "lavfi", "-i", "testsrc2=s=400x200", "-frames:v", "1", path]).ExecuteAsync();
        var bytes = await File.ReadAllBytesAsync(path);
        new Random(20_261_128).NextBytes(bytes.AsSpan(bytes.Length / 2));
        var refused = await trainer.PutAsync("/api/house/mark", Octets(bytes));
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.ProblemAsync()).GetProperty("detail").GetString()!.ShouldEndWith(".");
    }

    [Fact]
    public async Task A_picture_that_is_too_large_is_refused_with_the_reason()
    {
        var trainer = await fixture.SignedInAsync();
        var path = Path.Combine(fixture.Data, "large.png");
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-y", "-f", "lavfi", "-i", "color=c=white:s=4800x600", "-frames:v", "1", path])
            .ExecuteAsync();
        var refused = await trainer.PutAsync("/api/house/mark", Octets(await File.ReadAllBytesAsync(path)));
        (await refused.ProblemAsync())
            .GetProperty("detail")
            .GetString()
            .ShouldBe("The picture is 4800 × 600 pixels; 4000 is the most for its longer side. Save it smaller.");
    }
}
