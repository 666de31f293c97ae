using System.Text.Json;
using System.Text.Json.Serialization;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Tools;

namespace Wexel.Media.Analysing;

/// <summary>What was heard of a sound.</summary>
/// <param name="Length">How long it is.</param>
/// <param name="Sums">What its sides carry.</param>
/// <param name="Peaks">Its peaks in order, ten a second, each 0 to 100 % of full scale.</param>
/// <param name="Levels">How loud it is from moment to moment.</param>
/// <param name="Loudness">How loud it is as a whole.</param>
public sealed record SoundHeard(TimeSpan Length, SideSums Sums, IReadOnlyList<int> Peaks, SoundLevels Levels, Loudness Loudness)
{
    /// <summary>A damaged sound may come to sums that are no numbers.</summary>
    private static readonly JsonSerializerOptions Json = new() { NumberHandling = JsonNumberHandling.AllowNamedFloatingPointLiterals };

    private static readonly TimeSpan ShortestSilence = TimeSpan.FromSeconds(2);

    /// <summary>Stretches of two seconds or more in which nothing is heard.</summary>
    public IReadOnlyList<TimeRange> Silent() =>
        Stretches.Find([.. Levels.Dbfs.Select(l => l < SoundLevels.NothingBelow)], Levels.PerSecond).FindAll(s => s.Length >= ShortestSilence);

    /// <summary>What was heard of a sound when it was put together lies beside it; where it does not, it is listened to.</summary>
    /// <param name="path">The sound.</param>
    /// <param name="channels">How many channels it has.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">It cannot be read.</exception>
    public static async Task<SoundHeard> OfComposedAsync(string path, int channels, CancellationToken cancel)
    {
        if (!File.Exists(Beside(path)))
            await (await SoundAnalyser.AnalyseAsync(MediaTool.OwnInput(path), channels, null, cancel)).Heard.KeepAsync(path, cancel);
        return JsonSerializer.Deserialize<SoundHeard>(await File.ReadAllTextAsync(Beside(path), cancel), Json)!;
    }

    /// <summary>Writes it down beside the sound.</summary>
    internal Task KeepAsync(string path, CancellationToken cancel) =>
        WholeFile.MakeAsync(Beside(path), temporary => File.WriteAllTextAsync(temporary, JsonSerializer.Serialize(this, Json), cancel));

    private static string Beside(string path) => path + ".heard.json";
}
