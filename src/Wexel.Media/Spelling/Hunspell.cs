using CliWrap;
using Wexel.Media.Tools;

namespace Wexel.Media.Spelling;

/// <summary>Debian's hunspell, with the dictionaries that are installed.</summary>
/// <param name="tool">The program.</param>
/// <param name="folder">Where the dictionaries lie.</param>
public sealed class Hunspell(string tool = "hunspell", string folder = "/usr/share/hunspell")
{
    private const int MostWords = 20_000;
    private const int MostBytes = 8 * 1024 * 1024;
    private const int MostProposals = 300;
    private const int MostInstead = 4;

    private static readonly ChildLimits Limits = new(1L << 30, TimeSpan.FromSeconds(30), TimeSpan.FromMinutes(1));

    /// <summary>The dictionary for a language: of its region, else of any; null where there is none.</summary>
    /// <param name="language">As a BCP 47 tag.</param>
    public string? Dictionary(string language)
    {
        if (!MediaTool.IsInstalled(tool) || !Directory.Exists(folder))
            return null;
        var wanted = language.Replace('-', '_');
        var names = Directory.EnumerateFiles(folder, "*.dic").Select(f => Path.GetFileNameWithoutExtension(f)).Order(StringComparer.Ordinal).ToList();
        return names.Find(n => n == wanted) ?? names.Find(n => n.Split('_')[0] == wanted.Split('_')[0]);
    }

    /// <summary>The words that the dictionary does not have, each with what it could be, the likeliest first.</summary>
    /// <param name="words">Single words.</param>
    /// <param name="dictionary">From <see cref="Dictionary"/>.</param>
    /// <param name="cancel">Ends it.</param>
    /// <exception cref="ToolFailedException">It ended with an error.</exception>
    public async Task<IReadOnlyDictionary<string, IReadOnlyList<string>>> UnknownAsync(IEnumerable<string> words, string dictionary, CancellationToken cancel)
    {
        var asked = words
            .Distinct()
            .Where(w => w.Length is > 1 and < 60 && !w.Any(c => char.IsControl(c) || char.IsDigit(c) || char.IsWhiteSpace(c)))
            .Take(MostWords);
        var listed = await AskAsync(["-l"], asked, dictionary, cancel);
        var unknown = listed.Distinct().ToDictionary(w => w, _ => (IReadOnlyList<string>)[]);
        // What a word could be takes long to find out; of a text that is in another language nobody asks for each. Each line begins so that no word is
        // taken for a command.
        foreach (var line in await AskAsync(["-a"], unknown.Keys.Take(MostProposals).Select(w => "^" + w), dictionary, cancel))
        {
            // “& word 3 0: one, two, three” has proposals (ispell's pipe, as hunspell(1) has it).
            var colon = line.IndexOf(": ", StringComparison.Ordinal);
            if (line is ['&', ' ', ..] && colon > 0 && line.Split(' ') is [_, var word, ..])
                unknown[word] = [.. line[(colon + 2)..].Split(", ").Select(s => s.Trim()).Take(MostInstead)];
        }

        return unknown;
    }

    private async Task<string[]> AskAsync(string[] how, IEnumerable<string> lines, string dictionary, CancellationToken cancel) =>
        (
            await MediaTool.OutputAsync(
                tool,
                [.. how, "-i", "utf-8", "-d", Path.Combine(folder, dictionary)],
                MostBytes,
                Limits,
                cancel,
                PipeSource.FromString(string.Join('\n', lines) + "\n")
            )
        ).Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
}
