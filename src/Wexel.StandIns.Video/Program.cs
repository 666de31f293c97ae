using System.Text.Json.Serialization;
using Wexel.StandIns.Video;
using Wexel.StandIns.Video.Door;
using Wexel.StandIns.Video.Studio;

var builder = WebApplication.CreateBuilder(args);
var data = Directory.CreateDirectory(builder.Configuration["Video:Data"] ?? Path.Combine(Path.GetTempPath(), "wexel-video")).FullName;
builder.Services.AddSingleton(new Store(data, builder.Configuration.GetValue("Video:SecondsASecond", 0.5)));
builder.Services.AddSingleton(new Accounts(data)).AddSingleton<Troubles>().AddSingleton<Pieces>().AddHostedService<ReadyMails>();
builder.Services.AddDoor(builder.Configuration, data);
builder.Services.AddProblemDetails();
builder.Services.ConfigureHttpJsonOptions(json =>
    json.SerializerOptions.Converters.Add(new JsonStringEnumConverter(System.Text.Json.JsonNamingPolicy.CamelCase))
);
builder.WebHost.ConfigureKestrel(server => server.Limits.MaxRequestBodySize = 4L * 1024 * 1024 * 1024);

var app = builder.Build();
app.UseWhen(
    http => http.Request.Path.StartsWithSegments("/api") || http.Request.Path.StartsWithSegments("/upload"),
    ours => ours.Use(next => http => app.Services.GetRequiredService<Troubles>().MiddleAsync(http, next))
);
app.UseRouting();
app.UseAuthentication();
app.UseAuthorization();
app.MapGet("/healthz", () => "ok");
app.MapDoor();
app.MapVideoApi();
app.MapUploading();
app.MapStudio();
app.Run();
