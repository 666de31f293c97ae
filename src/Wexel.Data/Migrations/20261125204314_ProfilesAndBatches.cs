using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class ProfilesAndBatches : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.RenameColumn(
                name: "RequestedBy",
                table: "Renditions",
                newName: "BatchId");

            migrationBuilder.AddColumn<bool>(
                name: "Alone",
                table: "Renditions",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "Attempts",
                table: "Renditions",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<double>(
                name: "Place",
                table: "Renditions",
                type: "double precision",
                nullable: false,
                defaultValue: 0.0);

            migrationBuilder.AddColumn<string>(
                name: "PosterKey",
                table: "Renditions",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Profile",
                table: "Renditions",
                type: "jsonb",
                nullable: false,
                defaultValue: "{}");

            migrationBuilder.AddColumn<string>(
                name: "Container",
                table: "Releases",
                type: "text",
                nullable: false,
                defaultValue: "Mp4");

            migrationBuilder.AddColumn<string>(
                name: "PosterKey",
                table: "Releases",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ProfileId",
                table: "Outlets",
                type: "text",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Profiles",
                columns: table => new
                {
                    Id = table.Column<string>(type: "text", nullable: false),
                    Document = table.Column<string>(type: "jsonb", nullable: false),
                    ChangedBy = table.Column<string>(type: "text", nullable: false),
                    ChangedAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Profiles", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "RenderBatches",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    RequestedBy = table.Column<Guid>(type: "uuid", nullable: false),
                    RequestedAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    ToldAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_RenderBatches", x => x.Id);
                });

            // What was asked for before there were batches was a batch of one; what it was made with were the profiles that shipped.
            migrationBuilder.Sql("""
                insert into "RenderBatches" ("Id", "RequestedBy", "RequestedAt", "ToldAt") select "Id", "BatchId", "RequestedAt", "EndedAt" from "Renditions";
                update "Renditions" set "BatchId" = "Id", "Place" = extract(epoch from "RequestedAt"), "PosterKey" = "EncodeKey", "Profile" = jsonb_build_object(
                    'id', "ProfileId", 'description', '', 'container', 'mp4', 'captions', 'beside', 'chapters', true, 'indexAtFront', true,
                    'title', case "ProfileId" when 'web' then 'Web, as recorded' when 'web-720p' then 'Web 720p' when 'small-480p' then 'Small 480p' when 'podcast-720p' then 'Podcast 720p' else "ProfileId" end,
                    'picture', jsonb_build_object(
                        'codec', 'h264', 'h264Profile', 'high', 'effort', 'faster', 'houseMark', true,
                        'size', case "ProfileId" when 'web' then '{"rule": "asCanvas"}'::jsonb when 'small-480p' then '{"rule": "atMostHeight", "height": 480}'::jsonb else '{"rule": "atMostHeight", "height": 720}'::jsonb end,
                        'timing', case "ProfileId" when 'podcast-720p' then '{"rule": "asRecorded"}'::jsonb else '{"rule": "asDrawn"}'::jsonb end,
                        'rate', jsonb_build_object('rule', 'quality', 'quality', case "ProfileId" when 'small-480p' then 23 else 20 end)),
                    'sound', '{"codec": "aac", "sampleRate": 48000, "channels": "asRecorded", "targetLufs": -16}'::jsonb);
                update "Releases" r set "PosterKey" = (select d."EncodeKey" from "Renditions" d where d."LessonId" = r."LessonId" and d."ProfileId" = r."ProfileId" and d."State" = 'Done' order by d."RequestedAt" desc limit 1);
                """);

            migrationBuilder.CreateIndex(
                name: "IX_Renditions_BatchId",
                table: "Renditions",
                column: "BatchId");

            migrationBuilder.AddForeignKey(
                name: "FK_Renditions_RenderBatches_BatchId",
                table: "Renditions",
                column: "BatchId",
                principalTable: "RenderBatches",
                principalColumn: "Id",
                onDelete: ReferentialAction.Cascade);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_Renditions_RenderBatches_BatchId",
                table: "Renditions");

            migrationBuilder.DropTable(
                name: "Profiles");

            migrationBuilder.DropTable(
                name: "RenderBatches");

            migrationBuilder.DropIndex(
                name: "IX_Renditions_BatchId",
                table: "Renditions");

            migrationBuilder.DropColumn(
                name: "Alone",
                table: "Renditions");

            migrationBuilder.DropColumn(
                name: "Attempts",
                table: "Renditions");

            migrationBuilder.DropColumn(
                name: "Place",
                table: "Renditions");

            migrationBuilder.DropColumn(
                name: "PosterKey",
                table: "Renditions");

            migrationBuilder.DropColumn(
                name: "Profile",
                table: "Renditions");

            migrationBuilder.DropColumn(
                name: "Container",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "PosterKey",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "ProfileId",
                table: "Outlets");

            migrationBuilder.RenameColumn(
                name: "BatchId",
                table: "Renditions",
                newName: "RequestedBy");
        }
    }
}
