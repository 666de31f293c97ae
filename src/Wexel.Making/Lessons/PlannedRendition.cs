using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Encoding;
using Wexel.Core.Inspection;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Timing;
using Wexel.Making.Storage;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Making.Lessons;

/// <summary>A lesson planned with a profile: what is made of it, and under which keys.</summary>
/// <param name="plan">The plan.</param>
/// <param name="lesson">What it is made from.</param>
/// <param name="map">The lesson's times.</param>
/// <param name="sections">The contents, in lesson time.</param>
/// <param name="tracks">The captions that learners get, in lesson time.</param>
public sealed class PlannedRendition(RenderPlan plan, LessonToMake lesson, TimeMap map, IReadOnlyList<Section> sections, IReadOnlyList<LessonTrack> tracks)
{
    /// <summary>The plan.</summary>
    public RenderPlan Plan => plan;

    /// <summary>What it is made from.</summary>
    public LessonToMake Lesson => lesson;

    /// <summary>The lesson's times.</summary>
    public TimeMap Map => map;

    /// <summary>The recordings, one after the other.</summary>
    public Reel Reel => lesson.Found.Reel;

    /// <summary>The recordings' hashes, in their order.</summary>
    public IReadOnlyList<string> Hashes => lesson.Found.Hashes;

    /// <summary>The contents in lesson time.</summary>
    public IReadOnlyList<Section> Sections => sections;

    /// <summary>The captions that learners get, in lesson time; the track that is shown first at the front.</summary>
    public IReadOnlyList<LessonTrack> Tracks => tracks;

    /// <summary>The chapters of the finished file.</summary>
    public IReadOnlyList<Chapter> Chapters => Core.Contents.Chapters.FromSections(sections, plan.Length);

    /// <summary>The keys of what is encoded.</summary>
    public RenditionKeys Keys { get; } = RenditionKeys.Of(plan, map, lesson.Found.Hashes);

    /// <summary>The captions that stand inside the file.</summary>
    public IReadOnlyList<CaptionsInside> CaptionsInside { get; } =
        plan.File.CaptionTracks == 0
            ? []
            :
            [
                .. tracks.Zip(CaptionFileName.ForLanguages([.. tracks.Select(t => t.Track.Language)]), (t, name) =>
                    new CaptionsInside(name, WebVttText.Write(t.Cues), t.Track.Language)
                ),
            ];

    /// <summary>The key of the finished file.</summary>
    public string FileKey =>
        Keys.File(plan.File, lesson.Document.Title, [.. sections.Select(s => (s.At, s.Title))], [.. CaptionsInside.Select(c => (c.Language, c.WebVtt))], Tags);

    /// <summary>What the file says about itself besides its title and chapters; null for nothing.</summary>
    public FileTags? Tags => FileTags.Of(lesson.Said);

    /// <summary>Where nothing changes in the lesson; null where nobody looked.</summary>
    public IReadOnlyList<TimeRange>? Still => lesson.Found.Analysis is { } found ? ExpectedPicture.Still(found.Still, map) : null;

    /// <summary>Where nothing moves on the picture that is made, since nothing changes in the lesson and no camera is seen; empty where nobody
    /// looked.</summary>
    public IReadOnlyList<TimeRange> Unmoving =>
        TimeRange.Without(Still ?? [], (plan.Picture?.CameraSeen ?? []).Select(run => new TimeRange(map.Grid.TimeOf(run.First), map.Grid.TimeOf(run.End))));

    /// <summary>The key under which samples of it lie.</summary>
    public string SamplesKey => RenditionKeys.Samples(plan, map, Hashes);

    /// <summary>Where an encoded picture lies or will lie.</summary>
    public string Picture(FileStore store, int index) => store.Derived(Keys.Pictures[index], MadeNames.Picture);

    /// <summary>Where the encoded sound lies or will lie; null without sound.</summary>
    public string? Sound(FileStore store) => Keys.Sound is { } key ? store.Derived(key, MadeNames.Sound(plan.Sound!)) : null;

    /// <summary>Where the sound lies before it is encoded; there is sound.</summary>
    public string Composed(FileStore store) => store.Derived(Keys.Composed!, MadeNames.Composed);

    /// <summary>Where the finished file lies or will lie.</summary>
    public string File(FileStore store) => store.Derived(FileKey, MadeNames.Finished(plan.File.Container));

    /// <summary>What its picture is encoded from.</summary>
    public EncodeInputs Inputs(MakingFolders folders) => Inputs(plan, Hashes, folders);

    /// <summary>What a plan's picture is encoded from.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="hashes">The hashes of its recordings, in their order.</param>
    /// <param name="folders">Where they lie.</param>
    public static EncodeInputs Inputs(RenderPlan plan, IReadOnlyList<string> hashes, MakingFolders folders) =>
        new(
            [.. hashes.Select(folders.Store.Recording)],
            Marks(plan, folders),
            folders.Fonts,
            Cameras: plan.Picture?.Cameras?.DistinctBy(c => c.Recording).ToDictionary(c => c.Recording, c => folders.Store.Recording(c.Recording)),
            Sounds: plan.Sound?.Under?.Beds.Select(b => b.Sound).Distinct().ToDictionary(key => key, key => folders.Store.Derived(key, MadeNames.ShelfSound))
        );

    /// <summary>Where the marks lie that stand on a plan's pictures, by their keys.</summary>
    public static IReadOnlyDictionary<string, string> Marks(RenderPlan plan, MakingFolders folders) =>
        plan.Pictures.Select(p => p.Mark?.Key).OfType<string>().Distinct().ToDictionary(key => key, key => folders.Store.Derived(key, MadeNames.Mark));

    /// <summary>Whether everything is encoded already.</summary>
    public bool IsEncoded(FileStore store) => Encoded(store).All(Wholeness.IsWhole);

    /// <summary>What is encoded already comes to, in bytes; null where something is missing.</summary>
    public long? EncodedBytes(FileStore store) => IsEncoded(store) ? Encoded(store).Sum(path => new FileInfo(path).Length) : null;

    /// <summary>What the finished file is put together from.</summary>
    public MuxInputs MuxInputs(FileStore store) => new([.. Keys.Pictures.Select((_, i) => Picture(store, i))], Sound(store), CaptionsInside);

    private IEnumerable<string> Encoded(FileStore store) => Keys.Pictures.Select((_, i) => Picture(store, i)).Append(Sound(store)).OfType<string>();
}
