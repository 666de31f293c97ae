using System.Globalization;
using Wexel.Core.Contents;
using Wexel.Core.Keys;
using Wexel.Core.Placing;
using Wexel.Core.Scoring;
using Wexel.Core.Timing;

namespace Wexel.Core.Overlays;

/// <summary>Clickable areas of a lesson; they may lie over each other, and the later one is above.</summary>
internal sealed class AreaKind : PlacedKind<Area>
{
    public override string Name => "area";

    public override int Most => 200;

    public override TimeSpan Shortest { get; } = TimeSpan.FromSeconds(0.2);

    public override IReadOnlyList<(string Word, Func<Area, Area, bool> Differs)> Changes { get; } =
    [("moved", (a, b) => a.Span != b.Span), ("changed", (a, b) => a with { Span = default } != b with { Span = default })];

    public override string Named(Area thing) => thing.Text.Length > 0 ? $"the clickable area “{Problem.Shown(thing.Text)}”" : "the clickable area";

    public override Area At(Area thing, TimeRange span) => thing with { Span = span };

    public override Area Called(Area thing, string id) => thing with { Id = id };

    public override Area Merged(Area before, Area theirs, Area mine)
    {
        T Of<T>(Func<Area, T> part) => Equals(part(mine), part(before)) ? part(theirs) : part(mine);
        return new Area(mine.Id, Of(a => a.Span), Of(a => a.Shape), Of(a => a.Text), Of(a => a.Action));
    }

    public override void Declare(KeyFields key, Area thing) =>
        key.Add("id", thing.Id)
            .Add("span", thing.Span)
            .Add("shape", (ShapeKind?)thing.Shape.Kind)
            .Each("points", thing.Shape.Points.Select(p => string.Create(CultureInfo.InvariantCulture, $"{p.X:R} {p.Y:R}")).ToList())
            .Add("text", thing.Text)
            .Add("does", thing.Action.Kind)
            .Part("action", thing.Action, (k, action) => action.Declare(k));

    public override IReadOnlyList<Area> Tidy(IEnumerable<Area> things, TimeSpan length) =>
        [
            .. things
                .Select(a =>
                    a with
                    {
                        Span = a.Span.Within(length),
                        Shape = a.Shape.Within(),
                        Text = SectionRules.OneLine(a.Text, Area.LongestText),
                        Action = a.Action.Tidied(),
                    }
                )
                .Where(a => a.Span.Length >= Shortest)
                .OrderBy(a => a.Span.Start),
        ];

    public override IReadOnlyList<Area> Following(IReadOnlyList<Area> things, TimeMap map) =>
        [.. base.Following(things, map).Select(a => a with { Action = a.Action.Moved(map.ToLesson) })];

    public override Area? Carried(Area thing, ReelPlaces places) =>
        base.Carried(thing, places) is { } carried ? carried with { Action = carried.Action.Moved(to => places.Moved(to) ?? to) } : null;

    public override IEnumerable<string> LeadsTo(Area thing) => thing.Action.Section is { } section ? [section] : [];

    public override IEnumerable<string> Faults(Area thing) =>
        [
            .. thing.Shape.Fault("The area") is { } fault ? [fault] : Array.Empty<string>(),
            .. thing.Text.Length == 0 ? ["Whoever sees no picture needs a word for it. Say what is there."] : Array.Empty<string>(),
            .. thing.Action.Faults,
        ];
}
