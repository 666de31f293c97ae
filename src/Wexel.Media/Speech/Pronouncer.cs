using CliWrap;
using Wexel.Core.Speech;
using Wexel.Media.Tools;

namespace Wexel.Media.Speech;

/// <summary>Says how words are pronounced that stand in no dictionary, by Debian's espeak-ng.</summary>
/// <param name="tool">The program.</param>
public sealed class Pronouncer(string tool = "espeak-ng")
{
    private const int MostBytes = 8 * 1024 * 1024;
    private const int AtOnce = 2000;

    private static readonly ChildLimits Limits = new(1L << 30, TimeSpan.FromSeconds(60), TimeSpan.FromMinutes(2));

    /// <summary>Whether it is there.</summary>
    public bool IsThere => MediaTool.IsInstalled(tool);

    /// <summary>The phonemes of words, those that it can say.</summary>
    /// <param name="words">As they are written; figures are read out.</param>
    /// <param name="cancel">Ends it.</param>
    /// <exception cref="ToolFailedException">It ended with an error.</exception>
    public async Task<IReadOnlyDictionary<string, string>> SayAsync(IReadOnlyCollection<string> words, CancellationToken cancel)
    {
        var said = new Dictionary<string, string>();
        foreach (var some in words.Distinct().Chunk(AtOnce))
        {
            // A sentence each, so that each has a line of its own.
            var printed = await MediaTool.OutputAsync(
                tool,
                ["-v", "en-us", "-q", "--ipa", "--stdin"],
                MostBytes,
                Limits,
                cancel,
                PipeSource.FromString(string.Concat(some.Select(w => w.TrimEnd('.', '!', '?') + ".\n")))
            );
            var lines = printed.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
            if (lines.Length != some.Length)
                throw new ToolFailedException(tool, $"It said {lines.Length} words of {some.Length}.");
            foreach (var (word, ipa) in some.Zip(lines))
            {
                if (Phonemes.FromIpa(ipa) is { Length: > 0 } phonemes)
                    said[word] = phonemes;
            }
        }

        return said;
    }
}
