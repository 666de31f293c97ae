using System.Globalization;
using System.Text;
using Whisper.net;

// Listens to one sound with a Whisper model, and prints a line a word: the word, its start and end in seconds, and how sure it is.
// A process of its own, since a model takes much memory and its native code may die.
if (args is not [var model, var language, var sound])
{
    Console.Error.WriteLine("Usage: Wexel.Whisper MODEL LANGUAGE SOUND.wav");
    return 2;
}

try
{
    using var factory = WhisperFactory.FromPath(model);
    await using var processor = factory.CreateBuilder().WithLanguage(language).WithTokenTimestamps().WithProbabilities().Build();
    await using var wave = File.OpenRead(sound);
    await foreach (var segment in processor.ProcessAsync(wave))
    {
        foreach (var (word, start, end, sure) in Words(segment))
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{word} {start:F2} {end:F2} {sure:F4}"));
    }

    return 0;
}
catch (Exception failed)
    when (failed is WhisperModelLoadException or WhisperProcessingException or IOException or InvalidDataException or NotSupportedException)
{
    Console.Error.WriteLine(failed.Message);
    return 1;
}

// A word is as many tokens as stand before the next space; its times are those of its first and last, and it is as sure as its least sure one.
static IEnumerable<(string Word, double Start, double End, float Sure)> Words(SegmentData segment)
{
    var (word, start, end, sure) = (new StringBuilder(), 0L, 0L, 1f);
    foreach (var token in segment.Tokens)
    {
        // What is no text stands in brackets: where a stretch begins, and times.
        if (token.Text is not { Length: > 0 } text || text.StartsWith("[_", StringComparison.Ordinal))
            continue;
        if (word.Length > 0 && char.IsWhiteSpace(text[0]))
        {
            yield return (word.ToString(), start / 100.0, end / 100.0, sure);
            word.Clear();
        }

        if (word.Length == 0)
            (start, sure) = (token.Start, 1f);
        word.Append(string.Concat(text.Where(c => !char.IsWhiteSpace(c))));
        (end, sure) = (Math.Max(token.End, start), Math.Min(sure, token.Probability));
    }

    if (word.Length > 0)
        yield return (word.ToString(), start / 100.0, end / 100.0, sure);
}
