namespace Wexel.Data;

/// <summary>What was known of learners before there was a log becomes its first events, and nothing in the log is changed from then on.</summary>
internal static class LearningHistory
{
    /// <summary>For the migration that makes the log, before the records are of another shape. They are reckoned from the log when a server starts.</summary>
    internal const string Sql = """
        insert into "LearningLog" ("EventId", "LearnerKey", "Name", "LessonId", "OutletId", "ReleaseId", "Revision", "Attempt", "Kind", "Data", "At")
        select r."Id", r."LearnerKey", r."Name", r."LessonId", release."OutletId", release."Id",
               coalesce(release."Revision", lesson."Revision"), 1, 'watched-before',
               jsonb_build_object(
                   'version', 1,
                   'ranges', (select coalesce(jsonb_agg(jsonb_build_object('start', range->0, 'end', range->1)), '[]')
                              from jsonb_array_elements(r."Watched") range),
                   'position', (extract(epoch from r."Position") * 1000)::bigint,
                   'completedAt', r."CompletedAt"),
               r."SeenLastAt"
        from "LearnerRecords" r
        join "Lessons" lesson on lesson."Id" = r."LessonId"
        left join lateral (
            select releases."Id", releases."OutletId", releases."Revision" from "Releases" releases join "Outlets" outlets on outlets."Id" = releases."OutletId"
            where releases."LessonId" = r."LessonId" and outlets."Kind" = 'channel' limit 1) release on true;
        delete from "LearnerRecords";
        create function wexel_appended() returns trigger as $$
            begin raise exception 'What learners did is appended and never changed.'; end $$ language plpgsql;
        create trigger wexel_appended before update on "LearningLog" for each row execute function wexel_appended();
        """;
}
