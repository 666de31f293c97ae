using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Feeds;
using Wexel.Core.Kit;
using Wexel.Core.Naming;
using Wexel.Core.Outlets;
using Wexel.Core.Recordings;
using Wexel.Core.Speech;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Media.Measuring;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Kit;

/// <summary>Keeps the house's colour and mark.</summary>
internal sealed class HouseKeeper(WexelDb db, FileStore store, MarkTaker marks, IEnumerable<IOutletCare> cares)
{
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

    internal async Task<Problem?> SavePlanAsync(HostingPlan plan, CancellationToken cancel)
    {
        if (plan.Unusable() is { } unusable)
            return unusable;
        var house = await FindAsync(cancel);
        (house.LineBitsPerSecond, house.TrafficBytesAMonth) = (plan.LineBitsPerSecond, plan.TrafficBytesAMonth);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    internal async Task<Problem?> SaveNamesAsync(string pattern, CancellationToken cancel)
    {
        var wanted = string.IsNullOrWhiteSpace(pattern) ? NamePattern.UsualText : pattern.Trim();
        if (!NamePattern.Parse(wanted).Is(out _, out var problem))
            return problem;
        (await FindAsync(cancel)).FilePattern = wanted == NamePattern.UsualText ? null : wanted;
        await db.SaveChangesAsync(cancel);
        return null;
    }

    internal async Task<Problem?> SaveWordsAsync(WordList words, CancellationToken cancel)
    {
        var tidy = words.Tidy();
        if (tidy.Refusal() is { } problem)
            return problem;
        (await FindAsync(cancel)).Words = tidy.Words.Count == 0 ? null : WordList.Format.Write(tidy);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>Takes a picture as the house's mark, or says all that is wrong with it.</summary>
    internal async Task<Problem?> TakeMarkAsync(Stream body, CancellationToken cancel)
    {
        if (!(await marks.TakeAsync(body, cancel)).Is(out var picture, out var problem))
            return problem;
        var house = await FindAsync(cancel);
        (house.MarkKey, house.MarkType) = (picture.Key, picture.Facts.Format == "png" ? "image/png" : "image/jpeg");
        (house.MarkWidth, house.MarkHeight) = (picture.Facts.Width, picture.Facts.Height);
        await SaveMarkAsync(cancel);
        return null;
    }

    /// <summary>Settles where the mark stands on lessons; null takes it off them.</summary>
    internal async Task<Problem?> PlaceAsync(MarkPlacement? placement, CancellationToken cancel)
    {
        var house = await FindAsync(cancel);
        if (placement is not null && house.MarkKey is null)
            return new Problem("mark-none", "There is no mark yet. Choose one first.", "mark");
        if (
            placement is not null
            && house.MarkWidth is null
            && await ArtworkMeasurer.MeasureAsync(store.Derived(house.MarkKey!, MadeNames.Mark), cancel) is { } facts
        )
            (house.MarkWidth, house.MarkHeight) = (facts.Width, facts.Height);
        house.MarkPlacement = placement is null ? null : WexelJson.Write(placement.Within());
        await db.SaveChangesAsync(cancel);
        return null;
    }

    internal async Task DropMarkAsync(CancellationToken cancel)
    {
        var house = await FindAsync(cancel);
        (house.MarkKey, house.MarkType, house.MarkWidth, house.MarkHeight, house.MarkPlacement) = (null, null, null, null, null);
        await SaveMarkAsync(cancel);
    }

    private async Task SaveMarkAsync(CancellationToken cancel)
    {
        await db.SaveChangesAsync(cancel);
        foreach (var care in cares)
            await care.HouseChangedAsync(cancel);
    }
}
