using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Core.Documents;
using Wexel.Core.Mixing;
using Wexel.Making.Lessons;
using Wexel.Server.Shelves;

namespace Wexel.Server.Tests;

/// <summary>The shelf of sounds, and what of it lies under lessons.</summary>
public sealed class SoundTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static async Task<string> LessonAsync(HttpClient trainer) =>
        (await trainer.UntilAsync("/api/lessons", c => c.GetArrayLength() > 0 && c[0].GetProperty("lessons").GetArrayLength() > 0))[0]
            .GetProperty("lessons")[0]
            .GetProperty("id")
            .GetString()!;

    private static async Task<ShelvedSound> ShippedAsync(HttpClient trainer, string words) =>
        WexelJson.Read<ShelvedSound>((await trainer.JsonAsync($"/api/sounds?words={words}")).GetProperty("sounds")[0].GetProperty("sound").GetRawText());

    /// <summary>Three seconds of a tone as a WAV (RIFF, 16 bits, one channel).</summary>
    private static byte[] Wave(double hz)
    {
        const int rate = 22_050;
        using var file = new MemoryStream();
        using var writer = new BinaryWriter(file);
        writer.Write("RIFF"u8);
        writer.Write(36 + (rate * 6));
        writer.Write("WAVEfmt "u8);
        writer.Write(16);
        writer.Write((short)1);
        writer.Write((short)1);
        writer.Write(rate);
        writer.Write(rate * 2);
        writer.Write((short)2);
        writer.Write((short)16);
        writer.Write("data"u8);
        writer.Write(rate * 6);
        for (var i = 0; i < rate * 3; i++)
            writer.Write((short)(8000 * Math.Sin(Math.Tau * hz * i / rate)));
        return file.ToArray();
    }

    private static async Task<JsonElement> TakenAsync(HttpClient trainer, byte[] bytes)
    {
        using var body = new ByteArrayContent(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } };
        return await (await trainer.PutAsync("/api/sounds/file", body, Cancel)).Content.ReadFromJsonAsync<JsonElement>(Cancel);
    }

    private static ShelvedSound Said(JsonElement taken, string licence = "CC0-1.0") =>
        new(
            new ShelfSound(taken.GetProperty("key").GetString()!, "Own tune", "Elin Moor", licence, TimeSpan.FromHours(5), 2, -3, 0, TimeSpan.Zero, 120),
            SoundUse.Music,
            "Folk",
            ["Calm"]
        );

    private static Task<HttpResponseMessage> PutAsync(HttpClient trainer, ShelvedSound sound) =>
        trainer.PutAsync("/api/sounds", new StringContent(WexelJson.Write(sound), MediaTypeHeaderValue.Parse("application/json")), Cancel);

    /// <summary>Saves a lesson with sounds under it.</summary>
    private static async Task<HttpResponseMessage> LaidAsync(HttpClient trainer, string lesson, params SoundBed[] beds)
    {
        var view = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var document = JsonNode.Parse(view.GetProperty("document").GetRawText())!.AsObject();
        document["sounds"] = JsonNode.Parse(WexelJson.Write(beds));
        return await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", new { basedOn = view.GetProperty("revision").GetInt32(), document }, Cancel);
    }

    private static SoundBed Bed(ShelfSound sound) =>
        new(
            "s1",
            new(TimeSpan.Zero, TimeSpan.FromSeconds(60)),
            sound,
            TimeSpan.Zero,
            TimeSpan.Zero,
            20,
            10,
            TimeSpan.FromSeconds(0.3),
            TimeSpan.FromSeconds(0.8),
            true,
            false
        );

    [Fact]
    public async Task Twelve_pieces_and_eight_effects_come_with_it_free_of_rights_and_are_what_they_are_said_to_be()
    {
        var trainer = await fixture.SignedInAsync();
        foreach (var (use, count) in new[] { ("music", 12), ("effect", 8) })
        {
            var sounds = (await trainer.JsonAsync($"/api/sounds?use={use}")).GetProperty("sounds").EnumerateArray().ToList();
            sounds.Count.ShouldBe(count);
            sounds.ShouldAllBe(s => s.GetProperty("isShipped").GetBoolean() && s.GetProperty("licence").GetString()!.StartsWith("CC0"));
        }

        // The list that says what they are was written when they were made; what is measured of the files is the same.
        using var scope = fixture.Server.Services.CreateScope();
        var shelf = scope.ServiceProvider.GetRequiredService<SoundShelf>();
        foreach (var sound in (await shelf.ReadAsync(Cancel)).Where(s => s.Sound.Title is "Gulls" or "Button" or "Ship’s bell"))
        {
            var measured = await Media.Mixing.SoundFile.ReadAsync(scope.ServiceProvider.GetRequiredService<ShippedSounds>().Path(sound.Sound.Key)!, Cancel);
            (measured.Value!.Length, measured.Value.Channels).ShouldBe((sound.Sound.Length, sound.Sound.Channels));
            measured.Value.Lufs.ShouldBe(sound.Sound.Lufs, 0.2);
            // A bar of it is a whole number of milliseconds, and bars fill it.
            if (sound.Sound.Bar is not null)
                sound.Sound.Loop.Length.ShouldBe(sound.Sound.Length);
        }
    }

    [Fact]
    public async Task What_is_measured_counts_and_not_what_is_said_of_it()
    {
        var trainer = await fixture.SignedInAsync();
        var taken = await TakenAsync(trainer, Wave(300));
        (await PutAsync(trainer, Said(taken))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var there = await ShippedAsync(trainer, "own tune");
        (there.Sound.Length, there.Sound.Channels, there.Sound.Tempo).ShouldBe((TimeSpan.FromSeconds(3), 1, 120));
        there.Sound.Lufs.ShouldBeInRange(-20, -10);
        var lesson = await LessonAsync(trainer);
        (await LaidAsync(trainer, lesson, Bed(Said(taken).Sound))).EnsureSuccessStatusCode();
        var kept = (await trainer.JsonAsync($"/api/lessons/{lesson}")).GetProperty("document").GetProperty("sounds")[0];
        kept.GetProperty("sound").GetProperty("length").GetInt32().ShouldBe(3000);
        (await trainer.GetAsync($"/api/sounds/{there.Sound.Key}.flac", Cancel)).Content.Headers.ContentType!.MediaType.ShouldBe("audio/flac");

        // Off the shelf, the lesson keeps it, and it is heard.
        (await trainer.DeleteAsync($"/api/sounds/{there.Sound.Key}", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await trainer.DeleteAsync($"/api/sounds/{there.Sound.Key}", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await trainer.JsonAsync($"/api/lessons/{lesson}/mixing")).GetProperty("under").GetProperty("beds").GetArrayLength().ShouldBe(1);
        (await trainer.GetAsync($"/api/sounds/{there.Sound.Key}.flac", Cancel)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await LaidAsync(trainer, lesson)).EnsureSuccessStatusCode();
    }

    [Fact]
    public async Task What_is_not_here_or_not_said_is_refused_in_a_sentence()
    {
        var trainer = await fixture.SignedInAsync();
        (await TakenAsync(trainer, new byte[5000])).GetProperty("code").GetString().ShouldBe("sound-unreadable");
        var taken = await TakenAsync(trainer, Wave(350));
        async Task<string?> CodeAsync(HttpResponseMessage answer) =>
            (await answer.Content.ReadFromJsonAsync<JsonElement>(Cancel)).GetProperty("code").GetString();
        (await CodeAsync(await PutAsync(trainer, Said(taken, "")))).ShouldBe("sound-no-licence");
        (await CodeAsync(await PutAsync(trainer, Said(taken) with { Sound = Said(taken).Sound with { Key = new string('0', 64) } }))).ShouldBe("sound-gone");
        (await CodeAsync(await PutAsync(trainer, await ShippedAsync(trainer, "gulls")))).ShouldBe("sound-shipped");
        var lesson = await LessonAsync(trainer);
        var none = Said(taken).Sound with { Key = "../../etc/passwd" };
        (await CodeAsync(await LaidAsync(trainer, lesson, Bed(none)))).ShouldBe("sound-gone");
        (await trainer.GetAsync($"/api/sounds/{new string('0', 64)}.flac", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Exchanged_the_sound_is_encoded_again_and_the_picture_is_not()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        async Task<PlannedRendition> PlannedAsync()
        {
            using var scope = fixture.Server.Services.CreateScope();
            return (await scope.ServiceProvider.GetRequiredService<RenderPlans>().LessonAsync(Guid.Parse(lesson), Cancel))!.With(Core.Encoding.Profiles.Web)!;
        }

        var before = await PlannedAsync();
        (await LaidAsync(trainer, lesson, Bed((await ShippedAsync(trainer, "gulls")).Sound))).EnsureSuccessStatusCode();
        var laid = await PlannedAsync();
        (await LaidAsync(trainer, lesson, Bed((await ShippedAsync(trainer, "night boat")).Sound))).EnsureSuccessStatusCode();
        var exchanged = await PlannedAsync();
        (laid.Keys.Pictures[0], exchanged.Keys.Pictures[0]).ShouldBe((before.Keys.Pictures[0], before.Keys.Pictures[0]));
        new[] { before.Keys.Sound, laid.Keys.Sound, exchanged.Keys.Sound }.ShouldBeUnique();
        (await trainer.JsonAsync($"/api/lessons/{lesson}/revisions"))[0].GetProperty("changes").GetString().ShouldBe("1 sound exchanged");
        (await LaidAsync(trainer, lesson)).EnsureSuccessStatusCode();
        (await PlannedAsync()).Keys.Sound.ShouldBe(before.Keys.Sound);
    }
}
