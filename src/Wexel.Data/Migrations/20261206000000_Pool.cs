using System;
using System.Collections.Generic;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class Pool : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "PooledQuestions",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    Question = table.Column<string>(type: "jsonb", nullable: false),
                    Tags = table.Column<List<string>>(type: "text[]", nullable: false),
                    Asks = table.Column<string>(type: "text", nullable: false),
                    KeptBy = table.Column<string>(type: "text", nullable: false),
                    KeptAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PooledQuestions", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_PooledQuestions_Asks",
                table: "PooledQuestions",
                column: "Asks",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "PooledQuestions");
        }
    }
}
