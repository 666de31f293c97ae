using Wexel.Core.Keys;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Editing;

/// <summary>Move-ins of a lesson: they lie apart.</summary>
internal sealed class MoveInKind : PlacedKind<MoveIn>
{
    private static readonly TimeSpan LongestEase = TimeSpan.FromSeconds(3);

    public override string Name => "move-in";

    public override int Most => 200;

    public override TimeSpan Shortest { get; } = TimeSpan.FromSeconds(0.2);

    public override string Named(MoveIn thing) => $"the move-in at {TimeCode.Brief(thing.Span.Start)}";

    public override string Placed(MoveIn thing) => Named(thing);

    public override MoveIn At(MoveIn thing, TimeRange span) => thing with { Span = span };

    public override MoveIn Called(MoveIn thing, string id) => thing with { Id = id };

    public override MoveIn Merged(MoveIn before, MoveIn theirs, MoveIn mine) =>
        new(
            mine.Id,
            mine.Span != before.Span ? mine.Span : theirs.Span,
            mine.Part != before.Part ? mine.Part : theirs.Part,
            mine.Ease != before.Ease ? mine.Ease : theirs.Ease
        );

    public override void Declare(KeyFields key, MoveIn thing) =>
        key.Add("id", thing.Id)
            .Add("span", thing.Span)
            .Add("ease", thing.Ease)
            .Add("x", thing.Part.X)
            .Add("y", thing.Part.Y)
            .Add("width", thing.Part.Width)
            .Add("height", thing.Part.Height);

    /// <summary>In order, within the recording and its picture, apart: where two lie over each other, the earlier one ends as the later one starts.</summary>
    public override IReadOnlyList<MoveIn> Tidy(IEnumerable<MoveIn> things, TimeSpan length)
    {
        TimeSpan Within(TimeSpan time, TimeSpan most) =>
            time < TimeSpan.Zero ? TimeSpan.Zero
            : time > most ? most
            : time;
        var tidy = new List<MoveIn>();
        foreach (var moveIn in things.OrderBy(m => m.Span.Start))
        {
            var span = moveIn.Span.Within(length);
            if (span.Length < Shortest)
                continue;
            while (tidy.Count > 0 && tidy[^1].Span.End > span.Start)
            {
                var before = tidy[^1] with { Span = new TimeRange(tidy[^1].Span.Start, span.Start) };
                tidy.RemoveAt(tidy.Count - 1);
                if (before.Span.Length >= Shortest)
                    tidy.Add(before);
            }

            tidy.Add(moveIn with { Span = span, Part = moveIn.Part.Within(), Ease = Within(moveIn.Ease, LongestEase) });
        }

        return tidy;
    }
}
