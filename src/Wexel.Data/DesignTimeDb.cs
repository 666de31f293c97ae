using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace Wexel.Data;

/// <summary>Lets the migrations tool make the model without a server.</summary>
internal sealed class DesignTimeDb : IDesignTimeDbContextFactory<WexelDb>
{
    public WexelDb CreateDbContext(string[] args) => new(new DbContextOptionsBuilder<WexelDb>().UseNpgsql("Host=127.0.0.1").Options);
}
