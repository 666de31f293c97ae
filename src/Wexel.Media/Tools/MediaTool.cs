using System.Diagnostics;
using System.Globalization;
using CliWrap;
using CliWrap.EventStream;

namespace Wexel.Media.Tools;

/// <summary>Runs ffmpeg, ffprobe and what else reads media: arguments as a list, local files only, what they write read line by line.</summary>
public static class MediaTool
{
    private const int LinesKept = 12;

    /// <summary>
    /// What must stand before every input that came from somebody: no network protocol, no playlist, and nothing but the containers
    /// that are taken.
    /// </summary>
    public static IReadOnlyList<string> SafeInput(string path) =>
        ["-protocol_whitelist", "file", "-format_whitelist", "mov,matroska,avi,asf,mpegts", "-i", "file:" + path];

    /// <summary>What stands before an input that Wexel made itself.</summary>
    public static IReadOnlyList<string> OwnInput(string path) => ["-protocol_whitelist", "file", "-i", "file:" + path];

    /// <summary>Runs ffprobe and gives back what it printed.</summary>
    /// <param name="arguments">Its arguments.</param>
    /// <param name="cancel">Stops it.</param>
    /// <param name="limits">What it may use; null for what is usual.</param>
    /// <exception cref="ToolFailedException">It ended with an error.</exception>
    public static async Task<string> ProbeAsync(IEnumerable<string> arguments, CancellationToken cancel, ChildLimits? limits = null)
    {
        var output = new System.Text.StringBuilder();
        var tail = new Queue<string>();
        var result = await Tool("ffprobe", limits, false, ["-v", "error", .. arguments])
            .WithStandardOutputPipe(PipeTarget.ToStringBuilder(output))
            .WithStandardErrorPipe(PipeTarget.ToDelegate(line => Keep(tail, line)))
            .WithValidation(CommandResultValidation.None)
            .ExecuteAsync(cancel);
        return result.ExitCode == 0 ? output.ToString() : throw Failed("ffprobe", tail, result.ExitCode, limits, result.RunTime);
    }

    /// <summary>Runs ffmpeg to the end; killed when cancelled.</summary>
    /// <param name="arguments">Its arguments.</param>
    /// <param name="progress">Told the time in the output that was reached.</param>
    /// <param name="started">Told the process's number, so that it can be found if its parent dies.</param>
    /// <param name="cancel">Stops it.</param>
    /// <param name="aside">Whether it leaves the processor to whatever else wants it.</param>
    /// <param name="limits">What it may use; null for what is usual.</param>
    /// <exception cref="ToolFailedException">It ended with an error.</exception>
    public static async Task RunAsync(
        IEnumerable<string> arguments,
        IProgress<TimeSpan>? progress,
        Action<int>? started,
        CancellationToken cancel,
        bool aside = false,
        ChildLimits? limits = null
    )
    {
        var (tail, began) = (new Queue<string>(), Stopwatch.GetTimestamp());
        var command = Tool("ffmpeg", limits, aside, ["-hide_banner", "-nostdin", "-v", "error", "-y", "-progress", "pipe:1", .. arguments])
            .WithValidation(CommandResultValidation.None);
        await foreach (var happened in command.ListenAsync(cancel))
        {
            switch (happened)
            {
                case StartedCommandEvent start:
                    started?.Invoke(start.ProcessId);
                    break;
                case StandardOutputCommandEvent { Text: var line } when line.StartsWith("out_time_us=", StringComparison.Ordinal):
                    if (long.TryParse(line.AsSpan("out_time_us=".Length), CultureInfo.InvariantCulture, out var microseconds) && microseconds > 0)
                        progress?.Report(TimeSpan.FromMicroseconds(microseconds));
                    break;
                case StandardErrorCommandEvent { Text: var line }:
                    Keep(tail, line);
                    break;
                case ExitedCommandEvent { ExitCode: not 0 and var code }:
                    throw Failed("ffmpeg", tail, code, limits, Stopwatch.GetElapsedTime(began));
            }
        }

        // It ends with 0 all the same.
        if (tail.Any(line => line.Contains("Error writing trailer", StringComparison.Ordinal)))
            throw new ToolFailedException("ffmpeg", string.Join('\n', tail));
    }

    /// <summary>Runs ffmpeg, hands over the bytes that it writes to its standard output, and gives back all that it reported, each line with its
    /// weight in front.</summary>
    /// <param name="arguments">Its arguments.</param>
    /// <param name="read">Reads what it writes.</param>
    /// <param name="cancel">Stops it.</param>
    /// <param name="aside">Whether it leaves the processor to whatever else wants it.</param>
    /// <exception cref="ToolFailedException">It ended with an error.</exception>
    public static async Task<IReadOnlyList<string>> StreamReportAsync(
        IEnumerable<string> arguments,
        Func<Stream, CancellationToken, Task> read,
        CancellationToken cancel,
        bool aside = false
    )
    {
        var said = new List<string>();
        var result = await Tool("ffmpeg", null, aside, ["-hide_banner", "-nostdin", "-nostats", "-v", "level+info", "-y", .. arguments])
            .WithStandardOutputPipe(PipeTarget.Create(read))
            .WithStandardErrorPipe(PipeTarget.ToDelegate(said.Add))
            .WithValidation(CommandResultValidation.None)
            .ExecuteAsync(cancel);
        return result.ExitCode == 0 ? said : throw Failed("ffmpeg", said.TakeLast(LinesKept), result.ExitCode, null, result.RunTime);
    }

    /// <summary>Runs ffmpeg, hands over the bytes that it writes to its standard output, and gives back the last errors that it reported and went on
    /// after.</summary>
    /// <exception cref="ToolFailedException">It ended with an error.</exception>
    public static async Task<IReadOnlyCollection<string>> StreamAsync(
        IEnumerable<string> arguments,
        Func<Stream, CancellationToken, Task> read,
        CancellationToken cancel
    )
    {
        var tail = new Queue<string>();
        var result = await Tool("ffmpeg", null, false, ["-hide_banner", "-nostdin", "-v", "error", "-y", .. arguments])
            .WithStandardOutputPipe(PipeTarget.Create(read))
            .WithStandardErrorPipe(PipeTarget.ToDelegate(line => Keep(tail, line)))
            .WithValidation(CommandResultValidation.None)
            .ExecuteAsync(cancel);
        return result.ExitCode == 0 ? tail : throw Failed("ffmpeg", tail, result.ExitCode, null, result.RunTime);
    }

    /// <summary>Runs ffmpeg with what is written to its standard input as one of its inputs.</summary>
    /// <exception cref="ToolFailedException">It ended with an error.</exception>
    public static async Task FeedAsync(IEnumerable<string> arguments, Func<Stream, CancellationToken, Task> write, CancellationToken cancel)
    {
        var tail = new Queue<string>();
        var result = await Tool("ffmpeg", null, false, ["-hide_banner", "-v", "error", "-y", .. arguments])
            .WithStandardInputPipe(PipeSource.Create(write))
            .WithStandardErrorPipe(PipeTarget.ToDelegate(line => Keep(tail, line)))
            .WithValidation(CommandResultValidation.None)
            .ExecuteAsync(cancel);
        if (result.ExitCode != 0)
            throw Failed("ffmpeg", tail, result.ExitCode, null, result.RunTime);
    }

    /// <summary>Whether a program is found on this machine.</summary>
    /// <param name="tool">Its name, or the path of its file.</param>
    public static bool IsInstalled(string tool) =>
        (Environment.GetEnvironmentVariable("PATH") ?? "").Split(Path.PathSeparator).Any(folder => File.Exists(Path.Combine(folder, tool)));

    /// <summary>Runs any other tool, which leaves the processor to whatever else wants it, and gives back what it printed.</summary>
    /// <param name="tool">Its name, or the path of its file.</param>
    /// <param name="arguments">Its arguments.</param>
    /// <param name="mostBytes">The most that it may print; one that prints more is ended.</param>
    /// <param name="limits">What it may use.</param>
    /// <param name="cancel">Ends it.</param>
    /// <param name="input">What it reads; null for nothing.</param>
    /// <exception cref="ToolFailedException">It ended with an error, or printed more.</exception>
    public static async Task<string> OutputAsync(
        string tool,
        IEnumerable<string> arguments,
        int mostBytes,
        ChildLimits limits,
        CancellationToken cancel,
        PipeSource? input = null
    )
    {
        var (tail, began, output) = (new Queue<string>(), Stopwatch.GetTimestamp(), new MemoryStream());
        using var enough = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        var isTooMuch = false;
        try
        {
            var result = await Tool(tool, limits, true, arguments)
                .WithStandardInputPipe(input ?? PipeSource.Null)
                .WithStandardOutputPipe(
                    PipeTarget.Create(
                        async (stream, token) =>
                        {
                            var block = new byte[16_384];
                            int read;
                            while ((read = await stream.ReadAsync(block, token)) > 0)
                            {
                                output.Write(block, 0, read);
                                if (output.Length <= mostBytes)
                                    continue;
                                isTooMuch = true;
                                await enough.CancelAsync();
                            }
                        }
                    )
                )
                .WithStandardErrorPipe(PipeTarget.ToDelegate(line => Keep(tail, line)))
                .WithValidation(CommandResultValidation.None)
                .ExecuteAsync(enough.Token);
            return result.ExitCode == 0
                ? System.Text.Encoding.UTF8.GetString(output.GetBuffer(), 0, (int)output.Length)
                : throw Failed(tool, tail, result.ExitCode, limits, Stopwatch.GetElapsedTime(began));
        }
        catch (OperationCanceledException) when (isTooMuch)
        {
            throw new ToolFailedException(tool, $"It printed more than {mostBytes} bytes, so it prints rubbish, and was ended.");
        }
    }

    private static Command Tool(string tool, ChildLimits? limits, bool aside, IEnumerable<string> arguments)
    {
        IReadOnlyList<string> command = [.. (limits ?? ChildLimits.Usual).Command, .. Enumerable.Repeat("nice", aside ? 1 : 0), tool, .. arguments];
        return Cli.Wrap(command[0]).WithArguments(command.Skip(1));
    }

    private static ToolFailedException Failed(string tool, IEnumerable<string> said, int exitCode, ChildLimits? limits, TimeSpan took) =>
        new(tool, string.Join('\n', said), exitCode, (limits ?? ChildLimits.Usual).WereReached(exitCode, took));

    private static void Keep(Queue<string> tail, string line)
    {
        tail.Enqueue(line);
        if (tail.Count > LinesKept)
            tail.Dequeue();
    }
}
