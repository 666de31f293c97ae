using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;
using Wexel.StandIns.Video;
using Wexel.StandIns.Video.Studio;

namespace Wexel.Server.Tests.VideoServices;

/// <summary>The server with Skerry, the video service, beside it over real sockets, in the same process.</summary>
public sealed partial class VideoFixture : ServerFixture
{
    private readonly string _skerryFolder = Directory.CreateTempSubdirectory("wexel-skerry-").FullName;
    private readonly int _skerryPort = ServerProcess.FreePort();
    private WebApplicationFactory<Troubles>? _skerry;

    /// <summary>People at Skerry.</summary>
    internal HttpClient Skerry { get; private set; } = null!;

    internal Troubles Troubles => _skerry!.Services.GetRequiredService<Troubles>();

    internal Store Store => _skerry!.Services.GetRequiredService<Store>();

    protected override void Set(IWebHostBuilder host)
    {
        Skerry = new(new HttpClientHandler { AllowAutoRedirect = false }) { BaseAddress = new Uri($"http://127.0.0.1:{_skerryPort}/") };
        _skerry = new WebApplicationFactory<Troubles>().WithWebHostBuilder(there =>
        {
            there.UseUrls(Skerry.BaseAddress.AbsoluteUri);
            there.UseSetting("Video:Data", _skerryFolder);
            there.UseSetting("Video:SecondsASecond", "0.05");
            there.UseSetting("Video:SmtpPort", Outside.SmtpPort.ToString(System.Globalization.CultureInfo.InvariantCulture));
            there.UseSetting("Video:Clients:0:Id", "wexel");
            there.UseSetting("Video:Clients:0:Secret", "tide-table");
            there.UseSetting("Video:Clients:0:Back", "http://127.0.0.1:5080/api/video-services/back");
        });
        _skerry.UseKestrel();
        _skerry.StartServer();
        host.UseSetting("Wexel:Skerry:Address", Skerry.BaseAddress.AbsoluteUri);
        host.UseSetting("Wexel:Skerry:ClientSecret", "tide-table");
        host.UseSetting("Wexel:Skerry:Piece", "20000");
        host.UseSetting("Wexel:OutletHosts:1", $"127.0.0.1:{_skerryPort}");
        host.UseSetting("Wexel:VideoLooksEvery", "00:00:00.3");
        host.UseSetting("Wexel:VideoFiguresEvery", "00:00:01");
    }

    /// <summary>Adds an outlet, as a trainer does.</summary>
    internal static async Task<Guid> OutletAsync(HttpClient trainer, string name)
    {
        var added = await trainer.PostAsJsonAsync("/api/outlets/videoService", new { name });
        added.EnsureSuccessStatusCode();
        return (await added.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetGuid();
    }

    /// <summary>Connects an account, as somebody does in a browser.</summary>
    /// <returns>Where they end.</returns>
    internal Task<string> ConnectAsync(HttpClient trainer, Guid outlet, string account) => ConnectAsync(Skerry, trainer, outlet, account);

    /// <param name="skerry">Somebody at Skerry who follows no redirects.</param>
    /// <param name="trainer">The trainer, who follows none either.</param>
    /// <param name="outlet">The outlet.</param>
    /// <param name="account">The account; empty for whoever does not want to.</param>
    internal static async Task<string> ConnectAsync(HttpClient skerry, HttpClient trainer, Guid outlet, string account)
    {
        var begun = await trainer.PostAsync($"/api/outlets/{outlet}/video-accounts", null);
        var address = (await begun.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("address").GetString()!;
        var page = await skerry.GetStringAsync(address);
        var asked = Hidden().Matches(page).Select(m => KeyValuePair.Create(WebUtility.HtmlDecode(m.Groups[1].Value), WebUtility.HtmlDecode(m.Groups[2].Value)));
        using var form = new FormUrlEncodedContent([.. asked, KeyValuePair.Create("account", account)]);
        var answered = await skerry.PostAsync("door/authorize", form);
        answered.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        return (await trainer.GetAsync(answered.Headers.Location!.PathAndQuery)).Headers.Location!.ToString();
    }

    internal static async Task<JsonElement> AccountAsync(HttpClient trainer, Guid outlet, string name) =>
        (await trainer.JsonAsync($"/api/outlets/{outlet}/video-accounts"))
            .GetProperty("accounts")
            .EnumerateArray()
            .Single(a => a.GetProperty("name").GetString() == name);

    [GeneratedRegex("<input type=\"hidden\" name=\"([^\"]*)\" value=\"([^\"]*)\">")]
    private static partial Regex Hidden();

    /// <inheritdoc/>
    protected override async ValueTask EndAsync()
    {
        await _skerry!.DisposeAsync();
        Skerry.Dispose();
        Directory.Delete(_skerryFolder, recursive: true);
    }
}
