namespace Wexel.Core.Captions;

/// <summary>A format of caption files. A format is a class and a line in <see cref="CaptionFormats"/>.</summary>
public abstract class CaptionFormat
{
    /// <summary>What it is called, as people know it.</summary>
    public abstract string Name { get; }

    /// <summary>The ending of its files, with its point, in small letters; also what names it in addresses, without.</summary>
    public abstract string Ending { get; }

    /// <summary>The media type of its files.</summary>
    public abstract string MediaType { get; }

    /// <summary>Whether a text is of it, told by how it begins.</summary>
    /// <param name="text">A whole file.</param>
    public abstract bool Is(string text);

    /// <summary>Reads a text; what cannot be read becomes a problem each.</summary>
    /// <param name="text">A whole file.</param>
    public abstract CaptionReading Read(string text);

    /// <summary>Prints captions.</summary>
    /// <param name="cues">In order of time.</param>
    /// <param name="language">Theirs, as a BCP 47 tag.</param>
    public abstract string Write(IReadOnlyList<Cue> cues, string language);
}

/// <summary>All formats of caption files.</summary>
public static class CaptionFormats
{
    /// <summary>SubRip has no beginning that tells it, so it is what is taken last.</summary>
    public static IReadOnlyList<CaptionFormat> All { get; } = [new WebVttFormat(), new TtmlFormat(), new SubRipFormat()];

    /// <summary>Reads a text in whichever format it is, also as plain text with times.</summary>
    /// <param name="text">A whole file.</param>
    public static CaptionReading Read(string text) => TimedText.Is(text) ? TimedText.Read(text) : All.First(f => f.Is(text)).Read(text);

    /// <summary>The endings of their files, as a sentence has them.</summary>
    public static string InWords { get; } = "WebVTT, TTML or SubRip";

    /// <summary>A format by its ending; null where there is none.</summary>
    /// <param name="ending">With or without its point.</param>
    public static CaptionFormat? Find(string ending) =>
        All.FirstOrDefault(f => string.Equals(f.Ending.TrimStart('.'), ending.TrimStart('.'), StringComparison.OrdinalIgnoreCase));

    private sealed class WebVttFormat : CaptionFormat
    {
        public override string Name => "WebVTT";

        public override string Ending => ".vtt";

        public override string MediaType => "text/vtt";

        public override bool Is(string text) => text.StartsWith("WEBVTT", StringComparison.Ordinal);

        public override CaptionReading Read(string text) => WebVttText.Read(text);

        public override string Write(IReadOnlyList<Cue> cues, string language) => WebVttText.Write(cues);
    }

    private sealed class TtmlFormat : CaptionFormat
    {
        public override string Name => "TTML (IMSC 1.1 text)";

        public override string Ending => ".ttml";

        public override string MediaType => "application/ttml+xml";

        public override bool Is(string text) => text.AsSpan().TrimStart().StartsWith("<");

        public override CaptionReading Read(string text) => TtmlReader.Read(text);

        public override string Write(IReadOnlyList<Cue> cues, string language) => TtmlWriter.Write(cues, language);
    }

    private sealed class SubRipFormat : CaptionFormat
    {
        public override string Name => "SubRip";

        public override string Ending => ".srt";

        public override string MediaType => "application/x-subrip";

        public override bool Is(string text) => true;

        public override CaptionReading Read(string text) => SubRipText.Read(text);

        public override string Write(IReadOnlyList<Cue> cues, string language) => SubRipText.Write(cues);
    }
}
