namespace Wexel.Delivering.Http;

/// <summary>What the files of packages are, by their endings (IANA media types).</summary>
internal static class MediaTypes
{
    internal static string ForPath(string path) =>
        Path.GetExtension(path) switch
        {
            ".html" => "text/html",
            ".css" => "text/css",
            ".js" => "text/javascript",
            ".vtt" => "text/vtt",
            ".txt" => "text/plain",
            ".xml" or ".xsd" => "application/xml",
            ".json" => "application/json",
            ".jpg" => "image/jpeg",
            ".png" => "image/png",
            ".woff2" => "font/woff2",
            ".mp4" or ".m4v" => "video/mp4",
            ".m4s" => "video/iso.segment",
            ".m3u8" => "application/vnd.apple.mpegurl",
            ".webm" => "video/webm",
            ".m4a" => "audio/mp4",
            ".zip" => "application/zip",
            _ => "application/octet-stream",
        };
}
