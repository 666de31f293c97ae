using Wexel.Core.Documents;
using Wexel.Core.Kit;
using Wexel.Core.Naming;
using Wexel.Core.Outlets;
using Wexel.Core.Recordings;
using Wexel.Core.Speech;
using Wexel.Data.Model;

namespace Wexel.Server.Shelves;

/// <summary>What the house has settled, read from its row; null where nobody has settled anything yet.</summary>
internal static class HouseShelf
{
    /// <summary>The house's line and hosting plan.</summary>
    internal static HostingPlan Plan(House? house) =>
        new(house?.LineBitsPerSecond ?? HostingPlan.Usual.LineBitsPerSecond, house?.TrafficBytesAMonth ?? HostingPlan.Usual.TrafficBytesAMonth);

    /// <summary>How files are named after their lessons.</summary>
    internal static NamePattern Pattern(House? house) =>
        house?.FilePattern is { } kept && NamePattern.Parse(kept).Is(out var pattern, out _) ? pattern : NamePattern.Usual;

    /// <summary>How the house writes names, acronyms and phrases.</summary>
    internal static WordList Words(House? house) => house?.Words is { } kept ? WordList.Format.Read(kept) : WordList.None;

    /// <summary>The mark as it is put on lessons; null where it is not.</summary>
    internal static MarkOnPicture? OnPictures(House? house) =>
        house is { MarkKey: { } key, MarkWidth: { } width, MarkHeight: { } height, MarkPlacement: { } placement }
            ? new MarkOnPicture(key, new PictureSize(width, height), WexelJson.Read<MarkPlacement>(placement))
            : null;
}
