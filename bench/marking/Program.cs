using System.Globalization;
using Wexel.Core.Proposing;
using Wexel.Marking;

// contents KEPT ID=RECORDING ...: contents proposed of recordings, against those by hand beside them. speech KEPT FOLDER: what is heard, against what was said.
// scoring: answers judged. cameras RECORDING FOLDER: cameras found by their sound.
if (args is ["speech", var keptSpeech, var folder])
{
    await SpeechFigures.TellAsync(folder, keptSpeech);
    return;
}

if (args is ["cameras", var recording, var clips])
{
    await CameraFigures.TellAsync(recording, clips);
    return;
}

if (args is ["scoring"])
{
    ScoringFigures.Tell();
    return;
}

var (kept, lessons) = (args[1], args[2..]);
var figures = new ContentsFigures();
var told = Environment.GetEnvironmentVariable("WEXEL_MARKING_DETAILS") is null ? null : Console.Error;
foreach (var (id, file) in lessons.Select(l => l.Split('=', 2)).Select(p => (p[0], p[1])))
{
    var known = await Known.OfAsync(file, kept);
    told?.WriteLine($"{id}: {known.Length.TotalSeconds:0} s, {known.Read.Screen.Pictures.Count} pictures read in {known.Read.Seconds:0} s");
    var beside = Path.Combine(Path.GetDirectoryName(file)!, id);
    figures.Add(
        known,
        await File.ReadAllTextAsync(beside + ".contents.txt"),
        await File.ReadAllTextAsync(beside + ".pages.txt"),
        ContentsProposals.UsualAmount,
        told
    );
}

foreach (
    var (what, value, budget) in new[]
    {
        ("Contents proposed within 3 s: F1", figures.F1, ">=0.8"),
        ("Contents proposed within 3 s: precision (no limit of its own)", figures.Precision, ""),
        ("Contents proposed within 3 s: recall (no limit of its own)", figures.Recall, ""),
        ("Titles of new pages as the heading on the screen", figures.Titles, ">=0.9"),
    }
)
    Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{what}|{value:0.000}|{budget}"));
