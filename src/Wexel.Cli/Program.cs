using Wexel.Cli;

using var stop = new CancellationTokenSource();

// Where it was started in the background, the shell lets it ignore the interrupt; it is stopped by it all the same.
using var interrupted = System.Runtime.InteropServices.PosixSignalRegistration.Create(System.Runtime.InteropServices.PosixSignal.SIGINT, Stop);
using var terminated = System.Runtime.InteropServices.PosixSignalRegistration.Create(System.Runtime.InteropServices.PosixSignal.SIGTERM, Stop);
return await CommandLine.RunAsync(args, new Surroundings(Environment.CurrentDirectory, Console.Out, Console.Error, !Console.IsErrorRedirected), stop.Token);

void Stop(System.Runtime.InteropServices.PosixSignalContext signal)
{
    signal.Cancel = true;
    stop.Cancel();
}
