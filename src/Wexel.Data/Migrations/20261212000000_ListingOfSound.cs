using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class ListingOfSound : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropPrimaryKey(
                name: "PK_FeedListings",
                table: "FeedListings");

            migrationBuilder.AddColumn<bool>(
                name: "IsSound",
                table: "FeedListings",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddPrimaryKey(
                name: "PK_FeedListings",
                table: "FeedListings",
                columns: new[] { "OutletId", "Directory", "IsSound" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropPrimaryKey(
                name: "PK_FeedListings",
                table: "FeedListings");

            migrationBuilder.DropColumn(
                name: "IsSound",
                table: "FeedListings");

            migrationBuilder.AddPrimaryKey(
                name: "PK_FeedListings",
                table: "FeedListings",
                columns: new[] { "OutletId", "Directory" });
        }
    }
}
