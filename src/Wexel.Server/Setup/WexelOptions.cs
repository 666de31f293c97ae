using System.ComponentModel.DataAnnotations;
using Wexel.Delivering.VideoServices.Skerry;

namespace Wexel.Server.Setup;

/// <summary>What is set from outside, in the section <c>Wexel</c>.</summary>
internal sealed class WexelOptions
{
    /// <summary>The folder for recordings and everything made.</summary>
    [Required]
    public string Data { get; set; } = "data";

    /// <summary>The folder with the built browser side: <c>desk</c> and <c>player</c>.</summary>
    [Required]
    public string Assets { get; set; } = "artifacts";

    /// <summary>The address by which people reach this server; hand-on links start with it.</summary>
    [Required]
    public Uri PublicAddress { get; set; } = new("http://127.0.0.1:5080/");

    /// <summary>The organisation's name, above learners' pages.</summary>
    public string House { get; set; } = "Brackwater Ferries";

    /// <summary>The language of lessons where nobody chose another, as a BCP 47 tag.</summary>
    public string Language { get; set; } = Core.Captions.LanguageTag.Usual;

    /// <summary>How long a lesson lies in the bin before it is deleted for good.</summary>
    public TimeSpan BinKeeps { get; set; } = TimeSpan.FromDays(30);

    /// <summary>The folder with the demo recordings; nothing is seeded where it is not set.</summary>
    public string? Demo { get; set; }

    /// <summary>Where the demo's learning system takes packages; without it they are only downloaded.</summary>
    public Uri? PracticeLearningSystem { get; set; }

    /// <summary>The issuer of the demo's identity provider; without it the demo has none.</summary>
    public Uri? PracticeProvider { get; set; }

    /// <summary>The podcast directory that ships with it; null for none.</summary>
    public Uri? PracticeDirectory { get; set; }

    /// <summary>How long an identity provider may take to answer.</summary>
    public TimeSpan ProviderAnswersWithin { get; set; } = TimeSpan.FromSeconds(10);

    [Required]
    public string SmtpHost { get; set; } = "127.0.0.1";

    [Range(1, 65535)]
    public int SmtpPort { get; set; } = 2525;

    /// <summary>Whether mails go over TLS.</summary>
    public SmtpTls SmtpTls { get; set; } = SmtpTls.WhenOffered;

    /// <summary>The SHA-256 fingerprint of the one certificate that the mail server may show, in hexadecimal; where it is not set, any that this
    /// machine trusts.</summary>
    public string? SmtpCertificate { get; set; }

    /// <summary>By which name Wexel signs in at the mail server; it does not where it is not set.</summary>
    public string? SmtpUser { get; set; }

    public string? SmtpPassword { get; set; }

    public string MailFrom { get; set; } = "wexel@brackwater.example";

    /// <summary>How often a password is hashed, which makes guessing slow: PBKDF2 with HMAC-SHA-512 (OWASP, Password Storage Cheat Sheet; the figure
    /// from memory).</summary>
    [Range(1, 10_000_000)]
    public int PasswordIterations { get; set; } = 210_000;

    /// <summary>How many tries to sign in an address has at once.</summary>
    [Range(1, 1_000_000)]
    public int SignInsAnAddress { get; set; } = 100;

    /// <summary>How many tries an account has at once, from all browsers in which it was not signed in before, and from each in which it was.</summary>
    [Range(1, 1_000_000)]
    public int SignInsAnAccount { get; set; } = 10;

    /// <summary>How long it takes until one more try may be made.</summary>
    public TimeSpan SignInsBackAfter { get; set; } = TimeSpan.FromSeconds(20);

    /// <summary>How many reports of what was watched a lesson takes from one address at once, and as many again over a minute; a house of 200 learners
    /// behind one address sends 1,200 a minute.</summary>
    [Range(1, 1_000_000)]
    public int ProgressReports { get; set; } = 1500;

    /// <summary>The mail address of whoever adds the first people; null where somebody does already.</summary>
    public string? FirstAdministrator { get; set; }

    /// <summary>How many notes to the author a lesson takes from one address at once; one more each second.</summary>
    [Range(1, 1_000_000)]
    public int NotesLeft { get; set; } = 30;

    /// <summary>How many learners whom nobody knows may begin a lesson from one address at once, and as many again over an hour.</summary>
    [Range(1, 1_000_000)]
    public int NewLearners { get; set; } = 250;

    /// <summary>How many uploads a person may begin at once, and as many again over a minute.</summary>
    [Range(1, 1_000_000)]
    public int UploadsBegun { get; set; } = 120;

    /// <summary>How many uploads of a person may be under way.</summary>
    [Range(1, 1_000_000)]
    public int UploadsUnderWay { get; set; } = 500;

    /// <summary>The file to which the security log goes besides, a new one each day; it goes only to the log where it is not set.</summary>
    public string? SecurityLog { get; set; }

    /// <summary>The addresses of proxies in front of the server, or their networks (such as 10.0.0.0/8), whose word is taken for who asks and how;
    /// none by itself.</summary>
    public IReadOnlyList<string> Proxies { get; set; } = [];

    /// <summary>The largest recording, in bytes.</summary>
    public long LargestRecording { get; set; } = 20L * 1024 * 1024 * 1024;

    /// <summary>The folders in which outlets may have theirs, to be put into; none by itself.</summary>
    public IReadOnlyList<string> OutletFolders { get; set; } = [];

    /// <summary>Hosts with their ports, such as 127.0.0.1:8080, that outlets and identity providers may be reached at though they are this machine;
    /// none by itself but the demo's.</summary>
    public IReadOnlyList<string> OutletHosts { get; set; } = [];

    /// <summary>Whether an outlet may be reached at a host though that is inside.</summary>
    internal bool MayReach(string host, int port) =>
        OutletHosts.Contains($"{host}:{port}")
        || ((Uri?[])[PracticeLearningSystem, PracticeProvider, PracticeDirectory, Skerry.Address]).Any(p => p?.Host == host && p.Port == port);

    /// <summary>The folder from which recordings are brought in by themselves; without it there is none.</summary>
    public string? HandIn { get; set; }

    /// <summary>How long a file in the hand-in folder must not have changed before it counts as complete.</summary>
    public TimeSpan HandInSettles { get; set; } = TimeSpan.FromSeconds(10);

    /// <summary>How often video services are asked how far they are with what they process.</summary>
    public TimeSpan VideoLooksEvery { get; set; } = TimeSpan.FromSeconds(3);

    /// <summary>How often they are asked how often videos were watched, and whether somebody changed something there by hand.</summary>
    public TimeSpan VideoFiguresEvery { get; set; } = TimeSpan.FromMinutes(15);

    /// <summary>How Wexel is known at Skerry, the video service that ships with it.</summary>
    public SkerrySettings Skerry { get; set; } = new();

    /// <summary>How often is looked for what those who follow are to be told, and for mails that are due.</summary>
    public TimeSpan FollowersEvery { get; set; } = TimeSpan.FromSeconds(15);

    /// <summary>How often the hand-in folder is looked through.</summary>
    public TimeSpan HandInLooksEvery { get; set; } = TimeSpan.FromSeconds(1);

    /// <summary>How long a worker may be silent before its work counts as lost and is done again.</summary>
    public TimeSpan LostAfter { get; set; } = TimeSpan.FromSeconds(8);

    /// <summary>How often is looked for work that a server has left which went down.</summary>
    public TimeSpan LeftWorkEvery { get; set; } = TimeSpan.FromSeconds(20);

    /// <summary>How often what work that was killed has left on the disk is removed.</summary>
    public TimeSpan TemporaryFilesEvery { get; set; } = TimeSpan.FromMinutes(1);

    /// <summary>How long an encoder may report nothing before it counts as hanging and is ended.</summary>
    public TimeSpan EncoderHangsAfter { get; set; } = TimeSpan.FromMinutes(2);

    /// <summary>Whether recordings are listened to for drafts of captions when the machine has nothing better to do.</summary>
    public bool SpeechDrafts { get; set; } = true;

    /// <summary>A Whisper model file, which is taken before other engines; null for none.</summary>
    public string? WhisperModel { get; set; }

    /// <summary>The program that listens with it: <c>Wexel.Whisper.dll</c>, wherever it was built.</summary>
    public string WhisperProgram { get; set; } = Path.Combine(AppContext.BaseDirectory, "Wexel.Whisper.dll");

    /// <summary>How often is looked for recordings to listen to, or to read the screen of.</summary>
    public TimeSpan SpeechEvery { get; set; } = TimeSpan.FromSeconds(5);

    /// <summary>Whether what stands on the screen is read from recordings when the machine has nothing better to do.</summary>
    public bool ReadScreens { get; set; } = true;

    /// <summary>Bytes that must stay free on the disk.</summary>
    public long KeepFree { get; set; } = 512L * 1024 * 1024;

    /// <summary>The path under which a proxy of <see cref="Proxies"/> sends made files itself when it is told to; Wexel sends them where it is not
    /// set, and to whoever comes without the proxy.</summary>
    public string? SendFilesBy { get; set; }

    /// <summary>How old a made file must be before it may be freed: what is younger may belong to something that is being made.</summary>
    public TimeSpan FreeAfter { get; set; } = TimeSpan.FromMinutes(10);

    public string PlayerFolder => Path.Combine(Path.GetFullPath(Assets), "player");

    public string DeskFolder => Path.Combine(Path.GetFullPath(Assets), "desk");
}

/// <summary>Whether mails go over TLS.</summary>
internal enum SmtpTls
{
    /// <summary>Where the server offers it.</summary>
    WhenOffered,

    /// <summary>Always, begun with STARTTLS; a server that does not offer it gets no mail.</summary>
    Always,

    /// <summary>Always, from the first byte (port 465, RFC 8314).</summary>
    FromTheStart,

    /// <summary>Never.</summary>
    Never,
}
