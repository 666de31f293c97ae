using Wexel.StandIns;
using Wexel.StandIns.Identity;
using Wexel.StandIns.Learning;
using Wexel.StandIns.Listening;
using Wexel.StandIns.Writing;

var builder = WebApplication.CreateBuilder(args);
builder.Services.AddSingleton<Letters>();
var data = builder.Configuration["StandIns:Data"] ?? Path.Combine(Path.GetTempPath(), "wexel-stand-ins");
builder
    .Services.AddSingleton(new Sites(data))
    .AddSingleton(new School(data, TimeSpan.FromSeconds(builder.Configuration.GetValue("StandIns:ProcessingSeconds", 0.0))))
    .AddSingleton<Discussion>()
    .AddHttpClient("previews", http => http.Timeout = TimeSpan.FromSeconds(10));
builder.Services.AddSingleton<DirectoryDesk>().AddHttpClient(Subscriptions.Client, http => http.Timeout = TimeSpan.FromSeconds(30));
builder.Services.AddSingleton(services => new Subscriptions(services.GetRequiredService<IHttpClientFactory>(), data));
builder.Services.AddHostedService<PostOffice>();
builder.Services.AddIdentityProvider();
builder.WebHost.ConfigureKestrel(server => server.Limits.MaxRequestBodySize = 4L * 1024 * 1024 * 1024);

var app = builder.Build();
app.MapGet("/", () =>
    Pages.Html(
        "The outside world",
        "<ul><li><a href=\"/mail\">Mailbox</a></li><li><a href=\"/host\">Web host</a></li><li><a href=\"/learning\">Practice learning "
            + "system</a></li><li><a href=\"/discussion\">Discussion</a></li><li><a href=\"/page-editor\">Page editor</a></li><li><a "
            + "href=\"/identity\">Crew pass</a></li><li><a href=\"/podcasts\">Podcast app</a></li><li><a href=\"/directory\">Directory desk</a></li></ul>"
    )
);
app.UseAuthentication();
app.MapGet("/healthz", () => "ok");
app.MapMailbox();
app.MapWebHost();
app.MapLearning();
app.MapWriting();
app.MapListening();
app.MapDirectory();
app.MapIdentity();
app.Run();
