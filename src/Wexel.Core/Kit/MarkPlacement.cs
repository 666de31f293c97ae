using System.Text.Json.Serialization;
using Wexel.Core.Keys;
using Wexel.Core.Recordings;

namespace Wexel.Core.Kit;

/// <summary>Where the house's mark stands on a picture.</summary>
public enum MarkPosition
{
    /// <summary>At the top, at the left.</summary>
    TopLeft,

    /// <summary>At the top, in the middle.</summary>
    Top,

    /// <summary>At the top, at the right.</summary>
    TopRight,

    /// <summary>Half-way down, at the left.</summary>
    Left,

    /// <summary>In the middle.</summary>
    Middle,

    /// <summary>Half-way down, at the right.</summary>
    Right,

    /// <summary>At the bottom, at the left.</summary>
    BottomLeft,

    /// <summary>At the bottom, in the middle.</summary>
    Bottom,

    /// <summary>At the bottom, at the right.</summary>
    BottomRight,
}

/// <summary>How the house's mark stands on pictures. The usual values are common practice, no source.</summary>
/// <param name="OpacityPercent">How much of it covers the picture, 5 to 100.</param>
/// <param name="WidthPercent">Its width as a share of the picture's, 2 to 60.</param>
/// <param name="Position">Where it stands.</param>
/// <param name="DistancePercent">How far from the edges, as a share of the picture's width across and of its height down, 0 to 30.</param>
/// <param name="OffsetX">How much farther to the right, as a share of the picture's width, −100 to 100.</param>
/// <param name="OffsetY">How much farther down, as a share of the picture's height, −100 to 100.</param>
public sealed record MarkPlacement(double OpacityPercent, double WidthPercent, MarkPosition Position, double DistancePercent, double OffsetX, double OffsetY)
{
    /// <summary>At the bottom right, 50 % opaque, a fifth as wide as the picture, 5 % in from the edges.</summary>
    public static MarkPlacement Usual { get; } = new(50, 20, MarkPosition.BottomRight, 5, 0, 0);

    /// <summary>The nearest placement that can be used.</summary>
    public MarkPlacement Within()
    {
        static double Clamp(double value, double least, double most) => double.IsNaN(value) ? least : Math.Clamp(value, least, most);
        return new MarkPlacement(
            Clamp(OpacityPercent, 5, 100),
            Clamp(WidthPercent, 2, 60),
            Enum.IsDefined(Position) ? Position : MarkPosition.BottomRight,
            Clamp(DistancePercent, 0, 30),
            Clamp(OffsetX, -100, 100),
            Clamp(OffsetY, -100, 100)
        );
    }

    /// <summary>Where a mark stands on a picture: wholly on it, its sides and corner even, since colour is stored for pairs of pixels.</summary>
    /// <param name="picture">The picture's size; both sides at least 16.</param>
    /// <param name="mark">The mark's own size.</param>
    public PictureRect On(PictureSize picture, PictureSize mark)
    {
        var placement = Within();
        // A tall mark must fit too; then it is smaller than was asked for.
        var scale = Math.Min(picture.Width * placement.WidthPercent / 100 / mark.Width, picture.Height * 0.9 / mark.Height);
        var (width, height) = (Even(mark.Width * scale), Even(mark.Height * scale));
        var (right, bottom) = (picture.Width - width, picture.Height - height);
        var (inX, inY) = (picture.Width * placement.DistancePercent / 100, picture.Height * placement.DistancePercent / 100);
        var (column, row) = ((int)placement.Position % 3, (int)placement.Position / 3);
        var x =
            (
                column == 0 ? inX
                : column == 1 ? right / 2.0
                : right - inX
            ) + (picture.Width * placement.OffsetX / 100);
        var y =
            (
                row == 0 ? inY
                : row == 1 ? bottom / 2.0
                : bottom - inY
            ) + (picture.Height * placement.OffsetY / 100);
        return new PictureRect(Place(x, right), Place(y, bottom), width, height);
    }

    private static int Even(double pixels) => Math.Max(2, (int)Math.Round(pixels / 2) * 2);

    private static int Place(double at, int most) => (int)Math.Clamp(Math.Round(at / 2) * 2, 0, most / 2 * 2);
}

/// <summary>A mark that is put on a lesson's picture.</summary>
/// <param name="Key">The key of its file, a PNG or JPEG.</param>
/// <param name="Size">Its own size.</param>
/// <param name="Placement">Where it stands.</param>
public sealed record MarkOnPicture(string Key, PictureSize Size, MarkPlacement Placement)
{
    /// <summary>The key of the mark as it stands on pictures.</summary>
    [JsonIgnore]
    public string WholeKey =>
        MadeKey.Hash(Makers.Image, k =>
            k.Add("mark", Key)
                .Add("width", Size.Width)
                .Add("height", Size.Height)
                .Add("opacity", Placement.OpacityPercent)
                .Add("wide", Placement.WidthPercent)
                .Add("at", (MarkPosition?)Placement.Position)
                .Add("distance", Placement.DistancePercent)
                .Add("x", Placement.OffsetX)
                .Add("y", Placement.OffsetY)
        );
}
