using System.Globalization;
using System.Text.Json;
using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Media.Analysing;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>The sound of a lesson, ready to be encoded.</summary>
/// <param name="Path">The lossless file.</param>
/// <param name="Levelling">How it is brought to its loudness; null where it stays.</param>
public sealed record LessonSound(string Path, Levelling? Levelling)
{
    private const int MostCorrections = 3;

    /// <summary>Puts the sound together, unless that was done before, and measures it: the first of the passes that levelling takes.</summary>
    /// <param name="sound">What is done with the sound.</param>
    /// <param name="reel">The recordings.</param>
    /// <param name="map">What is kept of them.</param>
    /// <param name="inputs">Where they lie, and what is mixed in.</param>
    /// <param name="soundPath">Where the lossless file lies or will lie; what levelling comes to lies beside it.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The sound could not be read or written.</exception>
    public static async Task<LessonSound> MakeAsync(SoundPlan sound, Reel reel, TimeMap map, EncodeInputs inputs, string soundPath, CancellationToken cancel)
    {
        await SoundComposer.ComposeAsync(sound, reel, map, inputs, soundPath, cancel);
        if (sound.TargetLufs is null)
            return new LessonSound(soundPath, null);
        var settled = string.Create(CultureInfo.InvariantCulture, $"{soundPath}.{sound.TargetLufs}.json");
        if (!File.Exists(settled))
        {
            var levelling = await LevelAsync(soundPath, sound.Channels, sound.TargetLufs.Value, cancel);
            await WholeFile.MakeAsync(settled, temporary => File.WriteAllTextAsync(temporary, JsonSerializer.Serialize(levelling), cancel));
        }

        return new LessonSound(soundPath, JsonSerializer.Deserialize<Levelling>(await File.ReadAllTextAsync(settled, cancel)));
    }

    private static async Task<Levelling?> LevelAsync(string soundPath, int channels, double target, CancellationToken cancel)
    {
        var levelling = Levelling.For((await SoundHeard.OfComposedAsync(soundPath, channels, cancel)).Loudness, target);
        // Holding peaks takes some loudness away; it is measured again until it is near enough.
        for (var i = 0; levelling is { HoldsPeaks: true } && i < MostCorrections; i++)
        {
            var corrected = levelling.Corrected(
                (await SoundAnalyser.AnalyseAsync(MediaTool.OwnInput(soundPath), channels, SoundFilters.Print(levelling), cancel)).Heard.Loudness,
                target
            );
            if (corrected == levelling)
                break;
            levelling = corrected;
        }

        return levelling;
    }
}
