namespace Wexel.Core.People;

/// <summary>What somebody of the house does with Wexel. Each may do what those before it may.</summary>
public enum PersonRole
{
    /// <summary>Watches lessons.</summary>
    Learner,

    /// <summary>Makes lessons and releases them.</summary>
    Trainer,

    /// <summary>Says who is who.</summary>
    Administrator,
}
