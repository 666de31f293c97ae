using System.Collections.Frozen;

namespace Wexel.Core.Outlets;

/// <summary>How far a lesson is on its way to an outlet.</summary>
public enum ReleasePhase
{
    /// <summary>Somebody wants it there; it has its address, and nothing is done yet.</summary>
    Planned,

    /// <summary>Picture and sound are encoded, or wait for it.</summary>
    Rendering,

    /// <summary>The file is put together and looked at.</summary>
    Checking,

    /// <summary>It is copied or packed as the outlet takes it.</summary>
    Packing,

    /// <summary>It is put where the outlet is.</summary>
    Sending,

    /// <summary>The other side has it and makes it ready.</summary>
    ProcessingThere,

    /// <summary>Learners have it, as it is wanted.</summary>
    Live,

    /// <summary>Learners have it, and another is wanted.</summary>
    Behind,

    /// <summary>Something stood in the way; what was done stays done.</summary>
    Failed,

    /// <summary>It stood there, and does not any more; its address is kept.</summary>
    TakenDown,
}

/// <summary>The steps that a release may take from one phase to another, and what they mean.</summary>
public static class ReleasePhases
{
    /// <summary>The phases in which work is to be done on it, in their order.</summary>
    public static IReadOnlyList<ReleasePhase> UnderWay => Way;

    private static readonly ReleasePhase[] Way =
    [
        ReleasePhase.Planned,
        ReleasePhase.Rendering,
        ReleasePhase.Checking,
        ReleasePhase.Packing,
        ReleasePhase.Sending,
        ReleasePhase.ProcessingThere,
    ];

    private static readonly FrozenDictionary<ReleasePhase, FrozenSet<ReleasePhase>> Next = Enum.GetValues<ReleasePhase>()
        .ToFrozenDictionary(from => from, from => To(from).ToFrozenSet());

    /// <summary>Whether a release may go from one phase to another. On its way it may leave out what there is nothing of, and begin anew at any time,
    /// since whoever worked on it may have died.</summary>
    public static bool May(ReleasePhase from, ReleasePhase to) => from == to || Next[from].Contains(to);

    /// <summary>Whether work is to be done on it.</summary>
    public static bool IsUnderWay(ReleasePhase phase) => Way.Contains(phase);

    /// <summary>The phase in which a step is done.</summary>
    public static ReleasePhase DoneIn(ReleaseStep step) =>
        step switch
        {
            ReleaseStep.Encode => ReleasePhase.Rendering,
            ReleaseStep.Finish or ReleaseStep.Check => ReleasePhase.Checking,
            ReleaseStep.Deliver => ReleasePhase.Sending,
            _ => ReleasePhase.Packing,
        };

    /// <summary>What is shown of a release whose last phase is known: what is live is behind where another key is wanted.</summary>
    public static ReleasePhase Shown(ReleasePhase phase, bool isBehind) => phase == ReleasePhase.Live && isBehind ? ReleasePhase.Behind : phase;

    private static IEnumerable<ReleasePhase> To(ReleasePhase from) =>
        from switch
        {
            ReleasePhase.Live => [ReleasePhase.Behind, ReleasePhase.Planned, ReleasePhase.TakenDown],
            ReleasePhase.Behind => [ReleasePhase.Live, ReleasePhase.Planned, ReleasePhase.TakenDown],
            ReleasePhase.Failed or ReleasePhase.TakenDown => [ReleasePhase.Planned, ReleasePhase.TakenDown],
            _ => [.. Way.SkipWhile(p => p != from).Skip(1), ReleasePhase.Planned, ReleasePhase.Live, ReleasePhase.Failed, ReleasePhase.TakenDown],
        };
}
