using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Wexel.Server.Setup;

/// <summary>
/// Describes the API as it is on the wire: times are whole milliseconds, and every field is always written, with null where there
/// is nothing, unless a type says that it is left out.
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
            schema.Required = new HashSet<string>(properties.Keys.Except(context.JsonTypeInfo.Properties.Where(IsLeftOut).Select(p => p.Name)));
        }

        return Task.CompletedTask;
    }

    /// <summary>Whether a field is not written where there is nothing.</summary>
    private static bool IsLeftOut(JsonPropertyInfo property) =>
        property.AttributeProvider?.GetCustomAttributes(typeof(JsonIgnoreAttribute), inherit: false)
            is [JsonIgnoreAttribute { Condition: not JsonIgnoreCondition.Never }];
}
