namespace Wexel.Server.Setup;

/// <summary>The server cannot start for a reason that whoever starts it can mend.</summary>
/// <param name="sentence">What it is, and what to do.</param>
internal sealed class CannotStartException(string sentence) : Exception(sentence);
