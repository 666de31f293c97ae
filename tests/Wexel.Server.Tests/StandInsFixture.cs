using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;

namespace Wexel.Server.Tests;

/// <summary>The stand-ins over real sockets.</summary>
public sealed class StandInsFixture : IAsyncLifetime
{
    private readonly string _folder = Directory.CreateTempSubdirectory("wexel-outside-").FullName;
    private readonly int _port = ServerProcess.FreePort();
    private WebApplicationFactory<StandIns.PostOffice>? _outside;

    internal int SmtpPort { get; } = ServerProcess.FreePort();

    internal HttpClient Client { get; private set; } = null!;

    internal static async Task<StandInsFixture> StartAsync()
    {
        var started = new StandInsFixture();
        await started.InitializeAsync();
        return started;
    }

    public ValueTask InitializeAsync()
    {
        Client = new(new HttpClientHandler { AllowAutoRedirect = false }) { BaseAddress = new Uri($"http://127.0.0.1:{_port}/") };
        _outside = new WebApplicationFactory<StandIns.PostOffice>().WithWebHostBuilder(host =>
        {
            host.UseUrls($"http://127.0.0.1:{_port}");
            host.UseSetting("StandIns:SmtpPort", SmtpPort.ToString(CultureInfo.InvariantCulture));
            host.UseSetting("StandIns:Data", _folder);
            host.UseSetting("StandIns:DirectorySeconds", "0.2");
        });
        _outside.UseKestrel();
        _outside.StartServer();
        return ValueTask.CompletedTask;
    }

    /// <summary>The mails that came to an address.</summary>
    internal async Task<IReadOnlyList<JsonElement>> MailsAsync(string to) =>
        [
            .. (await Client.GetFromJsonAsync<JsonElement>("/mail.json"))
                .EnumerateArray()
                .Where(m => m.GetProperty("to").GetString()!.Contains(to, StringComparison.OrdinalIgnoreCase)),
        ];

    /// <summary>The last mail that came to an address, once so many did.</summary>
    internal async Task<JsonElement> MailAsync(string to, int count = 1)
    {
        for (var until = DateTime.UtcNow.AddSeconds(60); DateTime.UtcNow < until; await Task.Delay(100))
        {
            if (await MailsAsync(to) is var mails && mails.Count >= count)
                return mails.MaxBy(m => m.GetProperty("number").GetInt32());
        }

        throw new TimeoutException($"No mail came to {to}.");
    }

    public async ValueTask DisposeAsync()
    {
        await _outside!.DisposeAsync();
        Client.Dispose();
        Directory.Delete(_folder, recursive: true);
    }
}
