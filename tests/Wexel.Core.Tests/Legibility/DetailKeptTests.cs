using Wexel.Core.Legibility;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Legibility;

public class DetailKeptTests
{
    private static readonly PictureSize Size = new(96, 64);

    /// <summary>Stripes of two pixels: steps of a height, in the cells that are named.</summary>
    private static byte[] Striped(int step, params int[] cells)
    {
        var grey = new byte[96 * 64];
        for (var y = 0; y < 64; y++)
        for (var x = 0; x < 96; x++)
            grey[(y * 96) + x] = (byte)(100 + (cells.Contains(((y / 32) * 3) + (x / 32)) && x / 2 % 2 == 0 ? step : 0));
        return grey;
    }

    [Fact]
    public void Cells_are_told_row_by_row_and_lost_ones_beside_each_other_as_one()
    {
        var kept = new DetailKept(new(48, 32), 3, [10, 49, 50, 49, 255, 0]);
        kept.Lost().ShouldBe([new(0, 0, 64, 32), new(0, 32, 32, 32), new(64, 32, 32, 32)]);
        kept.Mean.ShouldBe((10 + 49 + 50 + 49 + 0) / 5.0);
        new DetailKept(new(48, 32), 3, [255, 255]).Mean.ShouldBe(100);
        // A row's end is no neighbour of the next row's beginning.
        new DetailKept(new(48, 32), 3, [90, 90, 0, 0, 90, 90]).Lost().ShouldBe([new(64, 0, 32, 32), new(0, 32, 32, 32)]);
    }

    [Fact]
    public void Half_the_steps_are_a_quarter_of_the_detail()
    {
        var kept = DetailKept.Of(Striped(80, 0, 1, 5), Striped(40, 0, 1, 5), Size, new(48, 32));
        kept.Across.ShouldBe(3);
        kept.PerCent.ShouldBe(new byte[] { 25, 25, DetailKept.Nothing, DetailKept.Nothing, DetailKept.Nothing, 25 });
        DetailKept.Of(Striped(80, 4), Striped(80, 4), Size, new(48, 32)).PerCent[4].ShouldBe((byte)100);
        DetailKept.Of(Striped(80, 4), Striped(120, 4), Size, new(48, 32)).PerCent[4].ShouldBe((byte)100);
        DetailKept.Of(Striped(80, 4), Striped(0, 4), Size, new(48, 32)).PerCent[4].ShouldBe((byte)0);
    }

    [Fact]
    public void A_picture_that_is_no_whole_number_of_cells_has_smaller_ones_at_its_edges()
    {
        var kept = DetailKept.Of(new byte[97 * 65], new byte[97 * 65], new(97, 65), new(48, 32));
        (kept.Across, kept.PerCent.Count).ShouldBe((4, 12));
    }

    [Fact]
    public void What_differs_reaches_from_its_first_cell_to_its_last()
    {
        var (a, b) = (new byte[96 * 64], new byte[96 * 64]);
        void Mark(int x, int y)
        {
            for (var row = y; row < y + 8; row++)
                Array.Fill(b, (byte)255, (row * 96) + x, 8);
        }

        Mark(20, 4);
        ChangedPart.Between(a, b, Size).ShouldBe(new PictureRect(16, 0, 16, 16));
        ChangedPart.Between(b, a, Size).ShouldBe(new PictureRect(16, 0, 16, 16));
        Mark(66, 50);
        ChangedPart.Between(a, b, Size).ShouldBe(new PictureRect(16, 0, 64, 64));
        // Three code values over a whole cell are noise, and a little more is not.
        Array.Fill(a, (byte)103);
        Array.Fill(b, (byte)100);
        ChangedPart.Between(a, b, Size).ShouldBeNull();
        b[0] = 99;
        ChangedPart.Between(a, b, Size).ShouldBe(new PictureRect(0, 0, 16, 16));
        // What is left at the edges is a cell too.
        var (one, other) = (new byte[100 * 20], new byte[100 * 20]);
        other[^1] = 255;
        ChangedPart.Between(one, other, new(100, 20)).ShouldBe(new PictureRect(96, 16, 4, 4));
    }

    [Theory]
    [InlineData(6144, 6143)]
    [InlineData(6143, 6144)]
    public void Too_few_samples_are_refused(int before, int after) =>
        Should.Throw<ArgumentException>(() => DetailKept.Of(new byte[before], new byte[after], Size, new(48, 32)));
}
