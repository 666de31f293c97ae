using Wexel.Core.Details;
using Wexel.Data.Model;

namespace Wexel.Server.Shelves;

/// <summary>What is said about lessons, read from where it is kept.</summary>
internal static class DetailShelf
{
    /// <summary>What is kept; nothing where nothing is.</summary>
    internal static DetailSet Read(string? kept) => kept is null or "{}" ? DetailSet.None : DetailSet.Format.Read(kept);

    /// <summary>As it is kept; null where nothing is said.</summary>
    internal static string? Write(DetailSet set) => set == DetailSet.None ? null : DetailSet.Format.Write(set);

    /// <summary>What the house says about everything that it makes.</summary>
    internal static DetailSet Said(House? house) => Read(house?.Details);

    /// <summary>What the current revision of a lesson says.</summary>
    internal static DetailSet Said(Lesson lesson) => Read(lesson.Said);

    /// <summary>What is said about a lesson at one outlet alone.</summary>
    internal static DetailSet Said(Release release) => Read(release.Details);
}
