using System.Text.Json;
using CliWrap;
using CliWrap.Buffered;
using Wexel.Cli;
using Wexel.Core.Encoding;

namespace Wexel.Server.Tests;

/// <summary><c>wexel make</c>, with no server and no database; as its own process where that is what matters.</summary>
public sealed class MakeTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("wexel-make-test-").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private static CliWrap.Command Command(string tool) => CliWrap.Cli.Wrap(tool);

    private string At(string name) => Path.Combine(_folder, name);

    private async Task<string> ClipAsync(string name, int seconds = 2)
    {
        await Command("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-y",
                "-f",
                "lavfi",
                "-i",
                $"testsrc2=s=320x240:r=30:d={seconds}",
                "-f",
                "lavfi",
                "-i",
                $"sine=d={seconds}",
                "-preset",
                "ultrafast",
                "-pix_fmt",
                "yuv420p",
                At(name),
            ])
            .ExecuteAsync();
        return At(name);
    }

    private sealed record Ended(int ExitCode, string StandardOutput, string StandardError);

    private async Task<Ended> MakeAsync(params string[] arguments)
    {
        var (said, wrong) = (new StringWriter(), new StringWriter());
        var code = await CommandLine.RunAsync(
            ["make", .. arguments],
            new Surroundings(_folder, said, wrong, AtTerminal: false),
            TestContext.Current.CancellationToken
        );
        return new Ended(code, said.ToString(), wrong.ToString());
    }

    private CliWrap.Command AsAProcess(params string[] arguments) =>
        Command("dotnet")
            .WithArguments([Path.Combine(AppContext.BaseDirectory, "Wexel.Cli.dll"), "make", .. arguments])
            .WithWorkingDirectory(_folder)
            .WithValidation(CommandResultValidation.None);

    [Fact]
    public async Task Makes_the_web_folder_and_says_where_last()
    {
        await File.WriteAllTextAsync(At("contents.txt"), "0:00 Start\n0:01 - <b>End</b>\n");
        await File.WriteAllTextAsync(At("words.vtt"), "WEBVTT\n\n00:00.500 --> 00:01.000\nHello\n");
        await File.WriteAllTextAsync(At("palabras.vtt"), "WEBVTT\n\n00:00.500 --> 00:01.000\nHola\n");
        await ClipAsync("Ticket fares 2026-11-05.mp4");
        var made = await AsAProcess("Ticket fares 2026-11-05.mp4", "--contents", "contents.txt", "--captions", "words.vtt", "--captions", "es=palabras.vtt")
            .ExecuteBufferedAsync();
        made.ExitCode.ShouldBe(0, made.StandardError);
        made.StandardOutput.Trim().ShouldBe(At("ticket-fares"));
        made.StandardError.ShouldContain("100 %");
        Directory
            .EnumerateFiles(At("ticket-fares"))
            .Select(Path.GetFileName)
            .Order(StringComparer.Ordinal)
            .ShouldBe(["captions-en-GB.vtt", "captions-es.vtt", "contents.vtt", "index.html", "lesson.mp4", "poster.jpg", "read me.txt"]);
    }

    /// <summary>What is part of the picture is not shown a second time; a lesson that has no captions in the language gets none burnt in.</summary>
    [Theory]
    [InlineData("es", "Hello", "en-GB")]
    [InlineData("fr-CA", "Hello Hola", "en-GB es")]
    [InlineData(null, "Hola", "es")]
    public async Task Captions_are_burnt_in_from_the_language_that_the_profile_names(string? language, string beside, string languages)
    {
        await File.WriteAllTextAsync(At("words.vtt"), "WEBVTT\n\n00:00.500 --> 00:01.000\nHello\n");
        await File.WriteAllTextAsync(At("palabras.vtt"), "WEBVTT\n\n00:00.500 --> 00:01.000\nHola\n");
        await File.WriteAllTextAsync(
            At("burnt.json"),
            ProfileText.Write(Core.Encoding.Profiles.Small480 with { Id = "burnt", Captions = CaptionPlace.BurntIn, CaptionLanguage = language })
        );
        await ClipAsync("Fares.mp4");
        var made = await MakeAsync("Fares.mp4", "--captions", "words.vtt", "--captions", "es=palabras.vtt", "--profile", "burnt.json", "--out", "out");
        made.ExitCode.ShouldBe(0, made.StandardError);
        var page = await File.ReadAllTextAsync(At("out/index.html"));
        var data = page[(page.IndexOf("id=\"wexel-lesson\">", StringComparison.Ordinal) + 18)..];
        using var told = JsonDocument.Parse(data[..data.IndexOf("</script>", StringComparison.Ordinal)]);
        var tracks = told.RootElement.GetProperty("lesson").GetProperty("captions").EnumerateArray().ToList();
        string.Join(' ', tracks.Select(t => t.GetProperty("cues")[0].GetProperty("text").GetString())).ShouldBe(beside);
        string.Join(' ', tracks.Select(t => t.GetProperty("language").GetString())).ShouldBe(languages);
    }

    [Fact]
    public async Task Reports_as_json()
    {
        var made = await MakeAsync(await ClipAsync("a.mp4"), "--title", "Fares", "--profile", "small-480p", "--json", "--out", At("fares.zip"));
        made.ExitCode.ShouldBe(0, made.StandardError);
        var report = JsonDocument.Parse(made.StandardOutput).RootElement;
        report.GetProperty("path").GetString().ShouldBe(At("fares.zip"));
        report.GetProperty("files").EnumerateArray().ShouldAllBe(f => f.GetProperty("bytes").GetInt64() > 0 && f.GetProperty("for").GetString()!.Length > 0);
        report.GetProperty("check").EnumerateArray().ShouldAllBe(f => f.GetProperty("verdict").GetString() == "right");
        report.GetProperty("millisecondsTaken").GetProperty("encode").GetInt64().ShouldBeGreaterThan(0);
    }

    [Fact]
    public async Task Makes_files_with_several_profiles_in_one_pass_and_prints_the_check_of_each()
    {
        var clip = await ClipAsync("a.mp4");
        var made = await MakeAsync(
            clip,
            "--title",
            "Fares",
            "--for",
            "files",
            "--profile",
            "web",
            "--profile",
            "podcast-sound",
            "--profile",
            "open-formats",
            "--profile",
            "adaptive",
            "--out",
            At("files"),
            "--json"
        );
        made.ExitCode.ShouldBe(0, made.StandardError);
        Directory
            .EnumerateFileSystemEntries(At("files"))
            .Select(Path.GetFileName)
            .Order(StringComparer.Ordinal)
            .ShouldBe(["fares-adaptive", "fares-open-formats.webm", "fares-podcast-sound.m4a", "fares-web.mp4"]);
        File.Exists(Path.Combine(At("files"), "fares-adaptive", "lesson.m3u8")).ShouldBeTrue();
        foreach (var profile in new[] { "Web, as recorded", "Podcast, sound only", "Open formats", "Adaptive" })
            made.StandardError.ShouldContain($"right  {profile}: Length: 2.0");
        var one = await MakeAsync(clip, "--title", "Fares", "--profile", "web", "--profile", "small-480p", "--out", At("one"));
        one.ExitCode.ShouldBe(1);
        one.StandardError.Trim().ShouldBe("--for web takes one profile; several are made --for files.");
    }

    [Fact]
    public async Task Leaves_out_what_is_cut_and_refuses_what_would_leave_nothing()
    {
        await File.WriteAllTextAsync(At("cuts.txt"), "0:00 - 0:00.5\n0:01.5 - end\n");
        var made = await MakeAsync(await ClipAsync("a.mp4"), "--title", "Fares", "--cuts", At("cuts.txt"), "--out", At("fares"));
        made.ExitCode.ShouldBe(0, made.StandardError);
        made.StandardError.ShouldContain("right  Length: 1.00 s  (should be 1.00 s, within a frame)");
        var two = await MakeAsync(At("a.mp4"), At("a.mp4"), "--title", "Fares twice", "--out", At("twice"), "--json");
        two.ExitCode.ShouldBe(0, two.StandardError);
        two.StandardError.ShouldNotContain("WRONG");
        await File.WriteAllTextAsync(
            At("twice.json"),
            """{ "title": "Fares", "lessons": [{ "recordings": ["a.mp4", "a.mp4"], "title": "Twice" }, { "title": "None" }] }"""
        );
        (await MakeAsync(At("twice.json"), "--for", "scorm12", "--out", At("nothing"))).StandardError.ShouldContain("Lesson 2 in");
        await File.WriteAllTextAsync(At("move-ins.txt"), "0:00.5 - 0:01.5 at 20,30 50x40\n");
        (await MakeAsync(At("a.mp4"), "--title", "Fares", "--move-ins", At("move-ins.txt"), "--out", At("moved"))).ExitCode.ShouldBe(0);
        await File.WriteAllTextAsync(At("move-ins.txt"), "0:01 - 0:02\n");
        (await MakeAsync(At("a.mp4"), "--title", "Fares", "--move-ins", At("move-ins.txt"), "--out", At("nothing"))).StandardError.ShouldContain(
            "Line 1 is not a stretch and a part: “0:01 - 0:02”."
        );
        await File.WriteAllTextAsync(At("cuts.txt"), "0:00 - end\n");
        var refused = await MakeAsync(At("a.mp4"), "--title", "Fares", "--cuts", At("cuts.txt"), "--out", At("nothing"));
        refused.ExitCode.ShouldBe(2);
        refused.StandardError.ShouldContain("That would cut the whole lesson.");
        await File.WriteAllTextAsync(At("cuts.txt"), "soon\n");
        (await MakeAsync(At("a.mp4"), "--title", "Fares", "--cuts", At("cuts.txt"), "--out", At("nothing"))).StandardError.ShouldContain(
            "Line 1 is not two times: “soon”."
        );
        Directory.Exists(At("nothing")).ShouldBeFalse();
    }

    [Fact]
    public async Task Makes_a_learning_system_package_of_several_lessons()
    {
        await ClipAsync("a.mp4");
        await ClipAsync("b.mp4");
        await File.WriteAllTextAsync(At("b.txt"), "0:00 Start\n0:01 End\n");
        await File.WriteAllTextAsync(
            At("course.json"),
            """{ "title": "Desk & deck", "lessons": [{ "recording": "b.mp4", "title": "Second file first", "contents": "b.txt" }, """
                + """{ "recording": "a.mp4", "title": "Then the other" }] }"""
        );
        var made = await MakeAsync(At("course.json"), "--for", "scorm12", "--json");
        made.ExitCode.ShouldBe(0, made.StandardError);
        var report = JsonDocument.Parse(made.StandardOutput).RootElement;
        report.GetProperty("path").GetString().ShouldBe(At("desk-deck.zip"));
        report.GetProperty("start").GetString().ShouldBe("imsmanifest.xml");
        report
            .GetProperty("check")
            .EnumerateArray()
            .ShouldContain(f => f.GetProperty("fact").GetString()!.StartsWith("Then the other: ", StringComparison.Ordinal));
        await using var zip = await System.IO.Compression.ZipFile.OpenReadAsync(At("desk-deck.zip"), TestContext.Current.CancellationToken);
        zip.Entries.Select(e => e.FullName).ShouldBe(report.GetProperty("files").EnumerateArray().Select(f => f.GetProperty("path").GetString()));
        using var reader = new StreamReader(await zip.GetEntry("imsmanifest.xml")!.OpenAsync(TestContext.Current.CancellationToken));
        var manifest = await reader.ReadToEndAsync(TestContext.Current.CancellationToken);
        manifest.IndexOf("Second file first", StringComparison.Ordinal).ShouldBeLessThan(manifest.IndexOf("Then the other", StringComparison.Ordinal));

        var alone = await MakeAsync(At("a.mp4"), "--title", "Alone", "--for", "scorm12", "--out", At("folder"));
        alone.ExitCode.ShouldBe(0, alone.StandardError);
        File.Exists(At("folder/index.html")).ShouldBeTrue();
        File.Exists(At("folder/imsmanifest.xml")).ShouldBeTrue();
    }

    [Fact]
    public async Task Makes_a_course_for_any_web_server()
    {
        await ClipAsync("a.mp4");
        await ClipAsync("b.mp4");
        await File.WriteAllTextAsync(
            At("course.json"),
            """{ "title": "Desk & deck", "description": "For all crews.", "lessons": [{ "recording": "b.mp4", "title": "First" }, """
                + """{ "recording": "a.mp4", "title": "Second: last?" }] }"""
        );
        var made = await MakeAsync(At("course.json"), "--for", "web", "--out", At("site"));
        made.ExitCode.ShouldBe(0, made.StandardError);
        Directory.EnumerateDirectories(At("site")).Select(Path.GetFileName).Order(StringComparer.Ordinal).ShouldBe(["First", "Second- last-", "player"]);
        foreach (var lesson in new[] { "First", "Second- last-" })
        foreach (var file in new[] { "index.html", "lesson.mp4", "poster.jpg" })
            File.Exists(At($"site/{lesson}/{file}")).ShouldBeTrue($"{lesson}/{file}");
        var page = await File.ReadAllTextAsync(At("site/index.html"));
        page.ShouldContain("For all crews.");
        page.IndexOf("First", StringComparison.Ordinal).ShouldBeLessThan(page.IndexOf("Second: last?", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Makes_a_feeds_folder_of_a_recording_and_of_a_course_of_sound()
    {
        await ClipAsync("a.mp4");
        await ClipAsync("b.mp4");
        File.SetLastWriteTimeUtc(At("a.mp4"), DateTime.UtcNow.AddDays(-1));
        await File.WriteAllTextAsync(At("b.txt"), "0:00 Start\n0:01 End\n");
        var alone = await MakeAsync(
            At("a.mp4"),
            "--title",
            "Fares",
            "--for",
            "podcast",
            "--base-url",
            "https://intranet.example/listening",
            "--out",
            At("video")
        );
        alone.ExitCode.ShouldBe(3, alone.StandardError);
        var feed = await File.ReadAllTextAsync(At("video/feed.xml"), TestContext.Current.CancellationToken);
        feed.ShouldContain("https://intranet.example/listening/episodes/01-fares.m4v");
        // What the directories would ask for besides is said, not hidden.
        alone.StandardError.ShouldContain("WRONG  the feed: The owner's mail address is missing");
        alone.StandardError.ShouldEndWith("Made, and something is wrong with it: see what is marked WRONG above. To let it pass: --allow feed.\n");

        await File.WriteAllTextAsync(
            At("course.json"),
            """
            { "title": "Desk & deck", "feed": { "media": "sound", "author": "Staff training", "ownerMail": "mara.tarn@brackwater.example",
                "language": "en-GB" },
              "lessons": [{ "recording": "b.mp4", "title": "Second file first", "contents": "b.txt" }, { "recording": "a.mp4", "title": "Then the other" }] }
            """
        );
        var made = await MakeAsync(
            At("course.json"),
            "--for",
            "podcast",
            "--base-url",
            "https://intranet.example/listening/",
            "--profile",
            "web",
            "--json",
            "--out",
            At("sound")
        );
        made.ExitCode.ShouldBe(0, made.StandardError);
        var report = JsonDocument.Parse(made.StandardOutput).RootElement;
        report.GetProperty("start").GetString().ShouldBe("feed.xml");
        report
            .GetProperty("files")
            .EnumerateArray()
            .Select(f => f.GetProperty("path").GetString())
            .ShouldBe([
                "feed.xml",
                "artwork.jpg",
                "episodes/01-second-file-first.m4a",
                "episodes/01-second-file-first.jpg",
                "episodes/01-second-file-first.json",
                "episodes/02-then-the-other.m4a",
                "episodes/02-then-the-other.jpg",
            ]);
        // Apps order by these: the first lesson's file is the newer one, and is published first all the same.
        var published = System
            .Xml.Linq.XDocument.Load(At("sound/feed.xml"))
            .Descendants("item")
            .Select(i => DateTimeOffset.Parse(i.Element("pubDate")!.Value, System.Globalization.CultureInfo.InvariantCulture))
            .ToList();
        published[1].ShouldBeGreaterThan(published[0]);
        report.GetProperty("feedCheck").EnumerateArray().ShouldAllBe(f => f.GetProperty("weight").GetString() == "advice");
    }

    [Fact]
    public async Task A_feed_that_cannot_be_made_says_why()
    {
        var clip = await ClipAsync("a.mp4");
        var nowhere = await MakeAsync(clip, "--title", "Fares", "--for", "podcast");
        (nowhere.ExitCode, nowhere.StandardError).ShouldBe(
            (
                1,
                "A feed names its files by whole addresses: give the one where the folder will lie with --base-url, such as "
                    + "https://intranet.example/listening/.\n"
            )
        );
        var varying = await MakeAsync(clip, "--title", "Fares", "--for", "podcast", "--base-url", "https://intranet.example/", "--profile", "web");
        (varying.ExitCode, varying.StandardError).ShouldBe(
            (1, "Podcast apps take a constant frame rate, and “Web, as recorded” leaves frames out that show nothing new. Take “Podcast 720p”.\n")
        );
        await File.WriteAllTextAsync(At("renamed.jpg"), "text");
        await File.WriteAllTextAsync(
            At("course.json"),
            """{ "title": "T", "feed": { "artwork": "renamed.jpg" }, "lessons": [{ "recording": "a.mp4", "title": "A" }] }"""
        );
        var artwork = await MakeAsync(At("course.json"), "--for", "podcast", "--base-url", "https://intranet.example/", "--out", At("never"));
        artwork.ExitCode.ShouldBe(2, artwork.StandardError);
        artwork.StandardError.ShouldContain("renamed.jpg” is no picture that can be read.");
        Directory.Exists(At("never")).ShouldBeFalse();
    }

    [Theory]
    [InlineData("{", "is not a course: line 1 cannot be read as JSON")]
    [InlineData("""{ "lessons": [{ "recording": "a.mp4" }] }""", "has no title")]
    [InlineData("""{ "title": "T" }""", "has no lessons")]
    [InlineData("""{ "title": "T", "lessons": [{ "recording": "gone.mp4" }] }""", "There is no file")]
    [InlineData("""{ "title": "T", "lessons": [{ "title": "x" }] }""", "Lesson 1 in")]
    [InlineData("""{ "title": "T", "lessons": [null] }""", "Lesson 1 in")]
    public async Task A_course_that_cannot_be_used_ends_with_2(string course, string says)
    {
        await File.WriteAllTextAsync(At("course.json"), course);
        var made = await MakeAsync(At("course.json"), "--for", "scorm12", "--out", At("never"));
        made.ExitCode.ShouldBe(2, made.StandardError);
        made.StandardError.ShouldContain(says);
        Directory.Exists(At("never")).ShouldBeFalse();
    }

    [Fact]
    public async Task Input_that_cannot_be_used_ends_with_2_and_one_sentence()
    {
        await File.WriteAllTextAsync(At("notes.mp4"), "text");
        await File.WriteAllTextAsync(At("bad.txt"), "no time\n");
        var clip = await ClipAsync("Untitled 3.mp4");
        foreach (
            var (arguments, says) in new (string[], string)[]
            {
                ([At("notes.mp4")], "“notes.mp4” is not a video file"),
                ([At("gone.mp4")], "There is no file"),
                ([clip], "says nothing about the lesson; give it a title with --title \"…\"."),
                ([clip, "--title", "T", "--contents", At("bad.txt")], "Line 1, “no time”"),
                ([clip, "--title", "T", "--captions", At("bad.txt")], "There is no caption in the file"),
            }
        )
        {
            var made = await MakeAsync([.. arguments, "--out", At("never")]);
            made.ExitCode.ShouldBe(2, says);
            made.StandardError.ShouldContain(says);
            made.StandardOutput.ShouldBeEmpty();
            Directory.Exists(At("never")).ShouldBeFalse();
        }
    }

    [Fact]
    public async Task Anything_else_ends_with_1_and_leaves_what_is_there()
    {
        var clip = await ClipAsync("a.mp4");
        Directory.CreateDirectory(At("there"));
        (await MakeAsync(clip, "--title", "T", "--out", At("there"))).ExitCode.ShouldBe(1);
        (await MakeAsync(clip, "--title", "T", "--profile", "none")).ExitCode.ShouldBe(1);
        (await MakeAsync(clip, "--title", "T", "--for", "moon")).ExitCode.ShouldBe(1);
        (await MakeAsync()).ExitCode.ShouldBe(1);
        (await MakeAsync(clip, "--titel", "T")).StandardError.ShouldBe(
            "There is no option “--titel”; did you mean --title? ./wexel make --help lists them all.\n"
        );
        (await MakeAsync(clip, "--title", "T", "--out", At("a.mp4/inside"))).StandardError.ShouldContain("Nothing can be written in");
        Directory.EnumerateFileSystemEntries(At("there")).ShouldBeEmpty();
    }

    /// <summary>What cannot be decoded is not copied: it would stop in the browser in the middle.</summary>
    [Fact]
    public async Task A_damaged_recording_is_encoded_and_said_to_be_damaged()
    {
        var clip = At("Fares at the desk.mp4");
        await Command("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-f",
                "lavfi",
                "-i",
                "color=white:s=640x360:r=30:d=9,drawbox=x=60+20*t:y=60+5*t:w=240:h=80:c=navy:t=fill",
                "-pix_fmt",
                "yuv420p",
                "-c:v",
                "libx264",
                "-g",
                "90",
                "-colorspace",
                "bt709",
                "-color_primaries",
                "bt709",
                "-color_trc",
                "bt709",
                "-color_range",
                "tv",
                clip,
            ])
            .ExecuteAsync();
        var bytes = await File.ReadAllBytesAsync(clip, TestContext.Current.CancellationToken);
        // In the middle of the coded picture, which lies between the first boxes of the MP4 and its index.
        var (from, to) = (bytes.AsSpan().IndexOf("mdat"u8), bytes.AsSpan().IndexOf("moov"u8));
        new Random(1).NextBytes(bytes.AsSpan((from + to) / 2, 600));
        await File.WriteAllBytesAsync(clip, bytes, TestContext.Current.CancellationToken);
        var made = await MakeAsync(clip, "--profile", "web", "--for", "files", "--out", At("damaged"), "--allow", "ssim", "--allow", "sharpness", "--json");
        made.StandardError.ShouldContain("The picture is damaged in places; it is encoded anew");
        made.ExitCode.ShouldBe(0, made.StandardError);
        JsonDocument
            .Parse(made.StandardOutput)
            .RootElement.GetProperty("check")
            .EnumerateArray()
            .First(f => f.GetProperty("code").GetString() == "decodes")
            .GetProperty("verdict")
            .GetString()
            .ShouldBe("right");
    }

    /// <summary>Nothing in it can react to that: the watch beside it ends what it started.</summary>
    [Fact]
    public async Task Killed_by_force_it_leaves_no_folder_and_no_encoder()
    {
        var clip = await ClipAsync("long.mp4", 120);
        var began = new TaskCompletionSource();
        var run = AsAProcess(clip, "--title", "T", "--profile", "podcast-720p", "--out", At("out"))
            .WithEnvironmentVariables(e => e.Set("TMPDIR", At("")))
            .WithStandardErrorPipe(
                PipeTarget.ToDelegate(line =>
                {
                    if (line.EndsWith(" %", StringComparison.Ordinal))
                        began.TrySetResult();
                })
            )
            .ExecuteAsync();
        await began.Task;
        var work = Directory.EnumerateDirectories(_folder, "wexel-make-*").Single();
        bool Encodes() =>
            Directory
                .EnumerateDirectories("/proc")
                .Any(p =>
                {
                    try
                    {
                        return File.ReadAllText(Path.Combine(p, "cmdline")) is var called
                            && called.StartsWith("ffmpeg", StringComparison.Ordinal)
                            && called.Contains(work, StringComparison.Ordinal);
                    }
                    catch (IOException)
                    {
                        return false;
                    }
                });
        Encodes().ShouldBeTrue();
        await Command("kill").WithArguments(["-KILL", $"{run.ProcessId}"]).ExecuteAsync();
        await run;
        for (var i = 0; i < 100 && (Directory.Exists(work) || Encodes()); i++)
            await Task.Delay(100);
        Directory.Exists(work).ShouldBeFalse();
        Encodes().ShouldBeFalse();
    }

    [Fact]
    public async Task Stopping_it_removes_what_was_half_made()
    {
        var clip = await ClipAsync("long.mp4", 120);
        var began = new TaskCompletionSource();
        var run = AsAProcess(clip, "--title", "T", "--profile", "podcast-720p", "--out", At("out"))
            .WithStandardErrorPipe(
                PipeTarget.ToDelegate(line =>
                {
                    if (line.EndsWith(" %", StringComparison.Ordinal))
                        began.TrySetResult();
                })
            )
            .ExecuteAsync();
        await began.Task;
        // Not by the interrupt, which a shell lets what it starts in the background ignore.
        await Command("kill").WithArguments(["-TERM", $"{run.ProcessId}"]).ExecuteAsync();
        (await run).ExitCode.ShouldBe(1);
        Directory.EnumerateFileSystemEntries(_folder).Select(Path.GetFileName).ShouldBe(["long.mp4"]);
    }
}
