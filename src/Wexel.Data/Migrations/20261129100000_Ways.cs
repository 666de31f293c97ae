using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class Ways : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "BatchId",
                table: "Releases",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "BytesToSend",
                table: "Releases",
                type: "bigint",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Phase",
                table: "Releases",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "PhaseAt",
                table: "Releases",
                type: "timestamp with time zone",
                nullable: false,
                defaultValue: new DateTimeOffset(new DateTime(1, 1, 1, 0, 0, 0, 0, DateTimeKind.Unspecified), new TimeSpan(0, 0, 0, 0, 0)));

            migrationBuilder.AddColumn<string>(
                name: "Problem",
                table: "Releases",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "SaidNumber",
                table: "Releases",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<long>(
                name: "SentBytes",
                table: "Releases",
                type: "bigint",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<string>(
                name: "WantedProfileId",
                table: "Releases",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "WantedVisibility",
                table: "Releases",
                type: "text",
                nullable: false,
                defaultValue: "SignedIn");

            // What stands is live, as it was wanted.
            migrationBuilder.Sql(
                """
                update "Releases"
                set "Phase" = 6, "PhaseAt" = "ReleasedAt", "WantedProfileId" = "ProfileId", "WantedVisibility" = "Visibility"
                where "MadeFrom" <> ''
                """);

            migrationBuilder.CreateTable(
                name: "ReleaseBatches",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    AskedBy = table.Column<Guid>(type: "uuid", nullable: false),
                    AskedAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    ToldAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ReleaseBatches", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Releases_BatchId",
                table: "Releases",
                column: "BatchId");

            migrationBuilder.CreateIndex(
                name: "IX_Releases_Phase",
                table: "Releases",
                column: "Phase");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "ReleaseBatches");

            migrationBuilder.DropIndex(
                name: "IX_Releases_BatchId",
                table: "Releases");

            migrationBuilder.DropIndex(
                name: "IX_Releases_Phase",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "BatchId",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "BytesToSend",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "Phase",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "PhaseAt",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "Problem",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "SaidNumber",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "SentBytes",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "WantedProfileId",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "WantedVisibility",
                table: "Releases");
        }
    }
}
