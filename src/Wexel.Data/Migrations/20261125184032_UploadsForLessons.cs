using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class UploadsForLessons : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "ForLesson",
                table: "Uploads",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "RecordingHash",
                table: "Uploads",
                type: "text",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "ForLesson",
                table: "Uploads");

            migrationBuilder.DropColumn(
                name: "RecordingHash",
                table: "Uploads");
        }
    }
}
