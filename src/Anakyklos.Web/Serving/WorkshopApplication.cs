using Anakyklos.Core.Stores;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Devices;
using System.IO.Compression;
using Anakyklos.Core.Cards;
using Anakyklos.Storage;
using Anakyklos.Web.Api;
using Anakyklos.Web.Demo;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Languages;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.HostFiltering;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.ResponseCompression;
using System.Security.Claims;

namespace Anakyklos.Web.Serving;

/// <summary>Puts the application together.</summary>
public static class WorkshopApplication
{
    private const string Answered = "X-Anakyklos";

    internal static WebApplication Build(Options options, TimeProvider time)
    {
        var builder = WebApplication.CreateBuilder(new WebApplicationOptions { ContentRootPath = AppContext.BaseDirectory });
        // Who says nothing of a port may say in the environment, as with any server of this kind, where to listen.
        if (options.PortGiven || string.IsNullOrEmpty(builder.Configuration["urls"]))
            builder.WebHost.UseUrls($"http://*:{options.Port}");
        builder.Logging.SetMinimumLevel(LogLevel.Warning).AddFilter("Microsoft.AspNetCore.DataProtection", LogLevel.Error)
            // Nobody here reads traces of requests, and each would be given one; what fails is told by other parts.
            .AddFilter("Microsoft.AspNetCore.Hosting.Diagnostics", LogLevel.None);
        AddWorkshop(builder.Services, options, time);
        builder.Services.AddHostedService<NightWatch>();
        if (!options.Demo)
            builder.Services.AddHostedService(s => (MadeUpDepot)s.GetRequiredService<IMadeUpDepot>());
        var app = builder.Build();
        UseWorkshop(app);
        return app;
    }

    /// <summary>Services of the workshop in a folder.</summary>
    public static void AddWorkshop(IServiceCollection services, Options options, TimeProvider time)
    {
        services.AddSingleton(options);
        services.AddSingleton(time);
        services.AddSingleton<WorkshopClock>();
        services.AddSingleton(s =>
        {
            var database = new WorkshopDatabase(options.File, options.Seals, time);
            var signedIn = s.GetRequiredService<IHttpContextAccessor>();
            database.Writes.Writer = () => signedIn.HttpContext?.User.FindFirstValue(ClaimTypes.NameIdentifier) ?? "";
            var log = s.GetRequiredService<ILoggerFactory>().CreateLogger<WorkshopDatabase>();
            database.Writes.ListenerFailed += e => log.LogError(e, "A listener failed after a write; the write stands");
            database.Writes.StrangerWrote += () => log.LogWarning("Another program wrote to {File} while it is served here; only one may",
                options.File);
            return database;
        });
        services.AddSingleton<TrailStore>();
        services.AddSingleton<TrailDesk>();
        services.AddSingleton<SentFormStore>();
        services.AddSingleton<SentForms>();
        services.AddSingleton(new BackupPlace(options.Backups, options.KeptBackups));
        services.AddSingleton<BackupDesk>();
        services.AddSingleton<FileWatch>();
        services.AddSingleton<ComingFiles>();
        services.AddSingleton<SheetStore>();
        services.AddSingleton<CardStore>();
        services.AddSingleton<SessionStore>();
        services.AddSingleton<PeopleStore>();
        services.AddSingleton<BrowserSignIn>();
        services.AddSingleton<SetupToken>();
        services.AddSingleton<VehicleStore>();
        services.AddSingleton<SettingStore>();
        services.AddSingleton<ShippedSheets>();
        services.AddSingleton<ShelfStore>();
        services.AddSingleton<VehicleTrail>();
        services.AddSingleton<SearchStore>();
        services.AddSingleton<FleetBook>();
        services.AddSingleton<PutRightDesk>();
        services.AddSingleton<DueDesk>();
        services.AddSingleton<YardDesk>();
        services.AddSingleton<SampleStore>();
        services.AddSingleton<PhotoStore>();
        services.AddSingleton<OwnListStore>();
        services.AddSingleton<DraftStore>();
        services.AddSingleton<SheetDesk>();
        services.AddSingleton<RevisionDesk>();
        services.AddSingleton<TorqueTable>();
        services.AddSingleton<OilDesk>();
        services.AddSingleton<PhotoDesk>();
        services.AddSingleton<LabDesk>();
        services.AddSingleton<OwnListDesk>();
        services.AddSingleton<FluidDesk>();
        services.AddSingleton<VehicleDesk>();
        services.AddSingleton<PlannedCards>();
        services.AddSingleton<BookIn>();
        services.AddSingleton<KitDesk>();
        services.AddSingleton<PracticeStore>();
        services.AddSingleton<LessonShelf>();
        services.AddSingleton<WorkshopWords>();
        services.AddSingleton<PracticeDesk>();
        services.AddSingleton<CardRooms>();
        services.AddSingleton<AroundLift>();
        services.AddSingleton<OrderDesk>();
        services.AddSingleton<WorkAhead>();
        services.AddSingleton<RecommendationStore>();
        services.AddSingleton<RecommendationDesk>();
        services.AddSingleton<VisitStore>();
        services.AddSingleton<WeekWishes>();
        services.AddSingleton<WeekDesk>();
        services.AddSingleton<WeekMoves>();
        if (options.Demo)
            services.AddSingleton<ISupplier, BoatSupplier>();
        else
            services.AddSingleton<ISupplier, SetSupplier>();
        services.AddSingleton<DemoDepot>();
        services.AddSingleton<DemoStock>();
        services.AddSingleton<DemoHistory>();
        services.AddSingleton<LargeWorkshop>();
        services.AddSingleton<ScreenStreams>();
        services.AddSingleton<CardChanges>();
        services.AddSingleton<DeviceStore>();
        services.AddSingleton<DeviceDesk>();
        services.AddSingleton<ReportStore>();
        services.AddSingleton<ScanDesk>();
        services.AddSingleton<DeviceProtocol>();
        services.AddSingleton<BayChanges>();
        services.AddSingleton<DemoVehicles>();
        services.AddSingleton<DemoWrench>();
        services.AddSingleton<DemoDispenser>();
        services.AddSingleton<IDemoSender>(s => s.GetRequiredService<DemoWrench>());
        services.AddSingleton<DemoScanTool>();
        services.AddSingleton<IDemoSender>(s => s.GetRequiredService<DemoDispenser>());
        services.AddSingleton<IDemoSender>(s => s.GetRequiredService<DemoScanTool>());
        services.AddSingleton<DemoLabelPrinter>();
        services.AddSingleton<IDemoSender>(s => s.GetRequiredService<DemoLabelPrinter>());
        if (options.Demo)
            services.AddHostedService<DeviceBeat>();
        services.AddSingleton<IPasswordHasher<Member>, PasswordHasher<Member>>();
        services.AddSingleton<PeopleDesk>();
        services.AddSingleton<PersonBehind>();
        services.AddSingleton<SettingDesk>();
        services.AddSingleton<StoresDesk>();
        services.AddSingleton<FirstHour>();
        services.AddSingleton<GuidedCard>();
        services.AddSingleton<IMadeUpDepot, MadeUpDepot>();
        services.AddSingleton<BayStore>();
        services.AddSingleton<CalibrationStore>();
        services.AddSingleton<EquipmentDesk>();
        services.AddSingleton<CardOpening>();
        services.AddSingleton<IntakeDesk>();
        services.AddSingleton<BroughtRecordStore>();
        services.AddSingleton<RecordDesk>();
        services.AddSingleton<CalendarDesk>();
        services.AddSingleton<FrontDesk>();
        services.AddSingleton<AheadDesk>();
        services.AddSingleton<LabelJobStore>();
        services.AddSingleton<LabelDesk>();
        services.AddSingleton<RulingStore>();
        services.AddSingleton<RulingDesk>();
        services.AddSingleton<DrumStore>();
        services.AddSingleton<DrumDesk>();
        services.AddHttpContextAccessor();
        services.Configure<ForwardedHeadersOptions>(forwarded =>
        {
            forwarded.ForwardedHeaders = options.Proxies.Count == 0 ? ForwardedHeaders.None
                : ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto | ForwardedHeaders.XForwardedHost;
            forwarded.KnownProxies.Clear();
            forwarded.KnownIPNetworks.Clear();
            foreach (var proxy in options.Proxies)
                forwarded.KnownProxies.Add(proxy);
        });
        services.Configure<HostFilteringOptions>(hosts => hosts.AllowedHosts = [.. options.Hosts.DefaultIfEmpty("*")]);
        services.AddScoped<Viewer>();

        services.AddDataProtection().PersistKeysToFileSystem(new(Path.Combine(Path.GetFullPath(options.Folder), "keys")))
            .SetApplicationName("Anakyklos");
        services.AddSingleton<TokenStore>();
        services.AddSingleton<ChangeStore>();
        services.AddSingleton<TokenDesk>();
        services.AddAuthentication(sign =>
        {
            sign.DefaultScheme = CookieAuthenticationDefaults.AuthenticationScheme;
            sign.DefaultAuthenticateScheme = TokenSignIn.Either;
        }).AddPolicyScheme(TokenSignIn.Either, null, either => either.ForwardDefaultSelector = TokenSignIn.Choose)
            .AddScheme<AuthenticationSchemeOptions, TokenSignIn>(TokenSignIn.TokenScheme, null).AddCookie(cookie =>
        {
            cookie.LoginPath = "/signin";
            cookie.Cookie.Name = options.Cookie;
            cookie.Cookie.SameSite = SameSiteMode.Strict;
            cookie.ExpireTimeSpan = TimeSpan.FromHours(12);
            cookie.SlidingExpiration = true;
            cookie.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
            cookie.Events.OnValidatePrincipal = context =>
                context.HttpContext.RequestServices.GetRequiredService<BrowserSignIn>().Validate(context);
            cookie.Events.OnRedirectToLogin = context =>
            {
                if (context.Request.Path.StartsWithSegments("/api"))
                    context.Response.StatusCode = StatusCodes.Status401Unauthorized;
                else
                    context.Response.Redirect(context.RedirectUri);
                return Task.CompletedTask;
            };
            // No redirect: what a role may not do is told as such, at the address where it was tried.
            cookie.Events.OnRedirectToAccessDenied = context =>
            {
                context.Response.StatusCode = StatusCodes.Status403Forbidden;
                return Task.CompletedTask;
            };
        });
        services.AddOptions<CookieAuthenticationOptions>(CookieAuthenticationDefaults.AuthenticationScheme)
            .PostConfigure<IDataProtectionProvider>((cookie, protection) =>
            cookie.TicketDataFormat = new RememberedTickets(new TicketDataFormat(protection.CreateProtector("Anakyklos.SignIn"))));
        services.AddSingleton<RememberedAntiforgery>();
        services.AddAuthorizationBuilder()
            .SetFallbackPolicy(new Microsoft.AspNetCore.Authorization.AuthorizationPolicyBuilder().RequireAuthenticatedUser().Build())
            .AddPolicy("lead", policy => policy.RequireAssertion(context =>
                (context.Resource as HttpContext)?.RequestServices.GetRequiredService<Viewer>().Member?.Role == Role.Lead));
        services.AddAntiforgery(a => (a.HeaderName, a.Cookie.Name, a.Cookie.SameSite, a.Cookie.SecurePolicy) = ("X-Antiforgery",
            options.Cookie + "-form", SameSiteMode.Strict, CookieSecurePolicy.SameAsRequest));
        services.Configure<RequestLocalizationOptions>(l =>
        {
            // What is kept and reckoned is the same for everybody; only what is said to a person is in their language.
            l.DefaultRequestCulture = new(Offered.English, Offered.English);
            (l.SupportedCultures, l.SupportedUICultures) = ([Offered.English], [.. Offered.Cultures]);
            l.RequestCultureProviders = [new PersonLanguage()];
        });
        services.AddRouting(r => r.LowercaseUrls = true);
        services.AddRazorPages(pages =>
        {
            pages.Conventions.AllowAnonymousToPage("/SignIn");
            pages.Conventions.AllowAnonymousToPage("/Setup");
            pages.Conventions.AllowAnonymousToPage("/Error");
            pages.Conventions.AllowAnonymousToPage("/Kept");
            pages.Conventions.AuthorizePage("/Workshop", "lead");
            pages.Conventions.AuthorizePage("/People", "lead");
            pages.Conventions.AuthorizePage("/Equipment", "lead");
            pages.Conventions.AuthorizePage("/FirstHour", "lead");
            pages.Conventions.AuthorizePage("/MadeUp", "lead");
            pages.Conventions.AuthorizePage("/Trail", "lead");
            pages.Conventions.AuthorizePage("/Tokens", "lead");
            pages.Conventions.AddFolderRouteModelConvention("/", PageActionAnswers.AddRoutes);
        }).AddMvcOptions(mvc =>
        {
            mvc.Filters.Add<PageActionResults>();
            mvc.Filters.Add<SpokenPages>();
            mvc.Filters.AddService<SentForms>();
        });
        var forms = services.Last(s => s.ServiceType == typeof(IAntiforgery)).ImplementationType!;
        services.AddSingleton<IAntiforgery>(s => new ProgramAntiforgery((IAntiforgery)ActivatorUtilities.CreateInstance(s, forms)));
        services.ConfigureHttpJsonOptions(json => CardJson.Configure(json.SerializerOptions).RespectNullableAnnotations = true);
        services.AddOpenApi("v1", api =>
        {
            CardEndpoints.Describe(api);
            api.AddSchemaTransformer<ValueSchemas>();
            api.AddDocumentTransformer<ValueSchemas>();
            api.AddDocumentTransformer<PageActionDescription>();
        });
        services.AddProblemDetails();
        services.AddResponseCompression(c =>
        {
            c.EnableForHttps = true;
            c.Providers.Add<BrotliCompressionProvider>();
            c.Providers.Add<GzipCompressionProvider>();
        });
        services.Configure<BrotliCompressionProviderOptions>(b => b.Level = CompressionLevel.Optimal);
        services.AddWebEncoders(w => w.TextEncoderSettings = new(System.Text.Unicode.UnicodeRanges.All));
    }

    /// <summary>The pipeline, in the order in which a request passes it.</summary>
    public static void UseWorkshop(WebApplication app)
    {
        var isMadeUp = app.Services.GetRequiredService<Options>().IsMadeUp;
        app.UseForwardedHeaders();
        app.UseHostFiltering();
        app.UseSecurityHeaders(new HeaderPolicyCollection()
            .AddFrameOptionsDeny()
            .AddContentTypeOptionsNoSniff()
            .AddReferrerPolicySameOrigin()
            .AddContentSecurityPolicy(csp =>
            {
                csp.AddDefaultSrc().None();
                csp.AddScriptSrc().Self();
                csp.AddStyleSrc().Self();
                csp.AddImgSrc().Self();
                csp.AddFontSrc().Self();
                csp.AddConnectSrc().Self();
                csp.AddFormAction().Self();
                csp.AddBaseUri().None();
                csp.AddFrameAncestors().None();
            }));
        app.UseWhen(c => c.Request.Path.StartsWithSegments("/api"), api => api.UseExceptionHandler().UseStatusCodePages());
        app.UseWhen(c => !c.Request.Path.StartsWithSegments("/api"),
            pages => pages.UseExceptionHandler("/error/500").UseStatusCodePagesWithReExecute("/error/{0}"));
        app.UseMiddleware<FileTrouble>();
        app.Use((context, next) =>
        {
            // Whatever is not a file of the program is somebody's: no cache on the way keeps it.
            context.Response.OnStarting(() =>
            {
                // So a screen knows an answer of the workshop from one of whatever stands in its place.
                context.Response.Headers[Answered] = isMadeUp ? "samples" : "1";
                if (context.Response.Headers.CacheControl.Count == 0)
                    context.Response.Headers.CacheControl = "no-store";
                return Task.CompletedTask;
            });
            return next(context);
        });
        app.UseResponseCompression();
        app.UseStaticFiles(new StaticFileOptions
        {
            OnPrepareResponse = file => file.Context.Response.Headers.CacheControl =
                file.Context.Request.Query.ContainsKey("v") || file.File.Name.EndsWith(".woff2", StringComparison.Ordinal)
                    ? "public, max-age=31536000, immutable" : "no-cache",
        });
        app.UseRouting();
        app.UseMiddleware<FirstRun>();
        app.UseAuthentication();
        app.UseRequestLocalization();
        app.UseAuthorization();
        app.Use(TokenSignIn.Keep);
        app.Use(PageActionAnswers.TakeIn);
        app.MapRazorPages();
        CardEndpoints.Map(app);
        ReadEndpoints.Map(app);
        PhotoEndpoints.Map(app);
        PaperEndpoints.Map(app);
        FileEndpoints.Map(app);
        DeviceEndpoints.Map(app);
        app.MapOpenApi("/openapi/v1.json").AllowAnonymous().WithMetadata(new ForPrograms(Scope.Read));
        app.MapGet("/healthz", (PeopleStore people) => people.Nobody ? "ready for its first lead" : "well").AllowAnonymous()
            .WithMetadata(new ForPrograms(Scope.Read)).ExcludeFromDescription();
    }
}
