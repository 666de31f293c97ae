using CliWrap;
using Wexel.Core.Captions;
using Wexel.Media.Tools;

namespace Wexel.Media.Translating;

/// <summary>Debian's apertium with the pairs of languages that are installed, also by way of others.</summary>
/// <param name="tool">The program.</param>
/// <param name="modes">Where its pairs lie, a file each: <c>eng-spa.mode</c>.</param>
public sealed class Apertium(string tool = "apertium", string modes = "/usr/share/apertium/modes") : ITranslator
{
    private const int MostBytes = 32 * 1024 * 1024;

    /// <summary>By more steps too little is left of what was said.</summary>
    private const int MostSteps = 3;

    private static readonly ChildLimits Limits = new(2L << 30, TimeSpan.FromMinutes(5), TimeSpan.FromMinutes(10));

    public string Name => "Apertium";

    public IReadOnlyList<string> Into(string from) => [.. Ways(from).Keys.Where(l => l != LanguageTag.Base(from)).Order(StringComparer.Ordinal)];

    public async Task<IReadOnlyList<string>> TranslateAsync(IReadOnlyList<string> sentences, string from, string to, CancellationToken cancel)
    {
        if (!Ways(from).TryGetValue(LanguageTag.Base(to), out var way))
            throw new ToolFailedException(tool, $"It knows no way from {from} to {to}.");
        var said = sentences.Where(s => !string.IsNullOrWhiteSpace(s)).ToList();
        IReadOnlyList<string> translated = said;
        foreach (var pair in way)
            translated = await StepAsync(translated, pair, cancel);
        var next = 0;
        return [.. sentences.Select(s => string.IsNullOrWhiteSpace(s) ? "" : translated[next++])];
    }

    /// <summary>An empty line between two sentences keeps them apart: without it, one would be read on into the next.</summary>
    private async Task<IReadOnlyList<string>> StepAsync(IReadOnlyList<string> sentences, string pair, CancellationToken cancel)
    {
        if (sentences.Count == 0)
            return [];
        var lines = sentences.Select(s => string.Join(' ', s.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)));
        // Words that it does not know come out as they went in, without a mark.
        var printed = await MediaTool.OutputAsync(
            tool,
            ["-u", "-d", Path.GetDirectoryName(modes)!, pair],
            MostBytes,
            Limits,
            cancel,
            PipeSource.FromString(string.Join("\n\n", lines) + "\n")
        );
        var translated = printed.ReplaceLineEndings("\n").Split("\n\n").Select(s => s.Trim()).ToList();
        return translated.Count == sentences.Count
            ? translated
            : throw new ToolFailedException(tool, $"It gave back {translated.Count} sentences of {sentences.Count}.");
    }

    /// <summary>The shortest way to each language that can be reached: the pairs to go through.</summary>
    private Dictionary<string, IReadOnlyList<string>> Ways(string from)
    {
        var ways = new Dictionary<string, IReadOnlyList<string>> { [LanguageTag.Base(from)] = [] };
        if (!MediaTool.IsInstalled(tool) || !Directory.Exists(modes))
            return ways;
        var pairs = Directory
            .EnumerateFiles(modes, "*.mode")
            .Select(f => Path.GetFileNameWithoutExtension(f))
            .Order(StringComparer.Ordinal)
            // Pairs of one region (eng_US) and those that mark or only take words apart are not needed.
            .Where(n => n.Split('-') is [{ Length: 2 or 3 }, { Length: 2 or 3 }])
            .Select(n => (Name: n, From: Tag(n.Split('-')[0]), To: Tag(n.Split('-')[1])))
            .Where(p => p is { From: not null, To: not null })
            .ToList();
        var reached = new List<string> { LanguageTag.Base(from) };
        for (var step = 0; step < MostSteps; step++)
        {
            var next = new List<string>();
            foreach (var pair in pairs.Where(p => reached.Contains(p.From!)))
            {
                if (ways.TryAdd(pair.To!, [.. ways[pair.From!], pair.Name]))
                    next.Add(pair.To!);
            }

            reached = next;
        }

        return ways;
    }

    private static string? Tag(string code) => LanguageCodes.Tag(code) is { } tag ? LanguageTag.Base(tag) : null;
}
