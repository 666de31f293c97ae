using System.Text.Json;
using Wexel.Core.Captions;

namespace Wexel.Core.Tests.Captions;

/// <summary>Held against IANA's Language Subtag Registry, as the package language-subtag-registry of npm carries it.</summary>
public sealed class LanguageRegistryTests
{
    private static readonly IReadOnlyList<JsonElement> Registry = Read();

    private static List<JsonElement> Read()
    {
        var path = Path.GetFullPath("../../../../../node_modules/language-subtag-registry/data/json/registry.json", AppContext.BaseDirectory);
        return [.. JsonDocument.Parse(File.ReadAllText(path)).RootElement.EnumerateArray()];
    }

    private static IEnumerable<string> Subtags(string type, bool deprecated = false) =>
        Registry
            .Where(r => r.GetProperty("Type").GetString() == type && (deprecated || !r.TryGetProperty("Deprecated", out _)))
            .Select(r => r.TryGetProperty("Subtag", out var tag) ? tag.GetString()! : "")
            .Where(t => t.Length > 0 && !t.Contains("..", StringComparison.Ordinal));

    /// <summary>Every registered language, script and region makes a tag, and stays as the registry writes it (RFC 5646, section 2.1.1).</summary>
    [Fact]
    public void Every_registered_subtag_is_taken_as_it_is_written()
    {
        foreach (var language in Subtags("language", true))
            LanguageTag.Parse(language.ToUpperInvariant()).ShouldBe(language);
        foreach (var script in Subtags("script", true))
            LanguageTag.Parse("und-" + script.ToLowerInvariant()).ShouldBe("und-" + script);
        foreach (var region in Subtags("region", true))
            LanguageTag.Parse("und_" + region.ToLowerInvariant()).ShouldBe("und-" + region);
    }

    /// <summary>Every language of two letters that is not deprecated has three for media files, and only such.</summary>
    [Fact]
    public void Every_language_of_two_letters_has_its_three()
    {
        var two = Subtags("language").Where(t => t.Length == 2).ToList();
        two.Count.ShouldBeGreaterThan(180);
        two.Where(t => LanguageCodes.ThreeLetters(t) == LanguageCodes.Undetermined).ShouldBeEmpty();
        foreach (var tag in two)
            LanguageCodes.Tag(LanguageCodes.ThreeLetters(tag)).ShouldBe(tag);
    }
}
