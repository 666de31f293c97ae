using System.ComponentModel.DataAnnotations;

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

    /// <summary>The folder with the demo recordings; nothing is seeded where it is not set.</summary>
    public string? Demo { get; set; }

    /// <summary>Where the demo's learning system takes packages; without it they are only downloaded.</summary>
    public Uri? PracticeLearningSystem { get; set; }

    [Required]
    public string SmtpHost { get; set; } = "127.0.0.1";

    [Range(1, 65535)]
    public int SmtpPort { get; set; } = 2525;

    public string MailFrom { get; set; } = "wexel@brackwater.example";

    /// <summary>The largest recording, in bytes.</summary>
    public long LargestRecording { get; set; } = 20L * 1024 * 1024 * 1024;

    /// <summary>The folder from which recordings are brought in by themselves; without it there is none.</summary>
    public string? HandIn { get; set; }

    /// <summary>How long a file in the hand-in folder must not have changed before it counts as complete.</summary>
    public TimeSpan HandInSettles { get; set; } = TimeSpan.FromSeconds(10);

    /// <summary>How often the hand-in folder is looked through.</summary>
    public TimeSpan HandInLooksEvery { get; set; } = TimeSpan.FromSeconds(1);

    /// <summary>How long a worker may be silent before its work counts as lost and is done again.</summary>
    public TimeSpan LostAfter { get; set; } = TimeSpan.FromSeconds(8);

    /// <summary>How long an encoder may report nothing before it counts as hanging and is ended.</summary>
    public TimeSpan EncoderHangsAfter { get; set; } = TimeSpan.FromMinutes(2);

    /// <summary>Bytes that must stay free on the disk.</summary>
    public long KeepFree { get; set; } = 512L * 1024 * 1024;

    /// <summary>How old a made file must be before it may be freed: what is younger may belong to something that is being made.</summary>
    public TimeSpan FreeAfter { get; set; } = TimeSpan.FromMinutes(10);

    public string PlayerFolder => Path.Combine(Path.GetFullPath(Assets), "player");

    public string DeskFolder => Path.Combine(Path.GetFullPath(Assets), "desk");
}
