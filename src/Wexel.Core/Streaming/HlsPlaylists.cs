using System.Globalization;
using System.Text;

namespace Wexel.Core.Streaming;

/// <summary>Writes the playlists of a stream (RFC 8216, section 4).</summary>
public static class HlsPlaylists
{
    /// <summary>The media type of a playlist (section 4).</summary>
    public const string MediaType = "application/vnd.apple.mpegurl";

    /// <summary>EXT-X-MAP in a playlist of more than key frames needs version 6 (section 7).</summary>
    private const int Version = 6;

    private const string SoundGroup = "sound";
    private const string CaptionsGroup = "captions";

    /// <summary>The master playlist: the one that a player is given.</summary>
    public static string Master(HlsLesson stream)
    {
        var text = Begin().Append("#EXT-X-INDEPENDENT-SEGMENTS\n");
        if (stream.Sound is { } sound)
            text.Append(
                CultureInfo.InvariantCulture,
                $"#EXT-X-MEDIA:TYPE=AUDIO,GROUP-ID=\"{SoundGroup}\",NAME=\"Sound\",DEFAULT=YES,AUTOSELECT=YES,CHANNELS=\"{sound.Channels}\","
                    + $"URI=\"{sound.Track.Playlist}\"\n"
            );
        foreach (var captions in stream.Captions)
            text.Append(
                CultureInfo.InvariantCulture,
                $"#EXT-X-MEDIA:TYPE=SUBTITLES,GROUP-ID=\"{CaptionsGroup}\",NAME=\"{captions.Name}\",LANGUAGE=\"{captions.Language}\",DEFAULT=NO,"
                    + $"AUTOSELECT=YES,FORCED=NO,URI=\"{captions.Playlist}\"\n"
            );
        foreach (var picture in stream.Pictures)
        {
            var (peak, average) = stream.Bandwidth(picture);
            var codecs = new[] { picture.Track, stream.Sound?.Track }.OfType<HlsTrack>().Select(t => t.Codecs);
            text.Append(CultureInfo.InvariantCulture, $"#EXT-X-STREAM-INF:BANDWIDTH={peak},AVERAGE-BANDWIDTH={average}");
            text.Append(
                CultureInfo.InvariantCulture,
                $",CODECS=\"{string.Join(',', codecs)}\",RESOLUTION={picture.Size.Width}x{picture.Size.Height},FRAME-RATE={picture.Frames.PerSecond:0.000}"
            );
            text.Append(stream.Sound is null ? "" : $",AUDIO=\"{SoundGroup}\"").Append(stream.Captions.Count == 0 ? "" : $",SUBTITLES=\"{CaptionsGroup}\"");
            text.Append(",CLOSED-CAPTIONS=NONE\n").Append(picture.Track.Playlist).Append('\n');
        }

        return text.ToString();
    }

    /// <summary>The media playlist of a picture or a sound.</summary>
    /// <param name="track">Its segments.</param>
    /// <param name="targetSeconds">The stream's target duration in seconds.</param>
    public static string Media(HlsTrack track, int targetSeconds)
    {
        var text = Vod(Begin(), targetSeconds)
            .Append("#EXT-X-INDEPENDENT-SEGMENTS\n")
            .Append(CultureInfo.InvariantCulture, $"#EXT-X-MAP:URI=\"{track.Map}\"\n");
        foreach (var segment in track.Segments)
            text.Append(CultureInfo.InvariantCulture, $"#EXTINF:{segment.Duration.TotalSeconds:0.00000},\n{segment.Uri}\n");
        return text.Append("#EXT-X-ENDLIST\n").ToString();
    }

    /// <summary>The media playlist of captions: one segment with all of them, which section 6.2.4 allows another target duration.</summary>
    /// <param name="captions">The captions.</param>
    /// <param name="length">The stream's length.</param>
    public static string Captions(HlsCaptions captions, TimeSpan length) =>
        Vod(Begin(), Math.Max(1, (int)Math.Ceiling(length.TotalSeconds)))
            .Append(CultureInfo.InvariantCulture, $"#EXTINF:{length.TotalSeconds:0.00000},\n{captions.File}\n#EXT-X-ENDLIST\n")
            .ToString();

    /// <summary>WebVTT as a segment: it says which moment of the stream its times count from (section 3.5).</summary>
    public static string CaptionSegment(string webVtt) =>
        webVtt.Insert(webVtt.IndexOf('\n', StringComparison.Ordinal) + 1, "X-TIMESTAMP-MAP=MPEGTS:0,LOCAL:00:00:00.000\n");

    private static StringBuilder Begin() => new StringBuilder("#EXTM3U\n").Append(CultureInfo.InvariantCulture, $"#EXT-X-VERSION:{Version}\n");

    private static StringBuilder Vod(StringBuilder text, int targetSeconds) =>
        text.Append(CultureInfo.InvariantCulture, $"#EXT-X-TARGETDURATION:{targetSeconds}\n#EXT-X-MEDIA-SEQUENCE:1\n#EXT-X-PLAYLIST-TYPE:VOD\n");
}
