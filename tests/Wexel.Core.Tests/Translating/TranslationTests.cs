using CsCheck;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Lessons;
using Wexel.Core.Packages;
using Wexel.Core.Placing;
using Wexel.Core.Timing;
using Wexel.Core.Translating;

namespace Wexel.Core.Tests.Translating;

/// <summary>A lesson in another language: what comes back from a translator, what learners get, and two who change it at once.</summary>
public sealed class TranslationTests
{
    private static readonly LessonWithCues Lesson = XliffTextTests.Lesson;

    private static LessonDocument Document => Lesson.Document;

    private static XliffReading File(params (string Id, string Source, string? Target)[] units) =>
        new("lesson-1", "en-GB", "es-ES", [.. units.Select(u => new XliffUnit(u.Id, u.Source, u.Target))], []);

    private static IReadOnlyList<TranslationDifference> Found(XliffReading read, LessonWithCues? lesson = null) =>
        TranslationChanges.Find(read, LessonTexts.File("lesson-1", lesson ?? Lesson, "es-ES"));

    private static LessonWithCues With(params TranslatedText[] texts) =>
        Lesson with
        {
            Document = Document with { Translations = [new LessonTranslation("es-ES", texts)] },
        };

    [Fact]
    public void All_that_changed_between_sending_and_coming_back_is_named()
    {
        var lesson = With(new("description", "First.\nSecond.", "Primero.\nSegundo."), new("section.s 1", "Knots", "Nudos"));
        var found = Found(
            File(
                ("title", "Ropes", "Cuerdas"),
                ("description", "First. Second.", "Primero. Segundo."),
                ("section.s 1", "Knots", "Lazos"),
                ("section.s 1", "Knots", "Nuditos"),
                ("caption.c1", "Take the rope.", new string('x', 85)),
                ("caption.gone", "Away.", "Fuera.")
            ),
            lesson
        );
        found
            .Select(d => (d.Id, d.Change))
            .ShouldBe([
                ("title", TranslationChange.SourceChanged),
                ("description", TranslationChange.Same),
                ("section.s 1", TranslationChange.Otherwise),
                ("section.s 1", TranslationChange.Twice),
                ("caption.c1", TranslationChange.TooLong),
                ("caption.c2", TranslationChange.Missing),
                ("caption.gone", TranslationChange.Gone),
            ]);
        (found[0].Source, found[0].SourceThen, found[2].Here, found[2].Target).ShouldBe(("Ropes & <lines>", "Ropes", "Nudos", "Lazos"));
        found.Where(d => d.CanBeTaken).Select(d => d.Id).ShouldBe(["title", "section.s 1", "caption.c1"]);
        Found(File(("title", Document.Title, null)))[0].Change.ShouldBe(TranslationChange.Untranslated);
        Found(File(("title", Document.Title, "Cuerdas")))[0].Change.ShouldBe(TranslationChange.New);
    }

    [Fact]
    public void A_file_of_another_lesson_or_language_is_refused()
    {
        string? Said(XliffReading read) => TranslationChanges.Refusal(read, "lesson-1", Document.Language)?.Sentence;
        Said(File(("title", "x", "y"))).ShouldBeNull();
        Said(File() with { Lesson = "lesson-2" })!.ShouldContain("another lesson (lesson-2)");
        Said(File() with { To = null })!.ShouldContain("trgLang");
        Said(File() with { To = "en-GB" })!.ShouldContain("own language");
        Said(File() with { Problems = [new Problem("x", "Said before.")] }).ShouldBe("Said before.");
    }

    [Fact]
    public void What_is_taken_stands_beside_what_there_is()
    {
        var taken = new Dictionary<string, string> { ["title"] = " Cuerdas\n", ["caption.c1"] = "Toma la cuerda con las dos manos y tira de ella con fuerza." };
        var texts = TranslationChanges.Texts(
            With(new TranslatedText("section.s 1", "Knots", "Nudos")).Document.In("es-ES"),
            LessonTexts.All(Document),
            taken,
            false
        );
        texts.Texts.Select(t => (t.Of, t.Source, t.Text)).ShouldBe([("section.s 1", "Knots", "Nudos"), ("title", "Ropes & <lines>", "Cuerdas")]);
        var spoken = Lesson.CuesOf(Document.Captions[0]);
        var cues = TranslationChanges.Cues(spoken, [spoken[1] with { Text = "Tira." }], taken);
        cues.Select(c => (c.Id, c.Span)).ShouldBe(spoken.Select(c => (c.Id, c.Span)));
        cues[0].Text.Split('\n').ShouldAllBe(line => line.Length <= CaptionGuidelines.LineLength);
        cues[1].Text.ShouldBe("Tira.");
    }

    /// <summary>No word of a translation is lost or moved before another, each caption stands where its original does, and each sentence goes to the machine
    /// once.</summary>
    [Fact]
    public void Every_word_of_a_translation_is_laid_over_the_captions_in_order() =>
        Gen.Select(Gen.String[Gen.Char["ab .?\n"], 0, 30].Array[1, 12], Gen.Int[1, 9].Array[1, 40])
            .Sample(
                (texts, lengths) =>
                {
                    var cues = texts.Select((t, i) => new Cue(new TimeRange(Ms.Of(i * 1500), Ms.Of((i * 1500) + 1000)), t, Id: $"c{i}")).ToList();
                    var sentences = TranslatedCues.Sentences(cues);
                    Words(string.Join(' ', sentences)).ShouldBe(Words(string.Join(' ', texts)));
                    var next = 0;
                    var translated = sentences
                        .Select((_, i) => string.Join(' ', Enumerable.Range(0, lengths[i % lengths.Length]).Select(_ => $"w{next++}")))
                        .ToList();
                    var laid = TranslatedCues.Lay(cues, translated);
                    laid.SelectMany(c => Words(c.Text)).ShouldBe(translated.SelectMany(Words));
                    laid.Select(c => (c.Id, c.Span)).ShouldBeSubsetOf(cues.Select(c => (c.Id, c.Span)));
                    laid.Select(c => c.Span.Start).ShouldBeInOrder();
                }
            );

    [Fact]
    public void A_sentence_over_two_captions_is_parted_where_its_original_is()
    {
        Cue Part(int at, string text) => new(new TimeRange(Ms.Of(at), Ms.Of(at + 900)), text, Id: $"c{at}");
        var cues = new[] { Part(0, "Take the rope in"), Part(1000, "both hands. Then"), Part(2000, "pull.") };
        TranslatedCues.Sentences(cues).ShouldBe(["Take the rope in both hands.", "Then pull."]);
        TranslatedCues
            .Lay(cues, ["Toma la cuerda con ambas manos.", "Luego tira."])
            .Select(c => c.Text)
            .ShouldBe(["Toma la cuerda con", "ambas manos. Luego", "tira."]);
        Should.Throw<ArgumentException>(() => TranslatedCues.Lay(cues, ["One."]));
    }

    /// <summary>What a machine wrote is not for learners unless somebody says so, and is called a draft there.</summary>
    [Fact]
    public void Learners_get_what_somebody_wrote_and_drafts_only_where_they_are_released()
    {
        var draft = new LessonTranslation("es-ES", [new("title", "Ropes", "Cuerdas", true), new("section.s 1", "Knots", "Nudos")]);
        PlayerTranslation? Shown(LessonTranslation t, DetailSet? said = null) =>
            PlayerTranslation.Of(t, Document.Sections, Document.Said, said ?? Document.Said);
        var shown = Shown(draft)!;
        (shown.Title, shown.Sections.ShouldHaveSingleItem(), shown.Draft).ShouldBe((null, "Nudos", false));
        shown = Shown(draft with { GoesOut = true })!;
        (shown.Title, shown.Draft).ShouldBe(("Cuerdas", true));
        // A title that one outlet alone has is another text.
        Shown(draft with { GoesOut = true }, Document.Said with { Title = "Ropes, short" })!.Title.ShouldBeNull();
        Shown(draft with { Texts = [draft.Texts[0]] }).ShouldBeNull();
    }

    [Fact]
    public void What_must_be_said_of_a_sound_stands_behind_the_description_in_every_language()
    {
        var lesson = Document with
        {
            Description = "How to tie.",
            Sounds = [Mixing.Sounds.Bed(0, 5_000) with { Sound = Mixing.Sounds.Music with { Author = "Elin Moor", Licence = "CC-BY-4.0" } }],
        };
        var spanish = new LessonTranslation("es-ES", [new("description", "How to tie.", "Como atar.")]);
        PlayerTranslation.Of(spanish, lesson.Sections, lesson.Said, DetailLayers.Merged(lesson.Said))!.Description.ShouldBe("Como atar.\n\n" + lesson.Credits);
    }

    [Fact]
    public void A_draft_that_nobody_gets_leaves_the_lesson_as_it_is_for_learners()
    {
        var key = LessonKeys.DocumentKey(Document);
        LessonKeys.DocumentKey(With(new TranslatedText("title", "Ropes", "Cuerdas", true)).Document).ShouldBe(key);
        LessonKeys.DocumentKey(With(new TranslatedText("title", "Ropes", "Cuerdas")).Document).ShouldNotBe(key);
    }

    [Fact]
    public void Two_who_translate_different_texts_both_keep_their_work()
    {
        TranslatedText title = new("title", "Ropes", "Cuerdas"),
            section = new("section.s 1", "Knots", "Nudos");
        var merge = LessonMerge.Of(With(title), With(title, section), With(title with { Text = "Cabos" }));
        merge.Clashes.ShouldBeEmpty();
        merge.Document.Translations.ShouldHaveSingleItem().Texts.ShouldBe([title with { Text = "Cabos" }, section], ignoreOrder: true);
        merge = LessonMerge.Of(With(title), With(title with { Text = "Sogas" }), With(title with { Text = "Cabos" }));
        merge.Clashes.ShouldBe(["a text in es-ES"]);
        merge.Document.Translations[0].Texts[0].Text.ShouldBe("Cabos");
    }

    [Fact]
    public void Texts_of_sections_that_are_gone_go_and_languages_stand_once()
    {
        var lesson = With(new("section.away", "x", "y"), new("title", "Ropes", "Cuerdas\n de  lino")).Document;
        LessonRules.Tidy(lesson, TimeSpan.FromMinutes(1), new FrameRate(25, 1)).Translations[0].Texts.ShouldBe([new("title", "Ropes", "Cuerdas de lino")]);
        var map = TimeMap.Of(new FrameRate(25, 1), TimeSpan.FromMinutes(1), []);
        LessonRules.Refusal(lesson, map).ShouldBeNull();
        LessonRules.Refusal(lesson with { Translations = [.. lesson.Translations, .. lesson.Translations] }, map)!.Sentence.ShouldContain("at most once");
        LessonRules.Refusal(lesson with { Translations = [new("no-language-at-all", [])] }, map)!.Sentence.ShouldContain("is no language");
        LessonRules.Describe(Document, lesson).ShouldBe("translation es-ES added");
        LessonRules.Describe(lesson, Document).ShouldBe("translation es-ES removed");
    }

    private static string[] Words(string text) => text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
}
