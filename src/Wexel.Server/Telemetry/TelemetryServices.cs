using Npgsql;
using OpenTelemetry.Metrics;
using OpenTelemetry.Resources;
using OpenTelemetry.Trace;

namespace Wexel.Server.Telemetry;

internal static class TelemetryServices
{
    /// <summary>The variable of the OpenTelemetry specification that says where figures and traces go.</summary>
    internal const string Endpoint = "OTEL_EXPORTER_OTLP_ENDPOINT";

    internal static void AddTelemetry(this IServiceCollection services, IConfiguration configuration)
    {
        services.AddSingleton<Figures>();
        if (configuration[Endpoint] is not { Length: > 0 })
            return;
        services
            .AddOpenTelemetry()
            .ConfigureResource(resource => resource.AddService("wexel", serviceVersion: typeof(Figures).Assembly.GetName().Version?.ToString()))
            .WithMetrics(metrics => metrics.AddMeter(Figures.Name, "Npgsql").AddAspNetCoreInstrumentation().AddRuntimeInstrumentation().AddOtlpExporter())
            .WithTracing(traces => traces.AddSource(Figures.Name).AddAspNetCoreInstrumentation().AddNpgsql().AddOtlpExporter());
    }
}
