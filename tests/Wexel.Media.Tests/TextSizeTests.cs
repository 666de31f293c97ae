using CliWrap;
using Wexel.Core.Legibility;
using Wexel.Core.Recordings;

namespace Wexel.Media.Tests;

/// <summary>Text of known sizes, drawn by ffmpeg: what is measured against the height of a single x.</summary>
public sealed class TextSizeTests(Clips clips) : IClassFixture<Clips>
{
    private const string Fonts = "/usr/share/fonts/truetype/dejavu/";
    private const string Words = "The evening ferry leaves from the inner quay at a quarter past seven.";

    private async Task<IReadOnlyList<TextLine>> FindAsync(string draw, string ground = "white", string scale = "")
    {
        var raw = clips.Path($"{Guid.NewGuid():N}.gray");
        var filters = draw + (scale.Length > 0 ? "," + scale : "") + ",format=gray";
        await Cli.Wrap("ffmpeg").WithArguments(["-v", "error", "-nostdin", "-y", "-f", "lavfi", "-i", $"color=c={ground}:s=1280x720:d=0.04", "-vf", filters, "-frames:v", "1", "-f", "rawvideo", raw]).ExecuteAsync();
        var grey = await File.ReadAllBytesAsync(raw);
        return TextFinder.Find(grey, new PictureSize(1280, grey.Length / 1280));
    }

    private static string Draw(string font, int size, string text, int x, int y, string colour = "black") =>
        $"drawtext=fontfile={Fonts}{font}:fontsize={size}:text='{text}':x={x}:y={y}:fontcolor={colour}";

    /// <summary>The height of an x alone, as it is drawn at a size: its rows counted.</summary>
    private async Task<double> XHeightAsync(string font, int size)
    {
        var raw = clips.Path($"{font}.{size}.gray");
        await Cli.Wrap("ffmpeg").WithArguments(["-v", "error", "-nostdin", "-y", "-f", "lavfi", "-i", "color=c=white:s=100x100:d=0.04", "-vf", Draw(font, size, "x", 20, 20) + ",format=gray", "-frames:v", "1", "-f", "rawvideo", raw]).ExecuteAsync();
        var darkest = (await File.ReadAllBytesAsync(raw)).Chunk(100).Select(row => 255 - row.Min()).ToList();
        return darkest.Count(d => d >= 0.35 * darkest.Max());
    }

    [Theory]
    [InlineData("DejaVuSans.ttf", "black", "white")]
    [InlineData("DejaVuSans.ttf", "white", "0x1D2129")]
    [InlineData("DejaVuSans.ttf", "0x5A6070", "0xFBFAF6")]
    [InlineData("DejaVuSans-Bold.ttf", "black", "white")]
    [InlineData("DejaVuSansMono.ttf", "black", "0xD0D8E0")]
    public async Task Text_of_known_size_is_measured(string font, string colour, string ground)
    {
        foreach (var size in new[] { 9, 10, 11, 12, 13, 14, 16, 18, 20, 24, 28, 32 })
        {
            var lines = await FindAsync(Draw(font, size, size > 24 ? Words[..40] : Words, 40, 100, colour), ground);
            lines.Count.ShouldBeInRange(1, 6, $"{font} {size}: {string.Join(", ", lines)}");
            var height = await XHeightAsync(font, size);
            foreach (var line in lines)
                line.XHeight.ShouldBe(height, 0.6, $"{font} {size}: {line}");
        }
    }
}
