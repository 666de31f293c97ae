using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace Wexel.Core.People;

/// <summary>A line of a list of people, as it was read.</summary>
/// <param name="Number">Its number in the file, from 1; of a line that goes over several, the first.</param>
/// <param name="Mail">The mail address.</param>
/// <param name="Name">The name; empty where none is said.</param>
/// <param name="Role">What they do; null where nothing is said.</param>
/// <param name="Groups">In which groups they are to be.</param>
/// <param name="Problem">Why the line cannot be used; null where it can.</param>
public sealed record PersonLine(int Number, string Mail, string Name, PersonRole? Role, IReadOnlyList<string> Groups, Problem? Problem = null);

/// <summary>
/// Lists of people as other programs write them: CSV (RFC 4180) with commas, semicolons or tabs, in any usual encoding. The first line may say what the
/// columns are; without, they are name, mail address, role and groups. Several groups stand in one cell, parted by semicolons or line breaks; a name with
/// a comma in it is quoted.
/// </summary>
public static class PeopleList
{
    /// <summary>As many lines are read at once.</summary>
    public const int Most = 20_000;

    /// <summary>The longest name of a person or a group, in characters.</summary>
    public const int LongestName = 200;

    private static readonly Dictionary<string, Column> Headings = new(StringComparer.OrdinalIgnoreCase)
    {
        ["name"] = Column.Name,
        ["full name"] = Column.Name,
        ["mail"] = Column.Mail,
        ["mail address"] = Column.Mail,
        ["email"] = Column.Mail,
        ["e-mail"] = Column.Mail,
        ["email address"] = Column.Mail,
        ["role"] = Column.Role,
        ["group"] = Column.Groups,
        ["groups"] = Column.Groups,
    };

    private enum Column
    {
        Name,
        Mail,
        Role,
        Groups,
    }

    /// <summary>Reads a list.</summary>
    /// <param name="file">The file’s bytes.</param>
    /// <returns>Its lines, those among them that cannot be used; or why none can be read.</returns>
    public static Result<IReadOnlyList<PersonLine>> Read(byte[] file)
    {
        if (PlainText.Decode(file) is not { } text)
            return new Problem("people-no-text", "This is no text file. Save the list as CSV in the program that it comes from, and choose that file.", "file");
        if (string.IsNullOrWhiteSpace(text))
            return new Problem("people-empty", "The file is empty. A line of it has a name and a mail address.", "file");
        using var reader = new CsvReader(
            new StringReader(text),
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                HasHeaderRecord = false,
                Delimiter = Delimiter(text),
                TrimOptions = TrimOptions.Trim,
                BadDataFound = null,
            }
        );
        var lines = new List<PersonLine>();
        Dictionary<Column, int>? columns = null;
        var next = 1;
        while (reader.Read())
        {
            var number = next;
            next = reader.Parser.RawRow + 1;
            var cells = reader.Parser.Record ?? [];
            if (columns is null)
            {
                columns = Columns(cells);
                if (columns is null)
                    columns = new()
                    {
                        [Column.Name] = 0,
                        [Column.Mail] = 1,
                        [Column.Role] = 2,
                        [Column.Groups] = 3,
                    };
                else if (!columns.ContainsKey(Column.Mail))
                    return new Problem(
                        "people-no-mail-column",
                        "No column is called “mail”. Call the column of the mail addresses so in the first line.",
                        "file"
                    );
                else
                    continue;
            }

            if (lines.Count == Most)
                return new Problem("people-too-many", $"The list has more than {Most:#,0} lines. Split it into several files.", "file");
            lines.Add(Line(number, cell => columns.TryGetValue(cell, out var i) && i < cells.Length ? cells[i].Trim() : ""));
        }

        if (lines.Count == 0)
            return new Problem("people-empty", "The list has a first line alone, and nobody below it.", "file");
        return new Result<IReadOnlyList<PersonLine>>(lines);
    }

    private static PersonLine Line(int number, Func<Column, string> cell)
    {
        var (mail, name, role) = (cell(Column.Mail), OneLine(cell(Column.Name)), cell(Column.Role));
        var groups = cell(Column.Groups)
            .Split([';', '\n', '\r'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Select(OneLine)
            .Distinct(StringComparer.OrdinalIgnoreCase)
            .ToList();
        PersonRole? said = Enum.TryParse<PersonRole>(role, ignoreCase: true, out var known) && !int.TryParse(role, out _) ? known : null;
        var problem =
            mail.Length == 0 ? new Problem("person-no-mail", "There is no mail address in this line.", "mail")
            : Unusable(mail, name) is { } unusable ? unusable
            : role.Length > 0 && said is null
                ? new Problem("person-role-unknown", $"“{Problem.Shown(role)}” is no role. Write learner, trainer or administrator, or nothing.", "role")
            : groups.FirstOrDefault(g => g.Length > LongestName) is { } tooLong
                ? new Problem("person-group-too-long", $"The group “{Problem.Shown(tooLong)}” has a name of more than {LongestName} characters.", "groups")
            : null;
        return new PersonLine(number, mail, name, said, groups, problem);
    }

    /// <summary>Why somebody cannot be called so; null where they can.</summary>
    /// <param name="mail">The mail address.</param>
    /// <param name="name">The name; empty where none is said.</param>
    public static Problem? Unusable(string mail, string name) =>
        !MailAddresses.IsOne(mail) ? new Problem("person-no-mail", $"“{Problem.Shown(mail)}” is no mail address. Write it as name@place.", "mail")
        : name.Length > LongestName
            ? new Problem("person-name-too-long", $"A name has at most {LongestName} characters, and this one has {name.Length}.", "name")
        : null;

    /// <summary>A name as it is kept: without line breaks, and blanks that nobody sees.</summary>
    public static string OneLine(string text) => string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));

    /// <summary>Which column is what; null where the first line says nothing of it.</summary>
    private static Dictionary<Column, int>? Columns(string[] cells)
    {
        var found = new Dictionary<Column, int>();
        foreach (var (i, cell) in cells.Index())
        {
            if (Headings.TryGetValue(cell.Trim(), out var column))
                found.TryAdd(column, i);
        }

        return found.Count == 0 ? null : found;
    }

    /// <summary>What parts the cells of the first line, outside of quotes: whichever stands there most often.</summary>
    private static string Delimiter(string text)
    {
        var (quoted, counts) = (
            false,
            new Dictionary<char, int>
            {
                [','] = 0,
                [';'] = 0,
                ['\t'] = 0,
            }
        );
        foreach (var letter in text.TakeWhile(c => quoted || c is not ('\n' or '\r')))
        {
            if (letter == '"')
                quoted = !quoted;
            else if (!quoted && counts.TryGetValue(letter, out var count))
                counts[letter] = count + 1;
        }

        return counts.MaxBy(c => c.Value).Key.ToString();
    }
}
