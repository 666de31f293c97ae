using Wexel.Core.Recordings;

namespace Wexel.Core.Cameras;

/// <summary>Draws what is seen of a box with round corners.</summary>
public static class RoundCorners
{
    /// <summary>How much of each pixel lies inside, 0 to 255, row after row: smooth along the corners.</summary>
    /// <param name="size">The box's size.</param>
    /// <param name="radius">How round its corners are, in pixels; no more than half the shorter side.</param>
    public static byte[] Mask(PictureSize size, int radius)
    {
        var mask = new byte[size.Width * size.Height];
        for (var y = 0; y < size.Height; y++)
        {
            for (var x = 0; x < size.Width; x++)
            {
                // From the middle of the pixel to the corner's own middle, where it lies in a corner.
                var across = Math.Max(0, Math.Max(radius - (x + 0.5), x + 0.5 - (size.Width - radius)));
                var down = Math.Max(0, Math.Max(radius - (y + 0.5), y + 0.5 - (size.Height - radius)));
                var inside = radius == 0 || across == 0 || down == 0 ? 1 : Math.Clamp(radius + 0.5 - Math.Sqrt((across * across) + (down * down)), 0, 1);
                mask[(y * size.Width) + x] = (byte)Math.Round(inside * 255);
            }
        }

        return mask;
    }
}
