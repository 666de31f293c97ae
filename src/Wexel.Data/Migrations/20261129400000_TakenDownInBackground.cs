using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class TakenDownInBackground : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "WantsDown",
                table: "Releases",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<long>(
                name: "BytesToSend",
                table: "CourseReleases",
                type: "bigint",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Phase",
                table: "CourseReleases",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "PhaseAt",
                table: "CourseReleases",
                type: "timestamp with time zone",
                nullable: false,
                defaultValue: new DateTimeOffset(new DateTime(1, 1, 1, 0, 0, 0, 0, DateTimeKind.Unspecified), new TimeSpan(0, 0, 0, 0, 0)));

            migrationBuilder.AddColumn<string>(
                name: "Problem",
                table: "CourseReleases",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "SaidNumber",
                table: "CourseReleases",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<long>(
                name: "SentBytes",
                table: "CourseReleases",
                type: "bigint",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<string>(
                name: "WantedProfileId",
                table: "CourseReleases",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "WantsDown",
                table: "CourseReleases",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            // Packages of courses that there are were made when they were wanted, and are live; the phase's number is that of Live.
            migrationBuilder.Sql("""update "CourseReleases" set "Phase" = 6, "PhaseAt" = "ReleasedAt", "WantedProfileId" = "ProfileId";""");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "WantsDown",
                table: "Releases");

            migrationBuilder.DropColumn(
                name: "BytesToSend",
                table: "CourseReleases");

            migrationBuilder.DropColumn(
                name: "Phase",
                table: "CourseReleases");

            migrationBuilder.DropColumn(
                name: "PhaseAt",
                table: "CourseReleases");

            migrationBuilder.DropColumn(
                name: "Problem",
                table: "CourseReleases");

            migrationBuilder.DropColumn(
                name: "SaidNumber",
                table: "CourseReleases");

            migrationBuilder.DropColumn(
                name: "SentBytes",
                table: "CourseReleases");

            migrationBuilder.DropColumn(
                name: "WantedProfileId",
                table: "CourseReleases");

            migrationBuilder.DropColumn(
                name: "WantsDown",
                table: "CourseReleases");
        }
    }
}
