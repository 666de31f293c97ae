namespace Wexel.Core.Encoding;

/// <summary>What the numbers of constant quality mean for a codec: lower is better and larger. Values for screens are common practice, no source.</summary>
/// <param name="Most">The highest that the codec knows.</param>
/// <param name="Best">Under this, a file grows and nobody sees a difference.</param>
/// <param name="Usual">Right for most screens.</param>
/// <param name="Poorest">Above this, text gets blurred.</param>
/// <param name="Halving">How much higher halves the file.</param>
public sealed record QualityScale(int Most, int Best, int Usual, int Poorest, double Halving)
{
    /// <summary>The scale of a codec.</summary>
    public static QualityScale Of(PictureCodec codec) => codec == PictureCodec.H264 ? new(51, 12, 20, 28, 6) : new(63, 20, 32, 45, 10);
}
