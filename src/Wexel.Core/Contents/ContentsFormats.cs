namespace Wexel.Core.Contents;

/// <summary>A format of tables of contents. A format is a class and a line in <see cref="ContentsFormats"/>.</summary>
public abstract class ContentsFormat
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
    public abstract ContentsReading Read(string text);

    /// <summary>Prints contents.</summary>
    /// <param name="title">The lesson's title.</param>
    /// <param name="sections">In order, in lesson time.</param>
    /// <param name="length">The lesson's length.</param>
    public abstract string Write(string title, IReadOnlyList<Section> sections, TimeSpan length);
}

/// <summary>All formats of tables of contents.</summary>
public static class ContentsFormats
{
    /// <summary>Lines have no beginning that tells them, so they are what is taken last.</summary>
    public static IReadOnlyList<ContentsFormat> All { get; } = [new WebVttFormat(), new JsonFormat(), new LinesFormat()];

    /// <summary>Reads a text of any of them.</summary>
    /// <inheritdoc cref="ContentsText.Read"/>
    public static ContentsReading Read(string text) =>
        text.Length > ContentsText.LongestText ? ContentsText.Read(text) : All.First(f => f.Is(text.TrimStart('\uFEFF').TrimStart())).Read(text);

    /// <summary>A format by its ending; null where there is none.</summary>
    /// <param name="ending">With or without its point.</param>
    public static ContentsFormat? Find(string ending) =>
        All.FirstOrDefault(f => string.Equals(f.Ending.TrimStart('.'), ending.TrimStart('.'), StringComparison.OrdinalIgnoreCase));

    private sealed class WebVttFormat : ContentsFormat
    {
        public override string Name => "WebVTT chapters";

        public override string Ending => ".vtt";

        public override string MediaType => "text/vtt";

        public override bool Is(string text) => text.StartsWith("WEBVTT", StringComparison.Ordinal);

        public override ContentsReading Read(string text) => WebVttChapters.Read(text);

        public override string Write(string title, IReadOnlyList<Section> sections, TimeSpan length) => WebVttChapters.WriteNested(sections, length);
    }

    private sealed class JsonFormat : ContentsFormat
    {
        public override string Name => "JSON chapters";

        public override string Ending => ".json";

        public override string MediaType => "application/json+chapters";

        public override bool Is(string text) => text.StartsWith('{');

        public override ContentsReading Read(string text) => JsonChapters.Read(text);

        public override string Write(string title, IReadOnlyList<Section> sections, TimeSpan length) =>
            JsonChapters.Write(title, Chapters.FromSections(sections, length));
    }

    private sealed class LinesFormat : ContentsFormat
    {
        public override string Name => "lines of time and title";

        public override string Ending => ".txt";

        public override string MediaType => "text/plain";

        public override bool Is(string text) => true;

        public override ContentsReading Read(string text) => ContentsText.Read(text);

        public override string Write(string title, IReadOnlyList<Section> sections, TimeSpan length) => ContentsText.Write(sections);
    }
}
