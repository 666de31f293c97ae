using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class SoundBeside : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(
                name: "SoundBytes",
                table: "Releases",
                type: "bigint",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "SoundKey",
                table: "Releases",
                type: "text",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "SoundBytes",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "SoundKey",
                table: "Releases");
        }
    }
}
