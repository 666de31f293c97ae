namespace Wexel.Core.Speech;

/// <summary>How far what was heard is from what was said, counted in words.</summary>
/// <param name="Said">Words that were said.</param>
/// <param name="Wrong">Heard as another.</param>
/// <param name="Missed">Not heard.</param>
/// <param name="Added">Heard where nothing was said.</param>
public sealed record WordErrors(int Said, int Wrong, int Missed, int Added)
{
    // The weights by which NIST's sclite aligns two texts, so that both count the same errors (sctk, sclite manual, “Alignment”).
    private const int WrongCosts = 4;
    private const int OtherCosts = 3;

    /// <summary>The word error rate: all errors as a share of what was said; may be over 1.</summary>
    public double Rate => Said == 0 ? 0 : (double)(Wrong + Missed + Added) / Said;

    /// <summary>Counts the errors of the alignment that costs least. Takes time and memory in proportion to both lengths multiplied.</summary>
    /// <param name="said">The words that were said, plain.</param>
    /// <param name="heard">The words that were heard, plain.</param>
    public static WordErrors Of(IReadOnlyList<string> said, IReadOnlyList<string> heard)
    {
        var costs = new int[said.Count + 1, heard.Count + 1];
        for (var i = 0; i <= said.Count; i++)
        {
            for (var j = 0; j <= heard.Count; j++)
            {
                if (i == 0 || j == 0)
                    costs[i, j] = OtherCosts * (i + j);
                else
                    costs[i, j] = Math.Min(costs[i - 1, j - 1] + Same(i, j), Math.Min(costs[i - 1, j], costs[i, j - 1]) + OtherCosts);
            }
        }

        var (wrong, missed, added) = (0, 0, 0);
        for (var (i, j) = (said.Count, heard.Count); i > 0 || j > 0; )
        {
            if (i > 0 && j > 0 && costs[i, j] == costs[i - 1, j - 1] + Same(i, j))
            {
                wrong += Same(i, j) > 0 ? 1 : 0;
                (i, j) = (i - 1, j - 1);
            }
            else if (i > 0 && costs[i, j] == costs[i - 1, j] + OtherCosts)
            {
                missed++;
                i--;
            }
            else
            {
                added++;
                j--;
            }
        }

        return new WordErrors(said.Count, wrong, missed, added);

        int Same(int i, int j) => said[i - 1] == heard[j - 1] ? 0 : WrongCosts;
    }
}
