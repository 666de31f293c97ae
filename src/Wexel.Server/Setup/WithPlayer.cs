using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using Wexel.Core.Packages;

namespace Wexel.Server.Setup;

/// <summary>Describes beside the API what a learner's page tells its player, so that both sides have it from one place.</summary>
internal sealed class WithPlayer : IOpenApiDocumentTransformer
{
    public async Task TransformAsync(OpenApiDocument document, OpenApiDocumentTransformerContext context, CancellationToken cancellationToken) =>
        document.AddComponent(nameof(PlayerData), await context.GetOrCreateSchemaAsync(typeof(PlayerData), null, cancellationToken));
}
