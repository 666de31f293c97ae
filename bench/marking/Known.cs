using System.Diagnostics;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Recordings;
using Wexel.Core.Screens;
using Wexel.Core.Speech;
using Wexel.Media.Analysing;
using Wexel.Media.Probing;
using Wexel.Media.Screens;
using Wexel.Media.Speech;

namespace Wexel.Marking;

/// <summary>What looking through and listening found of a recording, and how long listening took.</summary>
internal sealed record HeardBefore(RecordingFacts Facts, RecordingAnalysis Analysis, HeardSpeech Speech, double Seconds);

/// <summary>What reading its pictures found, and how long it took.</summary>
internal sealed record ReadBefore(ScreenText Screen, double Seconds);

/// <summary>What is found of a recording without anybody's help.</summary>
internal sealed record Known(HeardBefore Heard, ReadBefore Read)
{
    internal TimeSpan Length => Heard.Facts.Length;

    /// <summary>Finds it, or takes what was found before.</summary>
    internal static async Task<Known> OfAsync(string recording, string kept)
    {
        Directory.CreateDirectory(kept);
        var heard = await KeptAsync(Path.Combine(kept, Path.GetFileName(recording) + ".heard.json"), () => HearAsync(recording));
        return new Known(heard, await KeptAsync(Path.Combine(kept, Path.GetFileName(recording) + ".read.json"), () => ReadAsync(recording, heard)));
    }

    internal static async Task<T> KeptAsync<T>(string file, Func<Task<T>> find)
    {
        if (File.Exists(file))
            return WexelJson.Read<T>(await File.ReadAllTextAsync(file));
        var found = await find();
        await File.WriteAllTextAsync(file, WexelJson.Write(found));
        return found;
    }

    /// <summary>Listens, knowing the script where there is one.</summary>
    internal static async Task<HeardBefore> HearAsync(string recording, ScriptText? script = null)
    {
        var probed = await Prober.ProbeAsync(recording, Path.GetFileName(recording), default);
        if (!probed.Is(out var facts, out var problem))
            throw new InvalidDataException(problem.Sentence);
        var pictures = Directory.CreateTempSubdirectory("wexel-marking-").FullName;
        var analysis = await RecordingAnalyser.AnalyseAsync(facts, recording, pictures, null, null, default);
        Directory.Delete(pictures, recursive: true);
        var (began, engine, words) = (Stopwatch.StartNew(), new PocketSphinx(), new List<HeardWord>());
        var folder = Directory.CreateTempSubdirectory("wexel-marking-").FullName;
        var hints = script is null ? null : await engine.PrepareAsync(script, Language, folder, default);
        foreach (var stretch in SpeechStretches.Find(analysis.Levels, facts.Length))
            words.AddRange(await SpeechListener.ListenAsync(engine, recording, facts, stretch, Language, hints, default));
        Directory.Delete(folder, recursive: true);
        return new HeardBefore(facts, analysis, new HeardSpeech(engine.Name, engine.Writes, words), began.Elapsed.TotalSeconds);
    }

    private static async Task<ReadBefore> ReadAsync(string recording, HeardBefore heard)
    {
        var began = Stopwatch.StartNew();
        var screen = await ScreenLooker.LookAsync(new Tesseract(), heard.Facts, recording, heard.Analysis, Language, null, default);
        return new ReadBefore(screen, began.Elapsed.TotalSeconds);
    }

    private const string Language = "en-GB";
}
