using Wexel.Core.Captions;

namespace Wexel.Core.Translating;

/// <summary>What became of a text that comes back from a translator.</summary>
public enum TranslationChange
{
    /// <summary>It is as it is here.</summary>
    Same,

    /// <summary>There was no translation of it.</summary>
    New,

    /// <summary>It was translated otherwise here.</summary>
    Otherwise,

    /// <summary>What was translated says something else here now.</summary>
    SourceChanged,

    /// <summary>It is longer than there is room.</summary>
    TooLong,

    /// <summary>It stands in the file again, with another translation; the first one counts.</summary>
    Twice,

    /// <summary>The file has no translation of it.</summary>
    Untranslated,

    /// <summary>The lesson has it, and the file does not.</summary>
    Missing,

    /// <summary>The file has it, and the lesson no longer does.</summary>
    Gone,
}

/// <summary>A text that comes back.</summary>
/// <param name="Id">Names it.</param>
/// <param name="Name">What it is, in a few words.</param>
/// <param name="Change">What became of it.</param>
/// <param name="Source">What it says here; what the file says where it is gone.</param>
/// <param name="SourceThen">What it said when the file was made; null where it still says that.</param>
/// <param name="Here">Its translation here; null for none.</param>
/// <param name="Target">Its translation in the file; null for none.</param>
public sealed record TranslationDifference(
    string Id,
    string Name,
    TranslationChange Change,
    string Source,
    string? SourceThen = null,
    string? Here = null,
    string? Target = null
)
{
    /// <summary>Whether it can be taken.</summary>
    public bool CanBeTaken => Change is TranslationChange.New or TranslationChange.Otherwise or TranslationChange.SourceChanged or TranslationChange.TooLong;
}

/// <summary>Holds an XLIFF file that comes back against the lesson as it is now, and takes what is wanted of it.</summary>
public static class TranslationChanges
{
    /// <summary>Why a file cannot be taken at all, or null.</summary>
    /// <param name="read">The file.</param>
    /// <param name="id">What names the lesson.</param>
    /// <param name="language">The lesson’s own, as a BCP 47 tag.</param>
    public static Problem? Refusal(XliffReading read, string id, string language) =>
        read.Problems is [var problem, ..] ? problem
        : read.Lesson != id
            ? new Problem(
                "xliff-other-lesson",
                $"The file belongs to another lesson ({Problem.Shown(read.Lesson)}); bring it back there, or send this lesson's own file to the translator."
            )
        : read.To is null ? new Problem("xliff-no-language", "The file does not say into which language it is translated (trgLang).")
        : read.To == language ? new Problem("xliff-same-language", $"The file says that it is translated into {read.To}, which is the lesson’s own language.")
        : null;

    /// <summary>All texts of the file and of the lesson, in the lesson's order; what the lesson no longer has comes last.</summary>
    /// <param name="read">The file; not refused.</param>
    /// <param name="now">The lesson's texts, and what is translated of them.</param>
    public static IReadOnlyList<TranslationDifference> Find(XliffReading read, TranslationFile now)
    {
        var found = new List<TranslationDifference>();
        var units = read.Units.GroupBy(u => u.Id).ToDictionary(g => g.Key, g => g.ToList());
        foreach (var text in now.Texts)
        {
            var (id, name, source) = (text.Text.Id, text.Text.Name, text.Text.Source);
            if (!units.TryGetValue(id, out var same))
            {
                found.Add(new(id, name, TranslationChange.Missing, source, Here: text.Translation));
                continue;
            }

            var (first, then) = (same[0], Alike(same[0].Source, source) ? null : same[0].Source);
            var change =
                first.Target is null ? TranslationChange.Untranslated
                : text.Translation is { } here && Alike(here, first.Target) && then is null ? TranslationChange.Same
                : then is not null ? TranslationChange.SourceChanged
                : first.Target.EnumerateRunes().Count() > text.Text.Most ? TranslationChange.TooLong
                : text.Translation is null ? TranslationChange.New
                : TranslationChange.Otherwise;
            found.Add(new(id, name, change, source, then, text.Translation, first.Target));
            found.AddRange(
                same.Skip(1)
                    .Where(u => u.Target is not null && u.Target != first.Target)
                    .Select(u => new TranslationDifference(id, name, TranslationChange.Twice, source, null, text.Translation, u.Target))
            );
        }

        var known = now.Texts.Select(t => t.Text.Id).ToHashSet();
        found.AddRange(
            read.Units.Where(u => !known.Contains(u.Id))
                .DistinctBy(u => u.Id)
                .Select(u => new TranslationDifference(u.Id, "What is gone", TranslationChange.Gone, u.Source, null, null, u.Target))
        );
        return found;
    }

    /// <summary>A translation with those texts that are taken.</summary>
    /// <param name="was">The translation as it is.</param>
    /// <param name="texts">The lesson’s texts.</param>
    /// <param name="taken">The translations, by the texts' names.</param>
    /// <param name="draft">Whether a machine wrote them.</param>
    public static LessonTranslation Texts(LessonTranslation was, IReadOnlyList<LessonText> texts, IReadOnlyDictionary<string, string> taken, bool draft)
    {
        var now = was.Texts.ToDictionary(t => t.Of);
        foreach (var text in texts)
        {
            if (taken.GetValueOrDefault(text.Id) is { Length: > 0 } target)
                now[text.Id] = new TranslatedText(text.Id, text.Source, text.Tidy(target), draft);
        }

        return was with
        {
            Texts = [.. now.Values],
        };
    }

    /// <summary>The captions of a language with those that are taken; a caption that has no translation is not there.</summary>
    /// <param name="spoken">The captions that are translated.</param>
    /// <param name="track">The captions in the language as they are.</param>
    /// <param name="taken">The translations, by the texts' names.</param>
    public static IReadOnlyList<Cue> Cues(IReadOnlyList<Cue> spoken, IReadOnlyList<Cue> track, IReadOnlyDictionary<string, string> taken)
    {
        var written = spoken
            .Where(c => taken.GetValueOrDefault(TextNames.Cue(c.Id)) is { Length: > 0 })
            .Select(c => TranslatedCues.With(c, taken[TextNames.Cue(c.Id)]))
            .ToList();
        var names = written.Select(c => c.Id).ToHashSet();
        return [.. track.Where(c => !names.Contains(c.Id)).Concat(written).OrderBy(c => c.Span.Start)];
    }

    /// <summary>What changed between two revisions, in a few words each.</summary>
    internal static IEnumerable<string> Describe(IReadOnlyList<LessonTranslation> before, IReadOnlyList<LessonTranslation> after)
    {
        var was = before.ToDictionary(t => t.Language);
        foreach (var translation in after)
        {
            if (!was.Remove(translation.Language, out var old))
                yield return $"translation {translation.Language} added";
            else if (!translation.Equals(old))
                yield return $"translation {translation.Language}";
        }

        foreach (var gone in was.Keys)
            yield return $"translation {gone} removed";
    }

    /// <summary>Whether two texts are the same but for spaces and line ends, which tools change.</summary>
    private static bool Alike(string one, string other) =>
        one.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries).SequenceEqual(other.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
}
