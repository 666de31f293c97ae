using System.Globalization;
using Wexel.Core.Scoring;

namespace Wexel.Core.Questions.Qti;

/// <summary>Shapes in pixels, as QTI writes them (1EdTech QTI 2.2, <c>shape</c> and <c>coords</c>, which are those of HTML image maps).</summary>
internal static class QtiShapes
{
    /// <summary>What a shape is called.</summary>
    internal static string Name(Shape shape) =>
        shape.Kind switch
        {
            ShapeKind.Rectangle => "rect",
            ShapeKind.Ellipse => "ellipse",
            _ => "poly",
        };

    /// <summary>Where it lies: left, top, right, bottom of a rectangle; middle and half axes of an ellipse; the corners of a polygon.</summary>
    internal static string Coords(Shape shape)
    {
        var (left, right) = (shape.Points.Min(p => p.X), shape.Points.Max(p => p.X));
        var (top, bottom) = (shape.Points.Min(p => p.Y), shape.Points.Max(p => p.Y));
        IEnumerable<double> numbers = shape.Kind switch
        {
            ShapeKind.Rectangle => [left, top, right, bottom],
            ShapeKind.Ellipse => [(left + right) / 2, (top + bottom) / 2, (right - left) / 2, (bottom - top) / 2],
            _ => shape.Points.SelectMany(p => new[] { p.X, p.Y }),
        };
        return string.Join(',', numbers.Select(n => Math.Round(n).ToString(CultureInfo.InvariantCulture)));
    }
}
