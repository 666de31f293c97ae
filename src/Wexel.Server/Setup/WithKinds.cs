using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Wexel.Server.Setup;

/// <summary>Describes what is of several kinds as it is on the wire: what says of which kind it is, is always written.</summary>
internal sealed class WithKinds : IOpenApiDocumentTransformer
{
    public Task TransformAsync(OpenApiDocument document, OpenApiDocumentTransformerContext context, CancellationToken cancellationToken)
    {
        foreach (var several in document.Components?.Schemas?.Values.OfType<OpenApiSchema>().Where(s => s.Discriminator is not null).ToList() ?? [])
        {
            foreach (var kind in several.AnyOf?.OfType<OpenApiSchemaReference>() ?? [])
            {
                if (kind.Reference.Id is { } id && document.Components!.Schemas![id] is OpenApiSchema one)
                    (one.Required ??= new HashSet<string>()).Add(several.Discriminator!.PropertyName!);
            }
        }

        return Task.CompletedTask;
    }
}
