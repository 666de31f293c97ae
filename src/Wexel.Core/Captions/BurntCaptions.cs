using System.Globalization;
using System.Text;
using Wexel.Core.Recordings;

namespace Wexel.Core.Captions;

/// <summary>Where captions stand that are part of the picture, in its pixels.</summary>
/// <param name="LineHeight">The height of a line.</param>
/// <param name="Left">Free at the left.</param>
/// <param name="Right">Free at the right.</param>
/// <param name="Edge">Free below them.</param>
public sealed record CaptionPlacement(int LineHeight, int Left, int Right, int Edge)
{
    /// <summary>Captions have at most this many lines (BBC subtitle guidelines, from memory: two, three where it cannot be helped).</summary>
    public const int MostLines = 3;

    private const double SideShare = 0.1;
    private const double EdgeShare = 0.05;
    private const double NarrowestShare = 0.55;

    /// <summary>
    /// Places captions so that they do not cover the house's mark: at the bottom; beside the mark where enough width is left, else
    /// above it. The text is 5 % of the shorter side high (W3C WebVTT, section 7.4: 5vh), with its line 1.2 times that.
    /// </summary>
    /// <param name="picture">The picture's size.</param>
    /// <param name="mark">Where the mark stands, or null.</param>
    public static CaptionPlacement On(PictureSize picture, PictureRect? mark) => Beside(picture, mark is { } box ? [box] : []);

    /// <summary>Places captions so that they cover none of several boxes, such as the mark and a camera, where that can be.</summary>
    /// <inheritdoc cref="On(PictureSize, PictureRect?)"/>
    /// <param name="picture">The picture's size.</param>
    /// <param name="boxes">Where they stand.</param>
    public static CaptionPlacement Beside(PictureSize picture, IReadOnlyList<PictureRect> boxes)
    {
        var line = Math.Max(8, (int)Math.Round(Math.Min(picture.Width, picture.Height) * 0.06));
        var (side, edge, gap) = ((int)(picture.Width * SideShare), (int)(picture.Height * EdgeShare), line / 2);
        var usual = new CaptionPlacement(line, side, side, edge);
        var touched = boxes.Where(box => usual.Touches(picture, box, gap)).ToList();
        if (touched.Count == 0)
            return usual;
        int RightOf(IEnumerable<PictureRect> some) => some.Select(box => picture.Width - box.X + gap).Append(side).Max();
        int LeftOf(IEnumerable<PictureRect> some) => some.Select(box => box.X + box.Width + gap).Append(side).Max();
        var atRight = touched.ToLookup(box => box.X + (box.Width / 2) > picture.Width / 2);
        CaptionPlacement[] others =
        [
            usual with
            {
                Right = RightOf(touched),
            },
            usual with
            {
                Left = LeftOf(touched),
            },
            usual with
            {
                Right = RightOf(atRight[true]),
                Left = LeftOf(atRight[false]),
            },
            usual with
            {
                Edge = touched.Max(box => picture.Height - box.Y + gap),
            },
        ];
        return others.FirstOrDefault(p =>
            boxes.All(box => !p.Touches(picture, box, gap))
            && picture.Width - p.Left - p.Right >= picture.Width * NarrowestShare
            && p.Edge + (MostLines * line) <= picture.Height
        ) ?? usual;
    }

    /// <summary>Whether captions of the most lines would touch a box.</summary>
    /// <param name="picture">The picture's size.</param>
    /// <param name="box">The box.</param>
    /// <param name="gap">How far they must stay from it, in pixels.</param>
    public bool Touches(PictureSize picture, PictureRect box, int gap)
    {
        var height = MostLines * LineHeight;
        var top = picture.Height - Edge - height;
        return box.X < picture.Width - Right + gap && box.X + box.Width > Left - gap && box.Y < top + height + gap && box.Y + box.Height > top - gap;
    }
}

/// <summary>Captions that become part of the picture, as a script for libass.</summary>
public static class BurntCaptions
{
    /// <summary>The typeface, which ships with Wexel.</summary>
    public const string Typeface = "Atkinson Hyperlegible Next";

    /// <summary>Writes the script: white on a dark box, each cue at its time.</summary>
    /// <param name="cues">The captions in lesson time, in order.</param>
    /// <param name="picture">The picture's size.</param>
    /// <param name="mark">Where the house's mark stands, or null.</param>
    /// <param name="others">Where else something stands that they must not cover; null for nothing.</param>
    public static string Script(IReadOnlyList<Cue> cues, PictureSize picture, PictureRect? mark, IReadOnlyList<PictureRect>? others = null)
    {
        var placed = CaptionPlacement.Beside(picture, [.. others ?? [], .. mark is { } box ? [box] : Array.Empty<PictureRect>()]);
        var text = new StringBuilder();
        text.Append(
            CultureInfo.InvariantCulture,
            $"[Script Info]\nScriptType: v4.00+\nPlayResX: {picture.Width}\nPlayResY: {picture.Height}\nWrapStyle: 0\nScaledBorderAndShadow: "
                + $"yes\n\n[V4+ Styles]\n{AssText.StyleColumns}\n"
        );
        text.Append(
            CultureInfo.InvariantCulture,
            $"Style: Caption,{Typeface},{placed.LineHeight},&H00FFFFFF,&H00FFFFFF,&H30000000,&H30000000,0,0,0,0,100,100,0,0,3,"
                + $"{Math.Max(2, placed.LineHeight / 8)},0,2,{placed.Left},{placed.Right},{placed.Edge},1\n"
        );
        text.Append("\n[Events]\n").Append(AssText.EventColumns).Append('\n');
        foreach (var cue in cues)
            text.Append("Dialogue: 0,")
                .Append(Time(cue.Span.Start))
                .Append(',')
                .Append(Time(cue.Span.End))
                .Append(",Caption,,0,0,0,,")
                .Append(cue.AtTop ? "{\\an8}" : "")
                .Append(cue.Markup is { } markup ? CueMarkup.ForLibass(markup) : AssText.Escape(cue.Text))
                .Append('\n');
        return text.ToString();
    }

    private static string Time(TimeSpan time) =>
        string.Create(CultureInfo.InvariantCulture, $"{(int)time.TotalHours}:{time.Minutes:00}:{time.Seconds:00}.{time.Milliseconds / 10:00}");
}
