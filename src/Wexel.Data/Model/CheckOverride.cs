namespace Wexel.Data.Model;

/// <summary>A fact of the file check that somebody lets pass, with the reason.</summary>
public sealed class CheckOverride
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>The key over everything that was encoded: it stands for all files that are made of the same.</summary>
    public required string EncodeKey { get; init; }

    /// <summary>The fact's code, see <see cref="Core.Inspection.CheckedFact"/>.</summary>
    public required string Code { get; init; }

    public required string Reason { get; set; }
    public required string By { get; set; }
    public DateTimeOffset At { get; set; }
}
