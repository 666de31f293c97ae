namespace Wexel.Data;

/// <summary>What learners did is never changed, but that it may become nobody's: who wants to be forgotten is, and the counts stay.</summary>
internal static class Forgetting
{
    /// <summary>For the migration that brings it.</summary>
    internal const string Sql = """
        create or replace function wexel_appended() returns trigger as $$
            begin
                if new."Name" is null and new."LearnerKey" like 'gone-%'
                   and to_jsonb(new) - 'Name' - 'LearnerKey' = to_jsonb(old) - 'Name' - 'LearnerKey' then
                    return new;
                end if;
                raise exception 'What learners did is appended and never changed.';
            end $$ language plpgsql;
        """;
}
