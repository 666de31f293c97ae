using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class Suggestions : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "AnalysisSoFar",
                table: "Recordings",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Suggesting",
                table: "Lessons",
                type: "jsonb",
                nullable: true);

            // What an older look-through found lacks levels and still stretches: everything is looked through again.
            migrationBuilder.Sql("UPDATE \"Recordings\" SET \"Analysis\" = NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "AnalysisSoFar",
                table: "Recordings");

            migrationBuilder.DropColumn(
                name: "Suggesting",
                table: "Lessons");
        }
    }
}
