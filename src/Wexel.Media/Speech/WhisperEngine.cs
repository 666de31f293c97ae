using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Speech;
using Wexel.Media.Tools;

namespace Wexel.Media.Speech;

/// <summary>Whisper, with a model file that whoever looks after the server has put there (ggml, as whisper.cpp reads it).</summary>
/// <param name="model">The model file; null where nobody put one there, and it knows no language. One whose name ends in <c>.en</c> knows English
/// alone.</param>
/// <param name="command">What runs it: the program, and what stands before the model among its arguments.</param>
public sealed class WhisperEngine(string? model, IReadOnlyList<string> command) : ISpeechEngine
{
    private const string English = "en";

    /// <summary>What it needs beside the model itself.</summary>
    private const long Beside = 1L << 30;

    public string Name => $"Whisper, {Path.GetFileNameWithoutExtension(model)}";

    public bool Writes => true;

    public bool Knows(string language) =>
        model is not null
        && (
            LanguageTag.Base(language) == English
            || !Path.GetFileNameWithoutExtension(model).Split('-').Any(part => part.EndsWith(".en", StringComparison.Ordinal))
        );

    public Problem? Missing() =>
        File.Exists(model)
            ? null
            : new Problem(
                "speech-no-whisper",
                $"The Whisper model “{model}” is not there; whoever looks after this server puts it there, or takes the setting out."
            );

    /// <summary>It takes no dictionary and no language model.</summary>
    public Task<SpeechHints?> PrepareAsync(ScriptText script, string language, string folder, CancellationToken cancel) => Task.FromResult<SpeechHints?>(null);

    public async Task<IReadOnlyList<HeardWord>> ListenAsync(string sound, string language, SpeechHints? hints, ChildLimits limits, CancellationToken cancel)
    {
        var needed = Beside + (model is not null && File.Exists(model) ? 2 * new FileInfo(model).Length : 0);
        var printed = await MediaTool.OutputAsync(
            command[0],
            [.. command.Skip(1), model!, LanguageTag.Base(language), sound],
            WordLines.MostBytes,
            limits with
            {
                MemoryBytes = Math.Max(limits.MemoryBytes, needed),
            },
            cancel
        );
        return WordLines.Read(command[0], printed);
    }
}
