namespace Wexel.Core.Captions;

/// <summary>What could not be read of a caption file: the first of it one by one, the rest as a number. Reading goes on all the same, so that nothing that can
/// be read is lost.</summary>
internal sealed class CaptionProblems
{
    private readonly List<Problem> _first = [];
    private int _more;

    internal void Add(Problem problem)
    {
        if (_first.Count < Problem.Most)
            _first.Add(problem);
        else
            _more++;
    }

    /// <summary>All of them, in their order.</summary>
    internal IReadOnlyList<Problem> All =>
        _more == 0
            ? _first
            :
            [
                .. _first,
                new Problem(
                    "captions-more",
                    _more == 1 ? "One more caption could not be read either." : $"{_more:#,0} more captions could not be read either."
                ),
            ];
}
