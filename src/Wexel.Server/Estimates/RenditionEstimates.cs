using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Timing;
using Wexel.Data.Storage;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;
using Wexel.Server.Rendering;
using Wexel.Server.Setup;

namespace Wexel.Server.Estimates;

/// <summary>What renditions will come to: from samples of the lesson where they were encoded, otherwise from what was seen of the recording.</summary>
internal sealed class RenditionEstimates(FileStore store, SamplingTurn turn, IOptions<WexelOptions> options)
{
    internal const string SamplesName = "samples.json";

    /// <summary>The estimate as far as it is known.</summary>
    internal async Task<RenderEstimate> OfAsync(PlannedRender planned, CancellationToken cancel)
    {
        if (planned.EncodedBytes(store) is { } bytes)
            return RenderEstimator.Encoded(planned.Plan, bytes, planned.Analysis.ChangedShare, MachineSpeed.Small);
        var path = Path(planned);
        if (!File.Exists(path))
            return Rough(planned);
        var samples = Json.Read<LessonSamples>(await File.ReadAllTextAsync(path, cancel));
        return RenderEstimator.FromSamples(planned.Plan, planned.Reel, planned.Map, Still(planned), samples, MachineSpeed.Small);
    }

    /// <summary>Encodes samples where that was not done yet.</summary>
    /// <exception cref="ToolFailedException">The encoder ended with an error.</exception>
    internal async Task SampleAsync(PlannedRender planned, CancellationToken cancel)
    {
        var path = Path(planned);
        if (File.Exists(path))
            return;
        await turn.TakeAsync(async () =>
        {
            var (plan, inputs) = (planned.Plan, planned.Inputs(store, options.Value.PlayerFolder));
            var measured = new LessonSamples(
                plan.Picture is null or { Copy: not null } ? [] : await SampleEncoder.MeasureAsync(plan.Pictures, inputs, Samples.Of(planned.Map, Still(planned)), cancel),
                plan.Sound is not { } sound ? [] : await SampleEncoder.MeasureSoundAsync(sound, planned.Reel, planned.Map, inputs.Recordings, Samples.OfSound(planned.Map), cancel));
            await WholeFile.MakeAsync(path, temporary => File.WriteAllTextAsync(temporary, Json.Write(measured), cancel));
            return measured;
        }, cancel);
    }

    private static RenderEstimate Rough(PlannedRender planned) => RenderEstimator.Of(planned.Plan, planned.Reel, planned.Analysis.ChangedShare, MachineSpeed.Small);

    private static IReadOnlyList<TimeRange> Still(PlannedRender planned) => ExpectedPicture.Still(planned.Analysis.Still, planned.Map);

    private string Path(PlannedRender planned) => store.Derived(DerivedKey.Of(SampleEncoder.Maker, planned.Hashes, planned.Plan.Pictures, planned.Plan.Sound, planned.Map.Kept), SamplesName);
}
