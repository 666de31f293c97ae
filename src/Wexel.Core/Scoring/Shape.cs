using System.Globalization;
using System.Text.Json.Serialization;

namespace Wexel.Core.Scoring;

/// <summary>What a shape on a picture is.</summary>
public enum ShapeKind
{
    /// <summary>Two corners that lie across from each other.</summary>
    Rectangle,

    /// <summary>Two corners, across from each other, of the rectangle around it.</summary>
    Ellipse,

    /// <summary>Three corners or more, one after the other; the last is joined to the first.</summary>
    Polygon,
}

/// <summary>A place on a picture.</summary>
/// <param name="X">Across, from the left edge.</param>
/// <param name="Y">Down, from the upper edge.</param>
public readonly record struct Place(double X, double Y)
{
    /// <summary>How many steps a picture's width or height has where places are written as whole numbers.</summary>
    public const int Steps = 10_000;

    /// <summary>A place as QTI and SCORM write a point: two whole numbers with a space between; null for what is none.</summary>
    public static Place? Read(string text)
    {
        var parts = text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        return
            parts.Length == 2
            && double.TryParse(parts[0], NumberStyles.Float, CultureInfo.InvariantCulture, out var x)
            && double.TryParse(parts[1], NumberStyles.Float, CultureInfo.InvariantCulture, out var y)
            && double.IsFinite(x)
            && double.IsFinite(y)
            ? new Place(x, y)
            : null;
    }

    /// <summary>As it is written in whole steps.</summary>
    /// <param name="shareX">Across, as a share of the picture's width.</param>
    /// <param name="shareY">Down, as a share of the picture's height.</param>
    public static string Write(double shareX, double shareY) =>
        string.Create(CultureInfo.InvariantCulture, $"{Math.Round(shareX * Steps)} {Math.Round(shareY * Steps)}");
}

/// <summary>A shape on a picture, in whatever unit its places are in; an edge belongs to it.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Points">Its corners, see <see cref="ShapeKind"/>.</param>
public sealed record Shape(ShapeKind Kind, IReadOnlyList<Place> Points)
{
    /// <summary>The most corners that a polygon may have.</summary>
    public const int MostCorners = 100;

    private const double Near = 1e-9;

    /// <summary>Whether both are the same.</summary>
    public bool Equals(Shape? other) => other is not null && Kind == other.Kind && Points.SequenceEqual(other.Points);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Kind, Points.Count);

    /// <summary>A circle (QTI's <c>circle</c>: centre and radius).</summary>
    public static Shape Circle(double x, double y, double radius) => new(ShapeKind.Ellipse, [new(x - radius, y - radius), new(x + radius, y + radius)]);

    /// <summary>Why nobody could hit it, in a sentence that says what to do; null where somebody can.</summary>
    /// <param name="name">What it is called: “The area”.</param>
    public string? Fault(string name) =>
        CrossesItself ? $"{name} crosses itself with its outline, so that nobody can say what is inside. Draw it again."
        : !HasInside ? $"{name} has no inside. Draw it larger."
        : null;

    /// <summary>As it is kept on a picture of which it is in shares: corners that leave the picture lie on its edge.</summary>
    public Shape Within() => (this with { Points = [.. Points.Take(MostCorners)] }).Moved(p => new Place(Share(p.X), Share(p.Y)));

    private static double Share(double value) => double.IsFinite(value) ? Math.Clamp(Math.Round(value, 4), 0, 1) : 0;

    /// <summary>The same shape where every place lies elsewhere.</summary>
    public Shape Moved(Func<Place, Place> to) => this with { Points = [.. Points.Select(to)] };

    /// <summary>Whether a place lies in it or on its edge.</summary>
    public bool Contains(Place place)
    {
        if (Points.Count < 2)
            return false;
        var (left, right) = (Points.Min(p => p.X), Points.Max(p => p.X));
        var (top, bottom) = (Points.Min(p => p.Y), Points.Max(p => p.Y));
        if (place.X < left || place.X > right || place.Y < top || place.Y > bottom)
            return false;
        if (Kind == ShapeKind.Rectangle)
            return true;
        if (Kind == ShapeKind.Polygon)
            return InPolygon(place);
        var (across, down) = ((right - left) / 2, (bottom - top) / 2);
        if (across <= 0 || down <= 0)
            return true;
        var (dx, dy) = ((place.X - ((left + right) / 2)) / across, (place.Y - ((top + bottom) / 2)) / down);
        return (dx * dx) + (dy * dy) <= 1 + Near;
    }

    /// <summary>Whether it has an inside: corners enough, not all in a line.</summary>
    [JsonIgnore]
    public bool HasInside =>
        Kind == ShapeKind.Polygon
            ? Points.Count >= 3 && Math.Abs(Edges().Sum(e => (e.From.X * e.To.Y) - (e.To.X * e.From.Y))) > Near
            : Points.Count == 2 && Math.Abs(Points[0].X - Points[1].X) > Near && Math.Abs(Points[0].Y - Points[1].Y) > Near;

    /// <summary>Whether two edges of a polygon cross, so that nobody can say what is inside.</summary>
    [JsonIgnore]
    public bool CrossesItself
    {
        get
        {
            if (Kind != ShapeKind.Polygon)
                return false;
            var edges = Edges().ToList();
            for (var i = 0; i < edges.Count; i++)
            for (var j = i + 1; j < edges.Count; j++)
            {
                // Edges that follow each other share a corner.
                if (j == i + 1 || (i == 0 && j == edges.Count - 1))
                    continue;
                if (Cross(edges[i], edges[j]))
                    return true;
            }

            return false;
        }
    }

    private IEnumerable<(Place From, Place To)> Edges() => Points.Select((p, i) => (p, Points[(i + 1) % Points.Count]));

    /// <summary>Even-odd, as a ray to the right crosses the edges; what lies on an edge is inside.</summary>
    private bool InPolygon(Place place)
    {
        var inside = false;
        foreach (var (a, b) in Edges())
        {
            if (Side(a, b, place) is var side && Math.Abs(side) <= Near && Between(a, b, place))
                return true;
            if (a.Y > place.Y != b.Y > place.Y && place.X < ((b.X - a.X) * (place.Y - a.Y) / (b.Y - a.Y)) + a.X)
                inside = !inside;
        }

        return inside;
    }

    private static bool Cross((Place From, Place To) a, (Place From, Place To) b)
    {
        var (d1, d2) = (Side(b.From, b.To, a.From), Side(b.From, b.To, a.To));
        var (d3, d4) = (Side(a.From, a.To, b.From), Side(a.From, a.To, b.To));
        if (((d1 > 0 && d2 < 0) || (d1 < 0 && d2 > 0)) && ((d3 > 0 && d4 < 0) || (d3 < 0 && d4 > 0)))
            return true;
        return (Math.Abs(d1) <= Near && Between(b.From, b.To, a.From))
            || (Math.Abs(d2) <= Near && Between(b.From, b.To, a.To))
            || (Math.Abs(d3) <= Near && Between(a.From, a.To, b.From))
            || (Math.Abs(d4) <= Near && Between(a.From, a.To, b.To));
    }

    private static double Side(Place a, Place b, Place p) => ((b.X - a.X) * (p.Y - a.Y)) - ((b.Y - a.Y) * (p.X - a.X));

    private static bool Between(Place a, Place b, Place p) =>
        p.X >= Math.Min(a.X, b.X) - Near && p.X <= Math.Max(a.X, b.X) + Near && p.Y >= Math.Min(a.Y, b.Y) - Near && p.Y <= Math.Max(a.Y, b.Y) + Near;
}
