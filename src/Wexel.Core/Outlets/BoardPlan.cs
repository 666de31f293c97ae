using System.Collections.Immutable;
using Wexel.Core.People;

namespace Wexel.Core.Outlets;

/// <summary>A lesson at an outlet: one cell of the release board.</summary>
public readonly record struct BoardCell(Guid LessonId, Guid OutletId);

/// <summary>What is wanted in a cell.</summary>
/// <param name="Cell">Where.</param>
/// <param name="Stand">What is to stand there; null where nothing is to.</param>
/// <param name="Visibility">Who is to see it.</param>
/// <param name="Bytes">About how much is put there, in bytes.</param>
/// <param name="Time">About how long its file takes to be made, where it is not there.</param>
public sealed record CellWanted(BoardCell Cell, ReleaseWanted? Stand, Visibility Visibility, long Bytes = 0, TimeSpan Time = default);

/// <summary>What there is in a cell.</summary>
/// <param name="HasAddress">Whether it has an address; what was taken down keeps it.</param>
/// <param name="PackedFrom">The key of all of which the package was made; null where there is none.</param>
/// <param name="Published">The key of all that the outlet shows; null where it shows nothing.</param>
/// <param name="Delivered">The key of all that was put there; null for nothing.</param>
/// <param name="Visibility">Who may see it.</param>
public sealed record CellActual(bool HasAddress, string? PackedFrom, string? Published, string? Delivered, Visibility Visibility)
{
    /// <summary>Nothing ever stood there.</summary>
    public static CellActual Nothing { get; } = new(false, null, null, null, Seeing.Usual);
}

/// <summary>What there is: files, which cells share, and what stands in each cell.</summary>
/// <param name="Files">The keys of all that lies here whole.</param>
/// <param name="Checked">The keys of files that were checked.</param>
/// <param name="Cells">The cells where something is, or was.</param>
public sealed record BoardActual(ImmutableHashSet<string> Files, ImmutableHashSet<string> Checked, ImmutableDictionary<BoardCell, CellActual> Cells)
{
    /// <summary>What there is in a cell.</summary>
    public CellActual this[BoardCell cell] => Cells.GetValueOrDefault(cell, CellActual.Nothing);

    /// <summary>As far as the steps of one release go by it.</summary>
    public ReleaseActual At(BoardCell cell) => new(Files, Checked, this[cell].PackedFrom, this[cell].Published, this[cell].Delivered);
}

/// <summary>What is to be done in a cell.</summary>
/// <param name="Wanted">What is wanted there.</param>
/// <param name="Before">What there is before it is done.</param>
/// <param name="Steps">The steps, in their order; what is done for a cell before is not done again.</param>
/// <param name="Opens">Whether only who may see it changes.</param>
/// <param name="TakesDown">Whether it is taken down.</param>
public sealed record BoardLine(CellWanted Wanted, CellActual Before, IReadOnlyList<ReleaseStep> Steps, bool Opens, bool TakesDown)
{
    /// <summary>Whether there is anything to do.</summary>
    public bool IsNothing => Steps.Count == 0 && !Opens && !TakesDown;

    /// <summary>Each change that it makes, one after the other. Whoever dies between two of them leaves what the next plan goes on from.</summary>
    public IEnumerable<Func<BoardActual, BoardActual>> Changes()
    {
        foreach (var step in Steps)
            yield return before => Done(before, Wanted, step);
        if (Opens)
            yield return before => In(before, Wanted.Cell, c => c with { Visibility = Wanted.Visibility });
        if (TakesDown)
            yield return before => In(before, Wanted.Cell, c => c with { PackedFrom = null, Published = null, Delivered = null });
    }

    private static BoardActual Done(BoardActual before, CellWanted wanted, ReleaseStep step)
    {
        var (stand, cell) = (wanted.Stand!, wanted.Cell);
        return step switch
        {
            ReleaseStep.Encode => before with { Files = before.Files.Union(stand.Tracks) },
            ReleaseStep.Finish => before with { Files = before.Files.Add(stand.File) },
            ReleaseStep.Check => before with { Checked = before.Checked.Add(stand.File) },
            ReleaseStep.Copy => before with { Files = before.Files.Union(stand.Copies) },
            ReleaseStep.Pack => In(before, cell, c => c with { PackedFrom = stand.Key }),
            ReleaseStep.Publish => In(before, cell, c => c with { HasAddress = true, Published = stand.Key, Visibility = wanted.Visibility }),
            _ => In(before, cell, c => c with { Delivered = stand.Key }),
        };
    }

    private static BoardActual In(BoardActual before, BoardCell cell, Func<CellActual, CellActual> change) =>
        before with
        {
            Cells = before.Cells.SetItem(cell, change(before[cell])),
        };
}

/// <summary>What a plan comes to.</summary>
/// <param name="Renders">How many files are rendered.</param>
/// <param name="Time">About how long that takes, one after the other.</param>
/// <param name="SendBytes">About how much is put at outlets, in bytes.</param>
/// <param name="PagesChange">How many releases that stand show something else.</param>
/// <param name="PagesNew">How many stand where nothing stood.</param>
/// <param name="Opens">How many change who may see them, and nothing else.</param>
/// <param name="TakenDown">How many are taken down.</param>
/// <param name="AddressesStay">How many addresses that there were are good as before.</param>
/// <param name="Nothing">In how many cells nothing is to be done.</param>
public sealed record BoardTotals(
    int Renders,
    TimeSpan Time,
    long SendBytes,
    int PagesChange,
    int PagesNew,
    int Opens,
    int TakenDown,
    int AddressesStay,
    int Nothing
);

/// <summary>
/// What has to be done so that in many cells stands what is wanted: the difference of two values, and a value itself. Applied twice, the second has
/// nothing to do; in any order it comes to the same end; cut off anywhere, going on comes to the same end.
/// </summary>
/// <param name="Lines">Each cell with what is done in it, in the order in which it was wanted.</param>
public sealed record BoardPlan(IReadOnlyList<BoardLine> Lines)
{
    /// <summary>The plan from what there is to what is wanted.</summary>
    /// <param name="wanted">What is wanted; of a cell that comes twice, the last.</param>
    /// <param name="actual">What there is.</param>
    public static BoardPlan Between(IEnumerable<CellWanted> wanted, BoardActual actual)
    {
        var lines = new List<BoardLine>();
        var now = actual;
        foreach (var want in wanted.GroupBy(w => w.Cell).Select(g => g.Last()))
        {
            var line = LineFor(want, now);
            now = line.Changes().Aggregate(now, (state, change) => change(state));
            lines.Add(line);
        }

        return new BoardPlan(lines);
    }

    private static BoardLine LineFor(CellWanted want, BoardActual now)
    {
        var before = now[want.Cell];
        if (want.Stand is null)
            return new BoardLine(want, before, [], Opens: false, TakesDown: (before.Published ?? before.PackedFrom ?? before.Delivered) is not null);
        var steps = ReleasePlan.Steps(want.Stand, now.At(want.Cell));
        return new BoardLine(want, before, steps, Opens: !steps.Contains(ReleaseStep.Publish) && before.Visibility != want.Visibility, TakesDown: false);
    }

    /// <summary>What there is once all of it is done.</summary>
    public BoardActual Applied(BoardActual actual) => Lines.SelectMany(l => l.Changes()).Aggregate(actual, (state, change) => change(state));

    /// <summary>What it comes to.</summary>
    public BoardTotals Totals =>
        new(
            Lines.Count(l => l.Steps.Contains(ReleaseStep.Encode)),
            Lines.Where(l => l.Steps.Contains(ReleaseStep.Encode)).Aggregate(TimeSpan.Zero, (sum, l) => sum + l.Wanted.Time),
            Lines.Where(l => l.Steps.Contains(ReleaseStep.Deliver)).Sum(l => l.Wanted.Bytes),
            Lines.Count(l => l.Steps.Contains(ReleaseStep.Publish) && l.Before.Published is not null),
            Lines.Count(l => l.Steps.Contains(ReleaseStep.Publish) && l.Before.Published is null),
            Lines.Count(l => l.Opens),
            Lines.Count(l => l.TakesDown),
            Lines.Count(l => !l.IsNothing && !l.TakesDown && l.Before.HasAddress),
            Lines.Count(l => l.IsNothing)
        );
}
