using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Outlets;
using Wexel.Data.Model;

namespace Wexel.Server.Profiles;

/// <summary>Which profiles an outlet takes.</summary>
internal static class OutletProfiles
{
    /// <summary>The profile that is taken where nobody chooses another.</summary>
    /// <param name="outlet">The outlet with its feed.</param>
    internal static string Usual(Outlet outlet) => outlet.ProfileId ?? OutletTakes.Usual(outlet.Kind, Media(outlet)).Id;

    /// <summary>Why the outlet would refuse what a profile makes, or null.</summary>
    internal static Problem? Refusal(Outlet outlet, Profile profile) => OutletTakes.Refusal(outlet.Kind, Media(outlet), profile);

    private static FeedMedia? Media(Outlet outlet) => outlet.Feed is { } feed ? WexelJson.Read<FeedSettings>(feed.Settings).Media : null;
}
