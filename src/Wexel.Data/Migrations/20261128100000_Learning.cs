using System;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class Learning : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "LearningLog",
                columns: table => new
                {
                    Number = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    EventId = table.Column<Guid>(type: "uuid", nullable: false),
                    LearnerKey = table.Column<string>(type: "text", nullable: false),
                    Name = table.Column<string>(type: "text", nullable: true),
                    LessonId = table.Column<Guid>(type: "uuid", nullable: false),
                    OutletId = table.Column<Guid>(type: "uuid", nullable: true),
                    ReleaseId = table.Column<Guid>(type: "uuid", nullable: true),
                    Revision = table.Column<int>(type: "integer", nullable: false),
                    Attempt = table.Column<int>(type: "integer", nullable: false),
                    Kind = table.Column<string>(type: "text", nullable: false),
                    Data = table.Column<string>(type: "jsonb", nullable: false),
                    At = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LearningLog", x => x.Number);
                    table.ForeignKey(
                        name: "FK_LearningLog_Lessons_LessonId",
                        column: x => x.LessonId,
                        principalTable: "Lessons",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_LearningLog_EventId",
                table: "LearningLog",
                column: "EventId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_LearningLog_LessonId_LearnerKey_Number",
                table: "LearningLog",
                columns: new[] { "LessonId", "LearnerKey", "Number" });

            migrationBuilder.Sql(LearningHistory.Sql);

            migrationBuilder.DropColumn(
                name: "Position",
                table: "LearnerRecords");

            migrationBuilder.RenameColumn(
                name: "Watched",
                table: "LearnerRecords",
                newName: "State");

            migrationBuilder.AddColumn<int>(
                name: "Version",
                table: "LearnerRecords",
                type: "integer",
                nullable: false,
                defaultValue: 0);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("drop function wexel_appended() cascade;");

            migrationBuilder.DropTable(
                name: "LearningLog");

            migrationBuilder.DropColumn(
                name: "Version",
                table: "LearnerRecords");

            migrationBuilder.RenameColumn(
                name: "State",
                table: "LearnerRecords",
                newName: "Watched");

            migrationBuilder.AddColumn<TimeSpan>(
                name: "Position",
                table: "LearnerRecords",
                type: "interval",
                nullable: false,
                defaultValue: new TimeSpan(0, 0, 0, 0, 0));
        }
    }
}
