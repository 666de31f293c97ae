using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class Contents : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "ScreenFailure",
                table: "Recordings",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ScreenReadAs",
                table: "Recordings",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Proposing",
                table: "Lessons",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Script",
                table: "Lessons",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Script",
                table: "HeardRecordings",
                type: "text",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "ScreenFailure",
                table: "Recordings");

            migrationBuilder.DropColumn(
                name: "ScreenReadAs",
                table: "Recordings");

            migrationBuilder.DropColumn(
                name: "Proposing",
                table: "Lessons");

            migrationBuilder.DropColumn(
                name: "Script",
                table: "Lessons");

            migrationBuilder.DropColumn(
                name: "Script",
                table: "HeardRecordings");
        }
    }
}
