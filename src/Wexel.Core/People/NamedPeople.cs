using Wexel.Core.Documents;

namespace Wexel.Core.People;

/// <summary>People who are named as those who may see something.</summary>
/// <param name="Mails">The mail addresses of those who are named one by one; upper and lower case are the same.</param>
/// <param name="Groups">The groups whose members may.</param>
public sealed record NamedPeople(IReadOnlyList<string> Mails, IReadOnlyList<Guid> Groups)
{
    private const int Most = 1000;

    /// <summary>Nobody.</summary>
    public static NamedPeople Nobody { get; } = new([], []);

    /// <summary>How they are kept.</summary>
    public static DocumentFormat<NamedPeople> Format { get; } = new("people who are named");

    /// <summary>As they are kept; nobody where nothing is.</summary>
    public static NamedPeople Read(string? kept) => kept is null ? Nobody : Format.Read(kept);

    /// <summary>Whether somebody is among them.</summary>
    public bool Hold(Viewer who) =>
        (who.Mail is { } mail && Mails.Contains(mail, StringComparer.OrdinalIgnoreCase)) || (who.IsSignedIn && Groups.Any(who.Groups.Contains));

    /// <summary>As somebody entered them: each once, without blanks; or what cannot be used.</summary>
    public Result<NamedPeople> Accepted()
    {
        var mails = Mails.Select(m => m.Trim()).Where(m => m.Length > 0).Distinct(StringComparer.OrdinalIgnoreCase).ToList();
        if (mails.FirstOrDefault(m => !MailAddresses.IsOne(m)) is { } odd)
            return new Problem("named-no-mail", $"“{odd}” is no mail address. Write it as name@place.", "named");
        return mails.Count + Groups.Count > Most
            ? new Problem("named-too-many", $"More than {Most:#,0} people and groups are named. Put them into a group and name that.", "named")
            : new NamedPeople(mails, [.. Groups.Distinct()]);
    }
}
