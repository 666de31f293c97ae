using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class VideoServices : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "VideoPlace",
                table: "Releases",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "VideoSaidAt",
                table: "Releases",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "VideoSeenAt",
                table: "Releases",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "VideoThere",
                table: "Releases",
                type: "jsonb",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "VideoAccounts",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    Service = table.Column<string>(type: "text", nullable: false),
                    AccountId = table.Column<string>(type: "text", nullable: false),
                    Name = table.Column<string>(type: "text", nullable: false),
                    Facts = table.Column<string>(type: "jsonb", nullable: false),
                    Tokens = table.Column<string>(type: "text", nullable: false),
                    ConnectedAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    WithdrawnAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_VideoAccounts", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "VideoDays",
                columns: table => new
                {
                    ReleaseId = table.Column<Guid>(type: "uuid", nullable: false),
                    Day = table.Column<DateOnly>(type: "date", nullable: false),
                    Views = table.Column<int>(type: "integer", nullable: false),
                    Watched = table.Column<TimeSpan>(type: "interval", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_VideoDays", x => new { x.ReleaseId, x.Day });
                    table.ForeignKey(
                        name: "FK_VideoDays_Releases_ReleaseId",
                        column: x => x.ReleaseId,
                        principalTable: "Releases",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_VideoAccounts_Service_AccountId",
                table: "VideoAccounts",
                columns: new[] { "Service", "AccountId" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "VideoAccounts");

            migrationBuilder.DropTable(
                name: "VideoDays");

            migrationBuilder.DropColumn(
                name: "VideoPlace",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "VideoSaidAt",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "VideoSeenAt",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "VideoThere",
                table: "Releases");
        }
    }
}
