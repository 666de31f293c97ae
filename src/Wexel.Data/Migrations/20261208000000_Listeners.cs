using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class Listeners : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "Identity",
                table: "PodcastFeeds",
                type: "uuid",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "FeedListeners",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    OutletId = table.Column<Guid>(type: "uuid", nullable: false),
                    Name = table.Column<string>(type: "text", nullable: false),
                    Token = table.Column<string>(type: "text", nullable: false),
                    AddedAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    AskedAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    WithdrawnAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_FeedListeners", x => x.Id);
                    table.ForeignKey(
                        name: "FK_FeedListeners_PodcastFeeds_OutletId",
                        column: x => x.OutletId,
                        principalTable: "PodcastFeeds",
                        principalColumn: "OutletId",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "FeedListings",
                columns: table => new
                {
                    OutletId = table.Column<Guid>(type: "uuid", nullable: false),
                    Directory = table.Column<string>(type: "text", nullable: false),
                    Submission = table.Column<string>(type: "text", nullable: false),
                    Address = table.Column<string>(type: "text", nullable: false),
                    SubmittedAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    AnsweredAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    Page = table.Column<string>(type: "text", nullable: true),
                    Reasons = table.Column<string>(type: "jsonb", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_FeedListings", x => new { x.OutletId, x.Directory });
                    table.ForeignKey(
                        name: "FK_FeedListings_PodcastFeeds_OutletId",
                        column: x => x.OutletId,
                        principalTable: "PodcastFeeds",
                        principalColumn: "OutletId",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_FeedListeners_OutletId",
                table: "FeedListeners",
                column: "OutletId");

            migrationBuilder.CreateIndex(
                name: "IX_FeedListeners_Token",
                table: "FeedListeners",
                column: "Token",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "FeedListeners");

            migrationBuilder.DropTable(
                name: "FeedListings");

            migrationBuilder.DropColumn(
                name: "Identity",
                table: "PodcastFeeds");
        }
    }
}
