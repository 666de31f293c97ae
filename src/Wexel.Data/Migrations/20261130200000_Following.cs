using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class Following : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "FollowersToldAt",
                table: "Releases",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "OpeningToldAt",
                table: "Releases",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "MailsDaily",
                table: "AspNetUsers",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.Sql(Forgetting.Sql);

            // What stood there before anybody could follow is news to nobody.
            migrationBuilder.Sql(
                """
                update "Releases" set "FollowersToldAt" = now()
                where "MadeFrom" <> '' and "Visibility" not in ('OnlyMe', 'WithLink') and ("OpensAt" is null or "OpensAt" <= now());
                update "Releases" set "OpeningToldAt" = now() where "OpensAt" <= now();
                """
            );

            migrationBuilder.CreateTable(
                name: "Follows",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    PersonId = table.Column<Guid>(type: "uuid", nullable: false),
                    OutletId = table.Column<Guid>(type: "uuid", nullable: true),
                    CourseId = table.Column<Guid>(type: "uuid", nullable: true),
                    Since = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Follows", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Follows_AspNetUsers_PersonId",
                        column: x => x.PersonId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Follows_Courses_CourseId",
                        column: x => x.CourseId,
                        principalTable: "Courses",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Follows_Outlets_OutletId",
                        column: x => x.OutletId,
                        principalTable: "Outlets",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "FollowerMails",
                columns: table => new
                {
                    PersonId = table.Column<Guid>(type: "uuid", nullable: false),
                    LessonId = table.Column<Guid>(type: "uuid", nullable: false),
                    ReleaseId = table.Column<Guid>(type: "uuid", nullable: false),
                    FollowId = table.Column<Guid>(type: "uuid", nullable: false),
                    DueAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    SentAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    Refusal = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_FollowerMails", x => new { x.PersonId, x.LessonId });
                    table.ForeignKey(
                        name: "FK_FollowerMails_Follows_FollowId",
                        column: x => x.FollowId,
                        principalTable: "Follows",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_FollowerMails_Releases_ReleaseId",
                        column: x => x.ReleaseId,
                        principalTable: "Releases",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_FollowerMails_DueAt",
                table: "FollowerMails",
                column: "DueAt",
                filter: "\"SentAt\" is null");

            migrationBuilder.CreateIndex(
                name: "IX_FollowerMails_FollowId",
                table: "FollowerMails",
                column: "FollowId");

            migrationBuilder.CreateIndex(
                name: "IX_FollowerMails_ReleaseId",
                table: "FollowerMails",
                column: "ReleaseId");

            migrationBuilder.CreateIndex(
                name: "IX_Follows_CourseId",
                table: "Follows",
                column: "CourseId");

            migrationBuilder.CreateIndex(
                name: "IX_Follows_OutletId",
                table: "Follows",
                column: "OutletId");

            migrationBuilder.CreateIndex(
                name: "IX_Follows_PersonId_CourseId",
                table: "Follows",
                columns: new[] { "PersonId", "CourseId" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Follows_PersonId_OutletId",
                table: "Follows",
                columns: new[] { "PersonId", "OutletId" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "FollowerMails");

            migrationBuilder.DropTable(
                name: "Follows");

            migrationBuilder.DropColumn(
                name: "FollowersToldAt",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "OpeningToldAt",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "MailsDaily",
                table: "AspNetUsers");
        }
    }
}
