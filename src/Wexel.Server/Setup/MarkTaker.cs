using Wexel.Core;
using Wexel.Core.Kit;
using Wexel.Making.Storage;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Server.Setup;

/// <summary>Takes pictures that are to be marks: the house's, or a profile's own.</summary>
internal sealed class MarkTaker(PictureTaker pictures, FileStore store)
{
    /// <summary>Takes a picture as a mark, or says all that is wrong with it; an SVG is drawn as a PNG.</summary>
    internal async Task<Result<TakenPicture>> TakeAsync(Stream body, CancellationToken cancel)
    {
        var start = new byte[512];
        var read = await body.ReadAtLeastAsync(start, start.Length, throwOnEndOfStream: false, cancel);
        var whole = new Rejoined(start.AsMemory(0, read), body);
        return SvgCheck.LooksLikeOne(start.AsSpan(0, read)) ? await TakeSvgAsync(whole, cancel) : await KeepAsync(whole, cancel);
    }

    private async Task<Result<TakenPicture>> TakeSvgAsync(Stream body, CancellationToken cancel)
    {
        var (svg, png) = (store.Arriving() + ".svg", store.Arriving() + ".png");
        try
        {
            if (!await PictureTaker.ReceiveAsync(body, svg, HouseMark.MostBytes, cancel))
                return PictureTaker.TooHeavy(HouseMark.MostBytes, "mark");
            await using (var drawing = File.OpenRead(svg))
            {
                if (SvgCheck.Wrong(drawing) is { } wrong)
                    return wrong;
            }

            await MarkMaker.DrawAsync(svg, png, cancel);
            await using var drawn = File.OpenRead(png);
            return await KeepAsync(drawn, cancel);
        }
        catch (ToolFailedException failed)
        {
            return new Problem("mark-svg-broken", $"The SVG cannot be drawn: {failed.Said} Save it again as plain SVG, or as a PNG.", "mark");
        }
        finally
        {
            File.Delete(svg);
            File.Delete(png);
        }
    }

    private Task<Result<TakenPicture>> KeepAsync(Stream body, CancellationToken cancel) =>
        pictures.TakeAsync(body, HouseMark.MostBytes, "mark", HouseMark.Wrong, MadeNames.Mark, cancel);
}
