using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class LearningSystems : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "SentAt",
                table: "Releases",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "SentKey",
                table: "Releases",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "SentTo",
                table: "Releases",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Address",
                table: "Outlets",
                type: "text",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "CourseReleases",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    CourseId = table.Column<Guid>(type: "uuid", nullable: false),
                    OutletId = table.Column<Guid>(type: "uuid", nullable: false),
                    ProfileId = table.Column<string>(type: "text", nullable: false),
                    MadeFrom = table.Column<string>(type: "jsonb", nullable: false),
                    ReleasedAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    PackageKey = table.Column<string>(type: "text", nullable: true),
                    PackageFiles = table.Column<string>(type: "jsonb", nullable: true),
                    PackageBytes = table.Column<long>(type: "bigint", nullable: false),
                    SentKey = table.Column<string>(type: "text", nullable: true),
                    SentAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    SentTo = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_CourseReleases", x => x.Id);
                    table.ForeignKey(
                        name: "FK_CourseReleases_Courses_CourseId",
                        column: x => x.CourseId,
                        principalTable: "Courses",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_CourseReleases_Outlets_OutletId",
                        column: x => x.OutletId,
                        principalTable: "Outlets",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_CourseReleases_CourseId_OutletId",
                table: "CourseReleases",
                columns: new[] { "CourseId", "OutletId" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_CourseReleases_OutletId",
                table: "CourseReleases",
                column: "OutletId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "CourseReleases");

            migrationBuilder.DropColumn(
                name: "SentAt",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "SentKey",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "SentTo",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "Address",
                table: "Outlets");
        }
    }
}
