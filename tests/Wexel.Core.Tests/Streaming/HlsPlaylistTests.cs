using Wexel.Core.Recordings;
using Wexel.Core.Streaming;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Streaming;

/// <summary>RFC 8216.</summary>
public class HlsPlaylistTests
{
    private static HlsTrack Track(string name, params (double Seconds, long Bytes)[] segments) =>
        new(
            name + ".m3u8",
            name + "/init.mp4",
            name == "sound" ? "mp4a.40.2" : "avc1.64001F",
            [.. segments.Select((s, i) => new HlsSegment($"{name}/{i + 1:0000}.m4s", TimeSpan.FromSeconds(s.Seconds), s.Bytes))]
        );

    private static HlsLesson Stream(params IReadOnlyList<HlsCaptions> captions) =>
        new(
            TimeSpan.FromSeconds(14),
            [
                new HlsPicture(Track("720", (6, 90_000), (6, 30_000), (2, 5_000)), new PictureSize(1280, 720), new FrameRate(30, 1)),
                new HlsPicture(Track("360", (6, 30_000), (6, 12_000), (2, 2_000)), new PictureSize(640, 360), new FrameRate(30000, 1001)),
            ],
            new HlsSound(Track("sound", (5.99467, 54_000), (6.016, 54_000), (1.98933, 18_000)), 1),
            captions
        );

    /// <summary>Section 4.3.4.2: any segments in a row that last together between 0.5 and 1.5 target durations.</summary>
    [Fact]
    public void The_peak_is_that_of_segments_in_a_row_and_a_short_one_alone_does_not_count()
    {
        Track("720", (6, 90_000), (6, 30_000), (2, 5_000)).PeakBitsPerSecond(6).ShouldBe(120_000);
        // One second is less than half of six: it counts with its neighbour, 60,000 bytes in 6 s, and not as 40,000 in 1 s.
        Track("720", (5, 20_000), (1, 40_000)).PeakBitsPerSecond(6).ShouldBe(80_000);
        // All of it is shorter than half a target.
        Track("720", (1, 10_000)).PeakBitsPerSecond(6).ShouldBe(80_000);
        Track("720", (6, 90_000), (6, 30_000), (2, 5_000)).AverageBitsPerSecond.ShouldBe(71_429);
    }

    [Fact]
    public void The_master_playlist_says_what_each_picture_takes_with_its_sound()
    {
        var stream = Stream(new HlsCaptions("Captions", "captions.m3u8", "captions.vtt", "en", 700));
        stream.TargetSeconds.ShouldBe(6);
        const string groups = "AUDIO=\"sound\",SUBTITLES=\"captions\",CLOSED-CAPTIONS=NONE";
        HlsPlaylists
            .Master(stream)
            .ShouldBe(
                $"""
                #EXTM3U
                #EXT-X-VERSION:6
                #EXT-X-INDEPENDENT-SEGMENTS
                #EXT-X-MEDIA:TYPE=AUDIO,GROUP-ID="sound",NAME="Sound",DEFAULT=YES,AUTOSELECT=YES,CHANNELS="1",URI="sound.m3u8"
                #EXT-X-MEDIA:TYPE=SUBTITLES,GROUP-ID="captions",NAME="Captions",LANGUAGE="en",DEFAULT=NO,AUTOSELECT=YES,FORCED=NO,URI="captions.m3u8"
                #EXT-X-STREAM-INF:BANDWIDTH=192465,AVERAGE-BANDWIDTH=143829,CODECS="avc1.64001F,mp4a.40.2",RESOLUTION=1280x720,FRAME-RATE=30.000,{groups}
                720.m3u8
                #EXT-X-STREAM-INF:BANDWIDTH=112465,AVERAGE-BANDWIDTH=97543,CODECS="avc1.64001F,mp4a.40.2",RESOLUTION=640x360,FRAME-RATE=29.970,{groups}
                360.m3u8

                """
            );
    }

    [Fact]
    public void A_media_playlist_lists_its_pieces()
    {
        HlsPlaylists
            .Media(Stream().Pictures[0].Track, 6)
            .ShouldBe(
                """
                #EXTM3U
                #EXT-X-VERSION:6
                #EXT-X-TARGETDURATION:6
                #EXT-X-MEDIA-SEQUENCE:1
                #EXT-X-PLAYLIST-TYPE:VOD
                #EXT-X-INDEPENDENT-SEGMENTS
                #EXT-X-MAP:URI="720/init.mp4"
                #EXTINF:6.00000,
                720/0001.m4s
                #EXTINF:6.00000,
                720/0002.m4s
                #EXTINF:2.00000,
                720/0003.m4s
                #EXT-X-ENDLIST

                """
            );
    }

    /// <summary>Section 3.5: the header that ties the cues to the stream's times.</summary>
    [Fact]
    public void Captions_say_from_which_moment_they_count() =>
        HlsPlaylists
            .CaptionSegment("WEBVTT\n\n00:00:01.000 --> 00:00:02.000\nWEBVTT\n")
            .ShouldBe("WEBVTT\nX-TIMESTAMP-MAP=MPEGTS:0,LOCAL:00:00:00.000\n\n00:00:01.000 --> 00:00:02.000\nWEBVTT\n");

    private static Dictionary<string, string> Folder()
    {
        var stream = Stream(new HlsCaptions("Captions", "captions.m3u8", "captions.vtt", "en", 700));
        return new Dictionary<string, string>
        {
            ["lesson.m3u8"] = HlsPlaylists.Master(stream),
            ["captions.m3u8"] = HlsPlaylists.Captions(stream.Captions[0], stream.Length),
            ["720.m3u8"] = HlsPlaylists.Media(stream.Pictures[0].Track, 6),
            ["360.m3u8"] = HlsPlaylists.Media(stream.Pictures[1].Track, 6),
            ["sound.m3u8"] = HlsPlaylists.Media(stream.Sound!.Track, 6),
        };
    }

    private static long? Bytes(string name)
    {
        var stream = Stream();
        var piece = stream.Pictures.Select(p => p.Track).Append(stream.Sound!.Track).SelectMany(t => t.Segments).FirstOrDefault(s => s.Uri == name);
        return piece?.Bytes
            ?? (
                name.EndsWith("init.mp4", StringComparison.Ordinal) ? 800
                : name == "captions.vtt" ? 700
                : null
            );
    }

    [Fact]
    public void What_is_written_keeps_to_the_standard() => HlsCheck.Findings("lesson.m3u8", Folder().GetValueOrDefault, Bytes).ShouldBeEmpty();

    [Theory]
    [InlineData("720.m3u8", "#EXTM3U\n", "", "4.3.1.1")]
    [InlineData("720.m3u8", "#EXT-X-TARGETDURATION:6\n", "", "4.3.3.1")]
    [InlineData("720.m3u8", "#EXT-X-TARGETDURATION:6\n", "#EXT-X-TARGETDURATION:5\n", "4.3.3.1")]
    [InlineData("720.m3u8", "#EXT-X-TARGETDURATION:6\n", "#EXT-X-TARGETDURATION:7\n", "6.2.4")]
    [InlineData("720.m3u8", "#EXT-X-MEDIA-SEQUENCE:1\n", "#EXT-X-MEDIA-SEQUENCE:1\n#EXT-X-MEDIA-SEQUENCE:1\n", "4.3:")]
    [InlineData("720.m3u8", "#EXT-X-VERSION:6\n", "#EXT-X-VERSION:3\n", "7:")]
    [InlineData("720.m3u8", "#EXT-X-MAP:URI=\"720/init.mp4\"\n", "", "3.3")]
    [InlineData("720.m3u8", "720/init.mp4", "720/begin.mp4", "4.3.2.5")]
    [InlineData("720.m3u8", "#EXTINF:2.00000,\n", "", "4.3.2.1")]
    [InlineData("720.m3u8", "720/0003.m4s", "720/0004.m4s", "4.1")]
    [InlineData("720.m3u8", "#EXT-X-ENDLIST\n", "", "4.3.3.5")]
    [InlineData("720.m3u8", "#EXT-X-ENDLIST\n", "#EXT-X-ENDLIST\n#EXT-X-MEDIA:TYPE=AUDIO,GROUP-ID=\"a\",NAME=\"b\"\n", "4:")]
    [InlineData("lesson.m3u8", "360.m3u8", "240.m3u8", "4.1")]
    [InlineData("lesson.m3u8", "BANDWIDTH=192465,", "", "4.3.4.2")]
    [InlineData("lesson.m3u8", "BANDWIDTH=192465,", "BANDWIDTH=150000,", "4.3.4.2")]
    [InlineData("lesson.m3u8", "AUDIO=\"sound\"", "AUDIO=\"speech\"", "4.3.4.2")]
    [InlineData("lesson.m3u8", "SUBTITLES=\"captions\"", "SUBTITLES=\"words\"", "4.3.4.2")]
    [InlineData("lesson.m3u8", "720.m3u8\n", "", "4.3.4.2")]
    [InlineData("lesson.m3u8", "NAME=\"Sound\",", "", "4.3.4.1")]
    [InlineData("lesson.m3u8", "AUTOSELECT=YES,CHANNELS", "AUTOSELECT=NO,CHANNELS", "4.3.4.1")]
    [InlineData("lesson.m3u8", ",URI=\"captions.m3u8\"", "", "4.3.4.1")]
    [InlineData("lesson.m3u8", "RESOLUTION=1280x720", "RESOLUTION=1280x720,RESOLUTION=1280x720", "4.2")]
    public void What_does_not_keep_to_it_is_found(string name, string what, string instead, string section)
    {
        var folder = Folder();
        var at = folder[name].IndexOf(what, StringComparison.Ordinal);
        at.ShouldBeGreaterThanOrEqualTo(0);
        folder[name] = folder[name][..at] + instead + folder[name][(at + what.Length)..];
        HlsCheck.Findings("lesson.m3u8", folder.GetValueOrDefault, Bytes).ShouldContain(breach => breach.StartsWith(section, StringComparison.Ordinal));
    }

    /// <summary>The examples of sections 8.1 and 8.6 (from memory, with the names shortened).</summary>
    [Fact]
    public void The_standards_own_examples_pass()
    {
        const string media =
            "#EXTM3U\n#EXT-X-TARGETDURATION:10\n#EXT-X-VERSION:3\n#EXTINF:9.009,\nfirst.ts\n#EXTINF:9.009,\nsecond.ts\n#EXTINF:3.003,"
            + "\nthird.ts\n#EXT-X-ENDLIST\n";
        const string master = """
            #EXTM3U
            #EXT-X-MEDIA:TYPE=AUDIO,GROUP-ID="aac",NAME="English",DEFAULT=YES,AUTOSELECT=YES,LANGUAGE="en",URI="main/english-audio.m3u8"
            #EXT-X-MEDIA:TYPE=AUDIO,GROUP-ID="aac",NAME="Deutsch",DEFAULT=NO,AUTOSELECT=YES,LANGUAGE="de",URI="main/german-audio.m3u8"
            #EXT-X-MEDIA:TYPE=AUDIO,GROUP-ID="aac",NAME="Commentary",DEFAULT=NO,AUTOSELECT=NO,LANGUAGE="en",URI="commentary/audio-only.m3u8"
            #EXT-X-STREAM-INF:BANDWIDTH=1280000,CODECS="...",AUDIO="aac"
            low/video-only.m3u8
            #EXT-X-STREAM-INF:BANDWIDTH=2560000,CODECS="...",AUDIO="aac"
            mid/video-only.m3u8
            """;
        HlsCheck.Findings("master.m3u8", name => name == "master.m3u8" ? master : media, _ => 100_000).ShouldBeEmpty();
    }

    /// <summary>The same section: half and one and a half target durations belong to it.</summary>
    [Fact]
    public void Half_and_one_and_a_half_targets_count()
    {
        Track("720", (2, 40_000), (4, 8_000), (4, 8_000)).PeakBitsPerSecond(4).ShouldBe(160_000);
        // Six seconds together, of which the first two alone would be too short.
        Track("720", (1.5, 30_000), (4.5, 60_000), (4, 8_000)).PeakBitsPerSecond(4).ShouldBe(120_000);
    }
}
