using Wexel.Core;

namespace Wexel.Cli;

/// <summary>What was brought in cannot be used; the message is one sentence for people.</summary>
internal sealed class UnusableInputException(string sentence) : Exception(sentence);

/// <summary>The command was called in a way that it does not know; the message is one sentence for people.</summary>
internal sealed class MisusedException(string sentence) : Exception(sentence);

/// <summary>Reads the files that were named on the command line.</summary>
internal static class InputFile
{
    /// <summary>What stands in a text file.</summary>
    /// <exception cref="UnusableInputException">The file cannot be read, or is no text.</exception>
    internal static string Text(string path) =>
        PlainText.Decode(Read(path, File.ReadAllBytes)) ?? throw new UnusableInputException($"“{path}” is no text file.");

    /// <exception cref="UnusableInputException">The file cannot be read.</exception>
    internal static T Read<T>(string path, Func<string, T> read)
    {
        try
        {
            return read(path);
        }
        catch (Exception failed) when (failed is IOException or UnauthorizedAccessException)
        {
            throw new UnusableInputException($"“{path}” cannot be read: {failed.Message}");
        }
    }
}
