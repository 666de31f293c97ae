using Wexel.Core.Details;
using Wexel.Core.People;

namespace Wexel.Core.Outlets;

/// <summary>What is asked before people outside the house can come to a lesson.</summary>
public static class OpenToAll
{
    /// <summary>Whether people outside the house can come to what is released.</summary>
    /// <param name="kind">The kind of outlet.</param>
    /// <param name="visibility">Who may see it, where that is asked at each release.</param>
    public static bool Is(OutletKind kind, Visibility visibility) => kind.AsksWho ? Seeing.IsOpenToStrangers(visibility) : kind.IsOpen;

    /// <summary>
    /// What must be answered before people outside can come to a lesson there first: whether there is material of others in it. It is asked once,
    /// and where nobody outside comes never.
    /// </summary>
    /// <param name="kind">The kind of outlet.</param>
    /// <param name="visibility">Who is to see it.</param>
    /// <param name="said">What is said about the lesson there.</param>
    /// <param name="isOpen">Whether people outside can come to it there already.</param>
    /// <param name="outlet">The outlet's name.</param>
    public static Problem? Unanswered(OutletKind kind, Visibility visibility, DetailSet said, bool isOpen, string outlet) =>
        !isOpen && said.ThirdParty is null && Is(kind, visibility)
            ? new Problem(
                "third-party-unanswered",
                $"People outside the house can come to “{outlet}”. Say first whether there is material of others in the lesson, and by whose permission.",
                DetailFields.ThirdParty.Code
            )
            : null;
}
