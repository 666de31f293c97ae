using System.CommandLine;
using Wexel.Core.Captions;
using Wexel.Core.Encoding;

namespace Wexel.Cli;

/// <summary>Where a command runs.</summary>
/// <param name="Folder">The folder from which paths are counted.</param>
/// <param name="Out">Standard output.</param>
/// <param name="Error">Standard error.</param>
/// <param name="AtTerminal">Whether somebody sits before standard error, so that a line may be written over.</param>
internal sealed record Surroundings(string Folder, TextWriter Out, TextWriter Error, bool AtTerminal)
{
    /// <summary>A path as it was meant.</summary>
    internal string Whole(string path) => Path.GetFullPath(path, Folder);
}

/// <summary>The command line: what there is, and what is called.</summary>
internal static class CommandLine
{
    /// <summary>Runs a command line and gives back its exit code.</summary>
    internal static async Task<int> RunAsync(string[] args, Surroundings where, CancellationToken cancel)
    {
        var recording = new Argument<string[]>("RECORDING")
        {
            Description =
                "The recording: MP4, M4V, MOV, MKV, WebM, AVI, WMV or MPEG-TS; several make one lesson, in their order. Or a lesson file, whose "
                + "name ends in .wexel.json, or a ZIP of one; or a course.json, for several lessons.",
            Arity = ArgumentArity.OneOrMore,
        };
        var title = new Option<string?>("--title") { Description = "The lesson's title. Without it, one is made from the file's name." };
        var contents = new Option<string?>("--contents") { Description = "A text file with a time and a title on each line." };
        var captions = new Option<string[]>("--captions")
        {
            Description = "A WebVTT or SubRip file; several with a language each, such as es=captions-es.vtt.",
            DefaultValueFactory = _ => [],
        };
        var cuts = new Option<string?>("--cuts")
        {
            Description = "A text file with the stretches to leave out, one on each line: 0:00 - 0:03.2, or 4:10 - end.",
        };
        var moveIns = new Option<string?>("--move-ins")
        {
            Description =
                "A text file with what is seen large, one on each line: 1:05 - 1:12.5 at 20,30 50x40, the part in per cent from the left and the "
                + "top, across and down.",
        };
        var sound = new Option<string?>("--sound")
        {
            Description = "Which sound tracks of a recording that has several: 1, 1+2 for both together, or all. Without it, the one in which somebody speaks.",
        };
        var language = new Option<string?>("--language")
        {
            Description = $"The lesson's language, with its region where that matters, such as de-AT; {LanguageTag.Usual} without it.",
        };
        var canvas = new Option<string?>("--canvas")
        {
            Description =
                "What the picture is made on, such as 1280x720, or \"1280x720 fill\" where the recording is to fill it. Without it, the recorded size.",
        };
        var mark = new Option<string?>("--mark")
        {
            Description = "The house's mark, a PNG or JPEG: half transparent, at the bottom right, a fifth as wide as the picture.",
        };
        var profile = new Option<string[]>("--profile")
        {
            Description =
                $"One of: {string.Join(", ", Profiles.All.Select(p => p.Id))}; or a profile as a JSON file. Given several times with --for files, "
                + $"all are made in one pass over the recording. Without it, what is usual for the purpose.",
        };
        var purpose = new Option<string>("--for")
        {
            Description =
                "What to make: web (a folder for any web server), scorm12 (a package for a learning system), podcast (a folder with a feed) or "
                + "files (a folder with a file for each profile).",
            DefaultValueFactory = _ => "web",
        };
        var baseUrl = new Option<string?>("--base-url") { Description = "For a podcast: the address where the folder will lie." };
        var output = new Option<string?>("--out") { Description = "The folder to make, or a ZIP when it ends in .zip." };
        var allow = new Option<string[]>("--allow")
        {
            Description = "A fact of the check that may be wrong, by its code as the report has it, such as ssim; may be given several times.",
        };
        var json = new Option<bool>("--json") { Description = "Print a report as JSON on standard output." };

        var make = new Command(
            "make",
            "Makes a web folder, a learning-system package, a podcast feed or plain files of recordings, with no server and no database."
        )
        {
            recording,
            title,
            contents,
            captions,
            cuts,
            moveIns,
            sound,
            language,
            canvas,
            mark,
            profile,
            purpose,
            baseUrl,
            output,
            allow,
            json,
        };
        make.Validators.Add(result =>
        {
            // What looks like an option and is none would else be taken for the name of a recording.
            if (
                result.Tokens.Concat(result.Children.SelectMany(c => c.Tokens)).FirstOrDefault(t => t.Value.StartsWith('-') && !File.Exists(t.Value)) is
                { } mistyped
            )
                result.AddError(Mistyped.Sentence(mistyped.Value, [.. make.Options.Select(o => o.Name)]));
        });
        make.SetAction(
            (parsed, _) =>
                MakeCommand.RunAsync(
                    new MakeRequest(
                        parsed.GetRequiredValue(recording),
                        parsed.GetValue(title),
                        parsed.GetValue(contents),
                        parsed.GetValue(captions)!,
                        parsed.GetValue(cuts),
                        parsed.GetValue(moveIns),
                        parsed.GetValue(sound),
                        parsed.GetValue(language),
                        parsed.GetValue(canvas),
                        parsed.GetValue(mark),
                        parsed.GetValue(profile) ?? [],
                        parsed.GetRequiredValue(purpose),
                        parsed.GetValue(baseUrl),
                        parsed.GetValue(output),
                        parsed.GetValue(allow) ?? [],
                        parsed.GetValue(json)
                    ),
                    where,
                    cancel
                )
        );

        var parsed = new RootCommand("Wexel: from a screen recording to a lesson.") { make }.Parse(args);
        if (parsed.Errors.Count == 0)
            return await parsed.InvokeAsync(
                new InvocationConfiguration
                {
                    Output = where.Out,
                    Error = where.Error,
                    ProcessTerminationTimeout = null,
                },
                CancellationToken.None
            );
        await where.Error.WriteLineAsync(parsed.Errors[0].Message);
        return MakeCommand.Failed;
    }
}
