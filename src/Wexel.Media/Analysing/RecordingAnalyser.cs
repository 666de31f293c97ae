using System.Diagnostics;
using System.Globalization;
using Wexel.Core.Recordings;
using Wexel.Media.Tools;

namespace Wexel.Media.Analysing;

/// <summary>Looks through a recording once: pictures for the run sheet, where the screen stands still, black borders, peaks, levels and loudness.</summary>
public static class RecordingAnalyser
{
    /// <summary>The width of the pictures that are kept, in pixels.</summary>
    public const int PictureWidth = 320;

    private static readonly TimeSpan UsuallyTellEvery = TimeSpan.FromSeconds(1);

    /// <summary>Looks only where on the screen something changes, as <see cref="AnalyseAsync"/> does besides.</summary>
    /// <param name="facts">What the probe found.</param>
    /// <param name="path">The recording.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The recording could not be read.</exception>
    public static async Task<byte[]> ChangedAsync(RecordingFacts facts, string path, CancellationToken cancel) =>
        ChangedFields.Pack(await PictureAnalyser.ChangedAsync(facts.Picture?.Preparation, path, cancel));

    /// <summary>Analyses a recording; the pictures chosen lie in the folder afterwards, named by <see cref="PictureName"/>.</summary>
    /// <param name="facts">What the probe found.</param>
    /// <param name="path">The recording.</param>
    /// <param name="pictureFolder">Where the pictures go.</param>
    /// <param name="soFar">Told again and again what was found until then; may be null.</param>
    /// <param name="tellEvery">How often it is told at most; null for once a second.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The recording could not be read.</exception>
    public static async Task<RecordingAnalysis> AnalyseAsync(
        RecordingFacts facts,
        string path,
        string pictureFolder,
        Func<RecordingAnalysis, Task>? soFar,
        TimeSpan? tellEvery,
        CancellationToken cancel
    )
    {
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        var pictures = new PictureAnalyser(facts.Picture?.Preparation, path, pictureFolder);
        var sound = facts.Sounds.Count == 0 ? Task.FromResult<SoundHeard?>(null) : SoundAsync(facts, path, stop.Token);
        var told = Stopwatch.StartNew();
        var toldPictures = false;
        var looking = pictures.AnalyseAsync(TellAsync, stop.Token);
        try
        {
            // Whichever fails first ends the others.
            List<Task> all = [looking, sound];
            while (all.Count > 0)
            {
                var first = await Task.WhenAny(all);
                await first;
                all.Remove(first);
            }
        }
        catch
        {
            await stop.CancelAsync();
            throw;
        }

        var borders = pictures.SeesBorders ? await BorderMeasurer.MeasureAsync(facts, path, pictures.Moments, cancel) : null;
        return Result(null, borders);

        RecordingAnalysis Result(TimeSpan? until, PictureBorders? borders)
        {
            var changes = pictures.Changes;
            var heard = sound.IsCompletedSuccessfully ? sound.Result : null;
            return new RecordingAnalysis(
                until,
                [.. pictures.Moments],
                changes.Count < 2 ? 0 : (double)changes.Skip(1).Count(c => c.Change > StillStretches.Unchanged) / (changes.Count - 1),
                StillStretches.Find(changes, until ?? facts.Length),
                StillStretches.Scenes(changes),
                borders,
                Judge(facts, heard),
                SoundListener.PeaksPerSecond,
                heard?.Peaks ?? [],
                heard?.Levels,
                heard?.Loudness,
                [.. pictures.Looks],
                pictures.Damaged,
                ChangedFields.Pack(pictures.Changed)
            );
        }

        async Task TellAsync()
        {
            // The first picture is worth telling at once: somebody is waiting for it.
            var first = !toldPictures && pictures.Moments.Count > 0;
            if (soFar is null || (!first && told.Elapsed < (tellEvery ?? UsuallyTellEvery)))
                return;
            toldPictures |= first;
            await soFar(Result(pictures.Changes[^1].At, null));
            told.Restart();
        }
    }

    /// <summary>The same analysis, of whose recording other sound tracks are used now: what was seen stands, the sound is listened to.</summary>
    /// <param name="facts">What the probe found, with the tracks that are used now.</param>
    /// <param name="path">The recording.</param>
    /// <param name="seen">What looking through found before.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The sound could not be read.</exception>
    public static async Task<RecordingAnalysis> ListenAgainAsync(RecordingFacts facts, string path, RecordingAnalysis seen, CancellationToken cancel)
    {
        var heard = facts.Sound is null ? null : await SoundAsync(facts, path, cancel);
        return seen with { LookedUntil = null, Sides = Judge(facts, heard), Peaks = heard?.Peaks ?? [], Levels = heard?.Levels, Loudness = heard?.Loudness };
    }

    /// <summary>What is heard of a recording through which nobody looked.</summary>
    /// <inheritdoc cref="SidesAsync"/>
    public static Task<RecordingAnalysis> ListenAsync(RecordingFacts facts, string path, CancellationToken cancel) =>
        ListenAgainAsync(facts, path, new RecordingAnalysis(null, [], 0, [], [], null, null, SoundListener.PeaksPerSecond, [], null, null), cancel);

    /// <summary>Only the verdict over the sides of the sound that is used; null without sound.</summary>
    /// <exception cref="ToolFailedException">The sound could not be read.</exception>
    public static async Task<SoundSides?> SidesAsync(RecordingFacts facts, string path, CancellationToken cancel) =>
        Judge(facts, facts.Sound is { Channels: 2 } ? await SoundAsync(facts, path, cancel) : null);

    /// <summary>The name of the picture at a moment.</summary>
    public static string PictureName(TimeSpan moment) => string.Create(CultureInfo.InvariantCulture, $"{(long)moment.TotalMilliseconds:000000000}.jpg");

    private static async Task<SoundHeard?> SoundAsync(RecordingFacts facts, string path, CancellationToken cancel) =>
        (await SoundAnalyser.AnalyseAsync(MediaTool.SafeInput(path), facts.Used, Math.Min(2, facts.Sound!.Channels), null, cancel)).Heard;

    private static SoundSides? Judge(RecordingFacts facts, SoundHeard? sound) =>
        facts.Sound switch
        {
            null => null,
            { Channels: 2 } when sound is not null => sound.Sums.Judge(),
            _ => SoundSides.Stereo,
        };
}
