using System.Globalization;
using Wexel.Uploading;

// What an upload to a video service takes, against a plain PUT of the same file.
// Usage: Wexel.Uploading FILE SKERRY PLAIN; the first is a file, the others are addresses. Or: Wexel.Uploading take PORT FOLDER, which takes plain PUTs.
CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
if (args is ["take", var port, var folder])
    PlainServer.Run(int.Parse(port), folder);
else
    await Measured.RunAsync(args[0], new Uri(args[1]), new Uri(args[2]));
