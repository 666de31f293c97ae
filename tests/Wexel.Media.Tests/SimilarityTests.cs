using System.Globalization;
using System.Text.RegularExpressions;
using Wexel.Core.Inspection;
using Wexel.Core.Recordings;

namespace Wexel.Media.Tests;

/// <summary>How like two pictures are, against ffmpeg's filter for it, which goes by the same windows.</summary>
public sealed class SimilarityTests(Clips clips) : IClassFixture<Clips>
{
    private static readonly PictureSize Size = new(318, 182);

    [Theory]
    [InlineData("null")]
    [InlineData("gblur=sigma=2")]
    [InlineData("noise=alls=40:all_seed=7")]
    [InlineData("negate")]
    [InlineData("lutyuv=y=val/2")]
    [InlineData("scale=iw/3:ih/3,scale=318:182")]
    [InlineData("drawbox=x=40:y=40:w=30:h=30:t=fill")]
    public async Task It_is_what_ffmpeg_says(string changing)
    {
        async Task<string> GreyAsync(string filter, string name) =>
            await clips.MakeAsync("-f", "lavfi", "-i", $"testsrc2=s=318x182:d=1,trim=end_frame=1,format=gray,{filter},format=gray", "-f", "rawvideo", name);
        var name = $"{changing.GetHashCode(StringComparison.Ordinal):x8}.grey";
        var (one, other) = (await GreyAsync("null", "as-is.grey"), await GreyAsync(changing, name));
        string[] Input(string path) => ["-f", "rawvideo", "-pix_fmt", "gray", "-s", "318x182", "-i", path];
        var said = await PlainFfmpeg.SaidAsync([.. Input(one), .. Input(other), "-lavfi", "ssim", "-f", "null", "-"], TestContext.Current.CancellationToken);
        var expected = double.Parse(Regex.Match(said, "SSIM Y:([-0-9.]+)").Groups[1].ValueSpan, CultureInfo.InvariantCulture);
        var pictures = await Task.WhenAll(new[] { one, other }.Select(path => File.ReadAllBytesAsync(path, TestContext.Current.CancellationToken)));
        StructuralSimilarity.Compare(pictures[0], pictures[1], Size).ShouldBe(expected, 2e-6);
    }
}
