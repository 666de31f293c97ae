using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class SignInWays : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "ProviderId",
                table: "SignedIn",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ProviderSession",
                table: "SignedIn",
                type: "text",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "AspNetUserPasskeys",
                columns: table => new
                {
                    CredentialId = table.Column<byte[]>(type: "bytea", nullable: false),
                    UserId = table.Column<Guid>(type: "uuid", nullable: false),
                    Data = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AspNetUserPasskeys", x => x.CredentialId);
                    table.ForeignKey(
                        name: "FK_AspNetUserPasskeys_AspNetUsers_UserId",
                        column: x => x.UserId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "SignInProviders",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    Name = table.Column<string>(type: "text", nullable: false),
                    Address = table.Column<string>(type: "text", nullable: false),
                    Client = table.Column<string>(type: "text", nullable: false),
                    Secret = table.Column<string>(type: "text", nullable: true),
                    Scopes = table.Column<string>(type: "text", nullable: false),
                    GroupClaim = table.Column<string>(type: "text", nullable: false),
                    OwnsAddresses = table.Column<bool>(type: "boolean", nullable: false),
                    Version = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SignInProviders", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "ProviderGroups",
                columns: table => new
                {
                    ProviderId = table.Column<Guid>(type: "uuid", nullable: false),
                    Value = table.Column<string>(type: "text", nullable: false),
                    GroupId = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ProviderGroups", x => new { x.ProviderId, x.Value, x.GroupId });
                    table.ForeignKey(
                        name: "FK_ProviderGroups_PeopleGroups_GroupId",
                        column: x => x.GroupId,
                        principalTable: "PeopleGroups",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_ProviderGroups_SignInProviders_ProviderId",
                        column: x => x.ProviderId,
                        principalTable: "SignInProviders",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_SignedIn_ProviderId_ProviderSession",
                table: "SignedIn",
                columns: new[] { "ProviderId", "ProviderSession" });

            migrationBuilder.CreateIndex(
                name: "IX_AspNetUserPasskeys_UserId",
                table: "AspNetUserPasskeys",
                column: "UserId");

            migrationBuilder.CreateIndex(
                name: "IX_ProviderGroups_GroupId",
                table: "ProviderGroups",
                column: "GroupId");

            migrationBuilder.CreateIndex(
                name: "IX_SignInProviders_Name",
                table: "SignInProviders",
                column: "Name",
                unique: true);

            migrationBuilder.AddForeignKey(
                name: "FK_SignedIn_SignInProviders_ProviderId",
                table: "SignedIn",
                column: "ProviderId",
                principalTable: "SignInProviders",
                principalColumn: "Id",
                onDelete: ReferentialAction.Cascade);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_SignedIn_SignInProviders_ProviderId",
                table: "SignedIn");

            migrationBuilder.DropTable(
                name: "AspNetUserPasskeys");

            migrationBuilder.DropTable(
                name: "ProviderGroups");

            migrationBuilder.DropTable(
                name: "SignInProviders");

            migrationBuilder.DropIndex(
                name: "IX_SignedIn_ProviderId_ProviderSession",
                table: "SignedIn");

            migrationBuilder.DropColumn(
                name: "ProviderId",
                table: "SignedIn");

            migrationBuilder.DropColumn(
                name: "ProviderSession",
                table: "SignedIn");
        }
    }
}
