using System.Globalization;
using System.Runtime.InteropServices;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>Puts the sound of a lesson together as one lossless file, from which every rendition's sound is encoded.</summary>
public static class SoundComposer
{
    /// <summary>The maker's name and version for the sound's key.</summary>
    public const string Maker = "sound/1";

    /// <summary>Reads the recording's sound once, mixes and cuts it as planned, and writes it as FLAC of 24 bits.</summary>
    /// <exception cref="ToolFailedException">The sound could not be read or written.</exception>
    public static Task ComposeAsync(SoundPlan sound, TimeMap map, string inputPath, string outputPath, CancellationToken cancel) => WholeFile.MakeAsync(outputPath, temporary =>
    {
        var rate = sound.SampleRate.ToString(CultureInfo.InvariantCulture);
        var channels = sound.Channels.ToString(CultureInfo.InvariantCulture);
        return MediaTool.FeedAsync(
            ["-f", "f32le", "-ar", rate, "-ac", channels, "-i", "pipe:0", "-c:a", "flac", "-compression_level", "3", "-sample_fmt", "s32", "-f", "flac", "file:" + temporary],
            (output, token) => MediaTool.StreamAsync(
                [.. MediaTool.SafeInput(inputPath), "-map", "0:a:0", "-vn", "-af", $"{Mix(sound.Mix)}aresample={rate}:async=1:first_pts=0", "-ac", channels, "-f", "f32le", "pipe:1"],
                (input, stop) => SpliceAsync(new SoundSplicer(sound.Channels, sound.SampleRate, map), sound.Channels, input, output, stop),
                token),
            cancel);
    });

    private static async Task SpliceAsync(SoundSplicer splicer, int channels, Stream input, Stream output, CancellationToken cancel)
    {
        var block = new byte[16_384 * channels * sizeof(float)];
        var kept = new MemoryStream();
        void Keep(ReadOnlySpan<float> samples) => kept.Write(MemoryMarshal.AsBytes(samples));
        async Task HandOnAsync()
        {
            await output.WriteAsync(kept.GetBuffer().AsMemory(0, (int)kept.Length), cancel);
            kept.SetLength(0);
        }

        int read;
        while ((read = await input.ReadAtLeastAsync(block, block.Length, throwOnEndOfStream: false, cancel)) > 0)
        {
            splicer.Take(MemoryMarshal.Cast<byte, float>(block.AsSpan(0, read / (channels * sizeof(float)) * channels * sizeof(float))), Keep);
            await HandOnAsync();
        }

        splicer.End(Keep);
        await HandOnAsync();
    }

    private static string Mix(SoundMix mix) => mix switch
    {
        SoundMix.MonoFromBoth => "pan=mono|c0=0.5*c0+0.5*c1,",
        SoundMix.MonoFromLeft => "pan=mono|c0=c0,",
        SoundMix.MonoFromRight => "pan=mono|c0=c1,",
        // Rows for L and R of ITU-R BS.775-3, Annex 4, Table 2 (3/2 to 2/0), then brought down so that nothing clips.
        SoundMix.StereoFromSurround => "aformat=channel_layouts=5.1,pan=stereo|FL<FL+0.7071*FC+0.7071*BL|FR<FR+0.7071*FC+0.7071*BR,",
        _ => "",
    };
}
