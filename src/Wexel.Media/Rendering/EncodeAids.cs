using System.Globalization;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>
/// The files beside an encode: how what is seen moves, captions that are part of the picture with their typeface, and what a first pass
/// wrote down. They lie in a folder with a plain name, since a filter's own argument gives many characters a meaning.
/// </summary>
internal sealed class EncodeAids : IDisposable
{
    private readonly string _folder;
    private readonly int _from;
    private readonly bool _owns;

    private EncodeAids(string folder, int from, bool owns) => (_folder, _from, _owns) = (folder, from, owns);

    internal string Fonts => Path.Combine(_folder, "fonts");

    internal static async Task<EncodeAids> MakeAsync(EncodeWork work, CancellationToken cancel)
    {
        var aids = new EncodeAids(HalfMade.Folder(), 0, owns: true);
        for (var i = 0; i < work.Pictures.Count; i++)
        {
            var plan = work.Pictures[i].Plan;
            if (plan.Parts.Any(part => part.Moves.Count > 0))
                await File.WriteAllTextAsync(aids.Moves(i), MoveCommands.Print(plan, i), cancel);
            if (plan.Captions is { } captions)
                await File.WriteAllTextAsync(aids.Captions(i), captions, cancel);
            foreach (var (camera, seen) in (plan.Cameras ?? []).Index())
            {
                foreach (var (view, how) in seen.Views.Index().Where(v => v.Item.Radius > 0))
                    await CameraFilters.WriteMaskAsync(how, aids.Mask(i, camera, view), cancel);
            }
        }

        if (work.Pictures.Any(p => p.Plan.Captions is not null))
        {
            Directory.CreateDirectory(aids.Fonts);
            foreach (
                var font in Directory.EnumerateFiles(
                    work.Inputs.FontsFolder ?? throw new ArgumentException("Captions are part of the picture, and no typeface is given.", nameof(work))
                )
            )
                File.Copy(font, Path.Combine(aids.Fonts, Path.GetFileName(font)));
        }

        return aids;
    }

    /// <summary>The same files for one picture that is made again by itself, as its first.</summary>
    internal EncodeAids Only(int output) => new(_folder, output, owns: false);

    internal string Moves(int output) => Named("moves", output);

    internal string Captions(int output) => Named("captions", output);

    internal string Log(int output) => Named("pass", output);

    internal string Mask(int output, int camera, int view) => Named(string.Create(CultureInfo.InvariantCulture, $"mask-{camera}-{view}"), output) + ".pgm";

    public void Dispose()
    {
        if (_owns)
            Directory.Delete(_folder, recursive: true);
    }

    private string Named(string what, int output) => Path.Combine(_folder, string.Create(CultureInfo.InvariantCulture, $"{what}-{output + _from}"));
}
