using System;
using System.Collections.Generic;
using Microsoft.EntityFrameworkCore.Migrations;
using NpgsqlTypes;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class LearnersSearch : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "ReleasedTexts",
                columns: table => new
                {
                    ReleaseId = table.Column<Guid>(type: "uuid", nullable: false),
                    Dictionary = table.Column<string>(type: "text", nullable: false),
                    Lines = table.Column<List<string>>(type: "text[]", nullable: false),
                    Headings = table.Column<NpgsqlTsVector>(type: "tsvector", nullable: false),
                    Stems = table.Column<NpgsqlTsVector>(type: "tsvector", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ReleasedTexts", x => new { x.ReleaseId, x.Dictionary });
                    table.ForeignKey(
                        name: "FK_ReleasedTexts_Releases_ReleaseId",
                        column: x => x.ReleaseId,
                        principalTable: "Releases",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ReleasedWords",
                columns: table => new
                {
                    Word = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ReleasedWords", x => x.Word);
                });

            migrationBuilder.CreateIndex(
                name: "IX_ReleasedTexts_Stems",
                table: "ReleasedTexts",
                column: "Stems")
                .Annotation("Npgsql:IndexMethod", "gin")
                .Annotation("Npgsql:StorageParameter:fastupdate", false);

            migrationBuilder.CreateIndex(
                name: "IX_ReleasedWords_Word",
                table: "ReleasedWords",
                column: "Word")
                .Annotation("Npgsql:IndexMethod", "gin")
                .Annotation("Npgsql:IndexOperators", new[] { "gin_trgm_ops" });

            // What is searched is what stands on the page; where that becomes another, it is made again from it.
            migrationBuilder.Sql(
                """
                create function wexel_released_text() returns trigger as $$
                begin delete from "ReleasedTexts" where "ReleaseId" = new."Id"; return null; end $$ language plpgsql;
                create trigger wexel_released_text after update of "Player" on "Releases"
                for each row when (old."Player" is distinct from new."Player") execute function wexel_released_text();
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql(
                """
                drop trigger wexel_released_text on "Releases";
                drop function wexel_released_text();
                """
            );

            migrationBuilder.DropTable(
                name: "ReleasedTexts");

            migrationBuilder.DropTable(
                name: "ReleasedWords");
        }
    }
}
