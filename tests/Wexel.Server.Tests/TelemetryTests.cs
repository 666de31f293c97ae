using System.Collections.Concurrent;
using System.Net.Http.Json;
using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.Logging;

namespace Wexel.Server.Tests;

/// <summary>Figures and traces, where somebody collects them (OpenTelemetry Protocol 1, over HTTP).</summary>
public sealed class TelemetryTests
{
    [Fact]
    public async Task Figures_and_traces_go_where_they_are_collected_and_hold_no_secret()
    {
        var port = ServerProcess.FreePort();
        var collected = new ConcurrentDictionary<string, string>();
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        await using var collector = builder.Build();
        collector.Urls.Add($"http://127.0.0.1:{port}");
        collector.MapPost("/v1/{kind}", async (string kind, HttpRequest request) =>
        {
            using var body = new MemoryStream();
            await request.Body.CopyToAsync(body);
            // The texts of a message in Protocol Buffers stand in it as they are.
            collected.AddOrUpdate(kind, Text(body), (_, before) => before + Text(body));
        });
        await collector.StartAsync(TestContext.Current.CancellationToken);

        await using var process = await ServerProcess.CreateAsync(
            new Dictionary<string, string>
            {
                ["OTEL_EXPORTER_OTLP_ENDPOINT"] = $"http://127.0.0.1:{port}",
                ["OTEL_EXPORTER_OTLP_PROTOCOL"] = "http/protobuf",
                ["OTEL_METRIC_EXPORT_INTERVAL"] = "300",
                ["OTEL_BSP_SCHEDULE_DELAY"] = "300",
            }
        );
        var trainer = await process.StartAsync();
        await process
            .Client()
            .PostAsJsonAsync("api/sign-in", new { email = ServerFixture.Trainer, password = "a wrong guess 99" }, TestContext.Current.CancellationToken);
        await trainer.JsonAsync("api/lessons");
        string[] figures = ["wexel.queue.length", "wexel.sign_ins.refused", "http.server.request.duration"];
        for (
            var i = 0;
            i < 300
                && !(
                    figures.All(collected.GetValueOrDefault("metrics", "").Contains)
                    && collected.GetValueOrDefault("traces", "").Contains("api/lessons", StringComparison.Ordinal)
                );
            i++
        )
            await Task.Delay(100, TestContext.Current.CancellationToken);
        foreach (var figure in figures)
            collected["metrics"].ShouldContain(figure);
        collected["traces"].ShouldContain("api/lessons");
        foreach (var said in collected.Values)
        {
            said.ShouldNotContain(ServerFixture.Password);
            said.ShouldNotContain("a wrong guess 99");
        }

        static string Text(MemoryStream body) => Encoding.Latin1.GetString(body.ToArray());
    }
}
