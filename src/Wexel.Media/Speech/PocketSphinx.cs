using Wexel.Core;
using Wexel.Core.Speech;
using Wexel.Media.Tools;

namespace Wexel.Media.Speech;

/// <summary>Debian's pocketsphinx with its model of US English.</summary>
/// <param name="tool">The program.</param>
/// <param name="model">The folder with acoustic model, language model and dictionary.</param>
public sealed class PocketSphinx(string tool = "pocketsphinx_continuous", string model = "/usr/share/pocketsphinx/model/en-us") : ISpeechEngine
{
    private const string English = "en";

    public string Name => "pocketsphinx, US English";

    public bool Writes => false;

    public bool Knows(string language) => language.Split('-')[0] == English;

    public Problem? Missing() =>
        MediaTool.IsInstalled(tool) && Directory.Exists(model)
            ? null
            : new Problem("speech-no-pocketsphinx", "This server has no pocketsphinx; whoever looks after it installs pocketsphinx and pocketsphinx-en-us.");

    public async Task<IReadOnlyList<HeardWord>> ListenAsync(string sound, string language, ChildLimits limits, CancellationToken cancel)
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
                Path.Combine(model, "en-us.lm.bin"),
                "-dict",
                Path.Combine(model, "cmudict-en-us.dict"),
            ],
            WordLines.MostBytes,
            limits,
            cancel
        );
        return WordLines.Read(tool, printed);
    }
}
