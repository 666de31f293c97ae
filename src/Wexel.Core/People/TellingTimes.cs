namespace Wexel.Core.People;

/// <summary>When those who follow something are told.</summary>
public static class TellingTimes
{
    /// <summary>The hour of the day at which all of a day is told in one mail, in the time zone that is given.</summary>
    public const int Morning = 7;

    /// <summary>When a mail is due.</summary>
    /// <param name="now">When there is something to tell.</param>
    /// <param name="daily">Whether all of a day comes in one mail.</param>
    /// <param name="zone">The time zone of the morning.</param>
    /// <returns>At once, or the next morning; where that hour is left out or comes twice (daylight saving), the first moment that is not before it.</returns>
    public static DateTimeOffset Due(DateTimeOffset now, bool daily, TimeZoneInfo zone)
    {
        if (!daily)
            return now;
        var today = TimeZoneInfo.ConvertTime(now, zone).Date.AddHours(Morning);
        var morning = At(today, zone);
        return now < morning ? morning : At(today.AddDays(1), zone);
    }

    private static DateTimeOffset At(DateTime local, TimeZoneInfo zone)
    {
        var moment = DateTime.SpecifyKind(local, DateTimeKind.Unspecified);
        while (zone.IsInvalidTime(moment))
            moment = moment.AddMinutes(1);
        var offset = zone.IsAmbiguousTime(moment) ? zone.GetAmbiguousTimeOffsets(moment).Max() : zone.GetUtcOffset(moment);
        return new DateTimeOffset(moment, offset).ToUniversalTime();
    }
}
