using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class MarkAndRevisions : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "RestoredFrom",
                table: "LessonRevisions",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "MarkHeight",
                table: "Houses",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "MarkPlacement",
                table: "Houses",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "MarkWidth",
                table: "Houses",
                type: "integer",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "RestoredFrom",
                table: "LessonRevisions");

            migrationBuilder.DropColumn(
                name: "MarkHeight",
                table: "Houses");

            migrationBuilder.DropColumn(
                name: "MarkPlacement",
                table: "Houses");

            migrationBuilder.DropColumn(
                name: "MarkWidth",
                table: "Houses");
        }
    }
}
