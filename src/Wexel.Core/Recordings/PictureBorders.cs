namespace Wexel.Core.Recordings;

/// <summary>Black borders around a picture.</summary>
/// <param name="Left">Pixels at the left.</param>
/// <param name="Top">Pixels at the top.</param>
/// <param name="Right">Pixels at the right.</param>
/// <param name="Bottom">Pixels at the bottom.</param>
public sealed record PictureBorders(int Left, int Top, int Right, int Bottom)
{
    /// <summary>Whether there are any.</summary>
    public bool Any => Left + Top + Right + Bottom > 0;
}

/// <summary>Finds black borders: the rows and columns at the edges that stay dark in every picture it is shown.</summary>
public sealed class BorderFinder
{
    /// <summary>A brightness (0 to 255, black at 0) that a border does not pass; coding noise in black lies under it.</summary>
    public const int Dark = 12;

    private readonly PictureSize _size;
    private readonly byte[] _rows;
    private readonly byte[] _columns;
    private bool _shown;

    /// <summary>Makes one for pictures of a size.</summary>
    public BorderFinder(PictureSize size) => (_size, _rows, _columns) = (size, new byte[size.Height], new byte[size.Width]);

    /// <summary>Shows it a picture: brightness, 0 to 255, row after row.</summary>
    /// <exception cref="ArgumentException">The picture has another size.</exception>
    public void Show(ReadOnlySpan<byte> grey)
    {
        if (grey.Length != _size.Width * _size.Height)
            throw new ArgumentException("The picture has another size.", nameof(grey));
        // What was bright at all four edges once has no border, whatever comes.
        if (_shown && Math.Min(Math.Min(_rows[0], _rows[^1]), Math.Min(_columns[0], _columns[^1])) > Dark)
            return;
        _shown = true;
        for (var y = 0; y < _size.Height; y++)
        {
            var row = grey.Slice(y * _size.Width, _size.Width);
            for (var x = 0; x < row.Length; x++)
            {
                var value = row[x];
                if (value > _columns[x])
                    _columns[x] = value;
                if (value > _rows[y])
                    _rows[y] = value;
            }
        }
    }

    /// <summary>What it found; null where there is no border, or nothing but black.</summary>
    public PictureBorders? Found()
    {
        var (left, right, top, bottom) = (
            DarkFrom(_columns),
            DarkFrom(_columns.AsEnumerable().Reverse()),
            DarkFrom(_rows),
            DarkFrom(_rows.AsEnumerable().Reverse())
        );
        return _shown && left < _size.Width && left + top + right + bottom > 0 ? new PictureBorders(left, top, right, bottom) : null;
    }

    private static int DarkFrom(IEnumerable<byte> brightest) => brightest.TakeWhile(b => b <= Dark).Count();
}
