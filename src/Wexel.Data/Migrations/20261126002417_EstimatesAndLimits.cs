using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class EstimatesAndLimits : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "EstimateSampled",
                table: "Renditions",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<TimeSpan>(
                name: "Length",
                table: "Renditions",
                type: "interval",
                nullable: false,
                defaultValue: new TimeSpan(0, 0, 0, 0, 0));

            migrationBuilder.AddColumn<long>(
                name: "MostBitsPerSecond",
                table: "Outlets",
                type: "bigint",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "MostBytes",
                table: "Outlets",
                type: "bigint",
                nullable: true);

            migrationBuilder.AddColumn<TimeSpan>(
                name: "MostLength",
                table: "Outlets",
                type: "interval",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "LineBitsPerSecond",
                table: "Houses",
                type: "bigint",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "TrafficBytesAMonth",
                table: "Houses",
                type: "bigint",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "EstimateSampled",
                table: "Renditions");

            migrationBuilder.DropColumn(
                name: "Length",
                table: "Renditions");

            migrationBuilder.DropColumn(
                name: "MostBitsPerSecond",
                table: "Outlets");

            migrationBuilder.DropColumn(
                name: "MostBytes",
                table: "Outlets");

            migrationBuilder.DropColumn(
                name: "MostLength",
                table: "Outlets");

            migrationBuilder.DropColumn(
                name: "LineBitsPerSecond",
                table: "Houses");

            migrationBuilder.DropColumn(
                name: "TrafficBytesAMonth",
                table: "Houses");
        }
    }
}
