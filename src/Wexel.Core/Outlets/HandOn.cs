using System.Globalization;
using System.Net;
using Wexel.Core.Recordings;

namespace Wexel.Core.Outlets;

/// <summary>What a trainer hands on after a release.</summary>
public static class HandOn
{
    /// <summary>An embed code in the picture's shape: an iframe that grows with its column and may go full screen.</summary>
    /// <param name="address">The embed page's address.</param>
    /// <param name="title">The lesson's title; read out by screen readers.</param>
    /// <param name="size">The picture's size, for the shape.</param>
    public static string EmbedCode(Uri address, string title, PictureSize size) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"<iframe src=\"{WebUtility.HtmlEncode(address.AbsoluteUri)}\" title=\"{WebUtility.HtmlEncode(title)}\" "
                + $"style=\"width:100%;aspect-ratio:{size.Width}/{size.Height};border:0\" allow=\"fullscreen\" allowfullscreen loading=\"lazy\"></iframe>"
        );
}
