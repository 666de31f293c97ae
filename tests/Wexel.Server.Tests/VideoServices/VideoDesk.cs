using System.Net.Http.Json;
using System.Text.Json;
using Wexel.StandIns.Video;
using Wexel.StandIns.Video.Studio;

namespace Wexel.Server.Tests.VideoServices;

/// <summary>A lesson that a trainer brings to an outlet at Skerry.</summary>
internal sealed record VideoDesk(VideoFixture Fixture, HttpClient Trainer, Guid Lesson, Guid Outlet, Guid Account)
{
    private static readonly string[] Tags = ["till"];

    /// <summary>An outlet of its own with an account, and a lesson with all that a service asks.</summary>
    internal static async Task<VideoDesk> ReadyAsync(VideoFixture fixture, string outlet, string account = "ticket-desk", string name = "Ticket desk")
    {
        foreach (var (code, _) in Troubles.All)
            fixture.Troubles.Set(code, 0);
        var trainer = await fixture.SignedInAsync();
        var lesson = await ReleaseJobTests.LessonAsync(trainer);
        var id = await VideoFixture.OutletAsync(trainer, outlet);
        (await fixture.ConnectAsync(trainer, id, account)).ShouldContain("connected=");
        var known = await VideoFixture.AccountAsync(trainer, id, name);
        var desk = new VideoDesk(fixture, trainer, lesson, id, known.GetProperty("id").GetGuid());
        await desk.SayAsync();
        await desk.PlaceAsync();
        return desk;
    }

    /// <summary>Says what the service is told.</summary>
    internal async Task SayAsync(string description = "How the till is closed.", string title = "Closing the till", string category = "work") =>
        (
            await Trainer.PutAsJsonAsync(
                $"/api/lessons/{Lesson}/outlets/{Outlet}/details",
                new
                {
                    title,
                    description,
                    tags = Tags,
                    category,
                    forChildren = false,
                    licence = "CC-BY-4.0",
                }
            )
        ).EnsureSuccessStatusCode();

    /// <summary>Chooses the account's first channel, and playlists.</summary>
    internal async Task PlaceAsync(params string[] lists)
    {
        var accounts = (await Trainer.JsonAsync($"/api/outlets/{Outlet}/video-accounts")).GetProperty("accounts").EnumerateArray();
        var channel = accounts.Single(a => a.GetProperty("id").GetGuid() == Account).GetProperty("channels")[0].GetProperty("id").GetString();
        (
            await Trainer.PutAsJsonAsync(
                $"/api/lessons/{Lesson}/video-places/{Outlet}",
                new
                {
                    account = Account,
                    channel,
                    lists,
                }
            )
        ).EnsureSuccessStatusCode();
    }

    internal async Task WantAsync(string visibility = "withLink") =>
        (
            await Trainer.PostAsJsonAsync(
                "/api/releases",
                new
                {
                    wishes = new[]
                    {
                        new
                        {
                            lessonId = Lesson,
                            outletId = Outlet,
                            visibility,
                        },
                    },
                }
            )
        ).EnsureSuccessStatusCode();

    /// <summary>How the lesson stands there, once it does so.</summary>
    internal async Task<JsonElement> UntilAsync(Func<JsonElement, bool> so)
    {
        JsonElement At(JsonElement places) => places.EnumerateArray().Single(p => p.GetProperty("id").GetGuid() == Outlet);
        return At(await Trainer.UntilAsync($"/api/lessons/{Lesson}/releases", places => so(At(places))));
    }

    /// <summary>Wants it there, and waits until that has ended.</summary>
    internal async Task<JsonElement> EndedAsync(string visibility = "withLink")
    {
        await WantAsync(visibility);
        return await UntilAsync(ReleaseJobTests.HasEnded);
    }

    /// <summary>Wants it there, and waits until it is.</summary>
    internal async Task<JsonElement> LiveAsync(string visibility = "withLink")
    {
        var ended = await EndedAsync(visibility);
        ReleaseJobTests.Phase(ended).ShouldBe("live", ended.GetProperty("way").ToString());
        return ended;
    }

    internal Task<HttpResponseMessage> LookAsync(Guid release) => Trainer.PostAsync($"/api/releases/{release}/video/look", null);

    internal static string? Stage(JsonElement place) => place.GetProperty("video").GetProperty("stage").GetString();

    internal static string? Problem(JsonElement place) =>
        place.GetProperty("way").GetProperty("problem") is { ValueKind: JsonValueKind.Object } problem ? problem.GetProperty("code").GetString() : null;

    /// <summary>The video, as Skerry has it.</summary>
    internal Video There(JsonElement place) => Fixture.Store.Find(new Uri(place.GetProperty("handsOn").GetProperty("link").GetString()!).Segments[^1])!;
}
