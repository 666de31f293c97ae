using System.Globalization;
using System.Security.Cryptography;
using System.Text;

namespace Wexel.Server.Uploads;

/// <summary>Reads and writes the headers of tus 1.0.</summary>
internal static class TusHeaders
{
    internal const string Version = "1.0.0";
    internal const string Extensions = "creation,creation-with-upload,termination,checksum,expiration";
    internal const string Algorithms = "sha1,sha256,md5";
    internal const string PieceType = "application/offset+octet-stream";

    /// <summary>A number of bytes that a header gives; null where it is missing or none.</summary>
    internal static long? Bytes(HttpRequest request, string header) =>
        long.TryParse(request.Headers[header], NumberStyles.None, CultureInfo.InvariantCulture, out var bytes) ? bytes : null;

    /// <summary>Upload-Metadata: pairs of a key and a value in Base64, set apart by commas; null where it cannot be read.</summary>
    internal static Dictionary<string, string>? Metadata(HttpRequest request)
    {
        var found = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var pair in request.Headers["Upload-Metadata"].ToString().Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            var space = pair.IndexOf(' ', StringComparison.Ordinal);
            var (key, value) = space < 0 ? (pair, "") : (pair[..space], pair[(space + 1)..]);
            var bytes = new byte[value.Length];
            if (!Convert.TryFromBase64String(value, bytes, out var written) || !found.TryAdd(key, Encoding.UTF8.GetString(bytes, 0, written)))
                return null;
        }

        return found;
    }

    /// <summary>Upload-Checksum: an algorithm and the sum in Base64.</summary>
    /// <returns>Nothing where there is no such header; a null hash where it cannot be used.</returns>
    internal static (HashAlgorithmName? Algorithm, byte[] Sum)? Checksum(HttpRequest request)
    {
        if (request.Headers["Upload-Checksum"].ToString() is not { Length: > 0 } header)
            return null;
        var parts = header.Split(' ', 2);
        var sum = new byte[header.Length];
        HashAlgorithmName? algorithm = parts[0] switch
        {
            "sha1" => HashAlgorithmName.SHA1,
            "sha256" => HashAlgorithmName.SHA256,
            "md5" => HashAlgorithmName.MD5,
            _ => null,
        };
        return parts.Length == 2 && Convert.TryFromBase64String(parts[1], sum, out var written) ? (algorithm, sum[..written]) : (null, []);
    }
}
