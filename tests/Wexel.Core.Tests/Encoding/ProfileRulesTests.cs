using System.Text.Json.Nodes;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Encoding;

public class ProfileRulesTests
{
    private static readonly Profile Web = Profiles.Web;

    private static Profile With(Func<PictureSettings, PictureSettings> change) => Web with { Picture = change(Web.Picture!) };

    private static Profile WithSound(Func<SoundSettings, SoundSettings> change) => Web with { Sound = change(Web.Sound!) };

    [Fact]
    public void Shipped_profiles_have_no_fault_and_names_of_their_own()
    {
        foreach (var profile in Profiles.All)
            ProfileRules.Findings(profile).ShouldBeEmpty(profile.Id);
        Profiles.All.Select(p => p.Id).ShouldBeUnique();
        Profiles.All.Select(p => p.Title).ShouldBeUnique();
    }

    public static TheoryData<string, string, Profile> Wrong =>
        new()
        {
            { "profile-without-name", "title", Web with { Title = " " } },
            { "profile-name-too-long", "title", Web with { Title = new string('a', 61) } },
            { "container-without-picture", "container", Web with { Container = Container.M4a } },
            { "profile-empty", "sound", Web with { Picture = null, Sound = null, Container = Container.M4a } },
            { "container-for-sound", "container", Web with { Picture = null } },
            { "container-lacks-codec", "picture.codec", Web with { Container = Container.Webm, Sound = new SoundSettings(SoundCodec.Opus) } },
            { "container-lacks-codec", "picture.codec", Web with { Container = Container.M4v, Picture = Web.Picture! with { Codec = PictureCodec.Av1 } } },
            { "container-lacks-sound-codec", "sound.codec", WithSound(s => s with { Codec = SoundCodec.Mp3 }) },
            { "container-lacks-sound-codec", "sound.codec", Profiles.Open with { Sound = new SoundSettings(SoundCodec.Aac) } },
            { "size-out-of-range", "picture.size.height", With(p => p with { Size = SizeSettings.AtMost(10) }) },
            { "size-out-of-range", "picture.size.height", With(p => p with { Size = new SizeSettings(SizeRule.AtMostHeight) }) },
            { "size-out-of-range", "picture.size.width", With(p => p with { Size = new SizeSettings(SizeRule.Exact, 5000, 720) }) },
            { "size-odd", "picture.size", With(p => p with { Size = new SizeSettings(SizeRule.Exact, 853, 480) }) },
            { "heights-in-one-file", "picture.furtherHeights", With(p => p with { FurtherHeights = [480] }) },
            {
                "heights-too-many",
                "picture.furtherHeights",
                Profiles.Adaptive with
                {
                    Picture = Profiles.Adaptive.Picture! with { FurtherHeights = [800, 700, 600, 500, 400, 300] },
                }
            },
            {
                "heights-out-of-range",
                "picture.furtherHeights",
                Profiles.Adaptive with
                {
                    Picture = Profiles.Adaptive.Picture! with { FurtherHeights = [720, 9] },
                }
            },
            { "hls-one-height", "picture.furtherHeights", Profiles.Adaptive with { Picture = Profiles.Adaptive.Picture! with { FurtherHeights = null } } },
            {
                "hls-file-size",
                "picture.rate.rule",
                Profiles.Adaptive with
                {
                    Picture = Profiles.Adaptive.Picture! with { Rate = new RateSettings(RateRule.FileSize, Bytes: 5_000_000) },
                }
            },
            {
                "container-lacks-codec",
                "picture.codec",
                Profiles.Adaptive with
                {
                    Picture = Profiles.Adaptive.Picture! with { Codec = PictureCodec.Av1, Rate = RateSettings.Of(32) },
                }
            },
            { "frame-rate-out-of-range", "picture.timing.framesPerSecond", With(p => p with { Timing = new TimingSettings(TimingRule.Constant, 120) }) },
            { "key-frames-out-of-range", "picture.keyFrameSeconds", With(p => p with { KeyFrameSeconds = 0.1 }) },
            { "quality-out-of-range", "picture.rate.quality", With(p => p with { Rate = RateSettings.Of(52) }) },
            { "quality-out-of-range", "picture.rate.quality", With(p => p with { Rate = new RateSettings(RateRule.Quality) }) },
            { "quality-without-gain", "picture.rate.quality", With(p => p with { Rate = RateSettings.Of(5) }) },
            { "quality-poor", "picture.rate.quality", With(p => p with { Rate = RateSettings.Of(35) }) },
            { "rate-out-of-range", "picture.rate.bitsPerSecond", With(p => p with { Rate = new RateSettings(RateRule.Average, BitsPerSecond: 100) }) },
            { "rate-out-of-range", "picture.rate.ceilingBitsPerSecond", With(p => p with { Rate = RateSettings.Of(20) with { CeilingBitsPerSecond = 1 } }) },
            { "rate-out-of-range", "picture.rate.bytes", With(p => p with { Rate = new RateSettings(RateRule.FileSize, Bytes: 10) }) },
            {
                "passes-out-of-range",
                "picture.rate.passes",
                With(p => p with { Rate = new RateSettings(RateRule.Average, BitsPerSecond: 500_000, Passes: 3) })
            },
            {
                "av1-one-pass",
                "picture.rate.passes",
                Profiles.Open with
                {
                    Picture = Profiles.Open.Picture! with { Rate = new RateSettings(RateRule.Average, BitsPerSecond: 500_000) },
                }
            },
            {
                "constant-rate-codec",
                "picture.rate.rule",
                Profiles.Open with
                {
                    Picture = Profiles.Open.Picture! with
                    {
                        Timing = TimingSettings.AsRecorded,
                        Rate = new RateSettings(RateRule.Constant, BitsPerSecond: 500_000),
                    },
                }
            },
            { "constant-rate-as-drawn", "picture.rate.rule", With(p => p with { Rate = new RateSettings(RateRule.Constant, BitsPerSecond: 500_000) }) },
            { "level-unknown", "picture.level", With(p => p with { Level = 33 }) },
            { "level-exceeded", "picture.level", With(p => p with { Level = 30, Size = SizeSettings.AtMost(720) }) },
            {
                "level-exceeded",
                "picture.level",
                With(p => p with { Level = 30, Size = SizeSettings.AtMost(480), Rate = new RateSettings(RateRule.Average, BitsPerSecond: 20_000_000) })
            },
            { "sample-rate-unknown", "sound.sampleRate", Profiles.Open with { Sound = new SoundSettings(SoundCodec.Opus, 44_100) } },
            { "sound-rate-unknown", "sound.bitsPerSecond", WithSound(s => s with { BitsPerSecond = 1_000_000 }) },
            {
                "sound-rate-unknown",
                "sound.bitsPerSecond",
                new Profile("p", "P", "", Container.Mp3, null, new SoundSettings(SoundCodec.Mp3, BitsPerSecond: 100_000), CaptionPlace.None)
            },
            { "loudness-out-of-range", "sound.targetLufs", WithSound(s => s with { TargetLufs = -3 }) },
            { "container-lacks-captions", "captions", Profiles.PodcastSound with { Captions = CaptionPlace.Inside } },
            { "captions-no-language", "captionLanguage", Profiles.Web with { CaptionLanguage = "Spanish" } },
            { "captions-without-picture", "captions", Profiles.PodcastSound with { Captions = CaptionPlace.BurntIn } },
            { "index-at-end", "indexAtFront", Web with { IndexAtFront = false } },
        };

    [Theory]
    [MemberData(nameof(Wrong))]
    public void What_is_wrong_is_said_at_its_field_and_the_way_out_mends_it(string code, string field, Profile profile)
    {
        var finding = ProfileRules.Findings(profile).ShouldHaveSingleItem();
        (finding.Code, finding.Field).ShouldBe((code, field));
        finding.Sentence.ShouldEndWith(".");
        if (finding.Mended is { } mended)
        {
            finding.Way.ShouldNotBeNull();
            ProfileRules.Findings(mended).ShouldBeEmpty(finding.Way);
        }
    }

    [Theory]
    [InlineData(720, 31)]
    [InlineData(1080, 40)]
    [InlineData(480, 30)]
    public void The_level_that_is_proposed_is_the_lowest_that_holds_the_picture(int height, int level) =>
        // ITU-T H.264, Table A-1: 1280 × 720 at 30 is level 3.1, 1920 × 1080 at 30 level 4, 853 × 480 at 30 level 3 at the least.
        ProfileRules
            .Findings(With(p => p with { Level = 10, Size = SizeSettings.AtMost(height) }))
            .Single()
            .Mended!.Picture!.Level.ShouldNotBeNull()
            .ShouldBeInRange(level, level + 1);

    [Fact]
    public void A_codec_that_is_proposed_keeps_the_place_on_the_scale_of_quality()
    {
        var finding = ProfileRules.Findings(Web with { Container = Container.Webm, Sound = null }).Single();
        finding.Way.ShouldBe("Take AV1");
        finding.Mended!.Picture!.Rate.Quality.ShouldBe(32);
    }

    private static IReadOnlyList<ProfileFinding> ForLesson(
        Profile profile,
        PictureSize? recorded = null,
        long needs = 100_000,
        Canvas? canvas = null,
        bool sound = true
    )
    {
        var size = recorded ?? new PictureSize(1280, 720);
        var facts = Sample.Sized(size.Width, size.Height) with { Sounds = sound ? [new("aac", 1, null, 48_000)] : [] };
        var reel = Reel.Of(facts);
        return new ProfileForLesson(reel, reel.Map([]), new LessonLook(Canvas: canvas), plan => (long)(needs * plan.Length.TotalSeconds / 8)).Findings(profile);
    }

    [Fact]
    public void With_a_lesson_a_size_that_scales_up_is_refused_and_black_borders_are_said()
    {
        var up = ForLesson(With(p => p with { Size = new SizeSettings(SizeRule.Exact, 1920, 1080) })).Single();
        (up.Code, up.IsFault, up.Mended!.Picture!.Size.Rule).ShouldBe(("size-scales-up", true, SizeRule.AsCanvas));
        ForLesson(With(p => p with { Size = new SizeSettings(SizeRule.Exact, 960, 720) })).Single().Code.ShouldBe("size-other-shape");
        ForLesson(With(p => p with { Size = new SizeSettings(SizeRule.Exact, 1280, 720) })).ShouldBeEmpty();
        ForLesson(With(p => p with { Size = SizeSettings.AtMost(480) })).Single().Code.ShouldBe("size-odd-factor");
        ForLesson(With(p => p with { Size = SizeSettings.AtMost(360) })).ShouldBeEmpty();
    }

    [Fact]
    public void With_a_lesson_a_rate_under_which_it_would_look_bad_is_said_with_the_one_that_it_needs()
    {
        var low = ForLesson(With(p => p with { Rate = new RateSettings(RateRule.Average, BitsPerSecond: 60_000) }), needs: 241_000).Single();
        low.Code.ShouldBe("rate-too-low");
        low.Mended!.Picture!.Rate.BitsPerSecond.ShouldBe(250_000);
        ForLesson(low.Mended, needs: 241_000).ShouldBeEmpty();
        // 65 s at 72 kbit/s of sound and 241 of picture are 2.5 MB.
        var small = ForLesson(With(p => p with { Rate = new RateSettings(RateRule.FileSize, Bytes: 1_000_000) }), needs: 241_000).Single();
        small.Way.ShouldBe("Take 2.7 MB");
        ForLesson(small.Mended!, needs: 241_000).ShouldBeEmpty();
    }

    [Fact]
    public void With_a_lesson_a_chosen_level_is_checked_against_its_own_picture()
    {
        var chosen = With(p => p with { Level = 31 });
        ForLesson(chosen).ShouldBeEmpty();
        var exceeded = ForLesson(chosen, new PictureSize(1920, 1080)).Single();
        (exceeded.Code, exceeded.Mended!.Picture!.Level).ShouldBe(("level-exceeded", 40));
    }

    [Fact]
    public void A_lesson_without_sound_cannot_be_sound_alone()
    {
        ForLesson(Profiles.PodcastSound, sound: false).Single().IsFault.ShouldBeTrue();
        ForLesson(Web, sound: false).Single().IsFault.ShouldBeFalse();
    }

    [Fact]
    public void Written_and_read_again_a_profile_is_the_same()
    {
        foreach (var profile in Profiles.All)
        {
            var (read, problem) = ProfileText.Read(ProfileText.Write(profile));
            problem.ShouldBeNull();
            ProfileText.Write(read!).ShouldBe(ProfileText.Write(profile));
        }
    }

    [Theory]
    [InlineData("{", "line 1")]
    [InlineData("[]", "cannot be read")]
    [InlineData("null", "holds no profile")]
    [InlineData("""{"title":"a","description":"","container":"mp4","picture":null}""", "It lacks")]
    [InlineData("""{"id":"a","title":"a","description":"","container":"tape","picture":null,"sound":null}""", "container")]
    [InlineData("""{"id":"a","title":"a","description":"","container":"mp4","picture":null,"sound":null,"colour":"red"}""", "colour")]
    [InlineData("""{"id":"a","title":"a","description":"","container":"m4a","picture":null,"sound":{"codec":"aac","sampleRate":"fast"}}""", "sampleRate")]
    [InlineData("""{"id":"a","title":"a","description":"","container":"m4a","picture":null,"sound":{"codec":"mp3"}}""", "M4A cannot hold MP3.")]
    public void A_document_that_is_no_profile_gets_a_sentence_that_names_the_place(string text, string said)
    {
        var (profile, problem) = ProfileText.Read(text);
        profile.ShouldBeNull();
        problem!.Sentence.ShouldContain(said);
    }

    [Fact]
    public void The_schema_says_of_each_setting_its_unit_what_is_usual_and_what_it_costs()
    {
        var schema = ProfileText.Schema();
        schema["$schema"]!.GetValue<string>().ShouldBe("https://json-schema.org/draft/2020-12/schema");
        var quality = schema["properties"]!["picture"]!["properties"]!["rate"]!["properties"]!["bitsPerSecond"]!;
        quality["x-unit"]!.GetValue<string>().ShouldBe("bit/s");
        quality["minimum"]!.GetValue<double>().ShouldBe(16_000);
        foreach (var setting in Leaves(schema))
            setting["description"].ShouldNotBeNull(setting.ToJsonString());
    }

    /// <summary>Every property but the profile's own name for programs.</summary>
    private static IEnumerable<JsonNode> Leaves(JsonNode node) =>
        (node["properties"] as JsonObject ?? [])
            .Where(p => p.Key is not ("id" or "size" or "timing" or "rate"))
            .SelectMany(p => Leaves(p.Value!).Append(p.Value!))
            .Concat((node["properties"] as JsonObject ?? []).Where(p => p.Key is "size" or "timing" or "rate").SelectMany(p => Leaves(p.Value!)));

    [Fact]
    public void The_poorest_quality_is_one()
    {
        var most = QualityScale.Of(PictureCodec.H264).Most;
        ProfileRules.Findings(With(p => p with { Rate = RateSettings.Of(most) })).ShouldNotContain(f => f.IsFault);
        ProfileRules.Findings(With(p => p with { Rate = RateSettings.Of(most + 1) })).ShouldContain(f => f.IsFault);
        ProfileRules.Findings(With(p => p with { Rate = RateSettings.Of(0) })).ShouldNotContain(f => f.IsFault);
        ProfileRules.Findings(With(p => p with { Rate = RateSettings.Of(-1) })).ShouldContain(f => f.IsFault);
    }

    [Fact]
    public void What_a_finding_mends_keeps_the_rest_as_it_is()
    {
        var quiet = WithSound(s => s with { TargetLufs = -20, SampleRate = 44_100 }) with { Picture = null };
        var finding = ProfileRules.Findings(quiet).Single(f => f.Code == "container-for-sound");
        finding.Mended!.Sound.ShouldBe(quiet.Sound! with { Codec = SoundCodec.Aac });
        finding.Mended.Container.ShouldBe(Container.M4a);
    }

    [Fact]
    public void Rates_are_said_in_the_unit_that_people_read()
    {
        string Sentence(int bits) => string.Join(' ', ProfileRules.Findings(WithSound(s => s with { BitsPerSecond = bits })).Select(f => f.Sentence + f.Way));
        Sentence(2_000).ShouldContain("kbit/s");
        Sentence(2_000).ShouldNotContain("Mbit/s");
        var low = With(p => p with { Level = 10, Size = new SizeSettings(SizeRule.Exact, 1280, 720) });
        string.Join(' ', ProfileRules.Findings(low).Select(f => f.Sentence)).ShouldNotContain("e+");
    }

    /// <summary>What each holds: common practice, no source, but for M4V, which podcast apps take with H.264 alone.</summary>
    [Theory]
    [InlineData(Container.Mp4, true, false, false)]
    [InlineData(Container.M4v, true, false, false)]
    [InlineData(Container.Mov, true, false, false)]
    [InlineData(Container.Webm, true, false, false)]
    [InlineData(Container.Hls, true, true, false)]
    [InlineData(Container.M4a, false, false, true)]
    [InlineData(Container.Mp3, false, false, true)]
    [InlineData(Container.Opus, false, false, true)]
    public void A_container_holds_what_it_holds(Container container, bool captions, bool folder, bool soundAlone)
    {
        var facts = ContainerFacts.Of(container);
        (facts.CaptionsInside, facts.IsFolder, facts.SoundAlone).ShouldBe((captions, folder, soundAlone));
    }

    [Theory]
    [InlineData(Container.M4v, PictureCodec.Av1, true)]
    [InlineData(Container.Webm, PictureCodec.H264, false)]
    public void A_codec_that_only_podcast_apps_refuse_is_said_to_be_so(Container container, PictureCodec codec, bool podcast) =>
        ProfileRules
            .Findings(With(p => p with { Codec = codec }) with { Container = container })
            .Single(f => f.Code == "container-lacks-codec")
            .Sentence.Contains("podcast apps", StringComparison.Ordinal)
            .ShouldBe(podcast);

    [Fact]
    public void What_a_document_lacks_is_named()
    {
        ProfileText.Read("{}").Is(out _, out var problem).ShouldBeFalse();
        foreach (var name in new[] { "id", "title", "container" })
            problem!.Sentence.ShouldContain(name);
        problem!.Sentence.ShouldNotContain("including");
    }

    [Fact]
    public void Faults_of_a_profile_with_a_lesson_stand_before_advice()
    {
        var reel = Reel.Of(Sample.Facts());
        IReadOnlyList<ProfileFinding> With(SizeSettings size, int? level) =>
            new ProfileForLesson(reel, reel.Map([]), new LessonLook([]), _ => 1_000_000).Findings(
                Web with
                {
                    Picture = Web.Picture! with { Size = size, Level = level },
                }
            );
        var both = With(new SizeSettings(SizeRule.Exact, 960, 720), 21);
        both.Select(f => f.IsFault).ShouldBe([true, false]);
        // Wider than the canvas and as high is not larger, but of another shape.
        With(new SizeSettings(SizeRule.Exact, 1440, 720), null).ShouldAllBe(f => !f.IsFault);
        With(new SizeSettings(SizeRule.Exact, 1282, 722), null).ShouldContain(f => f.Code == "size-scales-up");
    }
}
