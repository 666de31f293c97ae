using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Legibility;

/// <summary>A picture on which letters are drawn whose height is known: an x is five squares high, ascenders and descenders two more.</summary>
internal sealed class Page
{
    /// <summary>The rows of an x, of which the first is the third of nine.</summary>
    internal const int XRows = 5;

    private const int Above = 2;

    private static readonly Dictionary<char, string> Letters = new()
    {
        ['a'] = "..... ..... .###. ....# .#### #...# .####",
        ['d'] = "....# ....# .#### #...# #...# #...# .####",
        ['e'] = "..... ..... .###. #...# ##### #.... .###.",
        ['h'] = "#.... #.... #.##. ##..# #...# #...# #...#",
        ['n'] = "..... ..... #.##. ##..# #...# #...# #...#",
        ['o'] = "..... ..... .###. #...# #...# #...# .###.",
        ['p'] = "..... ..... ####. #...# #...# #...# ####. #.... #....",
        ['r'] = "..... ..... #.##. ##... #.... #.... #....",
        ['s'] = "..... ..... .#### #.... .###. ....# ####.",
        ['u'] = "..... ..... #...# #...# #...# #..## .##.#",
        ['x'] = "..... ..... #...# .#.#. ..#.. .#.#. #...#",
    };

    internal Page(PictureSize size, byte ground)
    {
        (Size, Grey) = (size, new byte[size.Width * size.Height]);
        Array.Fill(Grey, ground);
    }

    internal PictureSize Size { get; }

    internal byte[] Grey { get; }

    /// <summary>Writes a line of text.</summary>
    /// <param name="text">Small letters and spaces.</param>
    /// <param name="x">Where its first letter begins.</param>
    /// <param name="y">Where the top of an x is.</param>
    /// <param name="scale">How many pixels a square is.</param>
    /// <param name="ink">The brightness of the letters.</param>
    /// <returns>Where the last letter ends.</returns>
    internal int Write(string text, int x, int y, int scale, byte ink)
    {
        var end = x;
        foreach (var letter in text)
        {
            if (letter != ' ')
            {
                foreach (var (row, squares) in Letters[letter].Split(' ').Index())
                foreach (var (column, square) in squares.Index())
                    if (square == '#')
                        Fill(new PictureRect(x + (column * scale), y + ((row - Above) * scale), scale, scale), ink);
                end = x + (5 * scale);
            }

            x += (letter == ' ' ? 4 : 6) * scale;
        }

        return end;
    }

    /// <summary>Fills a box.</summary>
    internal void Fill(PictureRect box, byte ink)
    {
        for (var row = box.Y; row < box.Y + box.Height; row++)
            Array.Fill(Grey, ink, (row * Size.Width) + box.X, box.Width);
    }

    /// <summary>The page in a quarter of its size, each sample the mean of sixteen.</summary>
    internal Page Quarter()
    {
        var small = new Page(new PictureSize(Size.Width / 4, Size.Height / 4), 0);
        for (var y = 0; y < small.Size.Height; y++)
        for (var x = 0; x < small.Size.Width; x++)
        {
            var sum = 0;
            for (var row = 0; row < 4; row++)
            for (var column = 0; column < 4; column++)
                sum += Grey[((((4 * y) + row) * Size.Width) + (4 * x)) + column];
            small.Grey[(y * small.Size.Width) + x] = (byte)((sum + 8) / 16);
        }

        return small;
    }
}
