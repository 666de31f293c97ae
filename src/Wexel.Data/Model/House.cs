namespace Wexel.Data.Model;

/// <summary>What the house gives to everything it makes. There is one row.</summary>
public sealed class House
{
    /// <summary>The only row's number.</summary>
    public const int Only = 1;

    public int Id { get; init; } = Only;

    /// <summary>The house's colour, as <c>#RRGGBB</c>.</summary>
    public required string Colour { get; set; }

    /// <summary>The key of the house's mark, or null where there is none.</summary>
    public string? MarkKey { get; set; }

    /// <summary>The media type of the mark.</summary>
    public string? MarkType { get; set; }

    /// <summary>The mark's width in pixels; null where it was never measured.</summary>
    public int? MarkWidth { get; set; }

    /// <summary>The mark's height in pixels; null where it was never measured.</summary>
    public int? MarkHeight { get; set; }

    /// <summary>Where the mark stands on lessons, a <see cref="Core.Kit.MarkPlacement"/> as JSON; null where it is not put on them.</summary>
    public string? MarkPlacement { get; set; }

    /// <summary>What is said about everything that the house makes, a <see cref="Core.Details.DetailSet"/> as JSON; null for nothing.</summary>
    public string? Details { get; set; }

    /// <summary>How the house writes names, acronyms and phrases, a <see cref="Core.Speech.WordList"/> as JSON; null for none.</summary>
    public string? Words { get; set; }

    /// <summary>How files are named after their lessons, a <see cref="Core.Naming.NamePattern"/>; null for what is usual.</summary>
    public string? FilePattern { get; set; }

    /// <summary>How fast files go up, in bits a second; null for what is usual.</summary>
    public long? LineBitsPerSecond { get; set; }

    /// <summary>How much learners may load in a month, in bytes; null for what is usual.</summary>
    public long? TrafficBytesAMonth { get; set; }
}
