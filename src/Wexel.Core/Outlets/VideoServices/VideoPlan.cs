namespace Wexel.Core.Outlets.VideoServices;

/// <summary>Something that is done at a service.</summary>
public enum VideoStep
{
    /// <summary>What stands under another account or in another channel is removed.</summary>
    Remove,

    /// <summary>The video is uploaded.</summary>
    Upload,

    /// <summary>What is said of it is said there.</summary>
    Say,

    /// <summary>Captions are put there, replaced or taken away.</summary>
    Captions,

    /// <summary>It is put in playlists, or taken out of them.</summary>
    Lists,

    /// <summary>The service makes it ready.</summary>
    Await,

    /// <summary>Its picture is chosen, which services take only when it is ready.</summary>
    Thumbnail,
}

/// <summary>What has to be done so that at a service stands what is wanted: the difference of two values. Done twice it is nothing.</summary>
public static class VideoPlan
{
    /// <summary>The steps in their order; none where all stands as it is wanted.</summary>
    /// <param name="wanted">What is to stand there.</param>
    /// <param name="there">What stands there; null for nothing.</param>
    public static IReadOnlyList<VideoStep> Steps(VideoWanted wanted, VideoThere? there)
    {
        var steps = new List<VideoStep>();
        if (there is not null && !there.IsIn(wanted.Place))
        {
            if (there.Id is not null && there.Stage != VideoStage.Gone)
                steps.Add(VideoStep.Remove);
            there = null;
        }

        if (there is { Stage: VideoStage.Gone })
            there = null;
        if (there is { Stage: VideoStage.Refused })
            there = there with { Video = null };
        if (there?.Video != wanted.Video)
            steps.Add(VideoStep.Upload);
        if (there?.Said?.Key != wanted.Texts.Key)
            steps.Add(VideoStep.Say);
        if (!Same(there?.Captions ?? new Dictionary<string, string>(), wanted.Captions))
            steps.Add(VideoStep.Captions);
        if (!(there?.Lists ?? []).ToHashSet().SetEquals(wanted.Place.Lists))
            steps.Add(VideoStep.Lists);
        var isReady = there is { Stage: VideoStage.Ready } && !steps.Contains(VideoStep.Upload);
        if (!isReady)
            steps.Add(VideoStep.Await);
        if (wanted.Thumbnail is { } picture && (!isReady || there!.Thumbnail != picture))
            steps.Add(VideoStep.Thumbnail);
        return steps;
    }

    private static bool Same(IReadOnlyDictionary<string, string> one, IReadOnlyDictionary<string, string> other) =>
        one.Count == other.Count && one.All(c => other.TryGetValue(c.Key, out var key) && key == c.Value);
}
