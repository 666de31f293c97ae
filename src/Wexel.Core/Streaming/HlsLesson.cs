using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Streaming;

/// <summary>One media segment (RFC 8216, section 3).</summary>
/// <param name="Uri">Where it lies, relative to the playlist.</param>
/// <param name="Duration">How long it is.</param>
/// <param name="Bytes">Its size in bytes.</param>
public sealed record HlsSegment(string Uri, TimeSpan Duration, long Bytes);

/// <summary>The segments of one picture or sound, as one media playlist lists them.</summary>
/// <param name="Playlist">The playlist's name beside the master playlist.</param>
/// <param name="Map">Where the initialization section lies, relative to the playlist.</param>
/// <param name="Codecs">What it is coded in, as RFC 6381 writes it.</param>
/// <param name="Segments">Its segments in order; one or more.</param>
public sealed record HlsTrack(string Playlist, string Map, string Codecs, IReadOnlyList<HlsSegment> Segments)
{
    /// <summary>The rate over all of it, in bits a second.</summary>
    public long AverageBitsPerSecond => Whole(Segments.Sum(s => s.Bytes) * 8 / Segments.Sum(s => s.Duration.TotalSeconds));

    /// <summary>
    /// The peak segment bit rate, in bits a second (section 4.3.4.2): the largest rate of any segments in a row that last together
    /// between half and one and a half target durations; of all of it where it is shorter.
    /// </summary>
    /// <param name="targetSeconds">The target duration in seconds.</param>
    public long PeakBitsPerSecond(int targetSeconds)
    {
        var peak = 0.0;
        for (var first = 0; first < Segments.Count; first++)
        {
            var (bytes, seconds) = (0L, 0.0);
            for (var last = first; last < Segments.Count && seconds + Segments[last].Duration.TotalSeconds <= 1.5 * targetSeconds; last++)
            {
                bytes += Segments[last].Bytes;
                seconds += Segments[last].Duration.TotalSeconds;
                if (seconds >= 0.5 * targetSeconds)
                    peak = Math.Max(peak, bytes * 8 / seconds);
            }
        }

        return Math.Max(Whole(peak), AverageBitsPerSecond);
    }

    /// <summary>Up to a whole bit; a sum of seconds may be off by very little.</summary>
    private static long Whole(double bitsPerSecond) => (long)Math.Ceiling(bitsPerSecond - 1e-3);
}

/// <summary>One of the pictures that a player may choose between.</summary>
/// <param name="Track">Its segments.</param>
/// <param name="Size">Its size.</param>
/// <param name="Frames">The most frames a second that it has.</param>
public sealed record HlsPicture(HlsTrack Track, PictureSize Size, FrameRate Frames);

/// <summary>The sound that goes with every picture.</summary>
/// <param name="Track">Its segments.</param>
/// <param name="Channels">How many channels it has.</param>
public sealed record HlsSound(HlsTrack Track, int Channels);

/// <summary>Captions that can be switched on.</summary>
/// <param name="Name">What a player lists them as; no two have the same (section 4.3.4.1.1).</param>
/// <param name="Playlist">The name of their playlist.</param>
/// <param name="File">The name of the WebVTT file.</param>
/// <param name="Language">As a BCP 47 tag.</param>
/// <param name="Bytes">The size of that file in bytes.</param>
public sealed record HlsCaptions(string Name, string Playlist, string File, string Language, long Bytes);

/// <summary>A lesson as a player loads it piece by piece (RFC 8216).</summary>
/// <param name="Length">How long it is.</param>
/// <param name="Pictures">The pictures, the largest first; one or more.</param>
/// <param name="Sound">The sound, or null.</param>
/// <param name="Captions">The caption tracks; the languages of two may be the same.</param>
public sealed record HlsLesson(TimeSpan Length, IReadOnlyList<HlsPicture> Pictures, HlsSound? Sound, IReadOnlyList<HlsCaptions> Captions)
{
    /// <summary>The target duration of all playlists in seconds (section 4.3.3.1): no segment, rounded, is longer.</summary>
    public int TargetSeconds =>
        Math.Max(
            1,
            Pictures
                .Select(p => p.Track)
                .Append(Sound?.Track)
                .OfType<HlsTrack>()
                .SelectMany(t => t.Segments)
                .Max(s => (int)Math.Round(s.Duration.TotalSeconds, MidpointRounding.AwayFromZero))
        );

    /// <summary>What a picture with all that goes with it takes at its peak and on average, in bits a second (section 4.3.4.2).</summary>
    public (long Peak, long Average) Bandwidth(HlsPicture picture)
    {
        var tracks = new[] { picture.Track, Sound?.Track }.OfType<HlsTrack>().ToList();
        var captions = Captions.Count == 0 ? 0 : (long)Math.Ceiling(Captions.Max(c => c.Bytes) * 8 / Length.TotalSeconds);
        return (tracks.Sum(t => t.PeakBitsPerSecond(TargetSeconds)) + captions, tracks.Sum(t => t.AverageBitsPerSecond) + captions);
    }
}
