using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Timing;
using Wexel.Core.Translating;

namespace Wexel.Core.Lessons;

/// <summary>The texts of a lesson that can be translated. What a lesson says elsewhere becomes one by a line here.</summary>
public static class LessonTexts
{
    /// <summary>What a lesson says of itself, in order: title, description and contents; none that are empty.</summary>
    /// <param name="lesson">The lesson.</param>
    public static IReadOnlyList<LessonText> All(LessonDocument lesson) =>
        [
            .. new[]
            {
                new LessonText(TextNames.Title, "Title", lesson.Title, DetailFields.LongestLine),
                new LessonText(TextNames.Description, "Description", lesson.Description, DetailFields.LongestText, true),
            }
                .Concat(
                    lesson.Sections.Select(s => new LessonText(
                        TextNames.Section(s.Id),
                        $"Section at {TimeCode.Brief(s.At)}",
                        s.Title,
                        SectionRules.LongestTitle
                    ))
                )
                .Where(t => t.Source.Length > 0),
        ];

    /// <summary>What is said, in order: a caption each.</summary>
    /// <param name="cues">The captions that are translated.</param>
    public static IReadOnlyList<LessonText> Said(IReadOnlyList<Cue> cues) =>
        [
            .. cues.Select(c => new LessonText(
                TextNames.Cue(c.Id),
                $"Caption at {TimeCode.Brief(c.Span.Start)}",
                TranslatedCues.Flat(c.Text),
                CaptionGuidelines.MostLines * CaptionGuidelines.LineLength
            )),
        ];

    /// <summary>The track that is translated: what is said in the lesson's own language, drafts last; null where there is none.</summary>
    /// <param name="lesson">The lesson.</param>
    public static CaptionTrack? Spoken(LessonDocument lesson) =>
        lesson
            .Captions.Where(t => t.Kind != TrackKind.Translation && LanguageTag.Alike(t.Language, lesson.Language))
            .OrderBy(t => t.State == TrackState.Draft)
            .FirstOrDefault();

    /// <summary>The track in another language: what somebody corrected first; null where there is none.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="language">As a BCP 47 tag.</param>
    public static CaptionTrack? In(LessonDocument lesson, string language) =>
        lesson.Captions.Where(t => t.Kind == TrackKind.Translation && t.Language == language).OrderBy(t => t.State == TrackState.Draft).FirstOrDefault();

    /// <summary>A lesson's texts with what is translated of them already.</summary>
    /// <param name="id">What names the lesson.</param>
    /// <param name="lesson">The lesson.</param>
    /// <param name="to">The language that is wanted.</param>
    public static TranslationFile File(string id, LessonWithCues lesson, string to)
    {
        var document = lesson.Document;
        var translated = document.In(to).Texts.ToDictionary(t => t.Of);
        var texts = All(document)
            .Select(t => new FiledText(t, translated.GetValueOrDefault(t.Id)?.Text, translated.GetValueOrDefault(t.Id) is { Draft: false }));
        if (Spoken(document) is { } spoken)
        {
            var track = In(document, to);
            var cues = track is null
                ? []
                : lesson.CuesOf(track).GroupBy(c => TextNames.Cue(c.Id)).ToDictionary(g => g.Key, g => TranslatedCues.Flat(g.First().Text));
            texts = texts.Concat(
                Said(lesson.CuesOf(spoken))
                    .Select(t => new FiledText(t, cues.GetValueOrDefault(t.Id), cues.ContainsKey(t.Id) && track!.State != TrackState.Draft))
            );
        }

        return new TranslationFile(id, document.Language, to, [.. texts]);
    }
}
