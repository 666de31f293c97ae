using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class Details : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Details",
                table: "Releases",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Details",
                table: "Outlets",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Said",
                table: "Lessons",
                type: "jsonb",
                nullable: false,
                defaultValue: "{}");

            // What lessons said so far stands in their current revisions.
            migrationBuilder.Sql(
                """
                update "Lessons" l
                set "Said" = jsonb_strip_nulls(jsonb_build_object(
                    'version', 1,
                    'title', nullif(r."Document" ->> 'title', ''),
                    'description', nullif(r."Document" ->> 'description', ''),
                    'language', r."Document" ->> 'language'))
                from "LessonRevisions" r
                where r."LessonId" = l."Id" and r."Number" = l."Revision"
                """);

            migrationBuilder.AddColumn<string>(
                name: "Details",
                table: "Houses",
                type: "jsonb",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Details",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "Details",
                table: "Outlets");

            migrationBuilder.DropColumn(
                name: "Said",
                table: "Lessons");

            migrationBuilder.DropColumn(
                name: "Details",
                table: "Houses");
        }
    }
}
