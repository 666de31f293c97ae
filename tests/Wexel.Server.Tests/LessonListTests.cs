using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Xml;
using System.Xml.Linq;
using System.Xml.Schema;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.People;
using Wexel.Data.Model;

namespace Wexel.Server.Tests;

/// <summary>Lists across courses: made where one releases, with a visibility of their own, showing nothing to those who may not see it.</summary>
public sealed class LessonListTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    private static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_list_shows_each_what_they_may_see_and_says_what_is_hidden_from_whom()
    {
        var (owner, stranger) = (await fixture.SignedInAsync(), fixture.Anonymous());
        var learner = await fixture.SignedInAsync("joss.reed@brackwater.example");
        var (lesson, title) = await LessonAsync();
        (await CodeOf(await AddAsync(owner, " "))).ShouldBe("list-name");
        (await CodeOf(await AddAsync(owner, "Named", "named"))).ShouldBe("named-nobody");
        var list = await IdOf(await AddAsync(owner, "First  day", "everybody"));
        (await CodeOf(await AddAsync(owner, "First day"))).ShouldBe("list-name-taken");
        (await owner.PutAsync($"/api/lists/{list}/lessons/{lesson}", null, Cancel)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await owner.PutAsync($"/api/lists/{list}/lessons/{lesson}", null, Cancel)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await CodeOf(await owner.PutAsync($"/api/lists/{list}/lessons/{Guid.NewGuid()}", null, Cancel))).ShouldBe("lesson-gone");
        (await CodeOf(await owner.PutAsync($"/api/lists/{Guid.NewGuid()}/lessons/{lesson}", null, Cancel))).ShouldBe("list-gone");
        (await learner.GetAsync("/api/lists", Cancel)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);

        // What somebody keeps for themselves is there for no other trainer.
        await fixture.PersonAsync("per.strand@brackwater.example", "Per Strand", Roles.Trainer);
        var other = await fixture.SignedInAsync("per.strand@brackwater.example");
        var mine = await IdOf(await AddAsync(owner, "For me", "onlyMe"));
        (await owner.JsonAsync("/api/lists")).GetArrayLength().ShouldBe((await other.JsonAsync("/api/lists")).GetArrayLength() + 1);
        (await other.GetAsync($"/api/lists/{mine}/lessons", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await other.PutAsync($"/api/lists/{mine}/lessons/{lesson}", null, Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await other.DeleteAsync($"/api/lists/{mine}", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await owner.DeleteAsync($"/api/lists/{mine}", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        await OpenAsync(lesson, Visibility.SignedIn);
        var said = await ListAsync(owner, list, lesson);
        (said.GetProperty("count").GetInt32(), said.GetProperty("holds").GetBoolean(), said.GetProperty("isLast").GetBoolean()).ShouldBe((1, true, true));
        said.GetProperty("hidden").GetString().ShouldBe("1 of 1 are hidden: 1 from people outside the organisation.");
        var page = new Uri(said.GetProperty("link").GetString()!).PathAndQuery;
        (await learner.GetStringAsync(page, Cancel)).ShouldContain(title);
        (await learner.GetStringAsync("/channel", Cancel)).ShouldContain(page);
        // A stranger sees the list, and not what is not for them.
        var empty = await stranger.GetStringAsync(page, Cancel);
        empty.ShouldContain("Nothing in this list is for you");
        empty.ShouldNotContain(title);

        await OpenAsync(lesson, Visibility.Everybody);
        (await stranger.GetStringAsync(page, Cancel)).ShouldContain(title);
        (await stranger.GetStringAsync("/channel", Cancel)).ShouldContain(page);
        (await ListAsync(owner, list, lesson)).GetProperty("hidden").ValueKind.ShouldBe(JsonValueKind.Null);

        // Search engines are told of what is for everybody, as the protocol's own schema has it.
        var map = XDocument.Parse(await stranger.GetStringAsync("/sitemap.xml", Cancel));
        map.Descendants().Where(e => e.Name.LocalName == "loc").Select(e => new Uri(e.Value).PathAndQuery).ShouldContain(page);
        var schemas = new XmlSchemaSet();
        schemas.Add("http://www.sitemaps.org/schemas/sitemap/0.9", XmlReader.Create(new StringReader(SitemapSchema)));
        map.Validate(schemas, (_, fault) => throw fault.Exception);
        Should.Throw<XmlSchemaValidationException>(() =>
            XDocument
                .Parse(map.ToString().Replace("<loc>http", "<loc>", StringComparison.Ordinal).Replace("lastmod", "changed", StringComparison.Ordinal))
                .Validate(schemas, (_, fault) => throw fault.Exception)
        );

        // Whoever has the address: it leads there, and stands nowhere.
        (await SaveAsync(owner, list, "withLink")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await stranger.GetStringAsync(page, Cancel)).ShouldContain(title);
        (await learner.GetStringAsync("/channel", Cancel)).ShouldNotContain(page);
        (await SaveAsync(owner, list, "signedIn")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await stranger.GetAsync(page, Cancel)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await SaveAsync(owner, list, "onlyMe")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await learner.GetAsync(page, Cancel)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await owner.GetStringAsync(page, Cancel)).ShouldContain(title);

        (await owner.DeleteAsync($"/api/lists/{list}/lessons/{lesson}", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await owner.JsonAsync($"/api/lists/{list}/lessons")).GetArrayLength().ShouldBe(0);
        (await owner.DeleteAsync($"/api/lists/{list}", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await owner.DeleteAsync($"/api/lists/{list}", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await owner.GetAsync(page, Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_list_of_2000_lessons_is_read_in_parts_and_put_in_order()
    {
        const int many = 2000;
        var owner = await fixture.SignedInAsync();
        var (lesson, _) = await LessonAsync();
        await OpenAsync(lesson, Visibility.SignedIn);
        var list = await IdOf(await AddAsync(owner, "All of it"));
        await fixture.WithAsync(db => db.Database.ExecuteSqlAsync(CopiesOf(lesson, many), Cancel));
        await fixture.WithAsync(async db =>
        {
            var me = await db.Users.Where(p => p.Email == ServerFixture.Trainer).Select(p => p.Id).SingleAsync(Cancel);
            var copies = await db.Lessons.Where(l => l.Title.StartsWith("Copy ")).OrderBy(l => l.Title).Select(l => l.Id).ToListAsync(Cancel);
            db.ListedLessons.AddRange(
                copies.Select(
                    (c, i) =>
                        new ListedLesson
                        {
                            ListId = list,
                            LessonId = c,
                            Position = i + 1,
                            AddedBy = me,
                            AddedAt = DateTimeOffset.UtcNow,
                        }
                )
            );
            await db.SaveChangesAsync(Cancel);
        });
        var page = new Uri((await ListAsync(owner, list, lesson)).GetProperty("link").GetString()!).PathAndQuery;
        var first = await owner.GetStringAsync(page, Cancel);
        first.ShouldContain("Copy 0001");
        first.ShouldNotContain("Copy 0201");
        first.ShouldContain("1801 to 2000");
        (await owner.GetStringAsync($"{page}?from=1801", Cancel)).ShouldContain("Copy 2000");
        var ids = (await owner.JsonAsync($"/api/lists/{list}/lessons")).EnumerateArray().Select(l => l.GetProperty("lessonId").GetGuid()).ToList();
        ids.Count.ShouldBe(many);
        (await owner.PutAsJsonAsync($"/api/lists/{list}/order", new { lessons = new[] { ids[^1] } }, Cancel)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await owner.JsonAsync($"/api/lists/{list}/lessons"))[0].GetProperty("title").GetString().ShouldBe("Copy 2000");
        await fixture.WithAsync(db => db.Lessons.Where(l => l.Title.StartsWith("Copy ")).ExecuteDeleteAsync(Cancel));
    }

    /// <summary>What a map may hold (sitemaps.org, sitemap.xsd of version 0.9, written down from memory).</summary>
    private const string SitemapSchema = """
        <xsd:schema xmlns:xsd="http://www.w3.org/2001/XMLSchema" targetNamespace="http://www.sitemaps.org/schemas/sitemap/0.9"
            xmlns="http://www.sitemaps.org/schemas/sitemap/0.9" elementFormDefault="qualified">
          <xsd:element name="urlset"><xsd:complexType><xsd:sequence>
            <xsd:any minOccurs="0" maxOccurs="unbounded" namespace="##other" processContents="strict"/>
            <xsd:element name="url" type="tUrl" maxOccurs="unbounded"/>
          </xsd:sequence></xsd:complexType></xsd:element>
          <xsd:complexType name="tUrl"><xsd:sequence>
            <xsd:element name="loc" type="tLoc"/>
            <xsd:element name="lastmod" type="tLastmod" minOccurs="0"/>
            <xsd:element name="changefreq" type="tChangeFreq" minOccurs="0"/>
            <xsd:element name="priority" type="tPriority" minOccurs="0"/>
            <xsd:any minOccurs="0" maxOccurs="unbounded" namespace="##other" processContents="strict"/>
          </xsd:sequence></xsd:complexType>
          <xsd:simpleType name="tLoc"><xsd:restriction base="xsd:anyURI">
            <xsd:minLength value="12"/><xsd:maxLength value="2048"/></xsd:restriction></xsd:simpleType>
          <xsd:simpleType name="tLastmod"><xsd:union><xsd:simpleType><xsd:restriction base="xsd:date"/></xsd:simpleType>
            <xsd:simpleType><xsd:restriction base="xsd:dateTime"/></xsd:simpleType></xsd:union></xsd:simpleType>
          <xsd:simpleType name="tChangeFreq"><xsd:restriction base="xsd:string"><xsd:enumeration value="always"/><xsd:enumeration value="hourly"/>
            <xsd:enumeration value="daily"/><xsd:enumeration value="weekly"/><xsd:enumeration value="monthly"/><xsd:enumeration value="yearly"/>
            <xsd:enumeration value="never"/></xsd:restriction></xsd:simpleType>
          <xsd:simpleType name="tPriority"><xsd:restriction base="xsd:decimal">
            <xsd:minInclusive value="0.0"/><xsd:maxInclusive value="1.0"/></xsd:restriction></xsd:simpleType>
        </xsd:schema>
        """;

    /// <summary>Lessons like one, each released like it.</summary>
    private static FormattableString CopiesOf(Guid lesson, int many) =>
        $"""
            with made as (
                insert into "Lessons" select copy.* from "Lessons" l, generate_series(1, {many}) i,
                    lateral jsonb_populate_record(null::"Lessons", to_jsonb(l) ||
                    jsonb_build_object('Id', gen_random_uuid(), 'Title', 'Copy ' || to_char(i, 'FM0000'),
                        'Said', jsonb_build_object('version', 2, 'title', 'Copy ' || to_char(i, 'FM0000')))) copy
                where l."Id" = {lesson} returning "Id"),
            one as (select * from "Releases" where "LessonId" = {lesson} and "OutletId" in (select "Id" from "Outlets" where "Kind" = 'channel') limit 1)
            insert into "Releases" select copy.* from one r, made, lateral jsonb_populate_record(null::"Releases", to_jsonb(r) ||
                jsonb_build_object('Id', gen_random_uuid(), 'LessonId', made."Id", 'Token', replace(gen_random_uuid()::text, '-', ''), 'Details', null)) copy
            """;

    private static Task<HttpResponseMessage> AddAsync(HttpClient who, string name, string visibility = "signedIn") =>
        who.PostAsJsonAsync("/api/lists", new { name, visibility }, Cancel);

    private static Task<HttpResponseMessage> SaveAsync(HttpClient who, Guid list, string visibility) =>
        who.PutAsJsonAsync($"/api/lists/{list}", new { name = "First day", visibility }, Cancel);

    private static async Task<Guid> IdOf(HttpResponseMessage added) => (await added.Content.ReadFromJsonAsync<JsonElement>(Cancel)).GetProperty("id").GetGuid();

    private static async Task<string?> CodeOf(HttpResponseMessage refused) => (await refused.ProblemAsync()).GetProperty("code").GetString();

    private static async Task<JsonElement> ListAsync(HttpClient who, Guid list, Guid lesson) =>
        (await who.JsonAsync($"/api/lists?lesson={lesson}")).EnumerateArray().First(l => l.GetProperty("id").GetGuid() == list);

    private async Task<(Guid Lesson, string Title)> LessonAsync()
    {
        (Guid, string) lesson = default;
        await fixture.WithAsync(async db =>
        {
            var release = await db.Releases.Include(r => r.Lesson).FirstAsync(r => r.Outlet!.Kind == "channel", Cancel);
            lesson = (release.LessonId, release.Lesson!.Title);
        });
        return lesson;
    }

    private Task OpenAsync(Guid lesson, Visibility visibility) =>
        fixture.WithAsync(db => db.Releases.Where(r => r.LessonId == lesson).ExecuteUpdateAsync(set => set.SetProperty(r => r.Visibility, visibility), Cancel));
}
