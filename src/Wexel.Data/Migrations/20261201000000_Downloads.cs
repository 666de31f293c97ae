using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class Downloads : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "DownloadContainer",
                table: "Releases",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "DownloadHeight",
                table: "Releases",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "DownloadKey",
                table: "Releases",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "DownloadWidth",
                table: "Releases",
                type: "integer",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "DownloadContainer",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "DownloadHeight",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "DownloadKey",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "DownloadWidth",
                table: "Releases");
        }
    }
}
