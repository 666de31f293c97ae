using System.Globalization;
using Wexel.Core.Captions;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Encoding;

/// <summary>Something that does not hold for a profile.</summary>
/// <param name="Code">A stable name for programs.</param>
/// <param name="Field">The setting, as a path in the profile's JSON such as <c>picture.rate.quality</c>.</param>
/// <param name="Sentence">What is wrong.</param>
/// <param name="IsFault">Whether nothing can be made like this; otherwise it is advice.</param>
/// <param name="Way">The nearest setting that works, as words on a button; null where there is none to propose.</param>
/// <param name="Mended">The profile with that setting.</param>
public sealed record ProfileFinding(string Code, string Field, string Sentence, bool IsFault, string? Way = null, Profile? Mended = null);

/// <summary>What holds for profiles by themselves, whatever the lesson.</summary>
public static class ProfileRules
{
    /// <summary>The most characters of a name.</summary>
    public const int LongestTitle = 60;

    /// <summary>The most heights that are made besides the picture's own.</summary>
    public const int MostHeights = 5;

    private const int LeastHeight = 64;
    private const int MostHeight = 2160;

    /// <summary>Everything that does not hold, faults first.</summary>
    public static IReadOnlyList<ProfileFinding> Findings(Profile profile)
    {
        var findings = new List<ProfileFinding>();
        Title(profile, findings);
        OwnMark(profile, findings);
        Container(profile, findings);
        if (profile.Picture is { } picture)
        {
            Size(profile, picture, findings);
            Timing(profile, picture, findings);
            Rate(profile, picture, findings);
            Level(profile, picture, findings);
            Heights(profile, picture, findings);
        }

        if (profile.Sound is { } sound)
            Sound(profile, sound, findings);
        Captions(profile, findings);
        if (
            !profile.IndexAtFront
            && profile.Picture is not null
            && profile.Container is not (Encoding.Container.Mov or Encoding.Container.Webm or Encoding.Container.Hls)
        )
            findings.Add(
                Advice(
                    "index-at-end",
                    "indexAtFront",
                    "With the index at the end, a page has to load the whole file before it plays.",
                    "Put it at the front",
                    profile with
                    {
                        IndexAtFront = true,
                    }
                )
            );
        return [.. findings.OrderByDescending(f => f.IsFault)];
    }

    /// <summary>The first fault, or null.</summary>
    public static Problem? Refusal(Profile profile) =>
        Findings(profile).FirstOrDefault(f => f.IsFault) is { } fault ? new Problem(fault.Code, fault.Sentence, fault.Field) : null;

    private static void OwnMark(Profile profile, List<ProfileFinding> findings)
    {
        if (profile.Picture?.OwnMark is { } mark && (string.IsNullOrEmpty(mark.Key) || mark.Placement is null || mark.Size is not { Width: > 0, Height: > 0 }))
            findings.Add(
                Fault(
                    "profile-own-mark",
                    "picture.ownMark",
                    "The profile’s own mark does not say which picture it is, how large, or where it stands.",
                    "Take it out",
                    profile with
                    {
                        Picture = profile.Picture with { OwnMark = null },
                    }
                )
            );
    }

    private static void Title(Profile profile, List<ProfileFinding> findings)
    {
        if (string.IsNullOrWhiteSpace(profile.Title))
            findings.Add(Fault("profile-without-name", "title", "Give the profile a name; it is chosen by that."));
        else if (profile.Title.Length > LongestTitle)
            findings.Add(Fault("profile-name-too-long", "title", $"The name has more than {LongestTitle} characters; shorten it."));
    }

    private static void Container(Profile profile, List<ProfileFinding> findings)
    {
        var facts = ContainerFacts.Of(profile.Container);
        if (facts.SoundAlone && profile.Picture is not null)
        {
            findings.Add(
                Fault("container-without-picture", "container", $"{facts.Name} holds sound alone.", "Leave the picture away", profile with { Picture = null })
            );
            return;
        }

        if (profile.Picture is null && profile.Sound is null)
            findings.Add(
                Fault(
                    "profile-empty",
                    "sound",
                    "There is neither a picture nor sound.",
                    "Put the sound in",
                    profile with
                    {
                        Sound = new SoundSettings(facts.SoundCodecs[0]),
                    }
                )
            );
        else if (profile.Picture is null && !facts.SoundAlone)
            findings.Add(
                Fault(
                    "container-for-sound",
                    "container",
                    $"{facts.Name} is for pictures; sound alone goes into M4A, MP3 or Opus.",
                    "Take M4A",
                    profile with
                    {
                        Container = Encoding.Container.M4a,
                        Sound = (profile.Sound ?? new SoundSettings(SoundCodec.Aac)) with { Codec = SoundCodec.Aac },
                    }
                )
            );
        if (profile.Picture is { } picture && !facts.PictureCodecs.Contains(picture.Codec))
        {
            var codec = facts.PictureCodecs[0];
            var fitting = picture with { Codec = codec, Rate = WithQualityOf(picture, codec) };
            findings.Add(
                Fault(
                    "container-lacks-codec",
                    "picture.codec",
                    $"{facts.Name} cannot hold {Name(picture.Codec)}{(profile.Container == Encoding.Container.M4v ? " as podcast apps take it" : "")}.",
                    $"Take {Name(codec)}",
                    profile with
                    {
                        Picture = fitting,
                    }
                )
            );
        }

        if (profile.Sound is { } sound && !facts.SoundCodecs.Contains(sound.Codec))
        {
            var codec = facts.SoundCodecs[0];
            findings.Add(
                Fault(
                    "container-lacks-sound-codec",
                    "sound.codec",
                    $"{facts.Name} cannot hold {Name(sound.Codec)}.",
                    $"Take {Name(codec)}",
                    profile with
                    {
                        Sound = new SoundSettings(codec, 48_000, sound.Channels, null, sound.TargetLufs),
                    }
                )
            );
        }
    }

    private static void Size(Profile profile, PictureSettings picture, List<ProfileFinding> findings)
    {
        var size = picture.Size;
        Profile With(SizeSettings better) => profile with { Picture = picture with { Size = better } };
        if (size.Rule != SizeRule.AsCanvas && OutOf(typeof(SizeSettings), nameof(SizeSettings.Height), size.Height) is { } height)
            findings.Add(
                Fault(
                    "size-out-of-range",
                    "picture.size.height",
                    $"The height must be between {height.Range} pixels.",
                    $"Take {height.Nearest:0}",
                    With(size with { Height = (int)height.Nearest })
                )
            );
        if (size.Rule == SizeRule.Exact && OutOf(typeof(SizeSettings), nameof(SizeSettings.Width), size.Width) is { } width)
            findings.Add(
                Fault(
                    "size-out-of-range",
                    "picture.size.width",
                    $"The width must be between {width.Range} pixels.",
                    $"Take {width.Nearest:0}",
                    With(size with { Width = (int)width.Nearest })
                )
            );
        if (size.Rule == SizeRule.Exact && (size.Width % 2 == 1 || size.Height % 2 == 1))
        {
            var even = size with { Width = size.Width & ~1, Height = size.Height & ~1 };
            findings.Add(
                Fault(
                    "size-odd",
                    "picture.size",
                    "Both sides must be even, since colour is stored for pairs of pixels.",
                    $"Take {even.Width} × {even.Height}",
                    With(even)
                )
            );
        }
    }

    private static void Heights(Profile profile, PictureSettings picture, List<ProfileFinding> findings)
    {
        Profile With(IReadOnlyList<int>? heights) => profile with { Picture = picture with { FurtherHeights = heights } };
        var heights = picture.FurtherHeights ?? [];
        if (heights.Count > 0 && profile.Container != Encoding.Container.Hls)
            findings.Add(
                Fault(
                    "heights-in-one-file",
                    "picture.furtherHeights",
                    $"{ContainerFacts.Of(profile.Container).Name} is one file with one picture; several heights go into HLS.",
                    "Take HLS",
                    profile with
                    {
                        Container = Encoding.Container.Hls,
                    }
                )
            );
        if (heights.Count > MostHeights)
            findings.Add(
                Fault(
                    "heights-too-many",
                    "picture.furtherHeights",
                    $"At most {MostHeights} further heights are made.",
                    $"Keep the first {MostHeights}",
                    With([.. heights.Take(MostHeights)])
                )
            );
        if (heights.Any(h => h is < LeastHeight or > MostHeight))
            findings.Add(
                Fault(
                    "heights-out-of-range",
                    "picture.furtherHeights",
                    $"Each height must be between {LeastHeight} and {MostHeight:#,0} pixels.",
                    "Take the nearest",
                    With([.. heights.Select(h => Math.Clamp(h, LeastHeight, MostHeight)).Distinct()])
                )
            );
        if (profile.Container == Encoding.Container.Hls && heights.Count == 0)
            findings.Add(
                Advice(
                    "hls-one-height",
                    "picture.furtherHeights",
                    "With one height there is nothing for a player to choose from; one MP4 does the same with fewer files.",
                    "Add 720, 480 and 360",
                    With([720, 480, 360])
                )
            );
        if (profile.Container == Encoding.Container.Hls && picture.Rate.Rule == RateRule.FileSize)
            findings.Add(
                Fault(
                    "hls-file-size",
                    "picture.rate.rule",
                    "HLS is many files, so there is no one size to meet.",
                    "Take constant quality",
                    profile with
                    {
                        Picture = picture with { Rate = RateSettings.Of(QualityScale.Of(picture.Codec).Usual) },
                    }
                )
            );
    }

    private static void Timing(Profile profile, PictureSettings picture, List<ProfileFinding> findings)
    {
        if (
            picture.Timing.Rule == TimingRule.Constant
            && OutOf(typeof(TimingSettings), nameof(TimingSettings.FramesPerSecond), picture.Timing.FramesPerSecond) is { } wrong
        )
            findings.Add(
                Fault(
                    "frame-rate-out-of-range",
                    "picture.timing.framesPerSecond",
                    $"Frames a second must be between {wrong.Range}.",
                    $"Take {wrong.Nearest:0}",
                    profile with
                    {
                        Picture = picture with { Timing = picture.Timing with { FramesPerSecond = (int)wrong.Nearest } },
                    }
                )
            );
        if (picture.KeyFrameSeconds is { } distance && OutOf(typeof(PictureSettings), nameof(PictureSettings.KeyFrameSeconds), distance) is { } far)
            findings.Add(
                Fault(
                    "key-frames-out-of-range",
                    "picture.keyFrameSeconds",
                    $"Key frames must be between {far.Range} s apart.",
                    $"Take {Number(far.Nearest)} s",
                    profile with
                    {
                        Picture = picture with { KeyFrameSeconds = far.Nearest },
                    }
                )
            );
    }

    private static void Rate(Profile profile, PictureSettings picture, List<ProfileFinding> findings)
    {
        var (rate, scale) = (picture.Rate, QualityScale.Of(picture.Codec));
        Profile With(RateSettings better) => profile with { Picture = picture with { Rate = better } };
        void Range(string member, double? value, string what, Func<double, RateSettings> better)
        {
            if (OutOf(typeof(RateSettings), member, value) is { } wrong)
                findings.Add(
                    Fault(
                        "rate-out-of-range",
                        $"picture.rate.{char.ToLowerInvariant(member[0])}{member[1..]}",
                        $"{what} must be between {wrong.Range}.",
                        $"Take {wrong.Nearest.ToString("#,0", CultureInfo.InvariantCulture)}",
                        With(better(wrong.Nearest))
                    )
                );
        }

        switch (rate.Rule)
        {
            case RateRule.Quality when rate.Quality is not { } quality || quality < 0 || quality > scale.Most:
                findings.Add(
                    Fault(
                        "quality-out-of-range",
                        "picture.rate.quality",
                        $"The quality of {Name(picture.Codec)} is a number between 0 and {scale.Most}.",
                        $"Take {scale.Usual}",
                        With(rate with { Quality = scale.Usual })
                    )
                );
                break;
            case RateRule.Quality when rate.Quality < scale.Best:
                findings.Add(
                    Advice(
                        "quality-without-gain",
                        "picture.rate.quality",
                        $"Under {scale.Best} the file grows, and nobody sees a difference.",
                        $"Take {scale.Best}",
                        With(rate with { Quality = scale.Best })
                    )
                );
                break;
            case RateRule.Quality when rate.Quality > scale.Poorest:
                findings.Add(
                    Advice(
                        "quality-poor",
                        "picture.rate.quality",
                        $"Above {scale.Poorest} text gets blurred.",
                        $"Take {scale.Poorest}",
                        With(rate with { Quality = scale.Poorest })
                    )
                );
                break;
            case RateRule.Average or RateRule.Constant:
                Range(nameof(RateSettings.BitsPerSecond), rate.BitsPerSecond, "The bit rate", v => rate with { BitsPerSecond = (long)v });
                break;
            case RateRule.FileSize:
                Range(nameof(RateSettings.Bytes), rate.Bytes, "The size", v => rate with { Bytes = (long)v });
                break;
        }

        if (rate.Rule == RateRule.Quality && rate.CeilingBitsPerSecond is { } ceiling)
            Range(nameof(RateSettings.CeilingBitsPerSecond), ceiling, "The ceiling", v => rate with { CeilingBitsPerSecond = (long)v });
        if (rate.Rule == RateRule.Average && OutOf(typeof(RateSettings), nameof(RateSettings.Passes), rate.Passes) is { } passes)
            findings.Add(
                Fault(
                    "passes-out-of-range",
                    "picture.rate.passes",
                    "There is one pass, or there are two.",
                    $"Take {passes.Nearest:0}",
                    With(rate with { Passes = (int)passes.Nearest })
                )
            );
        if (rate is { Rule: RateRule.Average, Passes: 2 } && picture.Codec == PictureCodec.Av1)
            findings.Add(
                Fault(
                    "av1-one-pass",
                    "picture.rate.passes",
                    "AV1 is encoded in one pass here; a second would not help it.",
                    "Take one pass",
                    With(rate with { Passes = 1 })
                )
            );
        if (rate.Rule == RateRule.Constant && picture.Codec != PictureCodec.H264)
            findings.Add(
                Fault(
                    "constant-rate-codec",
                    "picture.rate.rule",
                    $"{Name(picture.Codec)} cannot be filled up to a constant rate.",
                    "Take the rate on average",
                    With(rate with { Rule = RateRule.Average, Passes = picture.Codec == PictureCodec.Av1 ? 1 : 2 })
                )
            );
        if (rate.Rule == RateRule.Constant && picture.Timing.Rule == TimingRule.AsDrawn)
            findings.Add(
                Fault(
                    "constant-rate-as-drawn",
                    "picture.rate.rule",
                    "A constant rate needs every frame, and as drawn leaves repeats out.",
                    "Make every frame",
                    profile with
                    {
                        Picture = picture with { Timing = TimingSettings.AsRecorded },
                    }
                )
            );
    }

    private static void Level(Profile profile, PictureSettings picture, List<ProfileFinding> findings)
    {
        if (picture.Codec != PictureCodec.H264 || picture.Level is not { } number)
            return;
        if (H264Level.Find(number) is not { } level)
        {
            findings.Add(
                Fault(
                    "level-unknown",
                    "picture.level",
                    "There is no such level of H.264.",
                    "Choose it automatically",
                    profile with
                    {
                        Picture = picture with { Level = null },
                    }
                )
            );
            return;
        }

        // Without a lesson, a height stands for a picture of 16:9.
        var size = picture.Size switch
        {
            { Rule: SizeRule.Exact, Width: { } width, Height: { } height } => new PictureSize(width, height),
            { Rule: SizeRule.AtMostHeight, Height: { } height } => new PictureSize(height * 16 / 9, height),
            _ => (PictureSize?)null,
        };
        if (size is { } made)
            LevelTakes(profile, picture, level, made, new FrameRate(picture.Timing.FramesPerSecond ?? 30, 1), findings);
    }

    /// <summary>Whether a level that was chosen holds a picture and its rate (ITU-T H.264, Annex A).</summary>
    internal static void LevelTakes(
        Profile profile,
        PictureSettings picture,
        H264Level level,
        PictureSize size,
        FrameRate frames,
        List<ProfileFinding> findings
    )
    {
        var bits = picture.Rate.Rule is RateRule.Average or RateRule.Constant ? picture.Rate.BitsPerSecond ?? 0 : 0;
        if (level.Takes(size, frames) && bits <= level.MaxBitsPerSecond(picture.H264Profile))
            return;
        var needed = H264Level.LowestFor(size, frames, picture.H264Profile, bits);
        var why = level.Takes(size, frames)
            ? $"ends at {Rate(level.MaxBitsPerSecond(picture.H264Profile))}"
            : $"does not hold {size} at {Number(frames.PerSecond)} frames a second";
        findings.Add(
            Fault(
                "level-exceeded",
                "picture.level",
                $"Level {level.Name} {why}; devices that go by it would refuse the file.",
                needed is null ? null : $"Take level {needed.Name}",
                needed is null ? null : profile with { Picture = picture with { Level = needed.Number } }
            )
        );
    }

    private static void Sound(Profile profile, SoundSettings sound, List<ProfileFinding> findings)
    {
        Profile With(SoundSettings better) => profile with { Sound = better };
        if (!SoundRates.SampleRates(sound.Codec).Contains(sound.SampleRate))
            findings.Add(
                Fault(
                    "sample-rate-unknown",
                    "sound.sampleRate",
                    $"{Name(sound.Codec)} is made at "
                        + $"{string.Join(" or ", SoundRates.SampleRates(sound.Codec).Select(r => r.ToString("#,0", CultureInfo.InvariantCulture)))} Hz.",
                    "Take 48,000 Hz",
                    With(sound with { SampleRate = 48_000 })
                )
            );
        if (sound.BitsPerSecond is { } bits)
        {
            var (least, most) = SoundRates.Range(sound.Codec);
            var nearest = Math.Clamp(bits, least, most);
            if (sound.Codec == SoundCodec.Mp3)
                nearest = SoundRates.Mp3.MinBy(r => Math.Abs(r - bits));
            if (nearest != bits)
                findings.Add(
                    Fault(
                        "sound-rate-unknown",
                        "sound.bitsPerSecond",
                        sound.Codec == SoundCodec.Mp3
                            ? "MP3 knows certain rates only."
                            : $"{Name(sound.Codec)} is made between {Rate(least)} and {Rate(most)}.",
                        $"Take {Rate(nearest)}",
                        With(sound with { BitsPerSecond = nearest })
                    )
                );
        }

        if (sound.TargetLufs is { } target && OutOf(typeof(SoundSettings), nameof(SoundSettings.TargetLufs), target) is { } wrong)
            findings.Add(
                Fault(
                    "loudness-out-of-range",
                    "sound.targetLufs",
                    $"The loudness must be between {wrong.Range} LUFS.",
                    $"Take {Number(wrong.Nearest)} LUFS",
                    With(sound with { TargetLufs = wrong.Nearest })
                )
            );
    }

    private static void Captions(Profile profile, List<ProfileFinding> findings)
    {
        var facts = ContainerFacts.Of(profile.Container);
        if (profile.Captions == CaptionPlace.Inside && !facts.CaptionsInside)
            findings.Add(
                Fault(
                    "container-lacks-captions",
                    "captions",
                    $"{facts.Name} cannot hold captions.",
                    "Put them beside",
                    profile with
                    {
                        Captions = CaptionPlace.Beside,
                    }
                )
            );
        if (profile.CaptionLanguage is { } language && LanguageTag.Parse(language) != language)
            findings.Add(
                Fault(
                    "captions-no-language",
                    "captionLanguage",
                    $"“{Problem.Shown(language)}” is no language; write it such as en-GB.",
                    "Take those that are shown first",
                    profile with
                    {
                        CaptionLanguage = null,
                    }
                )
            );
        if (profile.Captions == CaptionPlace.BurntIn && profile.Picture is null)
            findings.Add(
                Fault(
                    "captions-without-picture",
                    "captions",
                    "Without a picture there is nothing to burn captions into.",
                    "Put them beside",
                    profile with
                    {
                        Captions = CaptionPlace.Beside,
                    }
                )
            );
    }

    /// <summary>The rate settings for another codec, at the same place of its scale.</summary>
    internal static RateSettings WithQualityOf(PictureSettings picture, PictureCodec codec)
    {
        var (from, to) = (QualityScale.Of(picture.Codec), QualityScale.Of(codec));
        var rate = picture.Rate.Quality is { } quality
            ? picture.Rate with
            {
                Quality = Math.Clamp((int)Math.Round(to.Usual + ((quality - from.Usual) * to.Halving / from.Halving)), 0, to.Most),
            }
            : picture.Rate;
        return codec == PictureCodec.Av1 ? rate with { Passes = 1 } : rate;
    }

    private static (string Range, double Nearest)? OutOf(Type settings, string member, double? value)
    {
        var setting = (SettingAttribute)Attribute.GetCustomAttribute(settings.GetProperty(member)!, typeof(SettingAttribute))!;
        return value is { } given && given >= setting.Least && given <= setting.Most
            ? null
            : ($"{Number(setting.Least)} and {Number(setting.Most)}", Math.Clamp(value ?? setting.Least, setting.Least, setting.Most));
    }

    internal static ProfileFinding Fault(string code, string field, string sentence, string? way = null, Profile? mended = null) =>
        new(code, field, sentence, true, way, mended);

    internal static ProfileFinding Advice(string code, string field, string sentence, string? way = null, Profile? mended = null) =>
        new(code, field, sentence, false, way, mended);

    internal static string Rate(long bitsPerSecond) =>
        bitsPerSecond >= 1_000_000 ? $"{Number(bitsPerSecond / 1e6)} Mbit/s" : $"{Number(bitsPerSecond / 1e3)} kbit/s";

    internal static string Name(PictureCodec codec) =>
        codec switch
        {
            PictureCodec.H264 => "H.264",
            PictureCodec.Vp9 => "VP9",
            _ => "AV1",
        };

    internal static string Name(SoundCodec codec) =>
        codec switch
        {
            SoundCodec.Aac => "AAC",
            SoundCodec.Opus => "Opus",
            _ => "MP3",
        };

    private static string Number(double value) => value.ToString("#,0.##", CultureInfo.InvariantCulture).Replace('-', '−');
}
