using System.Net;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Core.Captions;
using Wexel.Core.Documents;
using Wexel.Core.Editing;
using Wexel.Core.Lessons;
using Wexel.Core.Packages;
using Wexel.Core.People;
using Wexel.Core.Recordings;
using Wexel.Core.Screens;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Making.Storage;
using Wexel.Server.Screens;

namespace Wexel.Server.Tests;

/// <summary>What learners find: moments of what they may see, by the stems of words, and past slips of the pen.</summary>
public sealed partial class LearnersSearchTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    /// <summary>A small table of what should come first, by hand: title before section before speech, and words in another form.</summary>
    [Fact]
    public async Task What_says_most_about_it_comes_first_and_each_moment_leads_to_its_time()
    {
        await AddAsync("Refunds at the desk", "en-GB", "everybody", (0, "Good morning."), (3000, "The ferry has sailed."));
        await AddAsync("Changing a ticket", "en-GB", "everybody", (0, "A ticket is changed."), (2500, "Then it is refunded in full."));
        await AddAsync("Mooring lines", "en-GB", "everybody", (0, "Take the heaving line."));
        await AddAsync("Los billetes", "es-ES", "everybody", (1000, "El pasajero compra dos billetes."));
        var stranger = fixture.Anonymous();
        foreach (
            var (typed, first) in new[]
            {
                ("refund", "Refunds at the desk, Changing a ticket"),
                ("refunding", "Refunds at the desk, Changing a ticket"),
                ("changed tickets", "Changing a ticket"),
                ("moor", "Mooring lines"),
                ("billete compro", "Los billetes"),
                ("the refund of a ticket", "Changing a ticket"),
                ("ferries sail", "Refunds at the desk"),
                ("zeppelin", ""),
                ("the", ""),
                ("caption", ""),
                ("2500", ""),
                ("'; drop table x; --", ""),
            }
        )
            (await FoundAsync(stranger, typed)).Titles.ShouldBe(first, typed);
        var page = await stranger.GetStringAsync("/search?q=refunded");
        page.ShouldContain("#t=2.5&amp;play\">0:02</a>");
        page.ShouldContain("Then it is <mark>refunded</mark> in full.");

        // A slip of the pen, and what was meant by it.
        var slip = await FoundAsync(stranger, "mooirng");
        (slip.Titles, slip.Page.Contains("This is what is said of “mooring”", StringComparison.Ordinal)).ShouldBe(("Mooring lines", true));
    }

    [Fact]
    public async Task Nobody_finds_what_they_may_not_see_nor_its_words_as_what_they_may_have_meant()
    {
        await AddAsync("Secret merger of harbours", "en-GB", "onlyMe", (0, "Zanzibar."));
        await AddAsync("Kraken drill", "en-GB", "withLink", (0, "The kraken."));
        await AddAsync("Lifeboat muster", "en-GB", "signedIn", (0, "Starboard."));
        var (stranger, learner, owner) = (fixture.Anonymous(), await fixture.SignedInAsync(ServerFixture.Learner), await fixture.SignedInAsync());
        foreach (
            var (typed, forStranger, forLearner, forOwner) in new[]
            {
                ("zanzibar", "", "", "Secret merger of harbours"),
                ("zanzibra", "", "", "Secret merger of harbours"),
                ("kraken", "", "", ""),
                ("krakne", "", "", ""),
                ("muster", "", "Lifeboat muster", "Lifeboat muster"),
            }
        )
        {
            (await FoundAsync(stranger, typed)).Titles.ShouldBe(forStranger, typed);
            (await FoundAsync(learner, typed)).Titles.ShouldBe(forLearner, typed);
            (await FoundAsync(owner, typed)).Titles.ShouldBe(forOwner, typed);
        }

        foreach (var (who, typed) in new[] { (stranger, "zanzibra"), (learner, "krakne") })
            (await FoundAsync(who, typed)).Page.ShouldNotContain("This is what is said of");
    }

    [Fact]
    public async Task What_is_found_is_what_stands_there_and_not_what_stood_there_before()
    {
        var token = await AddAsync("Gangway", "en-GB", "everybody", (0, "The old gangplank."));
        var stranger = fixture.Anonymous();
        (await FoundAsync(stranger, "gangplank")).Titles.ShouldBe("Gangway");
        using var scope = fixture.Server.Services.CreateScope();
        var db = scope.ServiceProvider.GetRequiredService<WexelDb>();
        var release = await db.Releases.SingleAsync(r => r.Token == token, TestContext.Current.CancellationToken);
        var page = PlayerLesson.Format.Read(release.Player);
        release.Player = PlayerLesson.Format.Write(page with { Captions = [new PlayerCaptions("en-GB", [Cue(0, "The new accommodation ladder.")])] });
        await db.SaveChangesAsync(TestContext.Current.CancellationToken);
        (await FoundAsync(stranger, "gangplank")).Titles.ShouldBe("");
        (await FoundAsync(stranger, "ladders")).Titles.ShouldBe("Gangway");
        db.Releases.Remove(release);
        await db.SaveChangesAsync(TestContext.Current.CancellationToken);
        (await FoundAsync(stranger, "ladders")).Titles.ShouldBe("");
    }

    /// <summary>What stands on the screen is found, in the lesson's own time; what is cut, and what lies beside what is shown, is not.</summary>
    [Fact]
    public async Task What_stands_on_the_screen_is_found_where_learners_see_it()
    {
        var cancel = TestContext.Current.CancellationToken;
        using var scope = fixture.Server.Services.CreateScope();
        var (db, store) = (scope.ServiceProvider.GetRequiredService<WexelDb>(), scope.ServiceProvider.GetRequiredService<FileStore>());
        var one = await db.Releases.AsNoTracking().Include(r => r.Lesson).FirstAsync(r => r.Outlet!.Kind == "channel", cancel);
        var (hash, lesson) = (one.Lesson!.RecordingHash, one.LessonId);
        var revision = await db.LessonRevisions.AsNoTracking().SingleAsync(r => r.LessonId == lesson && r.Number == one.Revision, cancel);
        var document = LessonDocument.Format.Read(revision.Document);
        // The first half second is cut, and of the picture its left half is seen.
        var changed = LessonDocument.Format.Write(
            document with
            {
                Cuts = [Span(0, 500)],
                Canvas = new Canvas(new PictureSize(160, 180), FitMode.Part, new PicturePart(0, 0, 0.5, 1)),
            }
        );
        await db.Database.ExecuteSqlAsync(
            $"UPDATE \"LessonRevisions\" SET \"Document\" = {changed}::jsonb WHERE \"LessonId\" = {lesson} AND \"Number\" = {one.Revision}",
            cancel
        );
        var size = WexelJson.Read<RecordingFacts>((await db.Recordings.AsNoTracking().SingleAsync(r => r.Hash == hash, cancel)).Facts).Picture!.ShownSize;
        ScreenLine Line(int x, string text) => new(new PictureRect(x, 10, 30, 10), text, 10, 0.95);
        var text = new ScreenText(
            "t",
            [
                new ScreenPicture(Span(0, 500), [Line(4, "Password hippocampus")]),
                new ScreenPicture(Span(500, 1000), [Line(4, "Quartermaster"), Line(size.Width - 40, "Bystander")]),
            ],
            []
        );
        var file = store.Derived(RecordingKeys.Screen(hash, "en-GB"), MadeNames.Screen);
        Directory.CreateDirectory(Path.GetDirectoryName(file)!);
        await File.WriteAllTextAsync(file, WexelJson.Write(text), cancel);
        await db.Recordings.Where(r => r.Hash == hash).ExecuteUpdateAsync(set => set.SetProperty(r => r.ScreenReadAs, "en-GB"), cancel);
        await scope.ServiceProvider.GetRequiredService<ReadScreens>().TellSearchAsync(hash, cancel);

        await db.Releases.Where(r => r.Id == one.Id).ExecuteUpdateAsync(set => set.SetProperty(r => r.Visibility, Visibility.Everybody), cancel);
        var stranger = fixture.Anonymous();
        var (titles, page) = await FoundAsync(stranger, "quartermaster");
        titles.ShouldBe(one.Lesson.Title);
        page.ShouldContain("On the screen: <span dir=\"auto\"><mark>Quartermaster</mark></span>");
        page.ShouldContain("#t=0&amp;play");
        (await FoundAsync(stranger, "hippocampus")).Titles.ShouldBe("");
        (await FoundAsync(stranger, "bystander")).Titles.ShouldBe("");
        await db.Database.ExecuteSqlAsync(
            $"UPDATE \"LessonRevisions\" SET \"Document\" = {revision.Document}::jsonb WHERE \"LessonId\" = {lesson} AND \"Number\" = {one.Revision}",
            cancel
        );

        static TimeRange Span(int from, int until) => new(TimeSpan.FromMilliseconds(from), TimeSpan.FromMilliseconds(until));
    }

    [Fact]
    public async Task What_is_typed_is_shown_as_text_and_may_be_anything()
    {
        var stranger = fixture.Anonymous();
        var page = await stranger.GetStringAsync("/search?q=" + Uri.EscapeDataString("\"><script>alert(1)</script>"));
        page.ShouldNotContain("<script>");
        foreach (var typed in new[] { "", "   ", new string('a', 5000), "&|!()<->:*'\\", "\U0001F6A2 ñ é" })
            (await stranger.GetAsync("/search?q=" + Uri.EscapeDataString(typed))).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    private static Cue Cue(int at, string text) => new(new TimeRange(TimeSpan.FromMilliseconds(at), TimeSpan.FromMilliseconds(at + 900)), text);

    [GeneratedRegex("<h2><a [^>]*>([^<]*)</a></h2>")]
    private static partial Regex Heading();

    private static async Task<(string Titles, string Page)> FoundAsync(HttpClient who, string typed)
    {
        var page = await who.GetStringAsync("/search?q=" + Uri.EscapeDataString(typed));
        return (string.Join(", ", Heading().Matches(page).Select(m => WebUtility.HtmlDecode(m.Groups[1].Value))), page);
    }

    /// <summary>Another released lesson: a copy of the one that is there, which says something else.</summary>
    private async Task<string> AddAsync(string title, string language, string visibility, params (int At, string Text)[] spoken)
    {
        using var scope = fixture.Server.Services.CreateScope();
        var db = scope.ServiceProvider.GetRequiredService<WexelDb>();
        var cancel = TestContext.Current.CancellationToken;
        var one = await db.Releases.AsNoTracking().FirstAsync(r => r.Outlet!.Kind == "channel", cancel);
        var page = PlayerLesson.Format.Read(one.Player) with
        {
            Title = title,
            Description = "",
            Language = language,
            Sections = [],
            Captions = [new PlayerCaptions(language, [.. spoken.Select(s => Cue(s.At, s.Text))])],
            Details = PlayerDetails.None,
        };
        var (lesson, release, token, player) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.NewGuid().ToString("N"), PlayerLesson.Format.Write(page));
        var level = char.ToUpperInvariant(visibility[0]) + visibility[1..];
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO "Lessons" SELECT (jsonb_populate_record(null::"Lessons", to_jsonb(l) || jsonb_build_object(
                'Id', {lesson}::uuid, 'Title', {title}::text, 'Position', l."Position" + 1000))).* FROM "Lessons" l WHERE l."Id" = {one.LessonId}
            """,
            cancel
        );
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO "Releases" SELECT (jsonb_populate_record(null::"Releases", to_jsonb(r) || jsonb_build_object(
                'Id', {release}::uuid, 'LessonId', {lesson}::uuid, 'Token', {token}::text, 'Visibility', {level}::text, 'Player', {player}::jsonb))).*
            FROM "Releases" r WHERE r."Id" = {one.Id}
            """,
            cancel
        );
        return token;
    }
}
