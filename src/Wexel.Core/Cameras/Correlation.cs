using System.Numerics;
using MathNet.Numerics.IntegralTransforms;

namespace Wexel.Core.Cameras;

/// <summary>How alike a piece is to each place of something longer: normalised cross-correlation, by way of the Fourier transform.</summary>
internal sealed class Correlation
{
    private readonly float[] _along;
    private readonly Complex[] _spectrum;
    private readonly double[] _sums;
    private readonly double[] _squares;

    /// <param name="along">What is searched.</param>
    /// <param name="longestPiece">The longest piece that is looked for.</param>
    internal Correlation(float[] along, int longestPiece)
    {
        _along = along;
        _spectrum = new Complex[(int)BitOperations.RoundUpToPowerOf2((uint)(along.Length + longestPiece))];
        (_sums, _squares) = (new double[along.Length + 1], new double[along.Length + 1]);
        for (var i = 0; i < along.Length; i++)
        {
            _spectrum[i] = along[i];
            (_sums[i + 1], _squares[i + 1]) = (_sums[i] + along[i], _squares[i] + ((double)along[i] * along[i]));
        }

        Fourier.Forward(_spectrum, FourierOptions.AsymmetricScaling);
    }

    /// <summary>How alike a piece is to each place, −1 to 1; where it reaches over an end, by what lies inside.</summary>
    /// <param name="piece">The piece.</param>
    /// <param name="least">At how many of its values it must lie inside; elsewhere 0.</param>
    /// <returns>A value for each place of the piece's first value, from <c>1 − piece.Length</c> on.</returns>
    internal double[] With(ReadOnlySpan<float> piece, int least)
    {
        var size = _spectrum.Length;
        var product = new Complex[size];
        for (var i = 0; i < piece.Length; i++)
            product[i] = piece[i];
        Fourier.Forward(product, FourierOptions.AsymmetricScaling);
        for (var i = 0; i < size; i++)
            product[i] = _spectrum[i] * Complex.Conjugate(product[i]);
        Fourier.Inverse(product, FourierOptions.AsymmetricScaling);
        var (sums, squares) = (new double[piece.Length + 1], new double[piece.Length + 1]);
        for (var i = 0; i < piece.Length; i++)
            (sums[i + 1], squares[i + 1]) = (sums[i] + piece[i], squares[i] + ((double)piece[i] * piece[i]));
        var alike = new double[_along.Length + piece.Length - 1];
        for (var i = 0; i < alike.Length; i++)
        {
            var place = i + 1 - piece.Length;
            var (from, to) = (Math.Max(0, -place), Math.Min(piece.Length, _along.Length - place));
            var count = to - from;
            if (count < least)
                continue;
            var (own, other) = (sums[to] - sums[from], _sums[place + to] - _sums[place + from]);
            var ownSpread = squares[to] - squares[from] - (own * own / count);
            var otherSpread = _squares[place + to] - _squares[place + from] - (other * other / count);
            if (ownSpread <= 1e-9 || otherSpread <= 1e-9)
                continue;
            alike[i] = (product[((place % size) + size) % size].Real - (own * other / count)) / Math.Sqrt(ownSpread * otherSpread);
        }

        return alike;
    }
}
