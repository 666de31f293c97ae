using Wexel.Core.Cameras;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Editing;
using Wexel.Core.Placing;
using Wexel.Core.Questions;
using Wexel.Core.Timing;
using Wexel.Core.Translating;

namespace Wexel.Core.Lessons;

/// <summary>What holds for every saved lesson, and what a change did, in words.</summary>
public static class LessonRules
{
    /// <summary>The document as it is saved: title on one line, description trimmed, cuts by <see cref="CutRules"/>, what is placed by the rules of
    /// its kind.</summary>
    /// <param name="document">What somebody wants to save.</param>
    /// <param name="length">The recording's length.</param>
    /// <param name="grid">The rate of the lesson's frames.</param>
    public static LessonDocument Tidy(LessonDocument document, TimeSpan length, FrameRate grid)
    {
        var description = document.Description.Trim();
        var tidy = document with
        {
            Title = SectionRules.OneLine(document.Title, DetailFields.LongestLine),
            Description = description.Length <= DetailFields.LongestText ? description : description[..DetailFields.LongestText],
            Canvas = document.Canvas?.Within() is { IsAsRecorded: false } canvas ? canvas : null,
            Cuts = CutRules.Tidy(document.Cuts, length, grid),
            Picture = Tidy(document.Picture, length),
            Frames = Tidy(document),
            Cameras =
            [
                .. document
                    .Recordings.Distinct()
                    .Select(hash => document.Cameras.LastOrDefault(c => c.Over == hash))
                    .OfType<CameraTake>()
                    .Select(c => c with { Clock = c.Clock.Within() }),
            ],
            CameraLook = document.CameraLook?.Within() is { } look && look != CameraLook.Usual ? look : null,
            Goal = document.Goal.Tidied(),
            Draws = QuestionDraw.Tidied(document.Draws),
            Survey = document.Survey?.Tidied(),
            Details = DetailFields.Tidy(document.Details with { Title = null, Description = null, Language = null }, DetailLevel.Lesson),
        };
        tidy = PlacedLists.Set(tidy, new Tidying(document, length));
        return tidy with { Translations = [.. document.Translations.Select(t => t.Tidy(LessonTexts.All(tidy))).Where(t => t.Texts.Count > 0)] };
    }

    /// <summary>Why cuts and what is placed cannot stand, or null.</summary>
    /// <param name="document">What somebody wants to save.</param>
    /// <param name="map">Its times.</param>
    public static Problem? Refusal(LessonDocument document, TimeMap map)
    {
        var refusing = new Refusing(document);
        PlacedLists.Read(document, refusing);
        return CutRules.Refusal(document.Cuts, map)
            ?? refusing.Problem
            ?? DetailFields.Unusable(document.Details)
            ?? (document.Captions.Count, document.Captions.DistinctBy(t => t.Id).Count()) switch
            {
                (> CaptionTrack.Most, _) => new Problem(
                    "caption-tracks-too-many",
                    $"There are {document.Captions.Count} caption tracks; {CaptionTrack.Most} is the most that one lesson may have.",
                    "captions"
                ),
                var (all, apart) when all != apart => new Problem(
                    "caption-tracks-same-twice",
                    "Two caption tracks have the same name inside; load the page again.",
                    "captions"
                ),
                _ => null,
            }
            ?? (
                document.Translations.Count > LessonTranslation.Most || document.Translations.DistinctBy(t => t.Language).Count() != document.Translations.Count
                    ? new Problem(
                        "translations-too-many",
                        $"A lesson is translated at most once into each language, and into {LessonTranslation.Most} at most.",
                        "translations"
                    )
                : document.Translations.FirstOrDefault(t => LanguageTag.Parse(t.Language) != t.Language) is { } unknown
                    ? new Problem("translation-no-language", $"“{Problem.Shown(unknown.Language)}” is no language; write it such as en-GB.", "translations")
                : null
            );
    }

    private sealed class Tidying(LessonDocument document, TimeSpan length) : IPlacedWork
    {
        public IReadOnlyList<T> Do<T>(PlacedKind<T> kind, Func<object, IReadOnlyList<T>> list)
            where T : class, IPlaced<T> => kind.Tidy(list(document), length);
    }

    private sealed class Refusing(LessonDocument document) : IPlacedWork
    {
        internal Problem? Problem { get; private set; }

        public IReadOnlyList<T> Do<T>(PlacedKind<T> kind, Func<object, IReadOnlyList<T>> list)
            where T : class, IPlaced<T>
        {
            Problem ??= kind.Refusal(list(document));
            return list(document);
        }
    }

    /// <summary>A frame that there is, or a picture that was given; not both.</summary>
    private static LessonPicture? Tidy(LessonPicture? picture, TimeSpan length) =>
        picture switch
        {
            { Own: { Length: > 0 } own } => new LessonPicture(Own: own),
            { At: { } at } when length > TimeSpan.Zero => new LessonPicture(
                at < TimeSpan.Zero ? TimeSpan.Zero
                : at < length ? at
                : length
            ),
            _ => null,
        };

    /// <summary>Of recordings that the lesson has, where there are several; the last word for each.</summary>
    private static List<RecordingFrame> Tidy(LessonDocument document) =>
        document.Following.Count == 0
            ? []
            :
            [
                .. document
                    .Recordings.Distinct()
                    .Select(hash => document.Frames.LastOrDefault(f => f.Recording == hash))
                    .OfType<RecordingFrame>()
                    .Select(f => f with { Fit = Enum.IsDefined(f.Fit) ? f.Fit : FitMode.Whole, Part = f.Part.Within() }),
            ];

    /// <summary>Why a lesson cannot be rendered or released yet; null when it can.</summary>
    public static Problem? NotReady(LessonDocument document)
    {
        if (document.Title.Length == 0)
            return new Problem("lesson-no-title", "The lesson has no title yet; learners would see the file's name. Give it one.", "title");
        return Lacks(document).Select(l => new Problem($"{l.Of}-not-ready", l.Sentence, l.Field)).FirstOrDefault();
    }

    /// <summary>What keeps things of a lesson from learners, one after the other; empty where nothing does.</summary>
    public static IReadOnlyList<LessonLack> Lacks(LessonDocument document)
    {
        var lacking = new Lacking(document);
        PlacedLists.Read(document, lacking);
        return [.. lacking.All, .. document.Survey?.Faults.Select(why => new LessonLack("survey", "", why, why, "survey")) ?? []];
    }

    private sealed class Lacking(LessonDocument document) : IPlacedWork
    {
        internal List<LessonLack> All { get; } = [];

        public IReadOnlyList<T> Do<T>(PlacedKind<T> kind, Func<object, IReadOnlyList<T>> list)
            where T : class, IPlaced<T>
        {
            foreach (var thing in list(document))
                All.AddRange(FaultsOf(kind, thing).Select(why => new LessonLack(kind.Name, thing.Id, why, $"At {kind.Placed(thing)}: {why}", kind.Plural)));
            return list(document);
        }

        private IEnumerable<string> FaultsOf<T>(PlacedKind<T> kind, T thing)
            where T : class, IPlaced<T> =>
            kind.LeadsTo(thing).All(to => document.Sections.Any(s => s.Id == to))
                ? kind.Faults(thing)
                : [.. kind.Faults(thing), "The section that it leads to is not there any more. Choose another."];
    }

    /// <summary>What changed between two revisions, in a few words; empty when nothing did.</summary>
    public static string Describe(LessonDocument before, LessonDocument after)
    {
        var changes = new List<string>();
        if (before.Title != after.Title)
            changes.Add("title");
        if (before.Description != after.Description)
            changes.Add("description");
        if (before.Language != after.Language)
            changes.Add("language");
        changes.AddRange(DetailFields.Changes(before.Details, after.Details));
        if (!before.Recordings.SequenceEqual(after.Recordings))
            changes.Add(RecordingChanges(before.Recordings, after.Recordings));
        changes.AddRange(CutChanges(before.Cuts, after.Cuts));
        if (!before.Captions.SequenceEqual(after.Captions))
            changes.Add(TrackChanges(before.Captions, after.Captions));
        changes.AddRange(TranslationChanges.Describe(before.Translations, after.Translations));
        if (before.Canvas != after.Canvas)
            changes.Add(
                after.Canvas?.Size is { } size ? $"canvas {size}"
                : after.Canvas is null ? "canvas as recorded"
                : "part of the picture"
            );
        if (!before.Frames.SequenceEqual(after.Frames) && before.Recordings.SequenceEqual(after.Recordings))
            changes.Add("part of a recording's picture");
        if (!before.Cameras.SequenceEqual(after.Cameras))
            changes.Add(
                (before.Cameras.Count, after.Cameras.Count) switch
                {
                    var (was, now) when now > was => "camera added",
                    var (was, now) when now < was => "camera removed",
                    _ => "camera moved in time",
                }
            );
        if (before.CameraLook != after.CameraLook)
            changes.Add("how the camera is shown");
        if (before.Picture != after.Picture)
            changes.Add("the lesson’s picture");
        if (before.Goal != after.Goal)
            changes.Add("what it takes to be done");
        if (!before.Draws.SequenceEqual(after.Draws))
            changes.Add("how many questions are drawn");
        if (before.Survey != after.Survey)
            changes.Add(
                after.Survey is null ? "survey removed"
                : before.Survey is null ? "survey added"
                : "survey changed"
            );
        if (before.HouseMark != after.HouseMark)
            changes.Add(after.HouseMark ? "house mark on" : "house mark off");
        PlacedLists.Read(after, new Describing(before, after, changes));
        return string.Join(", ", changes);
    }

    private static string RecordingChanges(IReadOnlyList<string> before, IReadOnlyList<string> after) =>
        (after.Count - before.Count, before.Intersect(after).Count()) switch
        {
            (1, _) => "1 recording added",
            (-1, _) => "1 recording removed",
            (0, var same) when same == before.Distinct().Count() => "recordings in another order",
            (0, _) => "1 recording replaced",
            _ => "recordings",
        };

    private static IEnumerable<string> CutChanges(IReadOnlyList<TimeRange> before, IReadOnlyList<TimeRange> after)
    {
        TimeSpan Of(IReadOnlyList<TimeRange> cuts) => cuts.Aggregate(TimeSpan.Zero, (sum, cut) => sum + cut.Length);
        // What both cut is in neither difference, so an edge that moved counts only for what it took or gave.
        var both = before.Count + after.Count == 0 ? TimeSpan.Zero : Of(before) + Of(after) - Of(TimeRange.Union(before.Concat(after)));
        var (cut, restored) = (Of(after) - both, Of(before) - both);
        if (cut > TimeSpan.Zero)
            yield return $"{TimeCode.InWords(cut)} cut";
        if (restored > TimeSpan.Zero)
            yield return $"{TimeCode.InWords(restored)} restored";
    }

    private static string TrackChanges(IReadOnlyList<CaptionTrack> before, IReadOnlyList<CaptionTrack> after) =>
        (before.Count, after.Count) switch
        {
            (_, 0) => "captions removed",
            (0, 1) or (1, 1) => "captions",
            var (was, now) when now > was => "captions added",
            var (was, now) when now < was => "captions removed",
            _ => "captions",
        };

    private sealed class Describing(LessonDocument before, LessonDocument after, List<string> changes) : IPlacedWork
    {
        public IReadOnlyList<T> Do<T>(PlacedKind<T> kind, Func<object, IReadOnlyList<T>> list)
            where T : class, IPlaced<T>
        {
            changes.AddRange(Counted(kind, list(before), list(after)));
            return list(after);
        }
    }

    /// <summary>How many things of a kind were added, removed, and changed in one way or another.</summary>
    private static IEnumerable<string> Counted<T>(PlacedKind<T> kind, IReadOnlyList<T> before, IReadOnlyList<T> after)
        where T : class, IPlaced<T>
    {
        var old = before.ToDictionary(t => t.Id);
        var kept = after.Where(t => old.ContainsKey(t.Id)).ToList();
        var counts = new[] { (after.Count - kept.Count, "added"), (before.Count - kept.Count, "removed") }.Concat(
            kind.Changes.Select(way => (kept.Count(t => way.Differs(old[t.Id], t)), way.Word))
        );
        foreach (var (count, what) in counts)
        {
            if (count > 0)
                yield return $"{kind.InWords(count)} {what}";
        }
    }
}

/// <summary>What keeps something of a lesson from learners.</summary>
/// <param name="Of">The kind of the thing: “question”, “area”, or “survey”.</param>
/// <param name="Id">Its name inside the lesson; empty where there is only one.</param>
/// <param name="Why">What it lacks, in a sentence that says what to do.</param>
/// <param name="Sentence">The same with what it is and where.</param>
/// <param name="Field">The field of problems with it.</param>
public sealed record LessonLack(string Of, string Id, string Why, string Sentence, string Field);
