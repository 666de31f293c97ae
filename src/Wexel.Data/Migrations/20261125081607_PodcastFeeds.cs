using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class PodcastFeeds : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Episode",
                table: "Releases",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "FirstReleasedAt",
                table: "Releases",
                type: "timestamp with time zone",
                nullable: false,
                defaultValue: new DateTimeOffset(new DateTime(1, 1, 1, 0, 0, 0, 0, DateTimeKind.Unspecified), new TimeSpan(0, 0, 0, 0, 0)));

            migrationBuilder.Sql("""update "Releases" set "FirstReleasedAt" = "ReleasedAt";""");

            migrationBuilder.CreateTable(
                name: "PodcastFeeds",
                columns: table => new
                {
                    OutletId = table.Column<Guid>(type: "uuid", nullable: false),
                    Token = table.Column<string>(type: "text", nullable: false),
                    Settings = table.Column<string>(type: "jsonb", nullable: false),
                    ArtworkKey = table.Column<string>(type: "text", nullable: false),
                    Artwork = table.Column<string>(type: "jsonb", nullable: false),
                    ArtworkIsOwn = table.Column<bool>(type: "boolean", nullable: false),
                    ChangedAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PodcastFeeds", x => x.OutletId);
                    table.ForeignKey(
                        name: "FK_PodcastFeeds_Outlets_OutletId",
                        column: x => x.OutletId,
                        principalTable: "Outlets",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_PodcastFeeds_Token",
                table: "PodcastFeeds",
                column: "Token",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "PodcastFeeds");

            migrationBuilder.DropColumn(
                name: "Episode",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "FirstReleasedAt",
                table: "Releases");
        }
    }
}
