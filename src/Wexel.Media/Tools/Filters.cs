namespace Wexel.Media.Tools;

/// <summary>Which filters this ffmpeg was built with: some are left out of some builds.</summary>
public static class Filters
{
    private static readonly Lazy<Task<IReadOnlySet<string>>> Known = new(ListAsync);

    /// <summary>Their names; asked for once.</summary>
    /// <exception cref="ToolFailedException">ffmpeg does not start.</exception>
    public static Task<IReadOnlySet<string>> AllAsync() => Known.Value;

    /// <summary>The names in what <c>ffmpeg -filters</c> prints: flags, name, what goes in and comes out, what it is.</summary>
    public static IReadOnlySet<string> Read(string printed) =>
        printed
            .Split('\n')
            .Select(line => line.Split(' ', StringSplitOptions.RemoveEmptyEntries))
            .Where(words => words.Length > 2 && words[2].Contains("->", StringComparison.Ordinal))
            .Select(words => words[1])
            .ToHashSet();

    private static async Task<IReadOnlySet<string>> ListAsync()
    {
        var printed = "";
        await MediaTool.StreamAsync(
            ["-filters"],
            async (stream, cancel) => printed = await new StreamReader(stream).ReadToEndAsync(cancel),
            CancellationToken.None
        );
        return Read(printed);
    }
}
