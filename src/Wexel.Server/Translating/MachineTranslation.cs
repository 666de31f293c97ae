using Wexel.Core.Captions;
using Wexel.Core.Lessons;
using Wexel.Core.Translating;
using Wexel.Media.Translating;
using Wexel.Server.Shelves;

namespace Wexel.Server.Translating;

/// <summary>Has a machine write a draft of a lesson in another language.</summary>
internal sealed class MachineTranslation(ITranslator translator, CaptionStore captions)
{
    /// <summary>Translates what nobody has translated or what was written otherwise since; what somebody wrote or corrected stays.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="to">The language, as a BCP 47 tag.</param>
    /// <param name="cancel">Ends it.</param>
    internal async Task<TranslatedLesson> DraftAsync(LessonWithCues lesson, string to, CancellationToken cancel)
    {
        var document = lesson.Document;
        var had = document.In(to).Texts.Where(t => !t.Draft).Select(t => t.Of).ToHashSet();
        var wanted = LessonTexts.All(document).Where(t => !had.Contains(t.Id)).ToList();
        // A description is translated line by line, so that its paragraphs stay.
        var lines = wanted.Select(t => t.Source.Split('\n')).ToList();
        var spoken = LessonTexts.Spoken(document);
        IReadOnlyList<Cue> cues = spoken is null ? [] : lesson.CuesOf(spoken);
        var sentences = TranslatedCues.Sentences(cues);
        var translated = await translator.TranslateAsync([.. lines.SelectMany(l => l), .. sentences], document.Language, to, cancel);
        var texts = new Dictionary<string, string>();
        var next = 0;
        foreach (var (text, count) in wanted.Zip(lines, (t, l) => (t, l.Length)))
        {
            texts[text.Id] = string.Join('\n', translated.Skip(next).Take(count));
            next += count;
        }

        var translation = TranslationChanges.Texts(document.In(to), wanted, texts, true);
        var laid = TranslatedCues.Lay(cues, [.. translated.Skip(next)]);
        if (laid.Count == 0)
            return new TranslatedLesson(translation, null);
        // What somebody corrected is kept, and the draft is a track of its own beside it.
        var draft = document.Captions.FirstOrDefault(t => t is { Kind: TrackKind.Translation, State: TrackState.Draft } && t.Language == to);
        var track = draft?.With(laid) ?? await captions.AddAsync(laid, to, translator.Name, cancel);
        await captions.KeepAsync(laid, cancel);
        return new TranslatedLesson(translation, track with { Kind = TrackKind.Translation, State = TrackState.Draft });
    }
}
