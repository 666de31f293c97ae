using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Core.Outlets;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Releases;

namespace Wexel.Server.Tests;

/// <summary>A lesson goes to an outlet by steps, each of which whoever comes next can do, and do again.</summary>
public sealed class ReleaseStepsTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    [Fact]
    public async Task Each_step_is_done_by_somebody_else_and_twice()
    {
        var trainer = await fixture.SignedInAsync();
        var (lesson, outlets) = await WithAnotherTitleAsync(trainer, "Closing the till at night");
        foreach (var outlet in outlets)
        {
            var before = (await ReleaseAsync(lesson, outlet.Id))!;
            var aim = new ReleaseAim(lesson, outlet.Id, before.ProfileId, before.Visibility);
            var (steps, key) = await WalkAsync(aim, twice: true);

            steps.ShouldContain(ReleaseStep.Publish);
            steps.Distinct().Count().ShouldBe(steps.Count, $"{outlet.Kind}: a step that was done is done");
            steps.Contains(ReleaseStep.Pack).ShouldBe(before.PackageKey is not null);
            var after = (await ReleaseAsync(lesson, outlet.Id))!;
            (after.Id, after.Token, after.FirstReleasedAt).ShouldBe((before.Id, before.Token, before.FirstReleasedAt));
            after.MadeFrom.ShouldBe(key);
            after.Revision.ShouldBeGreaterThan(before.Revision);
            (after.FileKey != before.FileKey).ShouldBeTrue("a title stands in the file");

            // The press that comes too late finds nothing to do.
            (
                await trainer.PostAsJsonAsync($"/api/lessons/{lesson}/releases", new { outletId = outlet.Id, profileId = aim.ProfileId })
            ).EnsureSuccessStatusCode();
            (await ReleaseAsync(lesson, outlet.Id))!.ReleasedAt.ShouldBe(after.ReleasedAt);
        }
    }

    [Fact]
    public async Task What_is_on_its_way_stands_nowhere()
    {
        var trainer = await fixture.SignedInAsync();
        var (lesson, outlets) = await WithAnotherTitleAsync(trainer, "Closing the till by day");
        var outlet = outlets.Single(o => o.Kind == "learningSystem");
        var before = (await ReleaseAsync(lesson, outlet.Id))!;
        (await trainer.DeleteAsync($"/api/releases/{before.Id}")).EnsureSuccessStatusCode();
        var aim = new ReleaseAim(lesson, outlet.Id, before.ProfileId, Visibility.WithLink);

        // Whoever packed it died then.
        await WalkAsync(aim, twice: false, until: ReleaseStep.Publish);
        (await ReleaseAsync(lesson, outlet.Id)).ShouldBeNull();
        var view = (await trainer.JsonAsync($"/api/lessons/{lesson}/releases")).EnumerateArray().Single(o => o.GetProperty("id").GetGuid() == outlet.Id);
        view.GetProperty("release").ValueKind.ShouldBe(JsonValueKind.Null);
        var cells = (await trainer.JsonAsync("/api/board")).GetProperty("lessons")[0].GetProperty("cells");
        cells.EnumerateArray().Select(c => c.GetProperty("phase").GetString()).Count(p => p == "takenDown").ShouldBe(1);

        // Whoever goes on packs nothing again.
        var (steps, _) = await WalkAsync(aim, twice: false);
        steps.ShouldBe([ReleaseStep.Publish, ReleaseStep.Deliver]);
        (await ReleaseAsync(lesson, outlet.Id))!.PackageKey.ShouldNotBeNull();
    }

    [Fact]
    public async Task What_was_put_there_is_not_put_there_again()
    {
        var trainer = await fixture.SignedInAsync();
        var (lesson, outlets) = await WithAnotherTitleAsync(trainer, "Closing the till on Sundays");
        var outlet = outlets.Single(o => o.Kind == "learningSystem");
        var release = (await ReleaseAsync(lesson, outlet.Id))!;
        var aim = new ReleaseAim(lesson, outlet.Id, release.ProfileId, release.Visibility);
        await WalkAsync(aim, twice: false, until: ReleaseStep.Deliver);
        async Task<IReadOnlyList<ReleaseStep>> DeliveringAsync(bool doIt)
        {
            using var scope = fixture.Server.Services.CreateScope();
            var steps = scope.ServiceProvider.GetRequiredService<ReleaseSteps>();
            (await steps.FindAsync(aim, CancellationToken.None)).Is(out var way, out _).ShouldBeTrue();
            var left = steps.Left(way!);
            if (doIt)
                (await steps.DoAsync(way!, left.Single(), CancellationToken.None)).Problem.ShouldBeNull();
            return left;
        }

        (await DeliveringAsync(doIt: true)).ShouldBe([ReleaseStep.Deliver]);
        (await DeliveringAsync(doIt: false)).ShouldBeEmpty();
        (await fixture.Outside.Client.GetStringAsync((await ReleaseAsync(lesson, outlet.Id))!.SentTo)).ShouldContain("Closing the till on Sundays");
    }

    /// <summary>Does what is left, each step by another; with what was wanted when nothing was left.</summary>
    private async Task<(IReadOnlyList<ReleaseStep> Steps, string Key)> WalkAsync(ReleaseAim aim, bool twice, ReleaseStep? until = null)
    {
        var done = new List<ReleaseStep>();
        while (true)
        {
            using var scope = fixture.Server.Services.CreateScope();
            var steps = scope.ServiceProvider.GetRequiredService<ReleaseSteps>();
            (await steps.FindAsync(aim, CancellationToken.None)).Is(out var way, out var problem).ShouldBeTrue(problem?.Sentence);
            var left = steps.Left(way!);
            if (left.Count == 0 || left[0] == until)
                return (done, way!.Wanted.Key);
            for (var time = 0; time < (twice ? 2 : 1); time++)
                (await steps.DoAsync(way!, left[0], CancellationToken.None)).Problem.ShouldBeNull();
            done.Add(left[0]);
        }
    }

    private async Task<Release?> ReleaseAsync(Guid lesson, Guid outlet)
    {
        using var scope = fixture.Server.Services.CreateScope();
        return await scope
            .ServiceProvider.GetRequiredService<WexelDb>()
            .Releases.AsNoTracking()
            .SingleOrDefaultAsync(r => r.LessonId == lesson && r.OutletId == outlet);
    }

    private static async Task<(Guid Lesson, IReadOnlyList<(Guid Id, string Kind)> Outlets)> WithAnotherTitleAsync(HttpClient trainer, string title)
    {
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        var view = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var document = JsonSerializer.Deserialize<Dictionary<string, object>>(view.GetProperty("document").GetRawText())!;
        document["title"] = title;
        (
            await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", new { basedOn = view.GetProperty("revision").GetInt32(), document })
        ).EnsureSuccessStatusCode();
        var outlets = await trainer.JsonAsync($"/api/lessons/{lesson}/releases");
        return (lesson, [.. outlets.EnumerateArray().Select(o => (o.GetProperty("id").GetGuid(), o.GetProperty("kind").GetString()!))]);
    }
}
