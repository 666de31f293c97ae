using Wexel.Core.Inspection;
using Wexel.Core.Streaming;
using Wexel.Media.Containers;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Media.Measuring;

/// <summary>Measures folders of pieces (RFC 8216).</summary>
internal static class StreamMeasurer
{
    /// <summary>Measures a folder that Wexel made: each picture is put together with the sound again from its playlist, as a player does, and measured
    /// as a file.</summary>
    /// <param name="master">The path of the master playlist.</param>
    /// <param name="made">What it is held against.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">A playlist or its pieces cannot be read at all.</exception>
    internal static async Task<(StreamFacts Facts, ExpectedOfSource Expected, string Codecs)> MeasureAsync(
        string master,
        MadeFrom made,
        CancellationToken cancel
    )
    {
        var folder = Path.GetDirectoryName(master)!;
        var work = HalfMade.Folder();
        try
        {
            var (pictures, source) = (new List<RenditionFacts>(), default(ExpectedOfSource));
            foreach (var picture in made.Plan.Pictures)
            {
                // The sound is the same with each picture, and measured once.
                var withSound = pictures.Count == 0 && made.Plan.Sound is not null;
                var together = Path.Combine(work, HlsFolder.Name(picture) + ".mp4");
                await TogetherAsync(withSound ? [HlsFolder.Name(picture), HlsFolder.Sound] : [HlsFolder.Name(picture)], folder, together, cancel);
                var plan = made.Plan with { Pictures = [picture], Sound = withSound ? made.Plan.Sound : null };
                var (facts, expected, _) = await RenditionMeasurer.MeasureAsync(
                    together,
                    made with
                    {
                        Plan = plan,
                        ComposedSound = withSound ? made.ComposedSound : null,
                    },
                    null,
                    cancel
                );
                source ??= expected;
                pictures.Add(facts);
            }

            var files = HlsFolder.Files(folder);
            string? Read(string name) => files.Contains(name) ? File.ReadAllText(Path.Combine(folder, name)) : null;
            long? Bytes(string name) => files.Contains(name) ? new FileInfo(Path.Combine(folder, name)).Length : null;
            List<string> breaches = [.. HlsCheck.Findings(Path.GetFileName(master), Read, Bytes), .. await Untimed(folder, files)];
            var captions = Read(Path.GetFileName(master))!.Split("TYPE=SUBTITLES").Length - 1;
            return (new StreamFacts(files.Sum(f => Bytes(f)!.Value), pictures, breaches, captions), source!, pictures[0].Codecs);
        }
        finally
        {
            Directory.Delete(work, recursive: true);
        }
    }

    /// <summary>Puts tracks together from their playlists: the header and the pieces of each in a row are an MP4. A piece that is missing is left
    /// out.</summary>
    private static async Task TogetherAsync(IReadOnlyList<string> tracks, string folder, string to, CancellationToken cancel)
    {
        var whole = new List<string>();
        foreach (var name in tracks)
        {
            var listed = File.Exists(Path.Combine(folder, name + ".m3u8")) ? await File.ReadAllLinesAsync(Path.Combine(folder, name + ".m3u8"), cancel) : [];
            whole.Add($"{to}.{name}.mp4");
            await using var target = File.Create(whole[^1]);
            foreach (
                var piece in listed
                    .Where(line => line.Length > 0 && !line.StartsWith('#'))
                    .Prepend(HlsFolder.Map(name))
                    .Select(piece => Path.Combine(folder, piece))
                    .Where(File.Exists)
            )
            {
                await using var source = File.OpenRead(piece);
                await source.CopyToAsync(target, cancel);
            }
        }

        await MediaTool.RunAsync(
            [
                "-copyts",
                .. whole.SelectMany(MediaTool.OwnInput),
                .. whole.SelectMany((_, i) => new[] { "-map", $"{i}:0" }),
                "-c",
                "copy",
                "-f",
                "mp4",
                "file:" + to,
            ],
            null,
            null,
            cancel
        );
    }

    private static async Task<List<string>> Untimed(string folder, IEnumerable<string> files)
    {
        var breaches = new List<string>();
        foreach (var name in files.Where(f => f.EndsWith(".m4s", StringComparison.Ordinal)))
        {
            await using var segment = File.OpenRead(Path.Combine(folder, name));
            if (!Mp4Fragments.SaysWhen(segment))
                breaches.Add($"3.3: {name} has a track fragment without its time (tfdt).");
        }

        return breaches;
    }
}
