using Microsoft.Extensions.Options;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Making;
using Wexel.Making.Lessons;
using Wexel.Making.Storage;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Server.Estimates;

/// <summary>What renditions will come to: from samples of the lesson where they were encoded, otherwise from what was seen of the recording.</summary>
internal sealed class RenditionEstimates(MakingFolders folders, SamplingTurn turn)
{
    /// <summary>The estimate as far as it is known.</summary>
    internal async Task<RenderEstimate> EstimateAsync(PlannedRendition planned, CancellationToken cancel)
    {
        if (planned.EncodedBytes(folders.Store) is { } bytes)
            return RenderEstimator.Encoded(planned.Plan, bytes, planned.Lesson.Found.ChangedShare, MachineSpeed.Small);
        var path = Path(planned);
        if (!File.Exists(path))
            return Rough(planned);
        var samples = WexelJson.Read<LessonSamples>(await File.ReadAllTextAsync(path, cancel));
        return RenderEstimator.FromSamples(planned.Plan, planned.Reel, planned.Map, planned.Unmoving, samples, MachineSpeed.Small);
    }

    /// <summary>Encodes samples where that was not done yet.</summary>
    /// <exception cref="ToolFailedException">The encoder ended with an error.</exception>
    internal async Task SampleAsync(PlannedRendition planned, CancellationToken cancel)
    {
        var path = Path(planned);
        if (File.Exists(path))
            return;
        await turn.TakeAsync(
            async () =>
            {
                var (plan, inputs) = (planned.Plan, planned.Inputs(folders));
                var measured = new LessonSamples(
                    plan.Picture is null or { Copy: not null }
                        ? []
                        : await SampleEncoder.MeasureAsync(plan.Pictures, inputs, Samples.Choose(planned.Map, planned.Unmoving), cancel),
                    plan.Sound is not { } sound
                        ? []
                        : await SampleEncoder.MeasureSoundAsync(sound, planned.Reel, planned.Map, inputs.Recordings, Samples.OfSound(planned.Map), cancel)
                );
                await WholeFile.MakeAsync(path, temporary => File.WriteAllTextAsync(temporary, WexelJson.Write(measured), cancel));
                return measured;
            },
            cancel
        );
    }

    private static RenderEstimate Rough(PlannedRendition planned) =>
        RenderEstimator.Estimate(planned.Plan, planned.Reel, planned.Lesson.Found.ChangedShare, MachineSpeed.Small);

    private string Path(PlannedRendition planned) => folders.Store.Derived(planned.SamplesKey, MadeNames.Samples);
}
