using System.Diagnostics;
using System.Globalization;
using System.Text.RegularExpressions;
using Wexel.Core.Speech;

namespace Wexel.Marking;

/// <summary>What is heard of ten minutes of speech of which is known when each word was spoken.</summary>
internal static partial class SpeechFigures
{
    private sealed record Spoken(double Start, double End, string Word);

    /// <summary>Measures, and prints what|value|budget for each figure.</summary>
    /// <param name="folder">With what speak.mjs made.</param>
    /// <param name="kept">Where what was heard is kept; it is heard anew where nothing is there.</param>
    internal static async Task TellAsync(string folder, string kept)
    {
        Directory.CreateDirectory(kept);
        var recording = Path.Combine(folder, "spoken.mkv");
        var script = ScriptText.Parse(await File.ReadAllTextAsync(Path.Combine(folder, "spoken.txt")));
        var spoken = File.ReadLines(Path.Combine(folder, "spoken.words.txt"))
            .Select(l => l.Split(' '))
            .Select(p => new Spoken(Number(p[0]), Number(p[1]), p[2]))
            .ToList();
        var without = await Known.KeptAsync(Path.Combine(kept, "spoken.heard.json"), () => Known.HearAsync(recording));
        var with = await Known.KeptAsync(Path.Combine(kept, "spoken.with-script.json"), () => Known.HearAsync(recording, script));
        var said = script.Words.Select(w => w.Plain).ToList();
        var length = without.Facts.Length.TotalSeconds;
        Row("Draft of ten minutes: time / its length", without.Seconds / length, "0.6");
        var (alone, known) = (Errors(said, without), Errors(said, with));
        Row("Word error rate of the draft, % (no limit; recorded speech of people is another)", 100 * alone.Rate, "");
        Row("Word error rate with the script, %", 100 * known.Rate, "");
        Row(
            "The same by NIST's sclite, apart by, points of %",
            Math.Max(await ApartAsync(said, without, alone, kept), await ApartAsync(said, with, known, kept)),
            "0.1"
        );
        Row("Errors with the script / without", known.Rate / alone.Rate, "0.334");
        var errors = StartErrors(ScriptAlignment.Of(script, with.Speech.Words), script, spoken);
        Row($"Script along the voice: error of word starts in the middle, ms ({errors.Count} words)", errors[errors.Count / 2], "100");
        Row("The same at the 95th percentile, ms", errors[(int)(errors.Count * 0.95)], "400");
    }

    private static WordErrors Errors(List<string> said, HeardBefore heard) => WordErrors.Of(said, [.. heard.Speech.Words.Select(w => WordList.Plain(w.Text))]);

    /// <summary>How far the starts of the script's words are from when they were spoken, in ms and in order; words that festival reads as others, such as
    /// figures, have no counterpart.</summary>
    private static List<double> StartErrors(ScriptAlignment aligned, ScriptText script, List<Spoken> spoken)
    {
        var (errors, next) = (new List<double>(), 0);
        for (var i = 0; i < script.Words.Count; i++)
        {
            var at = spoken.FindIndex(next, Math.Min(12, spoken.Count - next), s => WordList.Plain(s.Word) == script.Words[i].Plain);
            if (at < 0)
                continue;
            next = at + 1;
            if (aligned.Starts[i] is { } start)
                errors.Add(Math.Abs(start.TotalSeconds - spoken[at].Start) * 1000);
        }

        errors.Sort();
        return errors;
    }

    /// <summary>By how many points of per cent sclite of NIST's sctk counts otherwise.</summary>
    private static async Task<double> ApartAsync(List<string> said, HeardBefore heard, WordErrors ours, string kept)
    {
        var (reference, hypothesis) = (Path.Combine(kept, "said.trn"), Path.Combine(kept, "heard.trn"));
        await File.WriteAllTextAsync(reference, $"{string.Join(' ', said)} (one_1)\n");
        await File.WriteAllTextAsync(
            hypothesis,
            $"{string.Join(' ', heard.Speech.Words.Select(w => WordList.Plain(w.Text)).Where(w => w.Length > 0))} (one_1)\n"
        );
        using var sclite = Process.Start(
            new ProcessStartInfo("sctk", ["sclite", "-r", reference, "trn", "-h", hypothesis, "trn", "-i", "rm", "-o", "rsum", "stdout"])
            {
                RedirectStandardOutput = true,
            }
        )!;
        var printed = await sclite.StandardOutput.ReadToEndAsync();
        await sclite.WaitForExitAsync();
        // | Sum | sentences words | correct wrong missed added errors sentences |, as counts.
        var sum = Sum().Match(printed);
        if (!sum.Success)
            throw new InvalidDataException($"sclite printed no sum: {printed}");
        var counts = Digits().Matches(sum.Value).Select(m => Number(m.Value)).ToList();
        return Math.Abs((100 * ours.Rate) - (100 * counts[6] / counts[1]));
    }

    private static double Number(string text) => double.Parse(text, CultureInfo.InvariantCulture);

    private static void Row(string what, double value, string budget) =>
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{what}|{value:0.###}|{budget}"));

    [GeneratedRegex(@"\|\s*Sum\s*\|.*")]
    private static partial Regex Sum();

    [GeneratedRegex(@"\d+(\.\d+)?")]
    private static partial Regex Digits();
}
