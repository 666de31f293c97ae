namespace Wexel.Mutants;

/// <summary>A small fault that can be switched on.</summary>
/// <param name="Id">Its number, from 0; the same as long as the code is the same.</param>
/// <param name="File">The file, relative to Core, with slashes.</param>
/// <param name="Line">The line, from 1.</param>
/// <param name="Was">The expression as it stands.</param>
/// <param name="Becomes">The expression with the fault.</param>
internal sealed record Fault(int Id, string File, int Line, string Was, string Becomes)
{
    /// <summary>Whether a line of <c>same.txt</c> names it: the file, what stands there, what it becomes. Line numbers move, and are not named.</summary>
    internal bool Names(string line) => line == Name;

    /// <summary>What it is called in <c>same.txt</c>.</summary>
    internal string Name => $"{File}: {Was} => {Becomes}";

    public override string ToString() => $"{File}({Line}): {Was} => {Becomes}";
}
