using Wexel.Core.Recordings;
using Wexel.Media.Tools;

namespace Wexel.Media.Analysing;

/// <summary>Listens to all sound tracks of a recording that has several, and chooses the one in which somebody speaks.</summary>
public static class SpokenTrackFinder
{
    /// <summary>The same facts with <see cref="RecordingFacts.UsedSounds"/>; they stay as they are where there is no choice or it was made.</summary>
    /// <param name="facts">What the probe found.</param>
    /// <param name="path">The recording.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The sound could not be read.</exception>
    public static async Task<RecordingFacts> WithAsync(RecordingFacts facts, string path, CancellationToken cancel)
    {
        if (facts.Sounds.Count < 2 || facts.UsedSounds is not null)
            return facts;
        var levels = new List<SoundLevels>();
        for (var track = 0; track < facts.Sounds.Count; track++)
            levels.Add((await SoundAnalyser.AnalyseAsync(MediaTool.SafeInput(path), [track], 1, null, cancel)).Heard.Levels);
        return facts with { UsedSounds = [SoundTracks.Spoken(levels)] };
    }
}
