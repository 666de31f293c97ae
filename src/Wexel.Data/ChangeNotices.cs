namespace Wexel.Data;

/// <summary>What makes the database tell of changes, so that every server forgets what it remembered of them.</summary>
internal static class ChangeNotices
{
    private static readonly (string Table, string On)[] Told =
    [
        ("Releases", "insert or update or delete"),
        ("Outlets", "insert or update or delete"),
        ("AspNetUsers", "insert or update or delete"),
        ("SignedIn", "delete"),
    ];

    /// <summary>Makes the notices, for the migration that makes the tables.</summary>
    internal static string Sql =>
        "create function wexel_changed() returns trigger as $$ begin perform pg_notify('wexel_changed', TG_TABLE_NAME); return null; end $$ language plpgsql;\n"
        + string.Concat(Told.Select(t => Trigger(t.Table, t.On + " or truncate")));

    /// <summary>Makes the notice of a table, for the migration that makes it.</summary>
    /// <param name="table">The table.</param>
    /// <param name="on">At which changes.</param>
    internal static string Trigger(string table, string on) =>
        $"create trigger wexel_changed after {on} on \"{table}\" for each statement execute function wexel_changed();\n";
}
