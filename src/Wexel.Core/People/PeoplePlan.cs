namespace Wexel.Core.People;

/// <summary>Somebody who is known already.</summary>
/// <param name="Mail">The mail address.</param>
/// <param name="Name">The name.</param>
/// <param name="Role">What they do.</param>
/// <param name="Groups">In which groups they are.</param>
/// <param name="IsGuest">Whether they came by a code, and do not belong to the house.</param>
/// <param name="IsDisabled">Whether they can sign in no more.</param>
public sealed record KnownPerson(string Mail, string Name, PersonRole Role, IReadOnlyList<string> Groups, bool IsGuest = false, bool IsDisabled = false);

/// <summary>What a line of a list does.</summary>
public enum LineEffect
{
    /// <summary>Somebody new is added.</summary>
    Adds,

    /// <summary>Somebody who is known is changed.</summary>
    Changes,

    /// <summary>All that it says is so already.</summary>
    Nothing,

    /// <summary>A line before it names the same address.</summary>
    Repeats,

    /// <summary>It cannot be used.</summary>
    Refused,
}

/// <summary>A line with what it will do.</summary>
/// <param name="Line">The line.</param>
/// <param name="Effect">What it will do.</param>
/// <param name="Words">The same in words.</param>
/// <param name="Wanted">How the person will be then; null where the line does nothing.</param>
public sealed record PlannedLine(PersonLine Line, LineEffect Effect, string Words, KnownPerson? Wanted = null);

/// <summary>What a list of people will do, line by line, before any of it is done; and, done twice, nothing the second time.</summary>
public static class PeoplePlan
{
    /// <summary>What each line will do.</summary>
    /// <param name="lines">The lines, in their order.</param>
    /// <param name="known">Who is known, at least of those whom the lines name.</param>
    public static IReadOnlyList<PlannedLine> Plan(IReadOnlyList<PersonLine> lines, IEnumerable<KnownPerson> known)
    {
        var people = known.ToDictionary(p => p.Mail, StringComparer.OrdinalIgnoreCase);
        var named = new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase);
        return [.. lines.Select(line => Planned(line, people, named))];
    }

    private static PlannedLine Planned(PersonLine line, Dictionary<string, KnownPerson> people, Dictionary<string, int> named)
    {
        if (line.Problem is { } problem)
            return new PlannedLine(line, LineEffect.Refused, problem.Sentence);
        if (!named.TryAdd(line.Mail, line.Number))
            return new PlannedLine(line, LineEffect.Repeats, $"Line {named[line.Mail]} names the same address; this one does nothing.");
        return people.TryGetValue(line.Mail, out var before) ? Known(line, before) : New(line);
    }

    private static PlannedLine New(PersonLine line)
    {
        if (line.Name.Length == 0)
            return new PlannedLine(line, LineEffect.Refused, "This address is new, and there is no name in the line. Write the name.");
        var role = line.Role ?? PersonRole.Learner;
        return new PlannedLine(line, LineEffect.Adds, $"Added as {In(role)}{InGroups(line.Groups)}.", new KnownPerson(line.Mail, line.Name, role, line.Groups));
    }

    private static PlannedLine Known(PersonLine line, KnownPerson before)
    {
        var joins = line.Groups.Except(before.Groups, StringComparer.OrdinalIgnoreCase).ToList();
        var after = before with
        {
            Name = line.Name.Length > 0 ? line.Name : before.Name,
            Role = line.Role ?? before.Role,
            Groups = [.. before.Groups, .. joins],
            IsGuest = false,
        };
        List<string> words = [];
        if (before.IsGuest)
            words.Add("belongs to the house from now on");
        if (after.Name != before.Name)
            words.Add($"is called {after.Name} instead of {before.Name}");
        if (after.Role != before.Role)
            words.Add($"becomes {In(after.Role)}");
        if (joins.Count > 0)
            words.Add($"joins {string.Join(", ", joins)}");
        var disabled = before.IsDisabled ? " They can sign in no more, and that stays so." : "";
        return words.Count == 0
            ? new PlannedLine(line, LineEffect.Nothing, $"All of it is so already.{disabled}")
            : new PlannedLine(line, LineEffect.Changes, $"{before.Name} {string.Join(", ", words)}.{disabled}", after);
    }

    private static string In(PersonRole role) => role == PersonRole.Administrator ? "an administrator" : $"a {role.ToString().ToLowerInvariant()}";

    private static string InGroups(IReadOnlyList<string> groups) => groups.Count == 0 ? "" : $", in {string.Join(", ", groups)}";
}
