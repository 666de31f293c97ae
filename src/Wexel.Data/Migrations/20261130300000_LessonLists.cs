using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class LessonLists : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "LessonLists",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    Name = table.Column<string>(type: "text", nullable: false),
                    Token = table.Column<string>(type: "text", nullable: false),
                    Visibility = table.Column<string>(type: "text", nullable: false),
                    Named = table.Column<string>(type: "jsonb", nullable: true),
                    OwnerId = table.Column<Guid>(type: "uuid", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LessonLists", x => x.Id);
                    table.ForeignKey(
                        name: "FK_LessonLists_AspNetUsers_OwnerId",
                        column: x => x.OwnerId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                });

            migrationBuilder.CreateTable(
                name: "ListedLessons",
                columns: table => new
                {
                    ListId = table.Column<Guid>(type: "uuid", nullable: false),
                    LessonId = table.Column<Guid>(type: "uuid", nullable: false),
                    Position = table.Column<int>(type: "integer", nullable: false),
                    AddedBy = table.Column<Guid>(type: "uuid", nullable: false),
                    AddedAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ListedLessons", x => new { x.ListId, x.LessonId });
                    table.ForeignKey(
                        name: "FK_ListedLessons_LessonLists_ListId",
                        column: x => x.ListId,
                        principalTable: "LessonLists",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_ListedLessons_Lessons_LessonId",
                        column: x => x.LessonId,
                        principalTable: "Lessons",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_LessonLists_Name",
                table: "LessonLists",
                column: "Name",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_LessonLists_OwnerId",
                table: "LessonLists",
                column: "OwnerId");

            migrationBuilder.CreateIndex(
                name: "IX_LessonLists_Token",
                table: "LessonLists",
                column: "Token",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_ListedLessons_AddedBy_AddedAt",
                table: "ListedLessons",
                columns: new[] { "AddedBy", "AddedAt" });

            migrationBuilder.CreateIndex(
                name: "IX_ListedLessons_LessonId",
                table: "ListedLessons",
                column: "LessonId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "ListedLessons");

            migrationBuilder.DropTable(
                name: "LessonLists");
        }
    }
}
