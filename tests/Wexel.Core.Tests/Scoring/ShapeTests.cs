using Wexel.Core.Scoring;

namespace Wexel.Core.Tests.Scoring;

public class ShapeTests
{
    private static Shape Polygon(params (double X, double Y)[] corners) => new(ShapeKind.Polygon, [.. corners.Select(c => new Place(c.X, c.Y))]);

    [Fact]
    public void Knows_a_polygon_that_crosses_itself()
    {
        Polygon((0, 0), (1, 0), (1, 1), (0, 1)).CrossesItself.ShouldBeFalse();
        Polygon((0, 0), (1, 1), (1, 0), (0, 1)).CrossesItself.ShouldBeTrue();
        // It touches itself in a corner: what is inside there nobody can say either.
        Polygon((0, 0), (2, 0), (1, 1), (2, 2), (0, 2), (1, 1)).CrossesItself.ShouldBeTrue();
        Polygon((0, 0), (1, 0), (1, 1)).CrossesItself.ShouldBeFalse();
    }

    [Fact]
    public void Knows_what_has_no_inside()
    {
        Polygon((0, 0), (1, 1), (2, 2)).HasInside.ShouldBeFalse();
        Polygon((0, 0), (1, 1)).HasInside.ShouldBeFalse();
        Polygon((0, 0), (1, 0), (1, 1)).HasInside.ShouldBeTrue();
        new Shape(ShapeKind.Rectangle, [new(0, 0), new(0, 1)]).HasInside.ShouldBeFalse();
        new Shape(ShapeKind.Ellipse, [new(0.2, 0.2), new(0.4, 0.3)]).HasInside.ShouldBeTrue();
        new Shape(ShapeKind.Ellipse, []).Contains(new(0, 0)).ShouldBeFalse();
    }

    [Fact]
    public void A_triangle_holds_half_of_its_rectangle()
    {
        var triangle = Polygon((0, 0), (100, 0), (0, 100));
        var held = Enumerable.Range(0, 100).SelectMany(x => Enumerable.Range(0, 100).Select(y => new Place(x + 0.5, y + 0.5))).Count(triangle.Contains);
        held.ShouldBeInRange(4950, 5050);
    }

    [Fact]
    public void A_circle_holds_as_much_as_it_should()
    {
        var circle = Shape.Circle(50, 50, 50);
        var held = Enumerable.Range(0, 100).SelectMany(x => Enumerable.Range(0, 100).Select(y => new Place(x + 0.5, y + 0.5))).Count(circle.Contains);
        (held / 10_000.0).ShouldBe(Math.PI / 4, 0.01);
    }

    [Fact]
    public void Reads_a_point_as_it_is_written()
    {
        Place.Read(Place.Write(0.1234, 0.5)).ShouldBe(new Place(1234, 5000));
        new[] { "", "1", "1 2 3", "a b", "NaN 1", "∞ 1" }.Select(Place.Read).ShouldAllBe(p => p == null);
    }
}
