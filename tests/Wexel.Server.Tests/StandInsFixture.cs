using System.Globalization;
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

    public async ValueTask DisposeAsync()
    {
        await _outside!.DisposeAsync();
        Client.Dispose();
        Directory.Delete(_folder, recursive: true);
    }
}
