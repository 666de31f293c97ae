using Wexel.Core.Keys;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Captions;

/// <summary>Captions of one track.</summary>
internal sealed class CueKind : PlacedKind<Cue>
{
    public override string Name => "caption";

    public override int Most => CaptionFile.MostCues;

    public override bool AreCounted => true;

    public override string Named(Cue thing) => $"the caption at {TimeCode.Brief(thing.Span.Start)}";

    public override string Placed(Cue thing) => Named(thing);

    public override Cue At(Cue thing, TimeRange span) => thing with { Span = span };

    public override Cue Called(Cue thing, string id) => thing with { Id = id };

    public override Cue Merged(Cue before, Cue theirs, Cue mine)
    {
        // Text and its markup are one thing.
        var words = (mine.Text, mine.Markup) != (before.Text, before.Markup) ? mine : theirs;
        return words with { Span = mine.Span != before.Span ? mine.Span : theirs.Span, AtTop = mine.AtTop != before.AtTop ? mine.AtTop : theirs.AtTop };
    }

    public override void Declare(KeyFields key, Cue thing) => key.Add("span", thing.Span).Add("text", thing.Markup ?? thing.Text).Add("top", thing.AtTop);

    public override IReadOnlyList<Cue> Tidy(IEnumerable<Cue> things, TimeSpan length) => [.. things.OrderBy(c => c.Span.Start)];

    /// <summary>A track stays whole where a lesson is split: what is cut does not show, and is there again when an edge is moved.</summary>
    public override IReadOnlyList<Cue> Before(IReadOnlyList<Cue> things, TimeSpan at) => things;

    /// <inheritdoc cref="Before"/>
    public override IReadOnlyList<Cue> From(IReadOnlyList<Cue> things, TimeSpan at) => things;
}
