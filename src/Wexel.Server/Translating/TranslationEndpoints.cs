using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Lessons;
using Wexel.Core.Naming;
using Wexel.Core.Translating;
using Wexel.Media.Tools;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Translating;

/// <param name="Id">Names the text.</param>
/// <param name="Name">What it is, in a few words.</param>
/// <param name="Source">What it says.</param>
/// <param name="Lines">Whether it may have several lines.</param>
/// <param name="Most">The most characters of a translation.</param>
internal sealed record TextView(string Id, string Name, string Source, bool Lines, int Most);

/// <param name="Machine">What translates; null where nothing on this server can from the lesson's language.</param>
/// <param name="Into">The languages into which it can.</param>
/// <param name="Texts">What there is to translate.</param>
/// <param name="Captions">How many captions there are to translate.</param>
internal sealed record TranslatingView(string? Machine, IReadOnlyList<string> Into, IReadOnlyList<TextView> Texts, int Captions);

/// <param name="Language">The language of the file, as a BCP 47 tag.</param>
/// <param name="Differences">All that is in it, and what is not.</param>
internal sealed record XliffComparison(string Language, IReadOnlyList<TranslationDifference> Differences);

/// <param name="Id">Names the text.</param>
/// <param name="Text">Its translation.</param>
internal sealed record TakenText(string Id, string Text);

/// <param name="Texts">The translations that are taken.</param>
/// <param name="FileName">The file that they came in.</param>
internal sealed record TakeTranslationRequest(IReadOnlyList<TakenText> Texts, string FileName);

/// <summary>A lesson in other languages: drafts by a machine, files for translators and back.</summary>
internal static class TranslationEndpoints
{
    internal static void MapTranslations(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/lessons/{id:guid}/translations");
        group.MapGet("", ViewAsync).WithName("Translations");
        group.MapPost("{language}/draft", DraftAsync).WithName("DraftTranslation");
        group.MapGet("{language}/file.xlf", FileAsync).WithName("TranslationFile").ExcludeFromDescription();
        group.MapPut("file", CompareAsync).WithName("CompareTranslation").Accepts<Stream>("application/octet-stream");
        group.MapPost("{language}", TakeAsync).WithName("TakeTranslation");
    }

    private static async Task<Results<Ok<TranslatingView>, ProblemHttpResult>> ViewAsync(Guid id, LessonTextReader reader, CancellationToken cancel)
    {
        if (await reader.ReadAsync(id, cancel) is not { } lesson)
            return Problems.NotThere("lesson");
        var (translator, into) = reader.Translator(lesson.Document.Language);
        return TypedResults.Ok(
            new TranslatingView(
                translator?.Name,
                into,
                [.. LessonTexts.All(lesson.Document).Select(t => new TextView(t.Id, t.Name, t.Source, t.Lines, t.Most))],
                LessonTexts.Spoken(lesson.Document) is { } spoken ? lesson.CuesOf(spoken).Count : 0
            )
        );
    }

    /// <summary>Translates what nobody has translated; what somebody wrote or corrected stays. Ends where the one who asks goes away.</summary>
    private static async Task<Results<Ok<TranslatedLesson>, ProblemHttpResult>> DraftAsync(
        Guid id,
        string language,
        LessonTextReader reader,
        CaptionStore captions,
        CancellationToken cancel
    )
    {
        var (lesson, to, refused) = await FindAsync(id, language, reader, cancel);
        if (lesson is null)
            return refused!;
        var (translator, into) = reader.Translator(lesson.Document.Language);
        if (translator is null || !into.Contains(LanguageTag.Base(to)))
            return Problems.Answer(
                new Problem(
                    "translation-no-way",
                    $"Nothing on this server translates from {lesson.Document.Language} into {to}; whoever looks after it can install a pair for Apertium.",
                    "language"
                )
            );
        try
        {
            return TypedResults.Ok(await new MachineTranslation(translator, captions).DraftAsync(lesson, to, cancel));
        }
        catch (ToolFailedException failed)
        {
            return Problems.Answer(
                new Problem("translation-failed", $"The machine could not translate it: {failed.Said}. Try again, or send it to a translator.")
            );
        }
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> FileAsync(
        Guid id,
        string language,
        LessonTextReader reader,
        CancellationToken cancel
    )
    {
        var (lesson, to, refused) = await FindAsync(id, language, reader, cancel);
        if (lesson is null)
            return refused!;
        if (to == lesson.Document.Language)
            return Problems.Answer(new Problem("translation-same", $"{to} is the lesson’s own language; choose another.", "language"));
        return TypedResults.File(
            Encoding.UTF8.GetBytes(XliffText.Write(LessonTexts.File(id.ToString(), lesson, to))),
            XliffText.MediaType,
            $"{FileName.Safe(lesson.Document.Title, "lesson")}-{to}{XliffText.Ending}"
        );
    }

    /// <summary>Reads a file that came back, and says what it would change; nothing is changed yet.</summary>
    private static async Task<Results<Ok<XliffComparison>, ProblemHttpResult>> CompareAsync(
        Guid id,
        HttpRequest request,
        LessonTextReader reader,
        CancellationToken cancel
    )
    {
        if (await reader.ReadAsync(id, cancel) is not { } lesson)
            return Problems.NotThere("lesson");
        request.TakeAtMost(XliffText.LargestBytes);
        using var bytes = new MemoryStream();
        await request.Body.CopyToAsync(bytes, cancel);
        var read = XliffText.Read(bytes.ToArray());
        if (TranslationChanges.Refusal(read, id.ToString(), lesson.Document.Language) is { } refused)
            return Problems.Answer(refused);
        return TypedResults.Ok(new XliffComparison(read.To!, TranslationChanges.Find(read, LessonTexts.File(id.ToString(), lesson, read.To!))));
    }

    /// <summary>What the lesson is with translations that somebody takes; whoever asks puts it into the lesson, as any other change.</summary>
    private static async Task<Results<Ok<TranslatedLesson>, ProblemHttpResult>> TakeAsync(
        Guid id,
        string language,
        TakeTranslationRequest request,
        LessonTextReader reader,
        CaptionStore captions,
        CancellationToken cancel
    )
    {
        var (lesson, to, refused) = await FindAsync(id, language, reader, cancel);
        if (lesson is null)
            return refused!;
        var taken = request.Texts.DistinctBy(t => t.Id).ToDictionary(t => t.Id, t => t.Text);
        var texts = TranslationChanges.Texts(lesson.Document.In(to), LessonTexts.All(lesson.Document), taken, false);
        CaptionTrack? track = null;
        if (LessonTexts.Spoken(lesson.Document) is { } spoken)
        {
            var was = LessonTexts.In(lesson.Document, to);
            var cues = TranslationChanges.Cues(lesson.CuesOf(spoken), was is null ? [] : lesson.CuesOf(was), taken);
            if (cues.Count > 0)
            {
                track = was is null ? await captions.AddAsync(cues, to, request.FileName, cancel) : was.With(cues);
                await captions.KeepAsync(cues, cancel);
                track = track with { Kind = TrackKind.Translation, State = TrackState.Corrected, GoesOut = false };
            }
        }

        return TypedResults.Ok(new TranslatedLesson(texts, track));
    }

    /// <summary>A lesson and the language into which it is translated, or why there is none.</summary>
    private static async Task<(LessonWithCues? Lesson, string To, ProblemHttpResult? Refused)> FindAsync(
        Guid id,
        string language,
        LessonTextReader reader,
        CancellationToken cancel
    )
    {
        if (LanguageTag.Parse(language) is not { } to)
            return (
                null,
                "",
                Problems.Answer(
                    new Problem("translation-no-language", $"“{Problem.Shown(language)}” is no language; write it such as es or pt-BR.", "language")
                )
            );
        return await reader.ReadAsync(id, cancel) is { } lesson ? (lesson, to, null) : (null, to, Problems.NotThere("lesson"));
    }
}
