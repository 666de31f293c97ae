using CsCheck;
using Wexel.Core.Outlets;
using Wexel.Core.People;

namespace Wexel.Core.Tests.Outlets;

public class ReleasePlanTests
{
    private static readonly ReleaseActual Nothing = new(new HashSet<string>(), new HashSet<string>(), null, null, null);

    private static ReleaseWanted Wanted(bool copies = false, bool packs = false, bool delivers = false, string key = "k1") =>
        new(key, ["picture", "sound"], "file", copies ? ["copy", "sound alone"] : [], packs, delivers);

    /// <summary>What there is once a step was done.</summary>
    private static ReleaseActual Done(ReleaseActual actual, ReleaseWanted wanted, ReleaseStep step) =>
        step switch
        {
            ReleaseStep.Encode => actual with { Files = actual.Files.Union(wanted.Tracks).ToHashSet() },
            ReleaseStep.Finish => actual with { Files = actual.Files.Append(wanted.File).ToHashSet() },
            ReleaseStep.Check => actual with { Checked = actual.Checked.Append(wanted.File).ToHashSet() },
            ReleaseStep.Copy => actual with { Files = actual.Files.Union(wanted.Copies).ToHashSet() },
            ReleaseStep.Pack => actual with { PackedFrom = wanted.Key },
            ReleaseStep.Publish => actual with { Published = wanted.Key },
            _ => actual with { Delivered = wanted.Key },
        };

    [Fact]
    public void Another_file_to_download_is_made_beside_the_one_that_plays_and_nothing_else_again()
    {
        var wanted = Wanted() with { Download = new DownloadWanted(["small picture", "sound"], "small") };
        var actual = Nothing with
        {
            Files = new HashSet<string> { "file" },
            Checked = new HashSet<string> { "file" },
            Published = "k0",
        };
        ReleasePlan.Steps(wanted, actual).ShouldBe([ReleaseStep.Encode, ReleaseStep.Finish, ReleaseStep.Check, ReleaseStep.Publish]);
        actual = actual with { Files = actual.Files.Union(["small picture", "sound"]).ToHashSet() };
        ReleasePlan.Steps(wanted, actual).ShouldBe([ReleaseStep.Finish, ReleaseStep.Check, ReleaseStep.Publish]);
        actual = actual with { Files = actual.Files.Append("small").ToHashSet() };
        ReleasePlan.Steps(wanted, actual).ShouldBe([ReleaseStep.Check, ReleaseStep.Publish]);
        actual = actual with { Checked = actual.Checked.Append("small").ToHashSet(), Published = wanted.Key };
        ReleasePlan.Steps(wanted, actual).ShouldBeEmpty();
    }

    [Fact]
    public void A_copy_that_lacks_beside_another_is_made_of_the_tracks()
    {
        var wanted = Wanted(copies: true);
        var actual = new ReleaseActual(new HashSet<string> { "file", "copy", "picture", "sound" }, new HashSet<string> { "file" }, null, "k0", null);
        ReleasePlan.Steps(wanted, actual).ShouldBe([ReleaseStep.Copy, ReleaseStep.Publish]);
        ReleasePlan
            .Steps(
                wanted,
                actual with
                {
                    Files = new HashSet<string> { "file", "copy" },
                }
            )
            .ShouldBe([ReleaseStep.Encode, ReleaseStep.Copy, ReleaseStep.Publish]);
    }

    [Fact]
    public void From_nothing_all_is_done_in_order() =>
        ReleasePlan
            .Steps(Wanted(copies: true, packs: true, delivers: true), Nothing)
            .ShouldBe([
                ReleaseStep.Encode,
                ReleaseStep.Finish,
                ReleaseStep.Check,
                ReleaseStep.Copy,
                ReleaseStep.Pack,
                ReleaseStep.Publish,
                ReleaseStep.Deliver,
            ]);

    [Fact]
    public void What_was_encoded_is_not_encoded_again_for_another_title()
    {
        var actual = Nothing with
        {
            Files = new HashSet<string> { "picture", "sound", "old file" },
            Checked = new HashSet<string> { "old file" },
            Published = "k0",
        };
        ReleasePlan.Steps(Wanted(), actual).ShouldBe([ReleaseStep.Finish, ReleaseStep.Check, ReleaseStep.Publish]);
    }

    [Fact]
    public void A_finished_file_needs_no_tracks_any_more_but_a_copy_of_it_does()
    {
        var actual = Nothing with
        {
            Files = new HashSet<string> { "file" },
            Checked = new HashSet<string> { "file" },
        };
        ReleasePlan.Steps(Wanted(packs: true), actual).ShouldBe([ReleaseStep.Pack, ReleaseStep.Publish]);
        ReleasePlan.Steps(Wanted(copies: true), actual).ShouldBe([ReleaseStep.Encode, ReleaseStep.Copy, ReleaseStep.Publish]);
    }

    /// <summary>Done twice it is nothing; broken off anywhere and gone on with, it ends at the same.</summary>
    [Fact]
    public void However_often_it_is_broken_off_it_ends_at_what_is_wanted() =>
        Gen.Select(Gen.Bool, Gen.Bool, Gen.Bool, Gen.Int[0, 127], Gen.Int[1, 3])
            .Sample(
                (copies, packs, delivers, have, atOnce) =>
                {
                    var wanted = Wanted(copies, packs, delivers);
                    var all = Enum.GetValues<ReleaseStep>().Where(s => (s != ReleaseStep.Copy || copies) && (s != ReleaseStep.Pack || packs)).ToList();
                    var actual = all.Where((_, i) => (have >> i & 1) == 1).Aggregate(Nothing, (now, step) => Done(now, wanted, step));
                    for (var starts = 0; ReleasePlan.Steps(wanted, actual) is { Count: > 0 } steps; starts++)
                    {
                        starts.ShouldBeLessThan(20);
                        // Whoever does it dies after some steps.
                        actual = steps.Take(atOnce).Aggregate(actual, (now, step) => Done(now, wanted, step));
                    }

                    actual.Published.ShouldBe(wanted.Key);
                    actual.Files.ShouldContain(wanted.File);
                    actual.Checked.ShouldContain(wanted.File);
                    (actual.PackedFrom == wanted.Key || !packs).ShouldBeTrue();
                    (actual.Delivered == wanted.Key || !delivers).ShouldBeTrue();
                }
            );

    [Fact]
    public void Delivered_is_what_changed_and_removed_what_is_gone()
    {
        DeliveredFile[] before = [new("a.html", "1"), new("b.html", "2"), new("c.html", "3")];
        var there = before.ToDictionary(f => f.Path, f => f.Key);
        var plan = DeliveryPlan.Of([new("a.html", "1"), new("b.html", "other"), new("d.html", "4")], there);
        plan.Put.Select(f => f.Path).ShouldBe(["b.html", "d.html"]);
        plan.Remove.ShouldBe(["c.html"]);
        (DeliveryPlan.Of(before, there).Put.Count, DeliveryPlan.Of(before, there).Remove.Count).ShouldBe((0, 0));
    }
}
