using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Inspection;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Shelves;

namespace Wexel.Server.Rendering;

/// <summary>Facts of file checks that somebody lets pass.</summary>
internal sealed class CheckOverrides(WexelDb db, OutletShelf places, TimeProvider clock)
{
    /// <summary>The fewest characters of a reason.</summary>
    private const int ShortestReason = 3;

    /// <summary>Why a file may not be released, or null: a fact is wrong, and nobody has let it pass.</summary>
    internal async Task<Problem?> BlockedAsync(string encodeKey, string title, IReadOnlyList<CheckedFact> check, CancellationToken cancel)
    {
        var wrong = check.Where(f => f.Verdict == Verdict.Wrong).ToList();
        if (wrong.Count == 0)
            return null;
        var passed = await db.CheckOverrides.Where(o => o.EncodeKey == encodeKey).Select(o => o.Code).ToListAsync(cancel);
        return wrong.Find(f => !passed.Contains(f.Code)) is { } first
            ? new Problem(
                "file-check-failed",
                $"The file check of “{title}” found something wrong: {first.Fact.ToLowerInvariant()} {first.Measured}, and it should be "
                    + $"{first.Expected}. Look at it under Deliver; what is as it should be can be let pass there, with a reason."
            )
            : null;
    }

    /// <summary>What was found about a finished rendition, with what outlets' limits say of it.</summary>
    internal static IReadOnlyList<CheckedFact> Facts(Rendition rendition, IReadOnlyList<KnownOutlet> outlets) =>
        rendition.Check is not { } check
            ? []
            :
            [
                .. WexelJson.Read<IReadOnlyList<CheckedFact>>(check),
                .. rendition.Length > TimeSpan.Zero ? outlets.SelectMany(o => o.Limits.Check(rendition.Bytes, rendition.Length)) : [],
            ];

    /// <summary>Lets a wrong fact of a rendition pass.</summary>
    internal async Task<Problem?> LetPassAsync(Rendition rendition, string code, string reason, string person, CancellationToken cancel)
    {
        if (reason.Trim().Length < ShortestReason)
            return new Problem("reason-missing", "Say why it may pass; the reason is kept with the file.", "reason");
        var outlets = await places.AllAsync(cancel);
        var check = Facts(rendition, outlets);
        if (!check.Any(f => f.Code == code && f.Verdict == Verdict.Wrong))
            return new Problem("check-not-wrong", "This fact is not wrong; there is nothing to let pass.");
        var known = await db.CheckOverrides.FirstOrDefaultAsync(o => o.EncodeKey == rendition.EncodeKey && o.Code == code, cancel);
        if (known is null)
            db.CheckOverrides.Add(
                known = new CheckOverride
                {
                    EncodeKey = rendition.EncodeKey,
                    Code = code,
                    Reason = "",
                    By = "",
                }
            );
        (known.Reason, known.By, known.At) = (reason.Trim(), person, clock.GetUtcNow());
        await db.SaveChangesAsync(cancel);
        return null;
    }
}
