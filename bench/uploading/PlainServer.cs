namespace Wexel.Uploading;

/// <summary>A server that writes down what is put, and does nothing else.</summary>
internal static class PlainServer
{
    internal static void Run(int port, string folder)
    {
        var builder = WebApplication.CreateBuilder();
        builder.WebHost.UseUrls($"http://127.0.0.1:{port}").ConfigureKestrel(server => server.Limits.MaxRequestBodySize = null);
        builder.Logging.ClearProviders();
        var app = builder.Build();
        app.MapPut("/{name}", async (string name, HttpRequest request) =>
        {
            await using var file = File.Create(Path.Combine(folder, Path.GetFileName(name)));
            await request.Body.CopyToAsync(file, 256 * 1024);
            return Results.NoContent();
        });
        app.Run();
    }
}
