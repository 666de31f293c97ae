using Hangfire;
using Hangfire.AspNetCore;
using Hangfire.PostgreSql;
using Hangfire.PostgreSql.Factories;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.FileProviders;
using Microsoft.Extensions.Options;
using Serilog;
using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Data.Storage;
using Wexel.Media.Tools;
using Wexel.Server.Channel;
using Wexel.Server.Demo;
using Wexel.Server.Estimates;
using Wexel.Server.Feeds;
using Wexel.Server.Kit;
using Wexel.Server.Lessons;
using Wexel.Server.Library;
using Wexel.Server.Live;
using Wexel.Server.Mailing;
using Wexel.Server.Profiles;
using Wexel.Server.Recordings;
using Wexel.Server.Releases;
using Wexel.Server.Rendering;
using Wexel.Server.Setup;
using Wexel.Server.SignIn;
using Wexel.Server.Trying;
using Wexel.Server.Uploads;

var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = args, ContentRootPath = AppContext.BaseDirectory });
builder.Services.AddSerilog(log => log.ReadFrom.Configuration(builder.Configuration).WriteTo.Console(formatProvider: System.Globalization.CultureInfo.InvariantCulture));
builder.Services.AddOptions<WexelOptions>().BindConfiguration("Wexel").ValidateDataAnnotations().ValidateOnStart();
var connection = builder.Configuration.GetConnectionString("Wexel") ?? "Host=127.0.0.1;Database=wexel;Username=wexel";

builder.Services.AddDbContextFactory<WexelDb>(options => options.UseNpgsql(connection));
builder.Services.AddIdentity<Person, IdentityRole<Guid>>(options => options.User.RequireUniqueEmail = true)
    .AddEntityFrameworkStores<WexelDb>().AddClaimsPrincipalFactory<NamedClaims>();
builder.Services.ConfigureApplicationCookie(options =>
{
    options.Cookie.Name = "wexel";
    options.ExpireTimeSpan = TimeSpan.FromDays(14);
    options.Events.OnRedirectToLogin = context => Answer(context.Response, StatusCodes.Status401Unauthorized);
    options.Events.OnRedirectToAccessDenied = context => Answer(context.Response, StatusCodes.Status403Forbidden);
});
builder.Services.AddAuthorizationBuilder().SetFallbackPolicy(new Microsoft.AspNetCore.Authorization.AuthorizationPolicyBuilder().RequireRole(Roles.Trainer).Build());

builder.Services.ConfigureHttpJsonOptions(options => WexelJson.Configure(options.SerializerOptions));
builder.Services.AddSignalR().AddJsonProtocol(options => WexelJson.Configure(options.PayloadSerializerOptions));
builder.Services.AddProblemDetails();
builder.Services.AddOpenApi(options => options.AddSchemaTransformer<AsOnTheWire>());

// Both registered by themselves: Hangfire would take what the process set up last, which is another server's where two run in one process.
builder.Services.AddSingleton<JobActivator>(services => new AspNetCoreJobActivator(services.GetRequiredService<IServiceScopeFactory>()));
builder.Services.AddSingleton<JobStorage>(_ =>
{
    var storage = new PostgreSqlStorageOptions { QueuePollInterval = TimeSpan.FromMilliseconds(500) };
    return new PostgreSqlStorage(new NpgsqlConnectionFactory(connection, storage), storage);
});
builder.Services.AddHangfire(jobs => jobs.UseSimpleAssemblyNameTypeSerializer().UseRecommendedSerializerSettings());

builder.Services.AddSingleton(TimeProvider.System).AddSingleton(Machine.Share);
builder.Services.AddSingleton(services => new FileStore(services.GetRequiredService<IOptions<WexelOptions>>().Value.Data));
builder.Services.AddSingleton<DiskRoom>().AddSingleton<PictureTaker>().AddSingleton<LiveNews>().AddSingleton<PieceWriter>().AddSingleton<Finisher>().AddSingleton<SamplingTurn>().AddSingleton<RenditionEstimates>().AddScoped<Mailer>();
builder.Services.AddHttpClient<PackageSender>(http => http.Timeout = TimeSpan.FromMinutes(30));
builder.Services.AddScoped<BringIn>().AddScoped<LessonReels>().AddScoped<LessonSaver>().AddScoped<RenderPlans>().AddScoped<EstimateReader>().AddScoped<RenderQueue>().AddScoped<RenditionMaker>().AddScoped<BatchMail>().AddScoped<CheckOverrides>().AddScoped<ProfileShelf>().AddScoped<ProfileKeeper>().AddScoped<Packer>().AddScoped<EpisodeMaker>().AddScoped<FeedReader>().AddScoped<FeedKeeper>().AddScoped<HouseKeeper>().AddScoped<Releaser>().AddScoped<CourseReleaser>().AddScoped<ChannelReader>().AddScoped<ProgressKeeper>().AddScoped<MadeFileReader>().AddScoped<Space>().AddScoped<DemoSeed>();

// The build describes the API by starting this program without a database; then nothing works in the background.
if (System.Reflection.Assembly.GetEntryAssembly()?.GetName().Name != "GetDocument.Insider")
{
    builder.Services.AddDataProtection().SetApplicationName("Wexel").PersistKeysToDbContext<WexelDb>();
    builder.Services.AddHostedService<StartUp>().AddHostedService<LostWork>().AddHostedService<HandIn>();
    builder.Services.AddHangfireServer(server => (server.Queues, server.WorkerCount) = (["render"], Machine.Share.Passes));
    builder.Services.AddHangfireServer(server => (server.Queues, server.WorkerCount, server.SchedulePollingInterval) = (["soon", "default"], 2, TimeSpan.FromSeconds(1)));
}

var app = builder.Build();
app.UseExceptionHandler();
app.UseStatusCodePages();
var settings = app.Services.GetRequiredService<IOptions<WexelOptions>>().Value;
ServeFolder(settings.PlayerFolder, "/player");
ServeFolder(settings.DeskFolder, "");
app.UseAuthentication();
app.UseAuthorization();
app.MapOpenApi();
app.MapSignIn();
app.MapLessons();
app.MapRevisions();
app.MapCourses();
app.MapCanvas();
app.MapReels();
app.MapMoveIns();
app.MapSplitting();
app.MapCuts();
app.MapSuggestions();
app.MapRecordings();
app.MapFrames();
app.MapTus();
app.MapUploads();
app.MapProfiles();
app.MapRendering();
app.MapEstimates();
app.MapTrying();
app.MapQueue();
app.MapFileChecks();
app.MapLibrary();
app.MapReleases();
app.MapCourseReleases();
app.MapChannel();
app.MapHouse();
app.MapFeeds();
app.MapFeedFiles();
app.MapHub<LiveHub>("/live");
app.MapGet("/healthz", () => TypedResults.Text("ok")).AllowAnonymous().ExcludeFromDescription();
app.Map("/api/{**rest}", () => Problems.NotThere("address")).ExcludeFromDescription();
// Every other address is one of the desk's views; what it shows comes from the API, which asks who is there.
app.MapFallback((HttpContext http) => File.Exists(Path.Combine(settings.DeskFolder, "index.html"))
    ? Results.File(Path.Combine(settings.DeskFolder, "index.html"), "text/html; charset=utf-8")
    : Results.NotFound()).AllowAnonymous();
app.Run();

static Task Answer(HttpResponse response, int status)
{
    response.StatusCode = status;
    return Task.CompletedTask;
}

void ServeFolder(string folder, string at)
{
    if (Directory.Exists(folder))
        app.UseStaticFiles(new StaticFileOptions { FileProvider = new PhysicalFileProvider(folder), RequestPath = at });
}

/// <summary>The entry point, visible to the tests.</summary>
internal sealed partial class Program;
