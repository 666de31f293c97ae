using Wexel.Core.Keys;

namespace Wexel.Core.Recordings;

/// <summary>The keys of what is made of a recording, by its hash.</summary>
public static class RecordingKeys
{
    /// <summary>Its small pictures.</summary>
    public static string Pictures(string hash) => MadeKey.Hash(Makers.LookThrough, fields => fields.Add("recording", hash));

    /// <summary>Its small pictures, many to a file.</summary>
    public static string Strips(string hash) => MadeKey.Hash(Makers.Strips, fields => fields.Add("of", Makers.LookThrough).Add("recording", hash));

    /// <summary>Its viewing copy, which has the sound tracks that are used.</summary>
    /// <param name="hash">The recording.</param>
    /// <param name="sounds">Which of its sound tracks, from 0.</param>
    public static string ViewingCopy(string hash, IReadOnlyList<int> sounds) =>
        MadeKey.Hash(Makers.ViewingCopy, fields => fields.Add("recording", hash).Each("sounds", sounds is [0] ? [] : [.. sounds.Select(s => (long)s)]));

    /// <summary>Some of its frames in a row.</summary>
    /// <param name="hash">The recording.</param>
    /// <param name="bundle">Which of the rows.</param>
    public static string Frames(string hash, long bundle) => MadeKey.Hash(Makers.Frames, fields => fields.Add("recording", hash).Add("bundle", bundle));

    /// <summary>What there is to read on it at some sizes.</summary>
    public static string Detail(string hash, IReadOnlyList<PictureSize> delivered) =>
        MadeKey.Hash(Makers.Detail, fields => fields.Add("recording", hash).Each("delivered", delivered, (k, size) => k.Add(size)));

    /// <summary>What stands on its screen, as it was read in a language.</summary>
    public static string Screen(string hash, string language) => MadeKey.Hash(Makers.Screen, fields => fields.Add("recording", hash).Add("language", language));

    /// <summary>A picture's size among the fields of a key.</summary>
    public static KeyFields Add(this KeyFields fields, PictureSize size) => fields.Add("width", size.Width).Add("height", size.Height);

    /// <summary>A rectangle of pixels among the fields of a key.</summary>
    public static KeyFields Add(this KeyFields fields, PictureRect rect) =>
        fields.Add("x", rect.X).Add("y", rect.Y).Add("width", rect.Width).Add("height", rect.Height);
}
