using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Speech;
using Wexel.Media.Tools;

namespace Wexel.Media.Speech;

/// <summary>Debian's pocketsphinx with its model of US English.</summary>
/// <param name="tool">The program.</param>
/// <param name="model">The folder with acoustic model, language model and dictionary.</param>
/// <param name="pronouncer">Says how words of a script are pronounced that the dictionary does not have; null for espeak-ng.</param>
public sealed class PocketSphinx(string tool = "pocketsphinx_continuous", string model = "/usr/share/pocketsphinx/model/en-us", Pronouncer? pronouncer = null)
    : ISpeechEngine
{
    private readonly Pronouncer _pronouncer = pronouncer ?? new Pronouncer();

    private const string English = "en";

    public string Name => "pocketsphinx, US English";

    public bool Writes => false;

    public bool Knows(string language) => LanguageTag.Base(language) == English;

    public Problem? Missing() =>
        MediaTool.IsInstalled(tool) && Directory.Exists(model)
            ? null
            : new Problem("speech-no-pocketsphinx", "This server has no pocketsphinx; whoever looks after it installs pocketsphinx and pocketsphinx-en-us.");

    /// <summary>A language model of the script's sentences, and a dictionary of its words: the engine's own entries, and for others what espeak-ng
    /// says.</summary>
    public async Task<SpeechHints?> PrepareAsync(ScriptText script, string language, string folder, CancellationToken cancel)
    {
        if (script.Words.Count == 0)
            return null;
        var written = script.Words.DistinctBy(w => w.Plain).ToDictionary(w => w.Plain, w => w.Text.Trim('"', '“', '”', '(', ')', ',', ';', ':'));
        var known = new Dictionary<string, List<string>>();
        await foreach (var line in File.ReadLinesAsync(Dictionary, cancel))
        {
            // “word AH B” and, where there are several ways, “word(2) AH B”.
            if (line.IndexOf(' ', StringComparison.Ordinal) is > 0 and var space && line[..space].Split('(')[0] is var word && written.ContainsKey(word))
                (known.TryGetValue(word, out var lines) ? lines : known[word] = []).Add(line);
        }

        var unknown = written.Keys.Where(w => !known.ContainsKey(w)).ToList();
        var said = unknown.Count > 0 && _pronouncer.IsThere ? await _pronouncer.SayAsync([.. unknown.Select(w => written[w])], cancel) : null;
        foreach (var word in unknown)
        {
            if (said?.GetValueOrDefault(written[word]) is { } phonemes)
                known[word] = [$"{word} {phonemes}"];
        }

        // What cannot be said is not listened for; the rest of its sentence is.
        var sentences = ScriptModel.Sentences(script).Select(s => (IReadOnlyList<string>)[.. s.Where(known.ContainsKey)]).Where(s => s.Count > 0).ToList();
        if (sentences.Count == 0)
            return null;
        var hints = new SpeechHints(Path.Combine(folder, "script.lm"), Path.Combine(folder, "script.dict"));
        await File.WriteAllTextAsync(hints.LanguageModel, ScriptModel.Write(sentences), cancel);
        await File.WriteAllLinesAsync(hints.Dictionary, known.OrderBy(k => k.Key, StringComparer.Ordinal).SelectMany(k => k.Value), cancel);
        return hints;
    }

    private string Dictionary => Path.Combine(model, "cmudict-en-us.dict");

    public async Task<IReadOnlyList<HeardWord>> ListenAsync(string sound, string language, SpeechHints? hints, ChildLimits limits, CancellationToken cancel)
    {
        var printed = await MediaTool.OutputAsync(
            tool,
            [
                "-infile",
                sound,
                "-time",
                "yes",
                "-hmm",
                Path.Combine(model, "en-us"),
                "-lm",
                hints?.LanguageModel ?? Path.Combine(model, "en-us.lm.bin"),
                "-dict",
                hints?.Dictionary ?? Dictionary,
            ],
            WordLines.MostBytes,
            limits,
            cancel
        );
        return WordLines.Read(tool, printed);
    }
}
