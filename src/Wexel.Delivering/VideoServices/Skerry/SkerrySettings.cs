namespace Wexel.Delivering.VideoServices.Skerry;

/// <summary>How Wexel is known at Skerry.</summary>
public sealed class SkerrySettings
{
    /// <summary>Where it is; null where nobody uses it.</summary>
    public Uri? Address { get; set; }

    /// <summary>What Wexel is called there.</summary>
    public string ClientId { get; set; } = "wexel";

    /// <summary>What Wexel shows that it is the one.</summary>
    public string ClientSecret { get; set; } = "";

    /// <summary>How much is sent in one request, in bytes.</summary>
    public int Piece { get; set; } = 8 * 1024 * 1024;
}
