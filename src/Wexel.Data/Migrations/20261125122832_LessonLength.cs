using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class LessonLength : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<TimeSpan>(
                name: "Length",
                table: "Lessons",
                type: "interval",
                nullable: false,
                defaultValue: new TimeSpan(0, 0, 0, 0, 0));
            // Until now a lesson was as long as its recording.
            migrationBuilder.Sql("""
                update "Lessons" set "Length" = make_interval(secs => (r."Facts"::jsonb ->> 'length')::bigint / 1000.0)
                from "Recordings" r where r."Hash" = "RecordingHash"
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Length",
                table: "Lessons");
        }
    }
}
