using System;
using System.Collections.Generic;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class Hearing : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<List<string>>(
                name: "LeftInText",
                table: "Lessons",
                type: "text[]",
                nullable: false,
                defaultValueSql: "'{}'");

            migrationBuilder.AddColumn<string>(
                name: "Words",
                table: "Houses",
                type: "jsonb",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "HeardRecordings",
                columns: table => new
                {
                    RecordingHash = table.Column<string>(type: "text", nullable: false),
                    Language = table.Column<string>(type: "text", nullable: false),
                    State = table.Column<string>(type: "text", nullable: false),
                    Heard = table.Column<string>(type: "jsonb", nullable: false),
                    Until = table.Column<TimeSpan>(type: "interval", nullable: false),
                    Attempts = table.Column<int>(type: "integer", nullable: false),
                    Asked = table.Column<int>(type: "integer", nullable: false),
                    Failure = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_HeardRecordings", x => x.RecordingHash);
                    table.ForeignKey(
                        name: "FK_HeardRecordings_Recordings_RecordingHash",
                        column: x => x.RecordingHash,
                        principalTable: "Recordings",
                        principalColumn: "Hash",
                        onDelete: ReferentialAction.Cascade);
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "HeardRecordings");

            migrationBuilder.DropColumn(
                name: "LeftInText",
                table: "Lessons");

            migrationBuilder.DropColumn(
                name: "Words",
                table: "Houses");
        }
    }
}
