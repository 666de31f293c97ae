using System.Globalization;
using System.Text.RegularExpressions;

namespace Wexel.Core.Streaming;

/// <summary>Holds playlists against the MUST clauses of RFC 8216 that a stream on disk can show.</summary>
public static partial class HlsCheck
{
    /// <summary>Every clause that is not kept, each with its section; empty where all are.</summary>
    /// <param name="master">The name of the master playlist.</param>
    /// <param name="read">Gives a playlist's text by its name, null where it is not there.</param>
    /// <param name="bytes">Gives the size of a file by its name, null where it is not there.</param>
    public static IReadOnlyList<string> Findings(string master, Func<string, string?> read, Func<string, long?> bytes)
    {
        var breaches = new List<string>();
        if (Playlist.Read(master, read, breaches) is not { } top)
            return breaches;
        if (!top.IsMaster)
            breaches.Add($"4.3.4: {master} lists no variant streams.");
        var media = new Dictionary<string, Playlist>(StringComparer.Ordinal);
        foreach (var name in top.Linked().Distinct())
        {
            if (Playlist.Read(name, read, breaches) is not { } playlist)
                continue;
            media[name] = playlist;
            Media(playlist, bytes, breaches);
        }

        Renditions(top, breaches);
        Variants(top, media, bytes, breaches);
        return breaches;
    }

    /// <summary>Sections 4.3.2 and 4.3.3.</summary>
    private static void Media(Playlist playlist, Func<string, long?> bytes, List<string> breaches)
    {
        var name = playlist.Name;
        if (playlist.IsMaster)
            breaches.Add($"4: {name} is linked as a media playlist and has tags of a master playlist.");
        if (playlist.TargetSeconds is not { } target)
        {
            breaches.Add($"4.3.3.1: {name} has no EXT-X-TARGETDURATION.");
            return;
        }

        if (playlist.Segments.Find(s => Math.Round(s.Seconds, MidpointRounding.AwayFromZero) > target) is { Uri: not null } longer)
            breaches.Add($"4.3.3.1: {longer.Uri} of {name} is longer than the target duration of {target} s.");
        if (playlist.Segments.Count == 0)
            breaches.Add($"4.3.2.1: {name} lists no segment.");
        if (playlist.Type == "VOD" && !playlist.Lines.Contains("#EXT-X-ENDLIST"))
            breaches.Add($"4.3.3.5: {name} may not grow and does not end with EXT-X-ENDLIST.");
        if (playlist.Map is { } map)
        {
            if (playlist.Version < 6)
                breaches.Add($"7: EXT-X-MAP in {name} needs version 6.");
            if (bytes(playlist.Beside(map)) is null)
                breaches.Add($"4.3.2.5: the initialization section {map} of {name} is not there.");
        }
        else if (playlist.Segments.Exists(s => s.Uri.EndsWith(".m4s", StringComparison.Ordinal)))
        {
            breaches.Add($"3.3: the segments of {name} are fragmented MP4 and have no EXT-X-MAP.");
        }

        foreach (var segment in playlist.Segments.Where(s => bytes(playlist.Beside(s.Uri)) is null))
            breaches.Add($"4.1: {segment.Uri} of {name} is not there.");
    }

    /// <summary>Section 4.3.4.1.</summary>
    private static void Renditions(Playlist top, List<string> breaches)
    {
        foreach (var media in top.Media)
        {
            if (!media.ContainsKey("TYPE") || !media.ContainsKey("GROUP-ID") || !media.ContainsKey("NAME"))
                breaches.Add("4.3.4.1: an EXT-X-MEDIA lacks TYPE, GROUP-ID or NAME.");
            if (media.GetValueOrDefault("TYPE") == "SUBTITLES" && !media.ContainsKey("URI"))
                breaches.Add("4.3.4.1: captions have no URI.");
            if (media.GetValueOrDefault("DEFAULT") == "YES" && media.GetValueOrDefault("AUTOSELECT", "YES") != "YES")
                breaches.Add("4.3.4.1: a rendition is DEFAULT and not AUTOSELECT.");
        }

        if (top.Media.GroupBy(m => (m.GetValueOrDefault("TYPE"), m.GetValueOrDefault("GROUP-ID"), m.GetValueOrDefault("NAME"))).Any(g => g.Count() > 1))
            breaches.Add("4.3.4.1.1: two renditions of one group have the same NAME.");
    }

    /// <summary>Sections 4.3.4.2 and 6.2.4.</summary>
    private static void Variants(Playlist top, Dictionary<string, Playlist> media, Func<string, long?> bytes, List<string> breaches)
    {
        foreach (var (attributes, uri) in top.Variants)
        {
            if (uri is null)
            {
                breaches.Add("4.3.4.2: an EXT-X-STREAM-INF is not followed by a URI.");
                continue;
            }

            foreach (var (attribute, type) in new[] { ("AUDIO", "AUDIO"), ("SUBTITLES", "SUBTITLES"), ("VIDEO", "VIDEO") })
            {
                if (
                    attributes.TryGetValue(attribute, out var group)
                    && !top.Media.Any(m => m.GetValueOrDefault("TYPE") == type && m.GetValueOrDefault("GROUP-ID") == group)
                )
                    breaches.Add($"4.3.4.2: {uri} names the {attribute} group “{group}”, which is not there.");
            }

            if (!long.TryParse(attributes.GetValueOrDefault("BANDWIDTH"), CultureInfo.InvariantCulture, out var told))
                breaches.Add($"4.3.4.2: {uri} has no BANDWIDTH.");
            else if (media.TryGetValue(uri, out var picture) && Measured(top, attributes, picture, media, bytes) is { } measured && measured > told)
                breaches.Add($"4.3.4.2: {uri} takes {measured} bit/s at its peak, and BANDWIDTH says {told}.");
        }

        var captions = top.Media.Where(m => m.GetValueOrDefault("TYPE") == "SUBTITLES").Select(m => m.GetValueOrDefault("URI")).ToHashSet();
        if (media.Values.Where(p => !captions.Contains(p.Name)).Select(p => p.TargetSeconds).Distinct().Count() > 1)
            breaches.Add("6.2.4: the media playlists have different target durations.");
    }

    /// <summary>The peak of a variant with its sound.</summary>
    private static long? Measured(
        Playlist top,
        IReadOnlyDictionary<string, string> attributes,
        Playlist picture,
        Dictionary<string, Playlist> media,
        Func<string, long?> bytes
    )
    {
        var sound = top
            .Media.Where(m => m.GetValueOrDefault("TYPE") == "AUDIO" && m.GetValueOrDefault("GROUP-ID") == attributes.GetValueOrDefault("AUDIO"))
            .Select(m => m.GetValueOrDefault("URI"))
            .OfType<string>()
            .Select(media.GetValueOrDefault);
        var playlists = sound.Prepend(picture).OfType<Playlist>().ToList();
        if (playlists.Exists(p => p.TargetSeconds is null || p.Segments.Count == 0))
            return null;
        return playlists.Sum(p =>
            new HlsTrack(
                p.Name,
                "",
                "",
                [.. p.Segments.Select(s => new HlsSegment(s.Uri, TimeSpan.FromSeconds(s.Seconds), bytes(p.Beside(s.Uri)) ?? 0))]
            ).PeakBitsPerSecond(p.TargetSeconds!.Value)
        );
    }

    /// <summary>A playlist as it is read (section 4.1 and 4.2).</summary>
    private sealed record Playlist(
        string Name,
        IReadOnlyList<string> Lines,
        int Version,
        int? TargetSeconds,
        string? Type,
        string? Map,
        List<(string Uri, double Seconds)> Segments,
        List<IReadOnlyDictionary<string, string>> Media,
        List<(IReadOnlyDictionary<string, string> Attributes, string? Uri)> Variants
    )
    {
        internal bool IsMaster => Media.Count > 0 || Variants.Count > 0;

        internal IEnumerable<string> Linked() =>
            Variants.Select(v => v.Uri).OfType<string>().Concat(Media.Select(m => m.GetValueOrDefault("URI")).OfType<string>()).Select(Beside);

        /// <summary>A URI, relative to the playlist, as the name of a file beside the master playlist.</summary>
        internal string Beside(string uri) => Name.LastIndexOf('/') is var slash and >= 0 ? Name[..(slash + 1)] + uri : uri;

        internal static Playlist? Read(string name, Func<string, string?> read, List<string> breaches)
        {
            if (read(name) is not { } text)
            {
                breaches.Add($"4.1: the playlist {name} is not there.");
                return null;
            }

            var lines = text.Split('\n').Select(l => l.TrimEnd('\r')).Where(l => l.Length > 0).ToList();
            if (lines.Count == 0 || lines[0] != "#EXTM3U")
                breaches.Add($"4.3.1.1: {name} does not start with EXTM3U.");
            string? Value(string tag) => lines.Find(l => l.StartsWith(tag + ":", StringComparison.Ordinal))?[(tag.Length + 1)..];
            foreach (var once in new[] { "#EXT-X-VERSION", "#EXT-X-TARGETDURATION", "#EXT-X-MEDIA-SEQUENCE", "#EXT-X-PLAYLIST-TYPE" })
            {
                if (lines.Count(l => l.StartsWith(once + ":", StringComparison.Ordinal)) > 1)
                    breaches.Add($"4.3: {name} has {once[1..]} more than once.");
            }

            var playlist = new Playlist(
                name,
                lines,
                int.TryParse(Value("#EXT-X-VERSION"), CultureInfo.InvariantCulture, out var version) ? version : 1,
                int.TryParse(Value("#EXT-X-TARGETDURATION"), CultureInfo.InvariantCulture, out var target) ? target : null,
                Value("#EXT-X-PLAYLIST-TYPE"),
                Value("#EXT-X-MAP") is { } map ? Attributes(map, name, breaches).GetValueOrDefault("URI") : null,
                [],
                [],
                []
            );
            double? seconds = null;
            IReadOnlyDictionary<string, string>? variant = null;
            foreach (var line in lines.Skip(1))
            {
                if (line.StartsWith("#EXTINF:", StringComparison.Ordinal))
                    seconds = double.TryParse(line["#EXTINF:".Length..line.IndexOf(',', StringComparison.Ordinal)], CultureInfo.InvariantCulture, out var given)
                        ? given
                        : 0;
                else if (line.StartsWith("#EXT-X-MEDIA:", StringComparison.Ordinal))
                    playlist.Media.Add(Attributes(line["#EXT-X-MEDIA:".Length..], name, breaches));
                else if (variant is null && line.StartsWith("#EXT-X-STREAM-INF:", StringComparison.Ordinal))
                    variant = Attributes(line["#EXT-X-STREAM-INF:".Length..], name, breaches);
                else if (variant is not null)
                {
                    playlist.Variants.Add((variant, line.StartsWith('#') ? null : line));
                    variant = null;
                }
                else if (!line.StartsWith('#'))
                {
                    if (seconds is null)
                        breaches.Add($"4.3.2.1: {line} of {name} has no EXTINF.");
                    playlist.Segments.Add((line, seconds ?? 0));
                    seconds = null;
                }
            }

            if (variant is not null)
                playlist.Variants.Add((variant, null));
            return playlist;
        }

        /// <summary>An attribute list (section 4.2): no name stands twice.</summary>
        private static Dictionary<string, string> Attributes(string list, string name, List<string> breaches)
        {
            var attributes = new Dictionary<string, string>(StringComparer.Ordinal);
            foreach (Match match in Attribute().Matches(list))
            {
                if (!attributes.TryAdd(match.Groups[1].Value, match.Groups[2].Value.Trim('"')))
                    breaches.Add($"4.2: {match.Groups[1].Value} stands twice in a tag of {name}.");
            }

            return attributes;
        }
    }

    [GeneratedRegex("([A-Z0-9-]+)=(\"[^\"\r\n]*\"|[^\",]*)")]
    private static partial Regex Attribute();
}
