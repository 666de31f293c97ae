using Microsoft.Net.Http.Headers;
using Wexel.Core.Packages;
using Wexel.Media.Packaging;

namespace Wexel.Server.Setup;

/// <summary>A ZIP that is packed while it goes: nothing of it lies on the disk, and it may be larger than what is free there.</summary>
/// <param name="files">What is in it.</param>
/// <param name="name">The name that it is saved under.</param>
internal sealed class ZipDownload(IReadOnlyList<PackageFile> files, string name) : IResult
{
    public async Task ExecuteAsync(HttpContext httpContext)
    {
        var headers = httpContext.Response.Headers;
        headers.ContentType = "application/zip";
        var disposition = new ContentDispositionHeaderValue("attachment");
        disposition.SetHttpFileName(name);
        headers.ContentDisposition = disposition.ToString();
        // The end of an entry is written without waiting, which the body's own stream does not take and its pipe does.
        await PackageWriter.WriteZipAsync(files, httpContext.Response.BodyWriter.AsStream(leaveOpen: true), httpContext.RequestAborted);
    }
}
