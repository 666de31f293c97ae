using System.Text.Json.Serialization;
using Wexel.Core.Cameras;
using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Mixing;
using Wexel.Core.Overlays;
using Wexel.Core.Questions;

namespace Wexel.Core.Lessons;

/// <summary>What is placed along a lesson's recordings, a list a kind. A kind is registered by its list standing here; see <see
/// cref="Placing.PlacedLists"/>.</summary>
public abstract record PlacedThings
{
    private readonly IReadOnlyList<Section> _sections = [];
    private readonly IReadOnlyList<MoveIn> _moveIns = [];
    private readonly IReadOnlyList<Question> _questions = [];
    private readonly IReadOnlyList<Area> _areas = [];
    private readonly IReadOnlyList<Note> _notes = [];
    private readonly IReadOnlyList<SoundBed> _sounds = [];
    private readonly IReadOnlyList<CameraStretch> _cameraStretches = [];

    /// <summary>The contents.</summary>
    public IReadOnlyList<Section> Sections
    {
        get => _sections;
        init => _sections = value ?? [];
    }

    /// <summary>Where a part of the picture is seen large, in order and apart.</summary>
    public IReadOnlyList<MoveIn> MoveIns
    {
        get => _moveIns;
        init => _moveIns = value ?? [];
    }

    /// <summary>What learners are asked.</summary>
    public IReadOnlyList<Question> Questions
    {
        get => _questions;
        init => _questions = value ?? [];
    }

    /// <summary>What can be clicked on the picture.</summary>
    public IReadOnlyList<Area> Areas
    {
        get => _areas;
        init => _areas = value ?? [];
    }

    /// <summary>What is to be read over the picture.</summary>
    public IReadOnlyList<Note> Notes
    {
        get => _notes;
        init => _notes = value ?? [];
    }

    /// <summary>What lies under the voice.</summary>
    public IReadOnlyList<SoundBed> Sounds
    {
        get => _sounds;
        init => _sounds = value ?? [];
    }

    /// <summary>Where the camera is shown otherwise than usually, in order and apart.</summary>
    public IReadOnlyList<CameraStretch> CameraStretches
    {
        get => _cameraStretches;
        init => _cameraStretches = value ?? [];
    }

    /// <summary>The sounds that lie under the voice, each once.</summary>
    [JsonIgnore]
    public IReadOnlyList<ShelfSound> ShelfSounds => [.. Sounds.Select(s => s.Sound).DistinctBy(s => s.Key)];

    /// <summary>The keys of the pictures that stand with questions and notes, each once.</summary>
    [JsonIgnore]
    public IReadOnlyList<string> ShownPictures => [.. Questions.Select(q => q.Picture).Concat(Notes.Select(n => n.Picture)).OfType<string>().Distinct()];
}
