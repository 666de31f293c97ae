using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Feeds;
using Wexel.Core.Kit;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.Kit;

/// <summary>Keeps the house's colour and mark.</summary>
internal sealed class HouseKeeper(WexelDb db, PictureTaker pictures)
{
    /// <summary>The mark's name in the store.</summary>
    internal const string MarkFile = "mark";

    /// <summary>The house as it stands; where nothing was said yet, as it starts.</summary>
    internal async Task<House> FindAsync(CancellationToken cancel)
    {
        if (await db.Houses.FirstOrDefaultAsync(cancel) is { } house)
            return house;
        db.Houses.Add(house = new House { Colour = FeedSettings.UsualColour });
        return house;
    }

    internal async Task<Problem?> SaveColourAsync(string colour, CancellationToken cancel)
    {
        if (!FeedSettings.IsColour(colour))
            return FeedSettings.ColourProblem;
        (await FindAsync(cancel)).Colour = colour;
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>Takes a picture as the mark, or says all that is wrong with it.</summary>
    internal async Task<Problem?> TakeMarkAsync(Stream body, CancellationToken cancel)
    {
        var (picture, problem) = await pictures.TakeAsync(body, HouseMark.MostBytes, "mark", HouseMark.Wrong, MarkFile, cancel);
        if (picture is null)
            return problem;
        var house = await FindAsync(cancel);
        (house.MarkKey, house.MarkType) = (picture.Key, picture.Facts.Format == "png" ? "image/png" : "image/jpeg");
        await db.SaveChangesAsync(cancel);
        return null;
    }

    internal async Task DropMarkAsync(CancellationToken cancel)
    {
        var house = await FindAsync(cancel);
        (house.MarkKey, house.MarkType) = (null, null);
        await db.SaveChangesAsync(cancel);
    }
}
