using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class NothingLost : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "LookAgainAt",
                table: "Recordings",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "LookThroughs",
                table: "Recordings",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "DisabledAt",
                table: "AspNetUsers",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "LastCodeHash",
                table: "AspNetUsers",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "LastCodeStep",
                table: "AspNetUsers",
                type: "bigint",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "SignedIn",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    PersonId = table.Column<Guid>(type: "uuid", nullable: false),
                    KeyHash = table.Column<string>(type: "text", nullable: false),
                    Ticket = table.Column<byte[]>(type: "bytea", nullable: false),
                    Since = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    SeenAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    ExpiresAt = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    Address = table.Column<string>(type: "text", nullable: true),
                    Browser = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SignedIn", x => x.Id);
                    table.ForeignKey(
                        name: "FK_SignedIn_AspNetUsers_PersonId",
                        column: x => x.PersonId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Uploads_By",
                table: "Uploads",
                column: "By");

            migrationBuilder.CreateIndex(
                name: "IX_Uploads_ExpiresAt",
                table: "Uploads",
                column: "ExpiresAt");

            migrationBuilder.CreateIndex(
                name: "IX_SignedIn_KeyHash",
                table: "SignedIn",
                column: "KeyHash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_SignedIn_PersonId",
                table: "SignedIn",
                column: "PersonId");

            // Every server hears which of these changes, whoever changes it, so that what it remembers of them is never old.
            migrationBuilder.Sql("""
                create function wexel_changed() returns trigger as $$ begin perform pg_notify('wexel_changed', TG_TABLE_NAME); return null; end $$ language plpgsql;
                create trigger wexel_changed after insert or update or delete or truncate on "Releases" for each statement execute function wexel_changed();
                create trigger wexel_changed after insert or update or delete or truncate on "Outlets" for each statement execute function wexel_changed();
                create trigger wexel_changed after insert or update or delete or truncate on "AspNetUsers" for each statement execute function wexel_changed();
                create trigger wexel_changed after delete or truncate on "SignedIn" for each statement execute function wexel_changed();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("drop function wexel_changed() cascade;");

            migrationBuilder.DropTable(
                name: "SignedIn");

            migrationBuilder.DropIndex(
                name: "IX_Uploads_By",
                table: "Uploads");

            migrationBuilder.DropIndex(
                name: "IX_Uploads_ExpiresAt",
                table: "Uploads");

            migrationBuilder.DropColumn(
                name: "LookAgainAt",
                table: "Recordings");

            migrationBuilder.DropColumn(
                name: "LookThroughs",
                table: "Recordings");

            migrationBuilder.DropColumn(
                name: "DisabledAt",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "LastCodeHash",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "LastCodeStep",
                table: "AspNetUsers");
        }
    }
}
