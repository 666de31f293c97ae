namespace Wexel.Core.People;

/// <summary>What each level of visibility means, for whoever chooses it.</summary>
/// <param name="Level">The level.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Means">What it means exactly, in a sentence.</param>
/// <param name="EmbedWarning">What must be said with the embed code, before somebody finds out; null where there is nothing.</param>
public sealed record VisibilityWords(Visibility Level, string Name, string Means, string? EmbedWarning)
{
    private const string Elsewhere = "On another site the embedded picture asks them to open the lesson here and sign in.";

    /// <summary>From the fewest people to the most.</summary>
    public static IReadOnlyList<VisibilityWords> All { get; } =
    [
        new(
            Visibility.OnlyMe,
            "Only me",
            "Nobody but the lesson’s owner sees it.",
            "Only its owner can play it. Readers of another site see a way to sign in, and no lesson."
        ),
        new(
            Visibility.Named,
            "Named people",
            "Those who are named see it once they have signed in, and nobody besides.",
            $"Only named people can play it. {Elsewhere}"
        ),
        new(
            Visibility.WithLink,
            "Whoever has the address",
            "It stands in no list of the channel and is not found by searching, also not by people who are signed in.",
            null
        ),
        new(
            Visibility.SignedIn,
            "The organisation",
            "Whoever is signed in sees it, and finds it in the channel.",
            $"Only signed-in people can play it. {Elsewhere}"
        ),
        new(Visibility.Everybody, "Everybody", "It stands in the channel without signing in, and search engines are told of it.", null),
    ];

    /// <summary>The words for a level.</summary>
    public static VisibilityWords For(Visibility level) => All.First(w => w.Level == level);
}
