namespace Wexel.Core.Outlets;

/// <summary>Sentences that all kinds have in common which are handed a package.</summary>
public static class Packaged
{
    /// <summary>What is lost with a release's file.</summary>
    public static string Loss(string outlet) =>
        $"The release to “{outlet}” ends here: its package can no longer be downloaded or sent. What was handed in there stays until it is taken away there.";

    /// <summary>For what a rendition is that stands in a package.</summary>
    public static string RenditionPurpose(string outlet) => $"The video inside the package for “{outlet}”; by itself it is linked nowhere.";
}
