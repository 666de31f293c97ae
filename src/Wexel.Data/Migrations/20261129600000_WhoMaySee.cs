using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class WhoMaySee : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "EndsAt",
                table: "Releases",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Named",
                table: "Releases",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "OwnerId",
                table: "Lessons",
                type: "uuid",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "PeopleGroups",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    Name = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PeopleGroups", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "GroupMembers",
                columns: table => new
                {
                    GroupId = table.Column<Guid>(type: "uuid", nullable: false),
                    PersonId = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_GroupMembers", x => new { x.GroupId, x.PersonId });
                    table.ForeignKey(
                        name: "FK_GroupMembers_AspNetUsers_PersonId",
                        column: x => x.PersonId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_GroupMembers_PeopleGroups_GroupId",
                        column: x => x.GroupId,
                        principalTable: "PeopleGroups",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_GroupMembers_PersonId",
                table: "GroupMembers",
                column: "PersonId");

            migrationBuilder.CreateIndex(
                name: "IX_PeopleGroups_Name",
                table: "PeopleGroups",
                column: "Name",
                unique: true);

            // Nobody noted whose a lesson is: whoever released it first has it.
            migrationBuilder.Sql(Owners);
            migrationBuilder.Sql(ChangeNotices.Trigger("GroupMembers", "insert or update or delete or truncate"));
            migrationBuilder.Sql(ChangeNotices.Trigger("Lessons", "update of \"OwnerId\""));
        }

        private const string Owners = """
            update "Lessons" l set "OwnerId" = coalesce(
                (select b."AskedBy" from "Releases" r join "ReleaseBatches" b on b."Id" = r."BatchId" where r."LessonId" = l."Id" order by b."AskedAt" limit 1),
                (select u."UserId" from "AspNetUserRoles" u join "AspNetRoles" o on o."Id" = u."RoleId" where o."Name" = 'trainer' order by u."UserId" limit 1));
            """;

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("drop trigger wexel_changed on \"Lessons\"");

            migrationBuilder.DropTable(
                name: "GroupMembers");

            migrationBuilder.DropTable(
                name: "PeopleGroups");

            migrationBuilder.DropColumn(
                name: "EndsAt",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "Named",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "OwnerId",
                table: "Lessons");
        }
    }
}
