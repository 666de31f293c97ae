using Wexel.Core.Keys;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Cameras;

/// <summary>Stretches in which the camera is shown otherwise: they lie apart.</summary>
internal sealed class CameraStretchKind : PlacedKind<CameraStretch>
{
    public override string Name => "camera stretch";

    public override string Plural => "camera stretches";

    public override int Most => 500;

    public override TimeSpan Shortest { get; } = TimeSpan.FromSeconds(0.2);

    public override IReadOnlyList<(string Word, Func<CameraStretch, CameraStretch, bool> Differs)> Changes { get; } =
    [("moved", (a, b) => a.Span != b.Span), ("changed", (a, b) => a.Shown != b.Shown)];

    public override string Named(CameraStretch thing) =>
        thing.Shown switch
        {
            CameraShown.Large => "the stretch with a large camera",
            CameraShown.Hidden => "the stretch without the camera",
            _ => "the stretch with a small camera",
        };

    public override CameraStretch At(CameraStretch thing, TimeRange span) => thing with { Span = span };

    public override CameraStretch Called(CameraStretch thing, string id) => thing with { Id = id };

    public override CameraStretch Merged(CameraStretch before, CameraStretch theirs, CameraStretch mine) =>
        new(mine.Id, mine.Span != before.Span ? mine.Span : theirs.Span, mine.Shown != before.Shown ? mine.Shown : theirs.Shown);

    public override void Declare(KeyFields key, CameraStretch thing) => key.Add("id", thing.Id).Add("span", thing.Span).Add("shown", (CameraShown?)thing.Shown);

    /// <summary>In order, within the recording, apart: where two lie over each other, the later one begins as the earlier one ends.</summary>
    public override IReadOnlyList<CameraStretch> Tidy(IEnumerable<CameraStretch> things, TimeSpan length)
    {
        var tidy = new List<CameraStretch>();
        foreach (var stretch in things.OrderBy(t => t.Span.Start))
        {
            var span = stretch.Span.Within(length);
            if (tidy.Count > 0 && span.Start < tidy[^1].Span.End)
                span = span with { Start = tidy[^1].Span.End };
            if (span.Length >= Shortest)
                tidy.Add(stretch with { Span = span, Shown = Enum.IsDefined(stretch.Shown) ? stretch.Shown : CameraShown.Small });
        }

        return tidy;
    }
}
