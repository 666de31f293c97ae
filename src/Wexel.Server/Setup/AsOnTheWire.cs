using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Wexel.Server.Setup;

/// <summary>
/// Describes the API as it is on the wire: times are whole milliseconds, and every field is always written, with null where there
/// is nothing.
/// </summary>
internal sealed class AsOnTheWire : IOpenApiSchemaTransformer
{
    public Task TransformAsync(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken cancellationToken)
    {
        var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
        if (type == typeof(TimeSpan))
        {
            var none = type == context.JsonTypeInfo.Type ? default : JsonSchemaType.Null;
            (schema.Type, schema.Format, schema.Pattern, schema.Description) = (JsonSchemaType.Integer | none, "int64", null, "milliseconds");
        }
        else if (type == typeof(IReadOnlyList<TimeSpan>))
        {
            schema.Items = new OpenApiSchema
            {
                Type = JsonSchemaType.Integer,
                Format = "int64",
                Description = "milliseconds",
            };
        }
        else if (type == typeof(string))
        {
            // What reads texts is our own (EdgeJson), of which the framework knows nothing.
            schema.Type = JsonSchemaType.String | (context.JsonPropertyInfo?.IsGetNullable == true ? JsonSchemaType.Null : default);
        }
        else if (typeof(IEnumerable<string>).IsAssignableFrom(type))
        {
            schema.Items = new OpenApiSchema { Type = JsonSchemaType.String };
        }
        else if (schema.Properties is { Count: > 0 } properties)
        {
            schema.Required = new HashSet<string>(properties.Keys);
        }

        return Task.CompletedTask;
    }
}
