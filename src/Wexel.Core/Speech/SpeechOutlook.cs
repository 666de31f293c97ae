using Wexel.Core.Recordings;

namespace Wexel.Core.Speech;

/// <summary>Where a draft of captions will be poor, known from the sound before anybody listens for words: captions are only as good as the
/// recording.</summary>
public static class SpeechOutlook
{
    /// <summary>The voice's level from which on an engine hears well, in dBFS (common practice, no source).</summary>
    private const int QuietVoice = -38;

    /// <summary>How far the voice must stand over the noise, in dB (common practice, no source).</summary>
    private const int CloseNoise = 18;

    /// <summary>The share of the heard seconds with a peak at full scale from which on a sound counts as clipped (common practice, no source).</summary>
    private const double ClippedShare = 0.2;

    private const int FullScale = 100;

    /// <summary>What to know before, a sentence each; empty where nothing is in the way.</summary>
    /// <param name="found">What looking through the recording found.</param>
    public static IReadOnlyList<Problem> Find(RecordingAnalysis found)
    {
        if (found.Levels is not { CarriesSound: true } levels)
            return [new Problem("speech-none", "Nothing can be heard in the recording, so there is no draft of captions.", "sound")];
        var threshold = levels.Threshold;
        var heard = levels.Dbfs.Where(level => level >= threshold).Order().ToList();
        var voice = heard.Count == 0 ? SoundLevels.Lowest : heard[heard.Count / 2];
        var outlook = new List<Problem>();
        if (voice < QuietVoice)
            outlook.Add(
                new Problem(
                    "speech-quiet",
                    $"The voice is very quiet ({Level(voice)}); the draft will miss words. Speak nearer to the microphone next time.",
                    "sound"
                )
            );
        if (voice - levels.NoiseFloor < CloseNoise)
            outlook.Add(
                new Problem(
                    "speech-noisy",
                    $"The noise is only {voice - levels.NoiseFloor} dB under the voice; the draft will have wrong words. A room with less noise helps most.",
                    "sound"
                )
            );
        if (Clipped(found) > ClippedShare)
            outlook.Add(
                new Problem(
                    "speech-clipped",
                    "The sound is recorded too loud and its peaks are cut off; the draft will have wrong words. Turn the microphone down next time.",
                    "sound"
                )
            );
        return outlook;
    }

    /// <summary>The share of the seconds with sound in which a peak stands at full scale.</summary>
    private static double Clipped(RecordingAnalysis found)
    {
        if (found.PeaksPerSecond == 0 || found.Loudness is not { TruePeak: >= -0.1 })
            return 0;
        var seconds = found.Peaks.Chunk(found.PeaksPerSecond).Select(second => second.Max()).Where(peak => peak > 0).ToList();
        return seconds.Count == 0 ? 0 : (double)seconds.Count(peak => peak >= FullScale) / seconds.Count;
    }

    private static string Level(int dbfs) => $"−{-dbfs} dBFS";
}
