using CliWrap;
using CliWrap.Buffered;

namespace Wexel.Media.Tests;

/// <summary>ffmpeg as anybody runs it: its filters are a reference that is not Wexel's.</summary>
internal static class PlainFfmpeg
{
    /// <summary>Runs it and gives back all that it said.</summary>
    internal static async Task<string> SaidAsync(IEnumerable<string> arguments, CancellationToken cancel) =>
        (await Cli.Wrap("ffmpeg").WithArguments(["-hide_banner", "-nostdin", "-nostats", "-y", .. arguments]).ExecuteBufferedAsync(cancel)).StandardError;
}
