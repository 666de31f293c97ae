namespace Wexel.Data.Model;

/// <summary>A question that is kept for reuse, in no lesson.</summary>
public sealed class PooledQuestion
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>The <see cref="Core.Questions.Question"/> as JSON.</summary>
    public required string Question { get; set; }

    /// <summary>Its tags, for finding it.</summary>
    public List<string> Tags { get; set; } = [];

    /// <summary>The SHA-256 of what it asks: kept once more, it takes the place of what was kept.</summary>
    public required string Asks { get; init; }

    /// <summary>Who kept it last.</summary>
    public required string KeptBy { get; set; }

    public DateTimeOffset KeptAt { get; set; }
}
