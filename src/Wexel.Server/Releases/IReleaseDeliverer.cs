using Wexel.Core;
using Wexel.Data.Model;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>What came of a step.</summary>
/// <param name="Problem">What stood in the way, or null.</param>
/// <param name="Waits">Whether the other side is at work: it is gone on with when that has ended.</param>
internal sealed record StepCame(Problem? Problem, bool Waits = false)
{
    /// <summary>It is done.</summary>
    internal static StepCame Done { get; } = new(null, Waits: false);

    /// <summary>Something stood in the way.</summary>
    public static implicit operator StepCame(Problem problem) => new(problem);
}

/// <summary>Brings what was made of lessons to where outlets are, and takes it away again.</summary>
internal interface IReleaseDeliverer
{
    /// <summary>Whether it does so for an outlet.</summary>
    bool Serves(KnownOutlet outlet);

    /// <summary>Whether what is wanted stands there; or what keeps the lesson from there.</summary>
    Task<Result<bool>> IsThereAsync(ReleaseWay way, CancellationToken cancel);

    /// <summary>Brings it there. What was done stays done, also where the rest fails.</summary>
    Task<StepCame> DeliverAsync(ReleaseWay way, CancellationToken cancel);

    /// <summary>Takes away what was put there.</summary>
    Task<Problem?> TakeBackAsync(Release release, KnownOutlet outlet, CancellationToken cancel);
}
