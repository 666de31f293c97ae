using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Wexel.Data.Migrations
{
    /// <inheritdoc />
    public partial class Administrators : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql(
                """
                INSERT INTO "AspNetRoles" ("Id", "Name", "NormalizedName", "ConcurrencyStamp")
                SELECT gen_random_uuid(), role, upper(role), gen_random_uuid()::text
                FROM (VALUES ('trainer'), ('administrator')) AS roles (role)
                WHERE NOT EXISTS (SELECT 1 FROM "AspNetRoles" WHERE "Name" = role);

                -- Whoever could do everything before can do everything still.
                INSERT INTO "AspNetUserRoles" ("UserId", "RoleId")
                SELECT held."UserId", (SELECT "Id" FROM "AspNetRoles" WHERE "Name" = 'administrator')
                FROM "AspNetUserRoles" AS held JOIN "AspNetRoles" AS role ON role."Id" = held."RoleId" AND role."Name" = 'trainer'
                ON CONFLICT DO NOTHING;
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            migrationBuilder.Sql("""DELETE FROM "AspNetRoles" WHERE "Name" = 'administrator';""");
    }
}
