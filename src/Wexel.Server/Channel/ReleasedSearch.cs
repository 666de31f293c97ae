using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.Packages;
using Wexel.Core.People;
using Wexel.Core.Searching;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Screens;
using Wexel.Server.Shelves;
using Wexel.Server.Upkeep;

namespace Wexel.Server.Channel;

/// <summary>A place in a lesson where something is said that was looked for.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="At">When it is said, in lesson time; null for what holds for all of the lesson.</param>
/// <param name="Parts">What it says, in order; those that are true are what was looked for.</param>
internal sealed record FoundMoment(TextKind Kind, TimeSpan? At, IReadOnlyList<(string Text, bool Found)> Parts);

/// <summary>A lesson in which all was found that was looked for.</summary>
internal sealed record FoundLesson(
    string Token,
    string Title,
    string Channel,
    string Course,
    TimeSpan Length,
    bool HasPicture,
    IReadOnlyList<FoundMoment> Moments
);

/// <summary>What was found.</summary>
/// <param name="Lessons">The lessons, those that say most about it first.</param>
/// <param name="More">Whether there are more.</param>
/// <param name="Instead">What was looked for, where nothing was found as it was typed; null where it was.</param>
internal sealed record Found(IReadOnlyList<FoundLesson> Lessons, bool More, string? Instead);

/// <summary>
/// Finds what released lessons say, by the stems of words in each lesson's own language, among what somebody may see. A word that is said nowhere is taken for
/// a slip of the pen where one like it is.
/// </summary>
internal sealed class ReleasedSearch(WexelDb db, LessonReels reels, ReadScreens screens, TimeProvider clock) : IUpkeep
{
    private const int AtOnce = 100;
    private const int MostLessons = 20;
    private const int MostMoments = 4;

    /// <summary>So many are looked at first whether somebody may see them, then twice as many again, up to a number in all.</summary>
    private const int FirstLook = 40;
    private const int MostLooks = 2000;

    private const int MostLike = 300;
    private const int MostMeant = 8;

    private const string Work = "bringing what learners search up to date";
    private const char Begins = '\u0001';
    private const char Ends = '\u0002';

    public TimeSpan Every => TimeSpan.FromMinutes(1);

    public async Task DoAsync(CancellationToken cancel)
    {
        await using var hold = await WorkHold.TryAsync(db, Work, cancel);
        if (hold is not null)
            await BringUpToDateAsync(cancel);
    }

    internal async Task<Found> FindAsync(SearchWords words, Viewer viewer, CancellationToken cancel)
    {
        // What was released just now is found; for a whole library nobody waits.
        await using (var hold = await WorkHold.TryAsync(db, Work, cancel))
            if (hold is not null)
                await BringSomeAsync(cancel);
        var found = await LessonsAsync(words, viewer, cancel);
        if (found.Count > 0)
            return await AnswerAsync(words, found, null, cancel);
        foreach (var instead in await MeantAsync(words, cancel))
        {
            found = await LessonsAsync(instead, viewer, cancel);
            if (found.Count > 0)
                return await AnswerAsync(instead, found, string.Join(' ', instead.Words), cancel);
        }

        return new Found([], false, null);
    }

    private IQueryable<Release> Channels => db.Releases.Where(r => r.Outlet!.Kind == ChannelKind.Channel);

    private IQueryable<Release> Stale() => Channels.Where(r => !db.ReleasedTexts.Any(t => t.ReleaseId == r.Id));

    private sealed record Row(
        Guid Id,
        string Dictionary,
        string Token,
        Visibility Visibility,
        DateTimeOffset? OpensAt,
        DateTimeOffset? EndsAt,
        string? Named,
        Guid? OwnerId,
        string Title,
        string Channel,
        string Course,
        TimeSpan Length,
        bool HasPicture,
        float Rank
    );

    /// <summary>The lessons that say all words, and one more than are shown where there are more.</summary>
    private async Task<IReadOnlyList<Row>> LessonsAsync(SearchWords words, Viewer viewer, CancellationToken cancel)
    {
        // A dictionary that stands in the query itself is one that the index answers: a query for each that is used.
        var dictionaries = await db.ReleasedTexts.Select(t => t.Dictionary).Distinct().ToListAsync(cancel);
        var now = clock.GetUtcNow();
        var shown = new List<Row>();
        foreach (var dictionary in dictionaries)
        {
            for (var (from, many) = (0, FirstLook); from < MostLooks; (from, many) = (from + many, many * 2))
            {
                var said = await SaidAsync(words, dictionary, from, many, cancel);
                var rows = await Rows(words, dictionary, said).ToListAsync(cancel);
                shown.AddRange(
                    rows.Where(r =>
                        Seeing.May(ShownReleases.From(new Opening(r.Visibility, r.OpensAt, r.EndsAt), r.OwnerId, r.Named), viewer, SeenIn.List, now)
                    )
                );
                if (said.Count < many || shown.Count > MostLessons)
                    break;
            }
        }

        return [.. shown.OrderByDescending(r => r.Rank).ThenBy(r => r.Id).DistinctBy(r => r.Id).Take(MostLessons + 1)];
    }

    /// <summary>Lessons that say all words, those first that say some in their headings: what thousands say is not weighed word by word.</summary>
    private Task<List<Guid>> SaidAsync(SearchWords words, string dictionary, int from, int many, CancellationToken cancel)
    {
        var (all, any) = (words.All, words.Any);
        var said = db
            .ReleasedTexts.Where(t => t.Dictionary == dictionary && t.Stems.Matches(EF.Functions.ToTsQuery(dictionary, all)))
            .OrderByDescending(t => t.Headings.Rank(EF.Functions.ToTsQuery(dictionary, any)))
            .ThenBy(t => t.ReleaseId)
            .Select(t => t.ReleaseId)
            .Skip(from)
            .Take(many);
        // To the planner going through all texts looks cheaper where most say a word; it does not count that each is unpacked for it.
        return WithAsync("enable_seqscan", "off", () => said.ToListAsync(cancel), cancel);
    }

    /// <summary>Asks the database with a setting that holds for this alone.</summary>
    private async Task<T> WithAsync<T>(string setting, string value, Func<Task<T>> ask, CancellationToken cancel)
    {
        await using var alone = await db.Database.BeginTransactionAsync(cancel);
        await db.Database.ExecuteSqlAsync($"SELECT set_config({setting}, {value}, true)", cancel);
        return await ask();
    }

    private IQueryable<Row> Rows(SearchWords words, string dictionary, List<Guid> releases)
    {
        var query = words.All;
        return db
            .ReleasedTexts.Where(t => t.Dictionary == dictionary && releases.Contains(t.ReleaseId))
            .Join(Channels.Where(r => r.Visibility != Visibility.WithLink), t => t.ReleaseId, r => r.Id, (t, r) => new { Text = t, Release = r })
            .Select(f => new Row(
                f.Release.Id,
                dictionary,
                f.Release.Token,
                f.Release.Visibility,
                f.Release.OpensAt,
                f.Release.EndsAt,
                f.Release.Named,
                f.Release.Lesson!.OwnerId,
                f.Release.Lesson.Title,
                f.Release.Outlet!.Name,
                f.Release.Lesson.Course!.Title,
                f.Release.Lesson.Length,
                f.Release.PosterKey != null,
                f.Text.Stems.Rank(EF.Functions.ToTsQuery(dictionary, query))
            ));
    }

    private async Task<Found> AnswerAsync(SearchWords words, IReadOnlyList<Row> rows, string? instead, CancellationToken cancel)
    {
        var moments = new Dictionary<Guid, IReadOnlyList<FoundMoment>>();
        foreach (var dictionary in rows.Take(MostLessons).GroupBy(r => r.Dictionary))
        foreach (var lesson in await MomentsAsync(words, dictionary.Key, [.. dictionary.Select(r => r.Id)], cancel))
            moments[lesson.Key] = [.. lesson.Select(Moment).OrderBy(m => m.At is not null).ThenBy(m => m.At)];
        return new Found(
            [
                .. rows.Take(MostLessons)
                    .Select(r => new FoundLesson(r.Token, r.Title, r.Channel, r.Course, r.Length, r.HasPicture, moments.GetValueOrDefault(r.Id, []))),
            ],
            rows.Count > MostLessons,
            instead
        );
    }

    private sealed record Line(Guid Release, string Kind, string At, string Marked);

    /// <summary>The places of lessons that say most of it.</summary>
    private async Task<ILookup<Guid, Line>> MomentsAsync(SearchWords words, string dictionary, Guid[] releases, CancellationToken cancel)
    {
        var (query, marks) = (words.Any, $"StartSel={Begins}, StopSel={Ends}, HighlightAll=true");
        var lines = await db
            .Database.SqlQuery<Line>(
                $"""
                SELECT "Release", "Kind", "At", ts_headline({dictionary}::regconfig, said, asked, {marks}) AS "Marked"
                FROM (
                    SELECT "ReleaseId" AS "Release", split_part(line, E'\t', 1) AS "Kind", split_part(line, E'\t', 2) AS "At", said, asked,
                        row_number() OVER (PARTITION BY "ReleaseId" ORDER BY ts_rank(stems, asked) DESC, number) AS place
                    FROM "ReleasedTexts", unnest("Lines") WITH ORDINALITY AS lines (line, number), split_part(line, E'\t', 3) AS said,
                        to_tsvector({dictionary}::regconfig, said) AS stems, to_tsquery({dictionary}::regconfig, {query}) AS asked
                    WHERE "ReleaseId" = ANY ({releases}) AND "Dictionary" = {dictionary} AND stems @@ asked
                ) AS found
                WHERE place <= {MostMoments}
                """
            )
            .ToListAsync(cancel);
        return lines.ToLookup(l => l.Release);
    }

    private static FoundMoment Moment(Line line)
    {
        var parts = new List<(string Text, bool Found)>();
        foreach (var (i, part) in line.Marked.Split(Begins).Index())
        {
            if (i == 0)
                parts.Add((part, false));
            else if (part.Split(Ends, 2) is [var word, var rest])
                parts.AddRange([(word, true), (rest, false)]);
        }

        return new FoundMoment(
            Enum.Parse<TextKind>(line.Kind),
            long.TryParse(line.At, NumberStyles.None, CultureInfo.InvariantCulture, out var at) ? TimeSpan.FromMilliseconds(at) : null,
            [.. parts.Where(p => p.Text.Length > 0)]
        );
    }

    /// <summary>What may have been meant, the likeliest first: each word as one that is said somewhere and is written most like it.</summary>
    private async Task<IReadOnlyList<SearchWords>> MeantAsync(SearchWords words, CancellationToken cancel)
    {
        List<SearchWords> meant = [words];
        foreach (var word in words.Words)
        {
            var (lower, prefix) = (word.ToLowerInvariant(), word.ToLowerInvariant() + "%");
            if (await db.ReleasedWords.AnyAsync(w => EF.Functions.Like(w.Word, prefix), cancel))
                continue;
            var like = SlipsOfThePen.Meant(word, await LikeAsync(lower, cancel));
            // It may be said in another form, which its stem finds.
            meant = [.. meant.SelectMany(m => like.Append(word).Select(l => m.With(word, l))).Take(MostMeant)];
        }

        return [.. meant.Where(m => m != words)];
    }

    /// <summary>Words that are said and have some letters in common with another.</summary>
    private Task<List<string>> LikeAsync(string word, CancellationToken cancel)
    {
        var like = db
            .ReleasedWords.Where(w => EF.Functions.TrigramsAreSimilar(w.Word, word))
            .OrderByDescending(w => EF.Functions.TrigramsSimilarity(w.Word, word))
            .ThenBy(w => w.Word)
            .Select(w => w.Word)
            .Take(MostLike);
        // Two letters that changed places leave little in common, the less the shorter the word is.
        return WithAsync("pg_trgm.similarity_threshold", word.Length < 5 ? "0.12" : "0.18", () => like.ToListAsync(cancel), cancel);
    }

    private async Task BringUpToDateAsync(CancellationToken cancel)
    {
        while (await BringSomeAsync(cancel)) { }
    }

    /// <summary>Brings some up to date of what is not.</summary>
    /// <returns>Whether there was anything.</returns>
    private async Task<bool> BringSomeAsync(CancellationToken cancel)
    {
        var stale = await Stale()
            .OrderBy(r => r.Id)
            .Take(AtOnce)
            .Select(r => new
            {
                r.Id,
                r.Player,
                r.LessonId,
                r.Revision,
            })
            .ToListAsync(cancel);
        foreach (var release in stale)
        {
            var document = await db
                .LessonRevisions.Where(r => r.LessonId == release.LessonId && r.Number == release.Revision)
                .Select(r => r.Document)
                .FirstOrDefaultAsync(cancel);
            IReadOnlyList<TextLine> onScreen = document is null ? [] : await screens.ShownAsync(LessonDocument.Format.Read(document), reels, cancel);
            await WriteAsync(release.Id, PlayerLesson.Format.Read(release.Player), onScreen, cancel);
        }

        return stale.Count > 0;
    }

    private async Task WriteAsync(Guid release, PlayerLesson page, IReadOnlyList<TextLine> onScreen, CancellationToken cancel)
    {
        foreach (var (dictionary, texts) in ReleasedLines.By(page, onScreen))
        {
            var lines = texts
                .SelectMany(
                    t => t.Lines,
                    (t, l) => $"{t.Kind}\t{(l.At is { } at ? ((long)at.TotalMilliseconds).ToString(CultureInfo.InvariantCulture) : "")}\t{l.Text}"
                )
                .ToList();
            string Of(params TextKind[] kinds) => string.Join('\n', texts.Where(t => kinds.Contains(t.Kind)).SelectMany(t => t.Lines).Select(l => l.Text));
            var (title, parts, about, spoken) = (
                Of(TextKind.Title),
                Of(TextKind.Tag, TextKind.Section),
                Of(TextKind.Description, TextKind.Author),
                Of(TextKind.Caption, TextKind.Screen)
            );
            await db.Database.ExecuteSqlAsync(
                $"""
                INSERT INTO "ReleasedTexts" ("ReleaseId", "Dictionary", "Lines", "Headings", "Stems")
                SELECT "Id", {dictionary}, {lines},
                    setweight(to_tsvector({dictionary}::regconfig, {title}), 'A') || setweight(to_tsvector({dictionary}::regconfig, {parts}), 'B'),
                    setweight(to_tsvector({dictionary}::regconfig, {title}), 'A') || setweight(to_tsvector({dictionary}::regconfig, {parts}), 'B')
                    || setweight(to_tsvector({dictionary}::regconfig, {about}), 'C') || setweight(to_tsvector({dictionary}::regconfig, {spoken}), 'D')
                FROM "Releases" WHERE "Id" = {release}
                ON CONFLICT DO NOTHING
                """,
                cancel
            );
            await db.Database.ExecuteSqlAsync(
                $"""
                INSERT INTO "ReleasedWords" ("Word")
                SELECT DISTINCT word FROM unnest(tsvector_to_array(to_tsvector('simple', {string.Join('\n', title, parts, about, spoken)}))) AS word
                WHERE length(word) BETWEEN 3 AND 60
                ON CONFLICT DO NOTHING
                """,
                cancel
            );
        }
    }
}
