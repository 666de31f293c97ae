using System.Collections.Immutable;
using CsCheck;
using Wexel.Core.Outlets;
using Wexel.Core.People;

namespace Wexel.Core.Tests.Outlets;

/// <summary>A plan for many cells of the board is the difference of what is wanted and what there is.</summary>
public class BoardPlanTests
{
    private static Guid Id(int number) => new(number, 0, 0, [0, 0, 0, 0, 0, 0, 0, 0]);

    private static BoardCell Cell(int lesson, int outlet) => new(Id(lesson), Id(100 + outlet));

    private static readonly BoardActual Nothing = new([], [], ImmutableDictionary<BoardCell, CellActual>.Empty);

    private static CellWanted Wanted(int lesson, int outlet, string version = "1", Visibility visibility = Visibility.SignedIn) =>
        new(
            Cell(lesson, outlet),
            new ReleaseWanted(
                $"all {lesson} {outlet} {version}",
                [$"picture {lesson}", $"sound {lesson}"],
                $"file {lesson} {version}",
                // One outlet takes two copies, two take packages, one of which is put there.
                outlet == 1
                    ? [$"copy {lesson} {version}", $"sound {lesson} {version}"]
                    : [],
                Packs: outlet >= 2,
                Delivers: outlet == 3
            ),
            visibility,
            Bytes: 1_000,
            Time: TimeSpan.FromSeconds(60)
        );

    private static Gen<T> OneOf<T>(params T[] all) => Gen.Int[0, all.Length - 1].Select(i => all[i]);

    private static readonly Gen<CellWanted> AnyWanted = Gen.Select(
        Gen.Int[0, 3],
        Gen.Int[0, 3],
        OneOf("1", "2"),
        OneOf(Visibility.SignedIn, Visibility.WithLink),
        Gen.Int[0, 4],
        (lesson, outlet, version, visibility, odds) =>
            odds > 0 ? Wanted(lesson, outlet, version, visibility) : new CellWanted(Cell(lesson, outlet), null, visibility)
    );

    /// <summary>What somebody wanted before, some of it done.</summary>
    private static readonly Gen<BoardActual> AnyActual = Gen.Select(AnyWanted.List[0, 12], Gen.Int[0, 60], (wanted, done) =>
        Changes(BoardPlan.Between(wanted, Nothing)).Take(done).Aggregate(Nothing, (state, change) => change(state))
    );

    private static IEnumerable<Func<BoardActual, BoardActual>> Changes(BoardPlan plan) => plan.Lines.SelectMany(l => l.Changes());

    /// <summary>What people see of a state; sets and dictionaries do not compare by what is in them.</summary>
    private static string Seen(BoardActual state) =>
        string.Join('\n', state.Files.Order(StringComparer.Ordinal))
        + "\n\n"
        + string.Join('\n', state.Checked.Order(StringComparer.Ordinal))
        + "\n\n"
        + string.Join('\n', state.Cells.OrderBy(c => c.Key.ToString(), StringComparer.Ordinal).Select(c => $"{c.Key} {c.Value}"));

    [Fact]
    public void Applied_twice_the_second_has_nothing_to_do() =>
        Gen.Select(AnyWanted.List[0, 12], AnyActual)
            .Sample(
                (wanted, actual) =>
                {
                    var after = BoardPlan.Between(wanted, actual).Applied(actual);
                    BoardPlan.Between(wanted, after).Lines.ShouldAllBe(l => l.IsNothing);
                }
            );

    [Fact]
    public void In_any_order_it_comes_to_the_same_end() =>
        Gen.Select(AnyWanted.List[0, 12], AnyActual, Gen.Int)
            .Sample(
                (some, actual, seed) =>
                {
                    var wanted = some.GroupBy(w => w.Cell).Select(g => g.Last()).ToArray();
                    var shuffled = wanted.ToArray();
                    new Random(seed).Shuffle(shuffled);
                    Seen(BoardPlan.Between(shuffled, actual).Applied(actual)).ShouldBe(Seen(BoardPlan.Between(wanted, actual).Applied(actual)));
                    // What it comes to is the same too: what two cells share is made once.
                    BoardPlan.Between(shuffled, actual).Totals.Renders.ShouldBe(BoardPlan.Between(wanted, actual).Totals.Renders);
                }
            );

    [Fact]
    public void Cut_off_anywhere_going_on_comes_to_the_same_end() =>
        Gen.Select(AnyWanted.List[0, 12], AnyActual, Gen.Int[0, 80])
            .Sample(
                (wanted, actual, cut) =>
                {
                    var plan = BoardPlan.Between(wanted, actual);
                    var dead = Changes(plan).Take(cut).Aggregate(actual, (state, change) => change(state));
                    Seen(BoardPlan.Between(wanted, dead).Applied(dead)).ShouldBe(Seen(plan.Applied(actual)));
                }
            );

    [Fact]
    public void An_address_that_there_was_stays_whatever_is_done() =>
        Gen.Select(AnyWanted.List[0, 12], AnyActual)
            .Sample(
                (wanted, actual) =>
                {
                    var after = BoardPlan.Between(wanted, actual).Applied(actual);
                    actual.Cells.Where(c => c.Value.HasAddress).ShouldAllBe(c => after[c.Key].HasAddress);
                }
            );

    [Fact]
    public void Of_a_lesson_at_four_outlets_the_file_is_rendered_once()
    {
        var plan = BoardPlan.Between([Wanted(1, 0), Wanted(1, 1), Wanted(1, 2), Wanted(1, 3)], Nothing);
        plan.Totals.ShouldBe(
            new BoardTotals(
                Renders: 1,
                TimeSpan.FromSeconds(60),
                SendBytes: 1_000,
                PagesChange: 0,
                PagesNew: 4,
                Opens: 0,
                TakenDown: 0,
                AddressesStay: 0,
                Nothing: 0
            )
        );
        plan.Lines.Select(l => l.Steps.Count).ShouldBe([4, 2, 2, 3]);
    }

    [Fact]
    public void What_changes_is_told_apart_from_what_is_only_opened_or_taken_down()
    {
        var there = BoardPlan.Between([Wanted(1, 0), Wanted(2, 0), Wanted(3, 0), Wanted(0, 0)], Nothing).Applied(Nothing);
        var plan = BoardPlan.Between(
            [Wanted(1, 0, "2"), Wanted(2, 0, "1", Visibility.WithLink), new CellWanted(Cell(3, 0), null, Visibility.SignedIn), Wanted(0, 0)],
            there
        );
        plan.Totals.ShouldBe(new BoardTotals(0, TimeSpan.Zero, 0, PagesChange: 1, PagesNew: 0, Opens: 1, TakenDown: 1, AddressesStay: 2, Nothing: 1));
        // What is wanted of a cell last holds.
        BoardPlan.Between([Wanted(1, 0, "2"), Wanted(1, 0)], there).Lines.ShouldHaveSingleItem().IsNothing.ShouldBeTrue();
        // What was taken down is taken down; another time there is nothing to do, and its address is there.
        var down = plan.Applied(there)[Cell(3, 0)];
        (down.HasAddress, down.Published).ShouldBe((true, null));
    }
}
