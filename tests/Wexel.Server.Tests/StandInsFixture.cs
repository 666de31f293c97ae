using System.Diagnostics;

namespace Wexel.Server.Tests;

/// <summary>The stand-ins as their own process over real sockets.</summary>
public sealed class StandInsFixture : IAsyncLifetime
{
    private readonly string _folder = Directory.CreateTempSubdirectory("wexel-outside-").FullName;
    private Process? _process;

    internal int SmtpPort { get; } = ServerProcess.FreePort();

    internal HttpClient Client { get; } = new(new HttpClientHandler { AllowAutoRedirect = false }) { BaseAddress = new Uri($"http://127.0.0.1:{ServerProcess.FreePort()}/") };

    public async ValueTask InitializeAsync()
    {
        var start = new ProcessStartInfo("dotnet") { RedirectStandardOutput = true };
        start.ArgumentList.Add(Path.Combine(AppContext.BaseDirectory, "Wexel.StandIns.dll"));
        start.Environment["ASPNETCORE_URLS"] = Client.BaseAddress!.ToString();
        start.Environment["StandIns__SmtpPort"] = SmtpPort.ToString(System.Globalization.CultureInfo.InvariantCulture);
        start.Environment["StandIns__Data"] = _folder;
        start.Environment["StandIns__DirectorySeconds"] = "0.2";
        _process = Process.Start(start)!;
        _process.OutputDataReceived += (_, _) => { };
        _process.BeginOutputReadLine();
        for (var i = 0; ; i++)
        {
            try
            {
                (await Client.GetAsync("healthz")).EnsureSuccessStatusCode();
                return;
            }
            catch (HttpRequestException) when (i < 150)
            {
                await Task.Delay(100);
            }
        }
    }

    public ValueTask DisposeAsync()
    {
        _process?.Kill();
        Client.Dispose();
        Directory.Delete(_folder, recursive: true);
        return ValueTask.CompletedTask;
    }
}
