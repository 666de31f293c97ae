using Wexel.Media.Tools;
using Wexel.Media.Translating;

namespace Wexel.Media.Tests;

/// <summary>Machines that translate: Debian's Apertium with its pair from English to Spanish, and engines that fail.</summary>
public sealed class TranslatingTests(Clips clips) : IClassFixture<Clips>
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    /// <summary>The words are common knowledge of Spanish, no source; the pair is Debian's apertium-eng-spa.</summary>
    [Fact]
    public async Task Sentences_come_back_in_another_language_one_for_one()
    {
        var apertium = new Apertium();
        apertium.Into("en-GB").ShouldContain("es");
        var spanish = await apertium.TranslateAsync(["Choose a vehicle", "", "Then close the door.", "A <b> & c [d] ^e$ @f \\g."], "en-GB", "es-MX", Cancel);
        spanish.Count.ShouldBe(4);
        spanish[0].ShouldContain("vehículo");
        spanish[1].ShouldBeEmpty();
        spanish[2].ShouldContain("puerta");
        foreach (var mark in new[] { "<b>", "&", "[", "]", "^", "$", "@f", "\\g" })
            spanish[3].ShouldContain(mark);
        (await apertium.TranslateAsync([.. Enumerable.Range(0, 3000).Select(i => $"Line {i}.")], "en", "es", Cancel)).Count.ShouldBe(3000);
    }

    [Fact]
    public async Task Two_pairs_lead_by_way_of_a_third_language()
    {
        var tool = await ToolAsync("""sed "s/\$/ (${@: -1})/; s/^ (.*)\$//" """);
        var modes = Modes("eng-spa", "spa-cat", "cat-fra", "fra-oci", "spa-eng_US", "eng-tagger", "eng-spa-chunk");
        var apertium = new Apertium(tool, modes);
        apertium.Into("en-GB").ShouldBe(["ca", "es", "fr"]);
        apertium.Into("de").ShouldBeEmpty();
        (await apertium.TranslateAsync(["One.", "Two."], "en", "fr", Cancel)).ShouldBe([
            "One. (eng-spa) (spa-cat) (cat-fra)",
            "Two. (eng-spa) (spa-cat) (cat-fra)",
        ]);
        new Apertium("no-such-tool", modes).Into("en").ShouldBeEmpty();
        new Apertium(tool, "/no/such/folder").Into("en").ShouldBeEmpty();
    }

    [Theory]
    [InlineData("exit 3", "code 3")]
    [InlineData("echo rubbish", "1 sentences of 2")]
    [InlineData("kill -9 $$", "")]
    public async Task A_machine_that_dies_or_prints_rubbish_is_said(string script, string said)
    {
        var failed = await Should.ThrowAsync<ToolFailedException>(async () =>
            await new Apertium(await ToolAsync(script), Modes("eng-spa")).TranslateAsync(["One.", "Two."], "en", "es", Cancel)
        );
        failed.Said.ShouldContain(said);
    }

    private string Modes(params string[] names)
    {
        var folder = clips.Path($"modes-{Guid.NewGuid():N}");
        Directory.CreateDirectory(folder);
        foreach (var name in names)
            File.WriteAllText(Path.Combine(folder, name + ".mode"), "");
        return folder;
    }

    private async Task<string> ToolAsync(string script)
    {
        var path = clips.Path($"machine-{Guid.NewGuid():N}");
        await File.WriteAllTextAsync(path, $"#!/bin/bash\n{script}\n", Cancel);
        File.SetUnixFileMode(path, UnixFileMode.UserRead | UnixFileMode.UserExecute | UnixFileMode.UserWrite);
        return path;
    }
}
