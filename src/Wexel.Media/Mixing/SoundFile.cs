using System.Globalization;
using System.Text.Json;
using Wexel.Core;
using Wexel.Core.Mixing;
using Wexel.Core.Recordings;
using Wexel.Media.Analysing;
using Wexel.Media.Tools;

namespace Wexel.Media.Mixing;

/// <summary>What a sound file was found to be.</summary>
/// <param name="Length">How long it is.</param>
/// <param name="Channels">How many channels are used of it, 1 or 2.</param>
/// <param name="Lufs">Its integrated loudness, in LUFS.</param>
/// <param name="TruePeak">Its true peak, in dBTP.</param>
/// <param name="Title">What it says it is called; null where it does not.</param>
/// <param name="Author">Who it says made it; null where it does not.</param>
/// <param name="Tempo">The beats a minute that it states; null where it does not.</param>
public sealed record SoundFileFacts(TimeSpan Length, int Channels, double Lufs, double TruePeak, string? Title, string? Author, double? Tempo);

/// <summary>Sounds for the shelf: read, measured, and copied so that every browser plays them.</summary>
public static class SoundFile
{
    /// <summary>The largest file that is taken, in bytes.</summary>
    public const long MostBytes = 300 * 1000 * 1000;

    private const string Formats = "WAV, FLAC, MP3, M4A, OGG, Opus or AIFF";

    /// <summary>BS.1770-4 measures blocks of 400 ms; silence behind a shorter sound fills its block.</summary>
    private const string FillsABlock = "apad=whole_dur=0.5";

    /// <summary>What must stand before a sound that came from somebody: no network protocol, no playlist, and nothing but what is taken.</summary>
    private static IReadOnlyList<string> Safe(string path) =>
        ["-protocol_whitelist", "file", "-format_whitelist", "wav,w64,aiff,flac,mp3,ogg,mov,matroska,aac", "-i", "file:" + path];

    /// <summary>Reads a file that somebody gave.</summary>
    /// <param name="path">Where it lies.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>What it is, or why it cannot be used.</returns>
    public static async Task<Result<SoundFileFacts>> ReadAsync(string path, CancellationToken cancel)
    {
        if (new FileInfo(path).Length == 0)
            return Refused("sound-empty", "The file is empty; copy it again.");
        try
        {
            var found = JsonDocument
                .Parse(await MediaTool.ProbeAsync(["-select_streams", "a", "-show_format", "-show_streams", "-of", "json", .. Safe(path)], cancel))
                .RootElement;
            if (found.GetProperty("streams").EnumerateArray().FirstOrDefault() is not { ValueKind: JsonValueKind.Object } sound)
                return Refused("sound-none", "There is no sound in this file.");
            var channels = sound.GetProperty("channels").GetInt32() == 1 ? 1 : 2;
            // The length that a file states is not trusted: what is decoded counts.
            var stated = double.TryParse(Text(found.GetProperty("format"), "duration"), CultureInfo.InvariantCulture, out var seconds) ? seconds : 0;
            if (stated > ShelfSound.Longest.TotalSeconds)
                return TooLong(TimeSpan.FromSeconds(stated));
            var (heard, said) = await SoundAnalyser.AnalyseAsync(Safe(path), channels, null, cancel);
            var samples = sound.TryGetProperty("duration_ts", out var ticks) ? ticks.GetInt64() : (long?)null;
            var isFlac = Text(found.GetProperty("format"), "format_name") == "flac";
            if (said.Any(line => line.Contains("[error]", StringComparison.Ordinal)) || (isFlac && await FlacFrames.LackAsync(Safe(path), samples, cancel)))
                return Refused("sound-damaged", "The file is damaged: a part of it cannot be decoded. Copy it again, or save it again where it was made.");
            if (heard.Length > ShelfSound.Longest)
                return TooLong(heard.Length);
            if (heard.Length < ShelfSound.Shortest)
                return Refused("sound-too-short", "The sound is shorter than a twentieth of a second.");
            var loudness =
                heard.Loudness.Integrated is not null || heard.Length > TimeSpan.FromSeconds(0.5)
                    ? heard.Loudness
                    : (await SoundAnalyser.AnalyseAsync(Safe(path), channels, FillsABlock, cancel)).Heard.Loudness;
            if (loudness is not { Integrated: { } lufs, TruePeak: { } peak })
                return Refused("sound-silent", "There is nothing to hear in this file.");
            var format = found.GetProperty("format");
            return new SoundFileFacts(
                heard.Length,
                channels,
                Math.Round(lufs, 2),
                Math.Round(peak, 2),
                Tag(format, sound, "title"),
                Tag(format, sound, "artist"),
                Tag(format, sound, "TBPM") is { } tempo && double.TryParse(tempo, CultureInfo.InvariantCulture, out var beats) && beats > 0 ? beats : null
            );
        }
        catch (ToolFailedException failed) when (!failed.MayHelpToTryAgain)
        {
            return Refused("sound-unreadable", $"This is not a sound file that can be read; take {Formats}.");
        }
    }

    /// <summary>Makes the copy that is listened to and mixed in: FLAC of 48 kHz, from its first moment on, with no picture in it. What is there is not made
    /// again.</summary>
    /// <param name="given">The file as it was given.</param>
    /// <param name="channels">How many channels are used of it.</param>
    /// <param name="copy">Where the copy goes.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">It cannot be read.</exception>
    public static Task CopyAsync(string given, int channels, string copy, CancellationToken cancel) =>
        Wholeness.IsWhole(copy)
            ? Task.CompletedTask
            : WholeFile.MakeAsync(copy, temporary =>
                MediaTool.RunAsync(
                    [
                        .. Safe(given),
                        "-map",
                        "0:a:0",
                        "-vn",
                        "-map_metadata",
                        "-1",
                        "-af",
                        string.Create(CultureInfo.InvariantCulture, $"aresample={LoudnessMeter.Rate}:first_pts=0"),
                        "-ac",
                        channels.ToString(CultureInfo.InvariantCulture),
                        "-c:a",
                        "flac",
                        "-sample_fmt",
                        "s16",
                        "-f",
                        "flac",
                        "file:" + temporary,
                    ],
                    null,
                    null,
                    cancel
                )
            );

    private static Problem TooLong(TimeSpan length) =>
        Refused("sound-too-long", $"The sound is {length.TotalMinutes:0} minutes long; {ShelfSound.Longest.TotalMinutes:0} are the most. Take a part of it.");

    private static Problem Refused(string code, string sentence) => new(code, sentence, "sound");

    private static string? Text(JsonElement of, string name) => of.TryGetProperty(name, out var text) ? text.GetString() : null;

    /// <summary>A tag of the file, or of its sound, as Ogg has them; small and capital letters alike.</summary>
    private static string? Tag(JsonElement format, JsonElement stream, string name)
    {
        foreach (var of in new[] { format, stream })
        {
            if (!of.TryGetProperty("tags", out var tags))
                continue;
            foreach (var tag in tags.EnumerateObject())
            {
                if (string.Equals(tag.Name, name, StringComparison.OrdinalIgnoreCase) && tag.Value.GetString() is { Length: > 0 } text)
                    return text;
            }
        }

        return null;
    }
}
