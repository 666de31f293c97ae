using System.Security.Cryptography;
using System.Text.Json;
using Wexel.Core.Inspection;
using Wexel.Core.Timing;
using Wexel.Media.Tools;

namespace Wexel.Media.Measuring;

/// <summary>
/// What was found by decoding a file to its end and looking at its source: it follows from what is coded in it and when that is shown, and so
/// holds for every file that is put together from the same, whatever its title, its chapters and its captions are.
/// </summary>
/// <param name="Coded">The hash of what is coded, packet by packet, with its times.</param>
/// <param name="Picture">The picture; null where there is none.</param>
/// <param name="Sound">The sound; null where there is none.</param>
/// <param name="Errors">What could not be decoded.</param>
/// <param name="SourceSilent">Where the lesson's sound is silent before it is encoded.</param>
/// <param name="SourceLength">How long that is; null without sound.</param>
public sealed record SeenAndHeard(
    string Coded,
    PictureMeasured? Picture,
    SoundMeasured? Sound,
    IReadOnlyList<string> Errors,
    IReadOnlyList<TimeRange> SourceSilent,
    TimeSpan? SourceLength
)
{
    /// <summary>Times are kept to the tick here: verdicts are made from them again.</summary>
    private static readonly JsonSerializerOptions Exact = new();

    /// <summary>As it is kept.</summary>
    public string Text() => JsonSerializer.Serialize(this, Exact);

    /// <summary>What was kept; null where it cannot be read.</summary>
    public static SeenAndHeard? Read(string text)
    {
        try
        {
            return JsonSerializer.Deserialize<SeenAndHeard>(text, Exact);
        }
        catch (JsonException)
        {
            return null;
        }
    }

    /// <summary>The hash of what is coded in a file: every packet of picture and sound with its times. Nothing is decoded.</summary>
    /// <exception cref="ToolFailedException">The file cannot be read.</exception>
    internal static async Task<string> CodedAsync(string path, CancellationToken cancel)
    {
        var hash = Array.Empty<byte>();
        await MediaTool.StreamAsync(
            [.. MediaTool.OwnInput(path), "-map", "0:v:0?", "-map", "0:a:0?", "-c", "copy", "-f", "framehash", "-hash", "md5", "-"],
            async (packets, stop) => hash = await SHA256.HashDataAsync(packets, stop),
            cancel
        );
        return Convert.ToHexStringLower(hash);
    }
}
