using Wexel.Core.Outlets;
using Wexel.Core.People;

namespace Wexel.Server.Board;

/// <summary>Lessons down, outlets across.</summary>
internal sealed record BoardView(IReadOnlyList<BoardOutlet> Outlets, IReadOnlyList<BoardRow> Lessons);

/// <param name="Id">The outlet.</param>
/// <param name="Name">Its name.</param>
/// <param name="KindName">What it is, for people.</param>
/// <param name="HasPages">Whether who may see it is asked at each release.</param>
internal sealed record BoardOutlet(Guid Id, string Name, string KindName, bool AsksWho);

/// <param name="LessonId">The lesson.</param>
/// <param name="Course">Its course.</param>
/// <param name="Position">Its place there.</param>
/// <param name="Title">Its title.</param>
/// <param name="ShortTitle">What stands where there is little room; null where it has none.</param>
/// <param name="Cells">What stands at each outlet, in their order; null where nothing does, and nobody wanted it.</param>
internal sealed record BoardRow(Guid LessonId, string Course, int Position, string Title, string? ShortTitle, IReadOnlyList<CellView?> Cells);

/// <param name="Phase">How it stands there, or how far it is on its way.</param>
/// <param name="Since">Since when.</param>
/// <param name="Visibility">Who may see it; null where that is not asked, or where nothing stands.</param>
/// <param name="Progress">How much of the phase is done, 0 to 1; null where nobody knows.</param>
/// <param name="Problem">What stood in the way, in a sentence.</param>
/// <param name="TakesDown">Whether it is taken down there, or was to be.</param>
internal sealed record CellView(ReleasePhase Phase, DateTimeOffset Since, Visibility? Visibility, double? Progress, string? Problem, bool TakesDown);

/// <summary>What is to be done in cells of the board.</summary>
internal enum BoardAction
{
    /// <summary>The lessons are to stand at the outlets as they are now.</summary>
    Release,

    /// <summary>Nothing is to stand there.</summary>
    TakeDown,

    /// <summary>Who may see what stands there changes, and nothing else.</summary>
    Open,
}

/// <param name="Action">What is to be done.</param>
/// <param name="Cells">Where.</param>
/// <param name="Visibility">Who is to see it; null for whoever might before.</param>
internal sealed record BoardRequest(BoardAction Action, IReadOnlyList<BoardCell> Cells, Visibility? Visibility = null);

/// <param name="Totals">What it comes to.</param>
/// <param name="Lines">What is done in each cell.</param>
/// <param name="Refused">The cells in which nothing is done, and why.</param>
/// <param name="Losses">What does not survive at the outlets that are released to.</param>
internal sealed record BoardPlanView(
    BoardTotals Totals,
    IReadOnlyList<BoardLineView> Lines,
    IReadOnlyList<BoardRefusal> Refused,
    IReadOnlyList<OutletLoss> Losses
);

/// <param name="Outlet">The outlet's name.</param>
/// <param name="Sentence">What of a lesson is not there, or something else.</param>
internal sealed record OutletLoss(string Outlet, string Sentence);

/// <param name="Cell">Where.</param>
/// <param name="Lesson">The lesson's title.</param>
/// <param name="Outlet">The outlet's name.</param>
/// <param name="Steps">What is done, in its order.</param>
/// <param name="Opens">Whether only who may see it changes.</param>
/// <param name="TakesDown">Whether it is taken down.</param>
/// <param name="KeepsAddress">Whether an address that there was is good as before.</param>
/// <param name="Bytes">About how much is put there.</param>
/// <param name="Time">About how long its file takes to be made.</param>
internal sealed record BoardLineView(
    BoardCell Cell,
    string Lesson,
    string Outlet,
    IReadOnlyList<ReleaseStep> Steps,
    bool Opens,
    bool TakesDown,
    bool KeepsAddress,
    long Bytes,
    TimeSpan Time
);

/// <summary>A cell in which nothing is done.</summary>
internal sealed record BoardRefusal(BoardCell Cell, string Lesson, string Outlet, string Sentence);

/// <param name="Begun">In how many cells it was done, or has begun.</param>
/// <param name="Refused">The cells in which nothing was done, and why.</param>
internal sealed record BoardApplied(int Begun, IReadOnlyList<BoardRefusal> Refused);
