using System.Text.Json.Nodes;
using Wexel.Core.Documents;

namespace Wexel.Core.Encoding;

/// <summary>By what a rendition was made; what is asked of its file later is asked of this, whatever has become of lesson, profile and house since.</summary>
/// <param name="Plan">The plan.</param>
/// <param name="Recordings">The hashes of the recordings, in their order.</param>
/// <param name="Keys">What was encoded for it.</param>
public sealed record MadeBy(RenderPlan Plan, IReadOnlyList<string> Recordings, RenditionKeys Keys)
{
    /// <summary>How it is kept.</summary>
    public static DocumentFormat<MadeBy> Format { get; } = new("rendition’s plan", TracksCounted);

    /// <summary>There was one track of captions or none.</summary>
    private static void TracksCounted(JsonObject made)
    {
        var file = made["plan"]!["file"]!.AsObject();
        var inside = file["captionsInside"]?.GetValue<bool>() == true;
        file.Remove("captionsInside");
        file["captionTracks"] = inside ? 1 : 0;
    }
}
