using Wexel.Core.Encoding;
using Wexel.Core.Outlets;

namespace Wexel.Core.Library;

/// <summary>What a file is that was made of a lesson.</summary>
public enum MadeKind
{
    /// <summary>A finished rendition.</summary>
    Rendition,

    /// <summary>An episode of a podcast feed.</summary>
    Episode,

    /// <summary>A package for a web server or a learning system.</summary>
    Package,
}

/// <summary>How a file stands to its lesson as that is now.</summary>
public enum FileAge
{
    /// <summary>It is what would be made now.</summary>
    UpToDate,

    /// <summary>Title, contents or captions inside it have changed; what is encoded holds.</summary>
    Finishing,

    /// <summary>Its picture or sound would be encoded anew.</summary>
    Encoding,
}

/// <summary>A release that serves a file.</summary>
/// <param name="Kind">What the outlet is.</param>
/// <param name="Outlet">The outlet's name.</param>
public sealed record FileUse(OutletKind Kind, string Outlet)
{
    /// <summary>What is lost with the file, in one sentence: its release is taken down.</summary>
    public string Loss => Kind.Loss(Outlet);
}

/// <summary>A file that was made of a lesson, with what decides what it is for.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Container">The container of a rendition; null for an episode and a package.</param>
/// <param name="IsMaster">Whether it was made by the profile for master copies.</param>
/// <param name="Uses">The releases that serve it.</param>
/// <param name="Age">How it stands to its lesson.</param>
/// <param name="Kept">Whether somebody said that it is to be kept.</param>
/// <param name="CopiedTo">The names of the podcast feeds whose episode is a copy of it; null for none.</param>
public sealed record MadeFile(
    MadeKind Kind,
    Container? Container,
    bool IsMaster,
    IReadOnlyList<FileUse> Uses,
    FileAge Age,
    bool Kept,
    IReadOnlyList<string>? CopiedTo = null
)
{
    /// <summary>What it is for, in one sentence for the person who hands it on.</summary>
    public string Purpose =>
        this switch
        {
            { Kind: MadeKind.Package, Uses: [var use, ..] } => $"The package for “{use.Outlet}”: what it holds belongs together, and it is handed in as it is.",
            { Kind: MadeKind.Episode, Uses: [var use, ..] } => $"The episode in “{use.Outlet}”. Apps find it by the feed; hand on the feed’s address.",
            _ when Uses.MinBy(u => u.Kind.Rank) is { } use => use.Kind.RenditionPurpose(use.Outlet),
            { CopiedTo: [var feed, ..] } => $"The episode in “{feed}” is a copy of it, and stays when this goes.",
            { IsMaster: true } => "A master copy: for keeping, and to make others of it in years to come. Too large to be linked.",
            { Container: { } container } when ContainerFacts.Of(container).IsFolder =>
                "Several sizes in pieces, for players that choose by the line. No outlet has it.",
            { Container: { } container } when ContainerFacts.Of(container).SoundAlone => "The sound alone, to listen to. No outlet has it.",
            _ => "Made, and at no outlet.",
        };

    /// <summary>Whether nothing would be missed: it is behind its lesson, no release serves it, and nobody keeps it.</summary>
    public bool CanBeFreed => Age != FileAge.UpToDate && Uses.Count == 0 && !Kept;
}

/// <summary>The files that were made of one lesson.</summary>
public static class MadeFiles
{
    /// <summary>The index of the one whose place is to be linked; null where nothing is released.</summary>
    /// <param name="files">The lesson's files.</param>
    public static int? ToLink(IReadOnlyList<MadeFile> files)
    {
        var served = files.Index().Where(f => f.Item.Uses.Count > 0).ToList();
        // At an outlet that is handed a package the package is what matters, not the video inside it.
        return served.Count == 0
            ? null
            : served.OrderBy(f => f.Item.Uses.Min(u => u.Kind.Rank)).ThenByDescending(f => f.Item.Kind == MadeKind.Package).First().Index;
    }
}
