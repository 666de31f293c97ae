using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Questions;

namespace Wexel.Core.Lessons;

/// <summary>What is placed along a lesson's recordings, a list a kind. A kind is registered by its list standing here; see <see
/// cref="Placing.PlacedLists"/>.</summary>
public abstract record PlacedThings
{
    private readonly IReadOnlyList<Section> _sections = [];
    private readonly IReadOnlyList<MoveIn> _moveIns = [];
    private readonly IReadOnlyList<Question> _questions = [];

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
}
