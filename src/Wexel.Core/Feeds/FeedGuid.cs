using System.Security.Cryptography;

namespace Wexel.Core.Feeds;

/// <summary>What a feed is known by wherever it moves (Podcasting 2.0 namespace, "Guid"): a name-based UUID of its first address (RFC 9562, section
/// 5.5).</summary>
public static class FeedGuid
{
    /// <summary>The namespace that the document gives.</summary>
    private static readonly Guid Namespace = Guid.Parse("ead4c236-bf58-58c6-a2c6-a6b28d128cb6");

    /// <summary>The identifier of a feed.</summary>
    /// <param name="address">Its first address; the scheme and slashes at the end make no difference.</param>
    public static Guid For(Uri address)
    {
        var name = address.AbsoluteUri[(address.Scheme.Length + Uri.SchemeDelimiter.Length)..].TrimEnd('/');
        return Named(Namespace, name);
    }

    /// <summary>The identifier of the feed of sound beside another: it stays as long as that one's does.</summary>
    /// <param name="feed">The other's.</param>
    public static Guid OfSoundBeside(Guid feed) => Named(feed, FeedFiles.SoundBeside);

    /// <summary>A name-based identifier, version 5.</summary>
    private static Guid Named(Guid space, string name)
    {
        Span<byte> hash = stackalloc byte[SHA1.HashSizeInBytes];
#pragma warning disable CA5350 // The document wants version 5, which is this hash; it keeps nothing secret.
        SHA1.HashData([.. space.ToByteArray(bigEndian: true), .. System.Text.Encoding.UTF8.GetBytes(name)], hash);
#pragma warning restore CA5350
        hash[6] = (byte)((hash[6] & 0x0f) | 0x50);
        hash[8] = (byte)((hash[8] & 0x3f) | 0x80);
        return new Guid(hash[..16], bigEndian: true);
    }
}
