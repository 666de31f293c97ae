using System.Globalization;
using Wexel.Core.Proposing;
using Wexel.Marking;

// The recordings with the contents and pages beside them: FOLDER KEPT [amount], tells of each.
var (kept, amount) = (args[0], double.Parse(args[1], CultureInfo.InvariantCulture));
var figures = new ContentsFigures();
foreach (var lesson in args[2..])
{
    var parts = lesson.Split('=');
    var known = await Known.OfAsync(parts[1], kept);
    Console.WriteLine(
        $"{parts[0]}: {known.Length.TotalSeconds:0} s, heard in {known.Heard.Seconds:0.0} s, read in {known.Read.Seconds:0.0} s, {known.Read.Screen.Pictures.Count} pictures"
    );
    var folder = Path.GetDirectoryName(parts[1])!;
    figures.Add(
        known,
        File.ReadAllText(Path.Combine(folder, parts[0] + ".contents.txt")),
        File.ReadAllText(Path.Combine(folder, parts[0] + ".pages.txt")),
        amount,
        Console.Out
    );
}

Console.WriteLine(
    string.Create(
        CultureInfo.InvariantCulture,
        $"precision {figures.Precision:0.000} recall {figures.Recall:0.000} F1 {figures.F1:0.000} titles {figures.Titles:0.000}"
    )
);
