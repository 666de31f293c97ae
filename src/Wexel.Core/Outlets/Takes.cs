using Wexel.Core.Encoding;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Outlets;

/// <summary>What an outlet takes, as its kind declares it: profiles and files are judged by it, and people are told.</summary>
/// <param name="Who">Who takes it, as a plural with which sentences begin, such as <c>Podcast apps</c>.</param>
/// <param name="Containers">The containers.</param>
/// <param name="Pictures">The codecs of the picture; none where it takes sound alone, whatever the picture beside it is.</param>
/// <param name="Sounds">The codecs of the sound.</param>
/// <param name="WantsPicture">Whether there must be a picture.</param>
/// <param name="WantsSound">Whether there must be sound.</param>
/// <param name="WantsEveryFrame">Whether the frame rate must be constant.</param>
/// <param name="Largest">The largest picture, in pixels; null for any.</param>
/// <param name="MostBytes">The largest file, in bytes; null for any.</param>
/// <param name="MostLength">The longest lesson; null for any.</param>
/// <param name="FilesAtATime">How many releases it is sent at once; null for any number.</param>
public sealed record Takes(
    string Who,
    IReadOnlyList<Container> Containers,
    IReadOnlyList<PictureCodec> Pictures,
    IReadOnlyList<SoundCodec> Sounds,
    bool WantsPicture = false,
    bool WantsSound = false,
    bool WantsEveryFrame = false,
    PictureSize? Largest = null,
    long? MostBytes = null,
    TimeSpan? MostLength = null,
    int? FilesAtATime = null
)
{
    /// <summary>What browsers of today play, with a picture.</summary>
    public static Takes OnPages { get; } =
        new(
            "Learners’ pages",
            [Container.Mp4, Container.M4v, Container.Webm, Container.Hls],
            [PictureCodec.H264, PictureCodec.Vp9, PictureCodec.Av1],
            [SoundCodec.Aac, SoundCodec.Opus],
            WantsPicture: true
        );

    /// <summary>All of it in a sentence's words, without who takes it.</summary>
    public string Words =>
        string.Join(
            ", ",
            new[]
            {
                Formats,
                WantsEveryFrame ? "at a constant frame rate" : null,
                Largest is { } largest ? $"pictures of at most {Size(largest)}" : null,
                MostBytes is { } bytes ? FormattableString.Invariant($"at most {bytes / 1e6:0.##} MB") : null,
                MostLength is { } length ? $"at most {TimeCode.Brief(length)}" : null,
                FilesAtATime is { } files ? $"{files} at a time" : null,
            }.OfType<string>()
        );

    private string Formats
    {
        get
        {
            string[] codecs = [.. Pictures.Count > 0 ? new[] { Or(Pictures.Select(ProfileRules.Name)) } : [], Or(Sounds.Select(ProfileRules.Name))];
            return $"{Or(Containers.Select(c => ContainerFacts.Of(c).Name))} with {string.Join(" and ", codecs)}";
        }
    }

    /// <summary>Why what a profile makes would be refused; null where it is taken.</summary>
    /// <param name="profile">The profile.</param>
    /// <param name="instead">One that is taken.</param>
    public Problem? Refusal(Profile profile, Profile instead)
    {
        var why = profile switch
        {
            { Picture: null } when WantsPicture => ("takes-picture", "makes sound alone", "something to see"),
            { Sound: null } when WantsSound => ("takes-sound", "leaves the sound away", "something to hear"),
            { Container: Container.Hls } when !Containers.Contains(Container.Hls) => ("takes-one-file", "makes hundreds of small files", "one file"),
            { MakesEveryFrame: false } when WantsEveryFrame => ("takes-every-frame", "leaves frames out that show nothing new", "a constant frame rate"),
            _ when !Plays(profile) => ("takes-format", $"makes {Made(profile)}", Formats),
            _ => default((string Code, string Makes, string Wants)?),
        };
        return why is var (code, makes, wants)
            ? new Problem(code, $"{Who} take {wants}, and “{profile.Title}” {makes}. Take “{instead.Title}”.", "profileId")
            : null;
    }

    /// <summary>Why a lesson cannot stand there as it would be made; null where it can.</summary>
    /// <param name="title">The lesson's title.</param>
    /// <param name="plan">How it would be made.</param>
    public Problem? Unfit(string title, RenderPlan plan) =>
        WantsSound && plan.Sound is null ? new Problem("takes-sound", $"“{title}” has no sound, and {Small} take something to hear. Release it elsewhere.")
        : Largest is { } most && plan.Picture?.Size is { } size && (size.Width > most.Width || size.Height > most.Height)
            ? new Problem(
                "takes-smaller-picture",
                $"{Who} take pictures of at most {Size(most)}, and “{title}” would be {Size(size)}. Choose a profile that makes a smaller picture.",
                "profileId"
            )
        : null;

    private bool Plays(Profile profile) =>
        Containers.Contains(profile.Container)
        && (Pictures.Count == 0 || profile.Picture is not { } picture || Pictures.Contains(picture.Codec))
        && (profile.Sound is not { } sound || Sounds.Contains(sound.Codec));

    private static string Made(Profile profile)
    {
        string[] codecs =
        [
            .. profile.Picture is { } picture ? new[] { ProfileRules.Name(picture.Codec) } : [],
            .. profile.Sound is { } sound ? new[] { ProfileRules.Name(sound.Codec) } : [],
        ];
        return $"{ContainerFacts.Of(profile.Container).Name} with {string.Join(" and ", codecs)}";
    }

    /// <summary>Who takes it, in the middle of a sentence.</summary>
    private string Small => char.ToLowerInvariant(Who[0]) + Who[1..];

    private static string Size(PictureSize size) => $"{size.Width} × {size.Height}";

    private static string Or(IEnumerable<string> names)
    {
        var all = names.ToList();
        return all.Count == 1 ? all[0] : $"{string.Join(", ", all[..^1])} or {all[^1]}";
    }
}
