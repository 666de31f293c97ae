using System.Globalization;
using System.Text.Json.Serialization;
using Wexel.Core.Keys;
using Wexel.Core.Scoring;

namespace Wexel.Core.Questions.Kinds;

/// <summary>A part of the picture that can be clicked.</summary>
/// <param name="Shape">Where it is, as shares of the recording's picture.</param>
/// <param name="Text">What is there, in a few words; whoever sees no picture chooses among those words.</param>
/// <param name="Right">Whether it is right.</param>
/// <param name="Reply">What is said to whoever clicked it; null for nothing.</param>
public sealed record PlaceArea(
    Shape Shape,
    string Text,
    bool Right = false,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Reply = null
);

/// <summary>The right place on the picture, clicked.</summary>
/// <param name="Areas">Places, those before others where they lie over each other.</param>
public sealed record ClickPlace(IReadOnlyList<PlaceArea> Areas) : Interaction
{
    internal const string Name = "place";

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => Name;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string InWords => "click the right place";

    /// <inheritdoc/>
    [JsonIgnore]
    public override AnswerKey Key =>
        new(
            [
                new ResponseDeclaration(
                    Cardinality.Single,
                    BaseType.Point,
                    [.. Areas.Where(a => a.Right).Take(1).Select(a => Middle(a.Shape))],
                    Areas: new AreaMapping([
                        .. Areas.Select(a => new AreaEntry(a.Shape.Moved(p => new Place(p.X * Place.Steps, p.Y * Place.Steps)), a.Right ? 1 : 0)),
                    ])
                ),
            ],
            Replies:
            [
                .. Areas
                    .Select((a, i) => (a.Reply, i.ToString(CultureInfo.InvariantCulture)))
                    .Where(r => r.Reply is not null)
                    .Select(r => new Reply(r.Item2, r.Reply!)),
            ]
        );

    /// <inheritdoc/>
    [JsonIgnore]
    public override bool IsOnPicture => true;

    /// <inheritdoc/>
    public override Interaction Seen(Func<Place, Place> seen) => this with { Areas = [.. Areas.Select(a => a with { Shape = a.Shape.Moved(seen) })] };

    /// <summary>The options are places by their words, each named by a point in its middle: as good an answer as a click there.</summary>
    public override AskedForm Form(string seed) =>
        new(
            Name,
            Areas.Count(a => a.Text.Length > 0) < 2
                ? null
                : [.. Mixed(Areas.Where(a => a.Text.Length > 0), seed, a => a.Text).Select(a => new AskedOption(Middle(a.Shape), a.Text))]
        );

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<string> Faults
    {
        get
        {
            if (!Areas.Any(a => a.Right))
                yield return "No place is right. Draw one on the picture.";
            foreach (var fault in Areas.Select(a => a.Shape.Fault("A place")).OfType<string>().Distinct())
                yield return fault;
            if (Areas.Count(a => a.Text.Length > 0) < 2)
                yield return "Whoever sees no picture needs the places in words. Name two places or more, at least one of them wrong.";
            foreach (var sentence in SameTwice(Areas.Select(a => a.Text), "places"))
                yield return sentence;
        }
    }

    /// <inheritdoc/>
    public override Interaction Tidied() =>
        this with
        {
            Areas =
            [
                .. (Areas ?? [])
                    .Where(a => a?.Shape?.Points is not null)
                    .Take(MostOptions)
                    .Select(a => a with { Shape = a.Shape.Within(), Text = Line(a.Text), Reply = Reply(a.Reply) }),
            ],
        };

    /// <inheritdoc/>
    public override void Declare(KeyFields key) =>
        key.Each("areas", Areas, (k, a) =>
            k.Add("shape", (ShapeKind?)a.Shape.Kind)
                .Each("points", a.Shape.Points.Select(p => string.Create(CultureInfo.InvariantCulture, $"{p.X:R} {p.Y:R}")).ToList())
                .Add("text", a.Text)
                .Add("right", a.Right)
                .Add("reply", a.Reply)
        );

    /// <summary>The place that was hit; all others are one.</summary>
    public override IEnumerable<(string Words, bool Right)> Taken(IReadOnlyList<string> answer) =>
        answer.Select(Place.Read).OfType<Place>().Select(p => Hit(p)).Select(area => (area is null ? "Elsewhere" : area.Text, area?.Right == true));

    /// <inheritdoc/>
    public override string Said(IReadOnlyList<string> answer) =>
        string.Join(
            ", ",
            answer.Select(text =>
                Place.Read(text) is not { } place ? text
                : Hit(place) is { Text.Length: > 0 } area ? area.Text
                : $"{place.X * 100 / Place.Steps:0} % across, {place.Y * 100 / Place.Steps:0} % down"
            )
        );

    private PlaceArea? Hit(Place place) => Areas.FirstOrDefault(a => a.Shape.Contains(new Place(place.X / Place.Steps, place.Y / Place.Steps)));

    /// <summary>A point that lies in the shape: its middle, or where that lies outside, one that is halfway between two of its corners and inside.</summary>
    private static string Middle(Shape shape)
    {
        if (shape.Points.Count == 0)
            return Place.Write(0, 0);
        var middle = new Place((shape.Points.Min(p => p.X) + shape.Points.Max(p => p.X)) / 2, (shape.Points.Min(p => p.Y) + shape.Points.Max(p => p.Y)) / 2);
        var inside = shape.Contains(middle)
            ? middle
            : shape
                .Points.SelectMany((a, i) => shape.Points.Skip(i + 1).Select(b => new Place((a.X + b.X) / 2, (a.Y + b.Y) / 2)))
                .Where(shape.Contains)
                .DefaultIfEmpty(shape.Points[0])
                .First();
        return Place.Write(inside.X, inside.Y);
    }
}
