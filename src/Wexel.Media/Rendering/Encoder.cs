using Wexel.Core.Encoding;
using Wexel.Media.Analysing;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>Encodes pictures and sounds: the recordings are decoded once for all of them.</summary>
public static class Encoder
{
    private const int MostCorrections = 4;
    private const double Grows = 1.05;

    /// <summary>Encodes; all files are whole, or none is there.</summary>
    /// <param name="work">What is encoded.</param>
    /// <param name="progress">Told the time in the output that was reached, over all passes.</param>
    /// <param name="started">Told the number of each process, so that it can be found if its parent dies.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The encoder ended with an error.</exception>
    public static Task EncodeAsync(EncodeWork work, IProgress<TimeSpan>? progress, Action<int>? started, CancellationToken cancel)
    {
        List<PictureOutput> copied = [.. work.Pictures.Where(p => p.Plan.Copy is not null)];
        List<SoundOutput> copiedSounds = [.. work.Sounds.Where(s => s.Plan.Copy is not null)];
        // Where the encoder looks for what it wrote down in its first pass goes by a picture's place.
        var ordered = work with
        {
            Pictures = [.. work.Pictures.Except(copied).OrderByDescending(p => p.Plan.Rate.Passes)],
            Sounds = [.. work.Sounds.Except(copiedSounds)],
        };
        var twice = ordered with { Pictures = [.. ordered.Pictures.Where(p => p.Plan.Rate.Passes == 2)], Sounds = [] };
        return WholeFile.MakeAllAsync(
            [
                .. ordered.Pictures.Select(p => p.Path),
                .. ordered.Sounds.Select(s => s.Path),
                .. copied.Select(p => p.Path),
                .. copiedSounds.Select(s => s.Path),
            ],
            async paths =>
            {
                var encoded = ordered.Pictures.Count + ordered.Sounds.Count;
                foreach (var (picture, path) in copied.Zip(paths.Skip(encoded)))
                    await PictureCopier.CopyAsync(picture.Plan, work.Inputs, path, progress, started, cancel);
                foreach (var (sound, path) in copiedSounds.Zip(paths.Skip(encoded + copied.Count)))
                    await SoundCopier.CopyAsync(sound, work.Inputs.Recordings[0], path, started, cancel);
                if (encoded == 0)
                    return;
                var passes = new PassProgress(progress, twice.Pictures.Count > 0 ? 2 : 1);
                if (ordered.Pictures.Count == 0)
                {
                    await SoundsAsync(passes, cancel);
                    return;
                }

                // One encoder hands its frames to all codecs one after the other, and that of sound would keep the pictures waiting.
                using var aids = await EncodeAids.MakeAsync(ordered, cancel);
                await TogetherAsync([PicturesAsync, stop => SoundsAsync(new Moving(passes), stop)], cancel);
                passes.End(ordered.Pictures.Max(p => p.Plan.Timing.Grid.TimeOf(p.Plan.Timing.LastFrame + 1)));
                for (var i = 0; i < ordered.Pictures.Count; i++)
                    await CorrectAsync(ordered, i, paths, aids, passes, started, cancel);

                async Task PicturesAsync(CancellationToken stop)
                {
                    if (twice.Pictures.Count > 0)
                        await MediaTool.RunAsync(EncodeArguments.FirstPass(twice, aids), passes, started, stop);
                    passes.Next();
                    await MediaTool.RunAsync(
                        EncodeArguments.Print(ordered, aids, paths, [.. ordered.Pictures.Select(p => p.Plan.Rate.BitsPerSecond)]),
                        passes,
                        started,
                        stop
                    );
                }

                async Task SoundsAsync(IProgress<TimeSpan> reached, CancellationToken stop)
                {
                    if (ordered.Sounds.Count == 0)
                        return;
                    List<string> to = [.. paths.Skip(ordered.Pictures.Count).Take(ordered.Sounds.Count)];
                    // One after the other: several codecs have what they are made of in common.
                    var ready = new List<(SoundPlan Plan, LessonSound Sound)>();
                    foreach (var sound in ordered.Sounds)
                        ready.Add((sound.Plan, await sound.Ready!(stop)));
                    await MediaTool.RunAsync(EncodeArguments.OfSounds(ready, to), reached, started, stop);
                    foreach (var ((plan, sound), path) in ready.Zip(to))
                        await HoldPeaksAsync(plan, sound, path, reached, started, stop);
                }
            }
        );
    }

    /// <summary>Does all at once. Where one fails, the others are stopped first.</summary>
    private static async Task TogetherAsync(IEnumerable<Func<CancellationToken, Task>> works, CancellationToken cancel)
    {
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        List<Task> underWay = [.. works.Select(work => work(stop.Token))];
        await foreach (var ended in Task.WhenEach(underWay))
        {
            if (ended.IsCompletedSuccessfully)
                continue;
            await stop.CancelAsync();
            await Task.WhenAll(underWay).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            await ended;
        }
    }

    /// <summary>At a low rate an encoder raises peaks. What passes the ceiling is encoded again with more room, until it holds.</summary>
    private static async Task HoldPeaksAsync(
        SoundPlan plan,
        LessonSound sound,
        string path,
        IProgress<TimeSpan> reached,
        Action<int>? started,
        CancellationToken cancel
    )
    {
        if (plan.TargetLufs is null)
            return;
        var levelling = sound.Levelling ?? new Levelling(0, HoldsPeaks: false);
        for (var i = 0; i < MostCorrections; i++)
        {
            if (
                (await SoundAnalyser.AnalyseAsync(MediaTool.OwnInput(path), plan.Channels, null, cancel)).Heard.Loudness.TruePeak is not { } peak
                || peak <= Levelling.Ceiling
            )
                return;
            levelling = levelling.WithHeadroom(peak);
            await MediaTool.RunAsync(EncodeArguments.OfSounds([(plan, sound with { Levelling = levelling })], [path]), reached, started, cancel);
        }
    }

    /// <summary>An encoder meets a rate only nearly. One that was told to meet a rate or a size is told again, by what it made.</summary>
    private static async Task CorrectAsync(
        EncodeWork work,
        int index,
        IReadOnlyList<string> paths,
        EncodeAids aids,
        PassProgress passes,
        Action<int>? started,
        CancellationToken cancel
    )
    {
        var picture = work.Pictures[index];
        if (RateTarget.Of(picture, SoundPath(work, picture, paths)) is not { } target)
            return;
        // The log of the first pass is found by the picture's place, so those before it stand there too, unused.
        var alone = work with { Pictures = [picture], Sounds = [] };
        var (rate, before) = (picture.Plan.Rate.BitsPerSecond, 0L);
        for (var i = 0; i < MostCorrections; i++)
        {
            var made = await target.MeasureAsync(paths[index], cancel);
            // A picture at its best takes no more, whatever it is given.
            if (target.Meets(made) || (before > 0 && made > before && made < before * Grows))
                return;
            before = made;
            var better = target.Corrected(rate, made);
            if (better == rate)
                return;
            rate = better;
            await MediaTool.RunAsync(EncodeArguments.Print(alone, aids.Only(index), [paths[index]], [rate]), passes, started, cancel);
        }
    }

    /// <summary>Where the sound lies that goes with a picture: it may be made in the same pass, and then it has a temporary name.</summary>
    private static string? SoundPath(EncodeWork work, PictureOutput picture, IReadOnlyList<string> paths)
    {
        if (picture.Limit?.SoundPath is not { } sound)
            return null;
        var now = work.Sounds.Select(s => s.Path).ToList().IndexOf(sound);
        return now < 0 ? sound : paths[work.Pictures.Count + now];
    }

    /// <summary>The time reached in one pass as a share of all. A correction does not take it back, but still tells that something moves.</summary>
    private sealed class PassProgress(IProgress<TimeSpan>? progress, int passes) : IProgress<TimeSpan>
    {
        private readonly Lock _one = new();
        private TimeSpan _before;
        private TimeSpan _last;
        private TimeSpan _furthest;

        internal void Next() => (_before, _last) = (_before + (_last / passes), TimeSpan.Zero);

        public void Report(TimeSpan value)
        {
            lock (_one)
            {
                var reached = _before + ((_last = value) / passes);
                _furthest = reached > _furthest ? reached : _furthest;
                progress?.Report(_furthest);
            }
        }

        /// <summary>Tells that all is reached: an encoder says so only of the last frame that it wrote before its end.</summary>
        internal void End(TimeSpan length) => progress?.Report(_furthest = length);

        /// <summary>Tells that something moves.</summary>
        internal void Move()
        {
            lock (_one)
                progress?.Report(_furthest);
        }
    }

    /// <summary>What goes on beside the pictures, by which the progress does not go.</summary>
    private sealed class Moving(PassProgress passes) : IProgress<TimeSpan>
    {
        public void Report(TimeSpan value) => passes.Move();
    }
}
