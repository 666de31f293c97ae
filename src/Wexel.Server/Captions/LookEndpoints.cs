using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Speech;
using Wexel.Data;
using Wexel.Media.Spelling;
using Wexel.Media.Tools;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.Speech;

namespace Wexel.Server.Captions;

/// <summary>What somebody should look at in a track.</summary>
/// <param name="Findings">What breaks a guideline.</param>
/// <param name="Corrections">Words that could be written otherwise.</param>
/// <param name="Left">What somebody decided to leave as it is: a caption’s name, a colon, and the word or what is broken.</param>
/// <param name="NoSpelling">Why spelling was not looked at, a sentence; null where it was.</param>
internal sealed record TextLook(
    IReadOnlyList<GuidelineFinding> Findings,
    IReadOnlyList<Correction> Corrections,
    IReadOnlyList<string> Left,
    string? NoSpelling
);

internal sealed record LeftRequest(IReadOnlyList<string> Left);

/// <summary>Looks a track through for guidelines, words and spelling.</summary>
internal static class LookEndpoints
{
    private const int MostLeft = 5000;
    private const int LongestLeft = 200;

    /// <summary>What stands in place of a track's hash for the draft, before it is one.</summary>
    private const string Draft = "draft";

    internal static void MapLooks(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/lessons/{id:guid}/captions");
        group.MapGet("{hash}/look", LookAsync).WithName("LookAtCaptions");
        group.MapPut("left", LeaveAsync).WithName("LeaveInCaptions");
    }

    private static async Task<Results<Ok<TextLook>, ProblemHttpResult>> LookAsync(
        Guid id,
        string hash,
        string language,
        WexelDb db,
        LessonSaver saver,
        LessonReels reels,
        CaptionStore captions,
        DraftReader drafts,
        Hunspell hunspell,
        CancellationToken cancel
    )
    {
        if (LanguageTag.Parse(language) is not { } known)
            return Problems.Answer(new Problem("captions-no-language", $"“{Problem.Shown(language)}” is no language; write it such as en-GB.", "language"));
        if (await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel) is not { } lesson)
            return Problems.NotThere("lesson");
        var said = hash == Draft ? (await drafts.ReadAsync(id, cancel))?.Cues : await captions.ReadAsync(hash, cancel);
        if (said is not { } cues)
            return Problems.NotThere("caption file");
        var document = (await saver.CurrentAsync(lesson, cancel))!;
        if (await reels.TimesAsync(document.Recordings, cancel) is not { } reel)
            return Problems.NotThere("recording");
        var guidelines = document.Details.ForChildren == true ? CaptionGuidelines.Children : CaptionGuidelines.Adults;
        var house = HouseShelf.Words(await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel));
        var (unknown, noSpelling) = await SpellAsync(cues, known, hunspell, cancel);
        return TypedResults.Ok(
            new TextLook(
                new GuidelineCheck(guidelines, reel.Grid, document.Cuts, reel.Length).Find(cues),
                CaptionCorrections.Find(cues, house, LanguageTag.Base(known) == "en", unknown),
                lesson.LeftInText,
                noSpelling
            )
        );
    }

    /// <summary>The words of a track that no dictionary has, plain, with what each could be.</summary>
    private static async Task<(IReadOnlyDictionary<string, IReadOnlyList<string>> Unknown, string? Why)> SpellAsync(
        IReadOnlyList<Cue> cues,
        string language,
        Hunspell hunspell,
        CancellationToken cancel
    )
    {
        var none = new Dictionary<string, IReadOnlyList<string>>();
        if (hunspell.Dictionary(language) is not { } dictionary)
            return (none, $"Spelling is not looked at: this server has no dictionary for “{language}”.");
        try
        {
            // A word that is right with a capital is no slip: names begin with one wherever they stand.
            var words = cues.SelectMany(c => WordList.PlainWords(c.Text)).Distinct().ToList();
            var unknown = await hunspell.UnknownAsync(words, dictionary, cancel);
            var capitals = await hunspell.UnknownAsync(unknown.Keys.Select(w => char.ToUpperInvariant(w[0]) + w[1..]), dictionary, cancel);
            return (unknown.Where(w => capitals.ContainsKey(char.ToUpperInvariant(w.Key[0]) + w.Key[1..])).ToDictionary(), null);
        }
        catch (ToolFailedException failed)
        {
            return (none, $"Spelling could not be looked at: {failed.Said}");
        }
    }

    /// <summary>Keeps what is left as it is.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> LeaveAsync(Guid id, LeftRequest request, WexelDb db, CancellationToken cancel)
    {
        var left = request.Left.Where(l => l.Length is > 0 and <= LongestLeft).Distinct().TakeLast(MostLeft).ToList();
        var found = await db.Lessons.Where(l => l.Id == id).ExecuteUpdateAsync(set => set.SetProperty(l => l.LeftInText, left), cancel);
        return found == 0 ? Problems.NotThere("lesson") : TypedResults.NoContent();
    }
}
