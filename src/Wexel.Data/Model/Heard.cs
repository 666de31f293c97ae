namespace Wexel.Data.Model;

/// <summary>How far it is to listen to a recording for speech.</summary>
public enum HearingState
{
    /// <summary>It is listened to, or will be gone on with.</summary>
    Listening,

    Done,

    /// <summary>Somebody stopped it; what was heard stays.</summary>
    Stopped,

    /// <summary>The engine failed; what was heard stays.</summary>
    Failed,

    /// <summary>No engine of this server knows the language.</summary>
    NoEngine,
}

/// <summary>What was heard of a recording, word by word.</summary>
public sealed class HeardRecording
{
    public required string RecordingHash { get; init; }

    /// <summary>The language as which it was listened to, as a BCP 47 tag.</summary>
    public required string Language { get; set; }

    public HearingState State { get; set; }

    /// <summary>The <see cref="Core.Speech.HeardSpeech"/> as JSON.</summary>
    public required string Heard { get; set; }

    /// <summary>The script that is read in it, as it came; null where none is known.</summary>
    public string? Script { get; set; }

    /// <summary>How far it was listened to.</summary>
    public TimeSpan Until { get; set; }

    /// <summary>How often it was begun or gone on with since something new was heard.</summary>
    public int Attempts { get; set; }

    /// <summary>How often somebody stopped it or had it gone on with: whoever listens for an earlier time ends.</summary>
    public int Asked { get; set; }

    /// <summary>Why it failed, a sentence; null where it did not.</summary>
    public string? Failure { get; set; }
}
