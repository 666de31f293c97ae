using Hangfire;
using Hangfire.AspNetCore;
using Hangfire.PostgreSql;
using Hangfire.PostgreSql.Factories;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Serilog;
using Wexel.Core.Documents;
using Wexel.Core.Outlets;
using Wexel.Data;
using Wexel.Delivering;
using Wexel.Delivering.Directories;
using Wexel.Delivering.Directories.Desk;
using Wexel.Delivering.Downloads;
using Wexel.Delivering.Folders;
using Wexel.Delivering.Http;
using Wexel.Delivering.VideoServices;
using Wexel.Delivering.VideoServices.Skerry;
using Wexel.Making;
using Wexel.Making.Releasing;
using Wexel.Making.Rendering;
using Wexel.Making.Storage;
using Wexel.Media.Screens;
using Wexel.Media.Speech;
using Wexel.Media.Spelling;
using Wexel.Media.Tools;
using Wexel.Media.Translating;
using Wexel.Server;
using Wexel.Server.Audit;
using Wexel.Server.Board;
using Wexel.Server.Captions;
using Wexel.Server.Channel;
using Wexel.Server.Contents;
using Wexel.Server.Demo;
using Wexel.Server.Details;
using Wexel.Server.Estimates;
using Wexel.Server.Feeds;
using Wexel.Server.Following;
using Wexel.Server.Kit;
using Wexel.Server.Learning;
using Wexel.Server.Lessons;
using Wexel.Server.Library;
using Wexel.Server.Lists;
using Wexel.Server.Live;
using Wexel.Server.Mailing;
using Wexel.Server.Outcomes;
using Wexel.Server.Outlets;
using Wexel.Server.People;
using Wexel.Server.Profiles;
using Wexel.Server.Providers;
using Wexel.Server.Questions;
using Wexel.Server.Recordings;
using Wexel.Server.Releases;
using Wexel.Server.Remembering;
using Wexel.Server.Rendering;
using Wexel.Server.Screens;
using Wexel.Server.Serving;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.SignIn;
using Wexel.Server.Sounds;
using Wexel.Server.Speech;
using Wexel.Server.Telemetry;
using Wexel.Server.Translating;
using Wexel.Server.Trying;
using Wexel.Server.Upkeep;
using Wexel.Server.Uploads;
using Wexel.Server.VideoServices;

var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = args, ContentRootPath = AppContext.BaseDirectory });
builder.WebHost.ConfigureKestrel(kestrel => (kestrel.Limits.MaxRequestBodySize, kestrel.AddServerHeader) = (4 * 1024 * 1024, false));

// Its own logger: where two servers run in one process, neither writes the other’s.
builder.Services.AddSerilog(
    log =>
    {
        log.ReadFrom.Configuration(builder.Configuration).WriteTo.Console(formatProvider: System.Globalization.CultureInfo.InvariantCulture);
        if (builder.Configuration[$"Wexel:{nameof(WexelOptions.SecurityLog)}"] is { Length: > 0 } file)
            log.WriteTo.Logger(security =>
                security
                    .Filter.ByIncludingOnly(Serilog.Filters.Matching.FromSource(SecurityLog.Category))
                    .WriteTo.File(
                        file,
                        formatProvider: System.Globalization.CultureInfo.InvariantCulture,
                        rollingInterval: RollingInterval.Day,
                        retainedFileCountLimit: 400,
                        shared: true
                    )
            );
    },
    preserveStaticLogger: true
);
builder.Services.AddOptions<WexelOptions>().BindConfiguration("Wexel").ValidateDataAnnotations().ValidateOnStart();
var connection = builder.Configuration.GetConnectionString("Wexel") ?? "Host=127.0.0.1;Database=wexel;Username=wexel";

builder.Services.AddSingleton(services => new Changes(connection, services.GetRequiredService<ILogger<Changes>>())).AddSingleton<OwnChanges>();
builder.Services.AddDbContextFactory<WexelDb>((services, options) => options.UseNpgsql(connection).AddInterceptors(services.GetRequiredService<OwnChanges>()));
builder.Services.AddSignIn();
builder.Services.AddProviders();

builder.Services.ConfigureHttpJsonOptions(options => EdgeJson.Configure(options.SerializerOptions));
builder.Services.AddSignalR().AddJsonProtocol(options => WexelJson.Configure(options.PayloadSerializerOptions));
builder.Services.AddProblemDetails(problems => problems.CustomizeProblemDetails = Faults.Say).AddExceptionHandler<Faults>().AddLimits();
builder.Services.AddProxies();
builder.Services.AddTelemetry(builder.Configuration);
builder.Services.AddResponseCompression(compression => compression.EnableForHttps = true);
builder.Services.AddOpenApi(options => options.AddSchemaTransformer<AsOnTheWire>().AddDocumentTransformer<WithPlayer>().AddDocumentTransformer<WithKinds>());

// Both registered by themselves: Hangfire would take what the process set up last, which is another server's where two run in one process.
builder.Services.AddSingleton<JobActivator>(services => new AspNetCoreJobActivator(services.GetRequiredService<IServiceScopeFactory>()));
builder.Services.AddSingleton<JobStorage>(_ =>
{
    // What a server had taken that died is another's after this; one that lives says so five times meanwhile.
    var storage = new PostgreSqlStorageOptions
    {
        QueuePollInterval = TimeSpan.FromMilliseconds(500),
        UseSlidingInvisibilityTimeout = true,
        InvisibilityTimeout = TimeSpan.FromSeconds(40),
        DistributedLockTimeout = TimeSpan.FromMinutes(1),
    };
    return new PostgreSqlStorage(new NpgsqlConnectionFactory(connection, storage), storage);
});
builder.Services.AddHangfire(jobs => jobs.UseSimpleAssemblyNameTypeSerializer().UseRecommendedSerializerSettings());

builder.Services.AddSingleton(TimeProvider.System).AddSingleton(Machine.Share);
builder.Services.AddSingleton(services =>
{
    var folder = services.GetRequiredService<IOptions<WexelOptions>>().Value.Data;
    try
    {
        return new FileStore(folder, HalfMade.Beside);
    }
    catch (Exception failed) when (failed is IOException or UnauthorizedAccessException)
    {
        throw new CannotStartException(
            $"The folder for recordings and everything made (Wexel__Data), {folder}, cannot be made or written: {failed.Message} Let the user that "
                + $"Wexel runs as write there, or name another."
        );
    }
});
builder
    .Services.AddSingleton<DiskRoom>()
    .AddSingleton<PictureTaker>()
    .AddSingleton<MarkTaker>()
    .AddSingleton<LiveNews>()
    .AddSingleton<PieceWriter>()
    .AddSingleton(services => new MakingFolders(
        services.GetRequiredService<FileStore>(),
        services.GetRequiredService<IOptions<WexelOptions>>().Value.PlayerFolder
    ))
    .AddSingleton<RenditionMaker>()
    .AddSingleton<PictureMaker>()
    .AddSingleton<ShownPictures>()
    .AddSingleton<ShelfSounds>()
    .AddSingleton<ShippedSounds>()
    .AddSingleton<QuestionPacker>()
    .AddSingleton<Packer>()
    .AddSingleton<EpisodeMaker>()
    .AddSingleton<SamplingTurn>()
    .AddSingleton<RenditionEstimates>()
    .AddSingleton<OpenedPages>()
    .AddSingleton<MadeFileSender>()
    .AddSingleton<KnownReleases>()
    .AddSingleton<KnownOpenings>()
    .AddSingleton<ReleasedFiles>()
    .AddSingleton<NewLearners>()
    .AddScoped<RazorMails>()
    .AddScoped<Follows>()
    .AddScoped<Mailer>();
foreach (var kind in OutletKinds.In(typeof(OutletKind).Assembly))
    builder.Services.AddSingleton(kind);
builder.Services.AddSingleton<OutletKinds>().AddSingleton<PlayerHash>().AddSingleton<ReckonedKeys>();
builder
    .Services.AddHttpClient<PutDelivery>(http => (http.Timeout, http.MaxResponseContentBufferSize) = (TimeSpan.FromMinutes(30), OutsideOnly.MostRead))
    .ConfigurePrimaryHttpMessageHandler(services => OutsideOnly.Handler(services.GetRequiredService<IOptions<WexelOptions>>().Value.MayReach));
builder
    .Services.AddHttpClient("skerry", http => http.MaxResponseContentBufferSize = OutsideOnly.MostRead)
    .ConfigurePrimaryHttpMessageHandler(services => OutsideOnly.Handler(services.GetRequiredService<IOptions<WexelOptions>>().Value.MayReach));
builder
    .Services.AddTransient<IVideoService>(services => new SkerryService(
        services.GetRequiredService<IHttpClientFactory>().CreateClient("skerry"),
        services.GetRequiredService<IOptions<WexelOptions>>().Value.Skerry,
        services.GetRequiredService<TimeProvider>()
    ))
    .AddTransient<AllVideoServices>();
builder
    .Services.AddHttpClient("directory", http => http.MaxResponseContentBufferSize = OutsideOnly.MostRead)
    .ConfigurePrimaryHttpMessageHandler(services => OutsideOnly.Handler(services.GetRequiredService<IOptions<WexelOptions>>().Value.MayReach));
builder
    .Services.AddTransient<IPodcastDirectory>(services => new DirectoryDesk(
        services.GetRequiredService<IHttpClientFactory>().CreateClient("directory"),
        services.GetRequiredService<IOptions<WexelOptions>>().Value.PracticeDirectory
    ))
    .AddTransient<PodcastDirectories>();
builder
    .Services.AddTransient<IDelivery, DownloadDelivery>()
    .AddTransient<IDelivery>(services => new FolderDelivery(services.GetRequiredService<IOptions<WexelOptions>>().Value.OutletFolders))
    .AddTransient<IDelivery>(services => new WholeFolderDelivery(services.GetRequiredService<IOptions<WexelOptions>>().Value.OutletFolders))
    .AddScoped<FileNamer>()
    .AddTransient<IDelivery>(services => services.GetRequiredService<PutDelivery>())
    .AddTransient<Deliveries>();
builder
    .Services.AddSingleton<ISpeechEngine>(services =>
    {
        var set = services.GetRequiredService<IOptions<WexelOptions>>().Value;
        return new WhisperEngine(set.WhisperModel, ["dotnet", set.WhisperProgram]);
    })
    .AddSingleton<ISpeechEngine>(new PocketSphinx())
    .AddSingleton<SpeechEngines>()
    .AddSingleton(new Hunspell())
    .AddSingleton<ITranslator>(new Apertium())
    .AddScoped<LessonTextReader>()
    .AddSingleton<IScreenReader>(new Tesseract())
    .AddSingleton<ReadingShares>();
builder
    .Services.AddScoped<OutletShelf>()
    .AddScoped<ReleaseShelf>()
    .AddScoped<DetailKeeper>()
    .AddScoped<OutletKeeper>()
    .AddScoped<FeedCare>()
    .AddScoped<IOutletCare>(services => services.GetRequiredService<FeedCare>())
    .AddScoped<StandingReader>()
    .AddScoped<PackageDeliverer>()
    .AddScoped<IReleaseDeliverer, LessonPackages>()
    .AddScoped<IReleaseDeliverer, VideoDeliverer>()
    .AddScoped<VideoAccounts>()
    .AddScoped<VideoWatch>();
builder
    .Services.AddScoped<BringIn>()
    .AddScoped<LessonImport>()
    .AddScoped<NewLessons>()
    .AddScoped<UploadKeeper>()
    .AddScoped<Receiver>()
    .AddScoped<LessonReels>()
    .AddSingleton<CaptionStore>()
    .AddScoped<LessonSaver>()
    .AddScoped<RenderPlans>()
    .AddScoped<DraftReader>()
    .AddScoped<EstimateReader>()
    .AddScoped<RenderQueue>()
    .AddScoped<RenditionWork>()
    .AddScoped<BatchMail>()
    .AddScoped<CheckOverrides>()
    .AddScoped<ProfileShelf>()
    .AddScoped<ProfileKeeper>()
    .AddScoped<LessonKeeper>()
    .AddScoped<LessonSearch>()
    .AddSingleton<KnownEpisodes>()
    .AddScoped<FeedReader>()
    .AddScoped<FeedViews>()
    .AddScoped<FeedDirectories>()
    .AddScoped<FeedKeeper>()
    .AddScoped<HouseKeeper>()
    .AddScoped<ReadyLessons>()
    .AddScoped<ReleaseSteps>()
    .AddScoped<ReleaseWork>()
    .AddScoped<ReleaseWaiting>()
    .AddScoped<Releaser>()
    .AddScoped<ReleaseWishes>()
    .AddScoped<BoardReader>()
    .AddScoped<BoardPlanner>()
    .AddScoped<IRenderCare>(services => services.GetRequiredService<ReleaseWishes>())
    .AddScoped<ReleaseMail>()
    .AddScoped<HandOns>()
    .AddScoped<ReleaseViews>()
    .AddScoped<CourseReleaser>()
    .AddSingleton<Viewers>()
    .AddScoped<MailedCodes>()
    .AddScoped<Invitations>()
    .AddScoped<PeopleKeeper>()
    .AddScoped<PersonalData>()
    .AddScoped<FirstAdministrator>()
    .AddScoped<ListKeeper>()
    .AddScoped<LearnersLists>()
    .AddScoped<Sitemap>()
    .AddScoped<ChannelLists>()
    .AddScoped<IOutletCare, ChannelCare>()
    .AddScoped<IRenderCare>(services => services.GetRequiredService<CourseReleaser>())
    .AddScoped<WantedRenders>()
    .AddScoped<ChannelReader>()
    .AddScoped<ReleasedSearch>()
    .AddScoped<IdleTime>()
    .AddScoped<ReadScreens>()
    .AddScoped<ProposalReader>()
    .AddScoped<LearningLog>()
    .AddScoped<Notes>()
    .AddScoped<Surveys>()
    .AddScoped<LogReader>()
    .AddSingleton<TakenRevisions>()
    .AddScoped<LessonResultsReader>()
    .AddScoped<ResultsOverview>()
    .AddScoped<Rescoring>()
    .AddScoped<QuestionPool>()
    .AddScoped<SoundShelf>()
    .AddScoped<MadeFileReader>()
    .AddSingleton<KnownKeys>()
    .AddScoped<KeyReader>()
    .AddScoped<FreeableSpace>()
    .AddScoped<DemoCrew>()
    .AddScoped<DemoChannels>()
    .AddScoped<DemoSeed>();

// The build describes the API by starting this program without a database; then nothing works in the background.
if (System.Reflection.Assembly.GetEntryAssembly()?.GetName().Name != "GetDocument.Insider")
{
    builder.Services.AddDataProtection().SetApplicationName("Wexel").PersistKeysToDbContext<WexelDb>();
    builder
        .Services.AddHostedService<StartUp>()
        .AddHostedService(services => services.GetRequiredService<Changes>())
        .AddHostedService<HandIn>()
        .AddUpkeep<LostWork>()
        .AddUpkeep<LeftWork>()
        .AddUpkeep<LeftReleases>()
        .AddUpkeep<TemporaryFiles>()
        .AddUpkeep<Hearing>()
        .AddUpkeep<ScreenReading>()
        .AddUpkeep<LessonKeeper>()
        .AddUpkeep<LessonSearch>()
        .AddUpkeep<ReleasedSearch>()
        .AddUpkeep<FollowerNews>()
        .AddUpkeep<FollowerMails>()
        .AddUpkeep<Projections>()
        .AddUpkeep<VideoWatch>()
        .AddUpkeep<FeedDirectories>();
    void Work(Action<BackgroundJobServerOptions> set) =>
        builder.Services.AddHangfireServer(server =>
        {
            // A server that was killed is taken off the list of those that live.
            (server.HeartbeatInterval, server.ServerCheckInterval, server.ServerTimeout) = (
                TimeSpan.FromSeconds(10),
                TimeSpan.FromSeconds(30),
                TimeSpan.FromMinutes(1)
            );
            set(server);
        });
    Work(server => (server.Queues, server.WorkerCount) = (["render"], Machine.Share.Passes));
    Work(server => (server.Queues, server.WorkerCount, server.SchedulePollingInterval) = (["soon", "default"], 2, TimeSpan.FromSeconds(1)));
}

var app = builder.Build();
app.UseForwardedHeaders();
app.UseMiddleware<SafeHeaders>();
app.UseExceptionHandler();
var settings = app.Services.GetRequiredService<IOptions<WexelOptions>>().Value;
if (settings.PublicAddress.Scheme == Uri.UriSchemeHttps)
    app.UseHsts();
app.Serve(settings.PlayerFolder, "/player");
app.Serve(Path.Combine(settings.DeskFolder, "assets"), "/assets", hashed: true);

// Behind the files: what is one of them is no address of ours. Released files end here.
app.UseRouting();
app.UseStatusCodePages();
app.UseMiddleware<PlainAddresses>();
app.UseResponseCompression();
app.UseAuthentication();
app.UseMiddleware<SameOrigin>();
app.UseAuthorization();
app.UseRateLimiter();
app.UseMiddleware<AuditTrail>();
app.MapOpenApi();
app.MapSignIn();
app.MapAccount();
app.MapPasskeys();
app.MapPeople();
app.MapGroups();
app.MapPersonalData();
app.MapNewPasswords();
app.MapOwners();
app.MapGuests();
app.MapProviders();
app.MapProviderSignIn();
app.MapNotes();
app.MapFollowing();
app.MapLessons();
app.MapRevisions();
app.MapLessonFiles();
app.MapPictures();
app.MapKeeping();
app.MapSearch();
app.MapCourses();
app.MapCanvas();
app.MapCameras();
app.MapReels();
app.MapMoveIns();
app.MapSplitting();
app.MapCuts();
app.MapSuggestions();
app.MapProposals();
app.MapContentsFiles();
app.MapQuestions();
app.MapPool();
app.MapSounds();
app.MapMixing();
app.MapLacks();
app.MapRights();
app.MapResults();
app.MapCaptions();
app.MapLooks();
app.MapTranslations();
app.MapCaptionFiles();
app.MapDrafts();
app.MapScripts();
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
app.MapOutlets();
app.MapDetails();
app.MapReleases();
app.MapBoard();
app.MapCourseReleases();
app.MapVideoServices();
app.MapVideoFigures();
app.MapLists();
app.MapChannel();
app.MapHouse();
app.MapAudit();
app.MapFeeds();
app.MapFeedFiles();
app.MapSubscribing();
app.MapHub<LiveHub>("/live");
app.MapHealth();
app.Map("/api/{**rest}", () => Problems.NotThere("address")).ExcludeFromDescription();
app.MapDesk(settings.DeskFolder);
try
{
    app.Run();
    return 0;
}
catch (CannotStartException refused)
{
    Console.Error.WriteLine(refused.Message);
    return 1;
}

/// <summary>The entry point, visible to the tests.</summary>
internal sealed partial class Program;
